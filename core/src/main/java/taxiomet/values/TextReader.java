package taxiomet.values;

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
        long[] spans = cells.spans(size);
        int most = limit == ColumnType.UNBOUNDED ? Integer.MAX_VALUE : limit;
        boolean keeps = into.keepsValues();
        if (!keeps || !isPadded) {
            // Nothing is odd about a text, and one of no more bytes than it may have characters is not too long.
            int signs = 0;
            for (int row = 0; row < size; row++) {
                int length = (int) spans[row];
                signs |= length | most - length;
            }
            if (signs >= 0) {
                if (keeps) {
                    keepLengths(spans, size, into);
                }
                return 0;
            }
        }
        return super.readAll(cells, into);
    }

    private static void keepLengths(long[] spans, int size, TypedColumn into) {
        long[] highs = into.highs;
        long[] lows = into.lows;
        for (int row = 0; row < size; row++) {
            highs[row] = 0;
            lows[row] = (int) spans[row];
        }
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
