package taxiomet.sources.csv;

import java.io.IOException;
import taxiomet.sources.file.Utf8;
import taxiomet.values.CellColumn;

/**
 * Takes single rows of a chunk apart field by field, whatever is in them, and has the chunk made longer when a row goes on behind its
 * end.
 */
final class FieldCursor {
    private final byte delimiter;
    private final byte quote;
    private final NullWords nullWords;
    private final int fieldCount;
    private final UnescapedCells unescaped;

    private Chunk chunk;
    private byte[] bytes;
    private int[] marks;
    private int markCount;
    private boolean mayExtend;
    /** The number of the mark at or behind the place where it stands. */
    private int mark;

    // How the row at hand went.
    private int fieldsSeen;
    private int breaksInside;
    private boolean isSuspicious;
    private String syntaxFault;
    private int faultPlace;

    /** More bytes are needed than may be looked at before it is sure where the rows of the chunk begin. */
    static final class Unsure extends RuntimeException {
        private static final long serialVersionUID = 1;

        Unsure() {
            super(null, null, false, false);
        }
    }

    /** @param unescaped gets the cells in which quotes are doubled */
    FieldCursor(byte delimiter, byte quote, NullWords nullWords, int fieldCount, UnescapedCells unescaped) {
        this.delimiter = delimiter;
        this.quote = quote;
        this.nullWords = nullWords;
        this.fieldCount = fieldCount;
        this.unescaped = unescaped;
    }

    /**
     * Goes to a place of a chunk.
     *
     * @param isSure whether a row begins there; otherwise the chunk is not made longer to find out
     */
    void start(Chunk toSplit, int place, boolean isSure) {
        chunk = toSplit;
        mayExtend = isSure;
        refresh();
        mark = chunk.marks().firstFrom(place);
    }

    /** Takes over what the chunk holds now. */
    private void refresh() {
        bytes = chunk.bytes();
        marks = chunk.marks().places();
        markCount = chunk.marks().count();
    }

    int mark() {
        return mark;
    }

    void goTo(int numberOfMark) {
        mark = numberOfMark;
    }

    /** More bytes behind those there are; false at the end of the part. */
    private boolean more() throws IOException {
        if (chunk.isAtEnd()) {
            return false;
        }
        if (!mayExtend) {
            throw new Unsure();
        }
        chunk.extend();
        refresh();
        return true;
    }

    /** Whether there is a byte at a place. */
    private boolean isThere(int place) throws IOException {
        while (place >= chunk.length()) {
            if (!more()) {
                return false;
            }
        }
        return true;
    }

    /**
     * Takes a row apart; its cells go into the spans.
     *
     * @return where it ends: the place of its line break, or the end of the part. Where there is a {@link #syntaxFault}, that says nothing
     */
    int splitRow(int start, long[][] spans, int row) throws IOException {
        fieldsSeen = 0;
        breaksInside = 0;
        isSuspicious = false;
        syntaxFault = null;
        int end = start;
        boolean goesOn = true;
        while (goesOn) {
            end = splitField(end, spans, row);
            goesOn = syntaxFault == null && isThere(end) && bytes[end] == delimiter;
            if (goesOn) {
                end++;
                mark++;
            }
        }
        return end;
    }

    /** The place behind the line break at a place, and its marks passed over; the place itself at the end of the part. */
    int behindBreak(int place) throws IOException {
        if (!isThere(place)) {
            return place;
        }
        mark++;
        if (bytes[place] == '\r' && isThere(place + 1) && bytes[place + 1] == '\n') {
            mark++;
            return place + 2;
        }
        return place + 1;
    }

