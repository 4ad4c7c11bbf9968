package taxiomet.finding;

import java.util.function.Consumer;

/** All rows of a finding, wherever they are kept; usable until the run that found them is closed. */
@FunctionalInterface
public interface EvidenceRows {
    /** Hands over every row: duplicates group by group, others as they stand in their table. */
    void forEach(Consumer<Evidence> reader);
}
