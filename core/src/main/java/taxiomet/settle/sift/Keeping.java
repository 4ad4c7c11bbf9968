package taxiomet.settle.sift;

import java.util.Map;

/**
 * Which row stays of several that share a key.
 *
 * @param byTable for tables that have a choice of their own, by name
 * @param otherwise for all others
 */
public record Keeping(Map<String, Choice> byTable, Choice otherwise) {
    /** Nothing is chosen: no row stays, unless all are the same in every column. */
    public static final Keeping NOTHING = new Keeping(Map.of(), new Choice.None());

    public Keeping {
        byTable = Map.copyOf(byTable);
    }

    /** One way to choose. */
    public sealed interface Choice {
        /** None of them stays. */
        record None() implements Choice {}

        /** The first as they stand. */
        record First() implements Choice {}

        /** The last as they stand. */
        record Last() implements Choice {}

        /** The one with the fewest nulls and blank texts; of several the first. */
        record MostComplete() implements Choice {}

        /**
         * The one with the least value in a column, or the greatest; a null is chosen last, and of several the first row.
         *
         * @param column its name
         * @param isGreatest whether the greatest value stays, and not the least
         */
        record ByColumn(String column, boolean isGreatest) implements Choice {}
    }

    /** The choice for a table. */
    Choice of(String table) {
        return byTable.getOrDefault(table, otherwise);
    }
}
