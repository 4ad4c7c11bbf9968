package taxiomet.check.pass;

import java.time.LocalDate;
import java.util.Optional;
import java.util.Set;

/**
 * What a check is to do.
 *
 * @param only names of the tables to judge; empty for all. Parents of their links are read for their keys
 * @param examples how many rows a finding shows
 * @param hinted for how many different values without a parent, the commonest first, a parent is looked for that may have
 *     been meant; 0 for none
 * @param isInside whether rows are looked for where they live, as far as that can be done there
 * @param today the day on which the charter's accepted findings are borne or not; empty where none is
 */
public record CheckOptions(Set<String> only, int examples, int hinted, boolean isInside, Optional<LocalDate> today) {
    private static final int LEAST_NAMED_VALUES = 3;
    /** So many values that are hinted at are named as well: enough to tell what would cure most. */
    public static final int MOST_NAMED_VALUES = 50;

    public CheckOptions {
        only = Set.copyOf(only);
    }

    /** All rows are read, and no finding is borne. */
    public CheckOptions(Set<String> only, int examples, int hinted) {
        this(only, examples, hinted, false, Optional.empty());
    }

    /** How many of the different values without a parent a finding names, however few rows it shows: those that are hinted at too. */
    public int namedValues() {
        return Math.max(Math.max(LEAST_NAMED_VALUES, examples), Math.min(hinted, MOST_NAMED_VALUES));
    }

    /** Whether a table is among those to judge. */
    public boolean judges(String table) {
        return only.isEmpty() || only.contains(table);
    }

    /** How many of the different values without a parent are kept for a finding and its hints. */
    public int namedOrHinted() {
        return Math.max(hinted, namedValues());
    }
}
