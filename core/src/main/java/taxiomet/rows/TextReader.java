package taxiomet.rows;

import taxiomet.charter.ColumnType;

/** char(n), varchar(n) and text. Characters are Unicode code points; trailing blanks of a char(n) do not count. */
final class TextReader extends ValueReader {
    private final boolean isPadded;
    private final int limit;

    TextReader(ColumnType type) {
        isPadded = type.name() == ColumnType.Name.CHAR;
        limit = type.length();
    }

    @Override
    int readAll(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        byte[] states = into.states;
        long[] highs = into.highs;
        long[] lows = into.lows;
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            if (length < 0) {
                states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
                continue;
            }
            int start = (int) (spans[row] >>> 32);
            if (!isPadded && (length <= limit || limit == ColumnType.UNBOUNDED)) {
                states[row] = TypedColumn.GOOD;
                highs[row] = 0;
                lows[row] = length;
                seen |= 1 << TypedColumn.GOOD;
                continue;
            }
            seen |= 1 << into.readOne(this, bytes, row, start, length);
        }
        return seen;
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        int end = start + length;
        if (isPadded) {
            while (end > start && bytes[end - 1] == ' ') {
                end--;
            }
        }
        high = 0;
        low = end - start;
        if (limit != ColumnType.UNBOUNDED && low > limit && codePoints(bytes, start, end) > limit) {
            return refuse(Refusal.TOO_LONG);
        }
        return TypedColumn.GOOD;
    }

    /** How many code points UTF-8 bytes hold: all bytes but those that continue a character. */
    static int codePoints(byte[] bytes, int from, int end) {
        int count = 0;
        for (int at = from; at < end; at++) {
            if ((bytes[at] & 0xC0) != 0x80) {
                count++;
            }
        }
        return count;
    }
}
