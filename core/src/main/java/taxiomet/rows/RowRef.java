package taxiomet.rows;

/**
 * Names a row of a table in one long: the part (0 for the first file) in the high bits, the row number in the part (1 for
 * its first data row) in the low 40. References sort as the rows stand.
 */
public final class RowRef {
    private static final int ROW_BITS = 40;
    private static final long ROW_MASK = (1L << ROW_BITS) - 1;

    /** The greatest reference there can be. */
    public static final long MAX = (1L << 61) - 1;

    private RowRef() {}

    /** The reference of a row, by its part (from 0) and its number in it (from 1). */
    public static long of(int part, long row) {
        return ((long) part << ROW_BITS) | row;
    }

    /** The part, 0 for the first. */
    public static int part(long ref) {
        return (int) (ref >>> ROW_BITS);
    }

    /** The number in the part, 1 for the first data row. */
    public static long row(long ref) {
        return ref & ROW_MASK;
    }
}
