package taxiomet.rows;

import java.util.List;
import taxiomet.charter.IntRange;

/**
 * A condition that every row meets that is at fault in one way. Sound rows may meet it, too: those that do are looked at like all rows
 * otherwise are. Columns stand by their places in the table.
 */
public sealed interface Suspicion {
    /** A cell is null. */
    record Null(int column) implements Suspicion {}

    /** A value is not of the column's declared type, or oddly written. */
    record NotAsDeclared(int column) implements Suspicion {}

    /** A text has fewer or more characters (Unicode code points). */
    record LengthOutside(int column, IntRange range) implements Suspicion {}

    /** A value is none of some that are written as the column's. */
    record NotAmong(int column, List<String> values) implements Suspicion {
        public NotAmong {
            values = List.copyOf(values);
        }
    }

    /**
     * Another row has the same values.
     *
     * @param nullsAreEqual whether rows with nulls among them are asked about, a null being equal to a null
     */
    record Repeated(List<Integer> columns, boolean nullsAreEqual) implements Suspicion {
        public Repeated {
            columns = List.copyOf(columns);
        }
    }

    /** Some cells are null, and not all of them. */
    record PartlyNull(List<Integer> columns) implements Suspicion {
        public PartlyNull {
            columns = List.copyOf(columns);
        }
    }

    /**
     * No cell is null, and no row of another table, or of the same, has the values. Of the rows of which it is asked, exactly those meet it
     * whose values are all of their types.
     *
     * @param parent the name of that table
     * @param parentColumns by their places in it
     */
    record WithoutParent(List<Integer> columns, String parent, List<Integer> parentColumns) implements Suspicion {
        public WithoutParent {
            columns = List.copyOf(columns);
            parentColumns = List.copyOf(parentColumns);
        }
    }
}
