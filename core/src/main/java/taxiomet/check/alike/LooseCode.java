package taxiomet.check.alike;

import taxiomet.keys.TypedBatch;

/** One number for all values that agree loosely but for slips. */
public final class LooseCode {
    /** The code of no value. */
    public static final long NONE = 0;

    private LooseCode() {}

    /** The code of a value of a batch; two values of a column have the same if they agree, or with a chance of about 1 in 2^60. */
    public static long of(TypedBatch batch, int column, int row) {
        LooseValue value = LooseValue.of(batch, column, row);
        if (value == null) {
            return NONE;
        }
        long[] record = new long[LooseRows.LONGS_OF_COLUMN];
        LooseRows.encode(value, record, 0);
        return LooseRows.whole(record, 0) | 1;
    }
}
