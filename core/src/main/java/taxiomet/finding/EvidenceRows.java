package taxiomet.finding;

import java.util.function.Consumer;

/** All rows of a finding, wherever they are kept; usable until the run that found them is closed. */
@FunctionalInterface
public interface EvidenceRows {
    /**
     * Hands over the first rows: duplicates group by group, others as they stand in their table.
     *
     * @param most how many
     */
    void first(long most, Consumer<Evidence> reader);

    /** Hands over every row. */
    default void forEach(Consumer<Evidence> reader) {
        first(Long.MAX_VALUE, reader);
    }
}