    /** Takes the field at a place; gives the place behind it: a delimiter, a line break, or the end of the part. */
    private int splitField(int start, long[][] spans, int row) throws IOException {
        int field = fieldsSeen++;
        if (!isThere(start) || bytes[start] != quote) {
            int end = endOfUnquoted(start);
            if (field < fieldCount) {
                boolean isNull = nullWords.isNull(bytes, start, end - start);
                spans[field][row] = CellColumn.span(start, isNull ? CellColumn.NULL : end - start);
            }
            return end;
        }
        mark++;
        int from = start + 1;
        int doubled = 0;
        while (true) {
            if (mark == markCount) {
                if (isTooLong(from, chunk.length(), doubled)) {
                    return failWith(RowFault.TOO_LONG, chunk.length());
                }
                if (!more()) {
                    return failWith(RowFault.NEVER_CLOSED, chunk.length());
                }
                continue;
            }
            int place = marks[mark];
            byte b = bytes[place];
            if (b == quote) {
                if (!isThere(place + 1) || bytes[place + 1] != quote) {
                    break;
                }
                doubled++;
                mark += 2;
                continue;
            }
            if (b == '\n' || (b == '\r' && !(isThere(place + 1) && bytes[place + 1] == '\n'))) {
                breaksInside++;
                if (isTooLong(from, place, doubled)) {
                    return failWith(RowFault.TOO_LONG, place);
                }
            }
            isSuspicious |= b == 0;
            mark++;
        }
        int end = marks[mark++];
        if (isTooLong(from, end, doubled)) {
            return failWith(RowFault.TOO_LONG, end);
        }
        if (isThere(end + 1) && bytes[end + 1] != delimiter && bytes[end + 1] != '\n' && bytes[end + 1] != '\r') {
            return failWith(RowFault.BEHIND_QUOTE, end + 1);
        }
        if (field < fieldCount) {
            if (doubled == 0) {
                spans[field][row] = CellColumn.span(from, end - from);
            } else {
                unescaped.add(field, row, bytes, from, end, quote);
            }
        }
        return end + 1;
    }

    private boolean isTooLong(int from, int to, int doubled) {
        return to - from - doubled > CsvPart.MAX_FIELD && Utf8.units(bytes, from, to) - doubled > CsvPart.MAX_FIELD;
    }

    private int failWith(String reason, int place) {
        syntaxFault = reason;
        faultPlace = place;
        return place;
    }

    private int endOfUnquoted(int start) throws IOException {
        while (true) {
            if (mark == markCount) {
                if (isTooLong(start, chunk.length(), 0)) {
                    return failWith(RowFault.TOO_LONG, chunk.length());
                }
                if (!more()) {
                    return chunk.length();
                }
                continue;
            }
            int place = marks[mark];
            byte b = bytes[place];
            if (b == delimiter || b == '\n' || b == '\r') {
                return isTooLong(start, place, 0) ? failWith(RowFault.TOO_LONG, place) : place;
            }
            isSuspicious |= b == quote || b == 0;
            mark++;
        }
    }

    /**
     * Goes to the first line break from a mark on, wherever it stands; gives its place.
     *
     * @return -1 when there is none in all that was looked at: there is no need to keep that in order to find one
     */
    int nextBreak(int firstMark) {
        mark = firstMark;
        while (mark < markCount && bytes[marks[mark]] != '\n' && bytes[marks[mark]] != '\r') {
            mark++;
        }
        if (mark < markCount) {
            return marks[mark];
        }
        if (!mayExtend && !chunk.isAtEnd()) {
            throw new Unsure();
        }
        return -1;
    }

    /** How many fields the row has. */
    int fieldsSeen() {
        return fieldsSeen;
    }

    /** How many line breaks stand inside its quotes. */
    int breaksInside() {
        return breaksInside;
    }

    /** Whether there is something in it that may not be: it takes a closer look. */
    boolean isSuspicious() {
        return isSuspicious;
    }

    /** Why it cannot be taken apart; null when it can. */
    String syntaxFault() {
        return syntaxFault;
    }

    /** How far it was looked at for the fault to be seen. */
    int faultPlace() {
        return faultPlace;
    }
}
