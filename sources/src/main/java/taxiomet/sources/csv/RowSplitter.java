package taxiomet.sources.csv;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowBatch.MalformedRow;
import taxiomet.rows.RowRef;
import taxiomet.sources.file.Utf8;
import taxiomet.values.CellColumn;

/**
 * Takes the rows of a chunk apart by its marks, into the spans of a batch's columns. Rows without quotes go through {@link
 * #splitPlain}, the hot loop; all others, and all that are not as they should be, through {@link #splitRecord}. What it
 * makes of a document is what a library makes of it: tests compare the two on random ones. The loops stand in one file,
 * since they share what they stand on.
 *
 * <p>Cells made row by row in a block take 0.47 ns a byte of the decision-support tables; made column by column from the marks, they
 * took 0.6.
 */
final class RowSplitter {
    /** One in so many rows has its place remembered. */
    private static final int PLACE_STEP = 128;

    private static final int FIRST_ROOM = 2_048;
    /** In UTF-8, at most. */
    private static final int BYTES_PER_CHARACTER = 4;

    private static final int BLOCK_ROWS = 64;
    /** Room for the cells of one field in a block; no power of two, which would have all fields share few lines of the cache. */
    private static final int STRIDE = BLOCK_ROWS + Long.BYTES;

    private final byte delimiter;
    private final byte quote;
    private final NullWords nullWords;
    private final int fieldCount;
    private final CsvFields fields;
    private final RowBatch batch;
    private final long[] unwanted = new long[FIRST_ROOM];
    private final long[][] spans;

    private final FieldCursor cursor;

    private Chunk chunk;
    private boolean checksBytes;

    // Where it stands: a place, whose mark the cursor has, and counts since the chunk began.
    private int at;
    private int records;
    private int lines;
    private boolean isHeaderNext;
    private int rows;
    /** The cells of some rows just found, field by field. */
    private final long[] block;

    private int[] recordOfRow = new int[FIRST_ROOM];
    private int[] lineOfRow = new int[FIRST_ROOM];
    private int room;

    private final List<Malformed> malformed = new ArrayList<>();
    private final List<Place> places = new ArrayList<>();
    private final UnescapedCells unescaped = new UnescapedCells();
    private long emptyLines;
    private long endOffset;
    private long bytesReadAgain;

    /** A row that is none, by its number in the chunk. */
    private record Malformed(int record, int line, String reason, String raw) {}

    /** Where a row begins, counted since the chunk began. */
    record Place(int record, int line, long offset) {}

    /** @param batch gets the cells */
    RowSplitter(CsvFields fields, RowBatch batch) {
        this.fields = fields;
        this.batch = batch;
        this.delimiter = fields.form().delimiter();
        this.quote = fields.form().quote();
        this.fieldCount = fields.count();
        this.spans = new long[fieldCount][];
        this.block = new long[fieldCount * STRIDE];
        this.nullWords = fields.form().nullWords();
        this.cursor = new FieldCursor(delimiter, quote, nullWords, fieldCount, unescaped);
        ensureRoom(FIRST_ROOM);
    }

    private void ensureRoom(int count) {
        room = count;
        if (recordOfRow.length < count) {
            recordOfRow = Arrays.copyOf(recordOfRow, count);
            lineOfRow = Arrays.copyOf(lineOfRow, count);
        }
        long[] dropped = unwanted.length < count ? new long[count] : unwanted;
        for (int field = 0; field < fieldCount; field++) {
            int column = fields.columnOf(field);
            spans[field] = column < 0 ? dropped : batch.column(column).spans(count);
        }
    }

    /**
     * Takes apart the rows that begin from one place to another, exclusive.
     *
     * @param headerIsNext whether the first row is the one that names the columns
     * @param isSure whether a row begins at {@code from}; otherwise the chunk is not made longer to find out
     * @return false when it cannot be done without being sure
     */
    boolean split(Chunk toSplit, int from, int to, boolean headerIsNext, boolean isSure) throws IOException {
        chunk = toSplit;
        checksBytes = false;
        start(from, headerIsNext, isSure);
        try {
            splitTo(to);
            if (chunk.marks().hasHighBytes() && !Utf8.isValid(chunk.bytes(), from, Math.min(at, chunk.length()))) {
                checksBytes = true;
                start(from, headerIsNext, isSure);
                splitTo(to);
            }
            return true;
        } catch (FieldCursor.Unsure e) {
            return false;
        }
    }

    private void start(int from, boolean headerIsNext, boolean isSure) {
        isHeaderNext = headerIsNext;
        at = from;
        records = 0;
        lines = 0;
        rows = 0;
        emptyLines = 0;
        bytesReadAgain = 0;
        malformed.clear();
        places.clear();
        unescaped.clear();
        cursor.start(chunk, from, isSure);
        endOffset = -1;
    }

    private void splitTo(int to) throws IOException {
        int nextPlace = 0;
        while (at < to) {
            if (records >= nextPlace && !isHeaderNext) {
                places.add(new Place(records, lines, chunk.offsetOf(at)));
                nextPlace = records + PLACE_STEP;
            }
            if (rows + PLACE_STEP + 1 > room) {
                ensureRoom(room * 2);
            }
            int before = at;
            if (!isHeaderNext && !checksBytes) {
                splitPlain(to, records + BLOCK_ROWS);
            }
            if (at == before) {
                splitRecord();
                if (endOffset >= 0) {
                    return;
                }
            }
        }
        endOffset = chunk.offsetOf(at);
    }

    /**
     * Finds rows as they usually are, until one is not: as many fields as there should be, without control characters, and nothing in
     * quotes that needs a closer look. Their cells are made row by row in a block that stays in the cache, and taken from there column
     * by column.
     */
    private void splitPlain(int to, int mostRecords) {
        byte[] from = chunk.bytes();
        int[] found = chunk.marks().places();
        long[] cells = block;
        int[] recordNumbers = recordOfRow;
        int[] lineNumbers = lineOfRow;
        byte between = delimiter;
        int last = fieldCount - 1;
        int lastMark = chunk.marks().count() - fieldCount - 1;
        int rowStart = at;
        int next = cursor.mark();
        int firstRow = rows;
        int row = firstRow;
        int record = records;
        int line = lines;
        while (rowStart < to && next <= lastMark && record < mostRecords) {
            int start = rowStart;
            int cell = row - firstRow;
            int others = 0;
            for (int field = 0; field < last; field++) {
                int end = found[next + field];
                others |= from[end] ^ between;
                cells[field * STRIDE + cell] = CellColumn.span(start, nullIfEmpty(end - start));
                start = end + 1;
            }
            int behind = next + fieldCount;
            int end = found[behind - 1];
            cells[last * STRIDE + cell] = CellColumn.span(start, nullIfEmpty(end - start));
            boolean isPlain = others == 0 && from[end] == '\n';
            if (others == 0 && from[end] == '\r' && found[behind] == end + 1 && from[end + 1] == '\n') {
                isPlain = true;
                end++;
                behind++;
            }
            if (!isPlain) {
                behind = splitQuoted(rowStart, next, row - firstRow);
                if (behind < 0) {
                    break;
                }
                end = found[behind - 1];
            }
            recordNumbers[row] = record++;
            lineNumbers[row++] = line++;
            next = behind;
            rowStart = end + 1;
        }
        for (int field = 0; field <= last; field++) {
            if (fields.columnOf(field) >= 0) {
                System.arraycopy(cells, field * STRIDE, spans[field], firstRow, row - firstRow);
            }
        }
        at = rowStart;
        cursor.goTo(next);
        rows = row;
        records = record;
        lines = line;
    }

    /**
     * Takes a row apart some of whose fields are in quotes, without line breaks or doubled quotes inside.
     *
     * @return the number of the mark behind the row; -1 when it is another kind of row
     */
    private int splitQuoted(int rowStart, int firstMark, int row) {
        byte[] from = chunk.bytes();
        int[] found = chunk.marks().places();
        int last = fieldCount - 1;
        int lastMark = chunk.marks().count() - 2;
        int current = firstMark;
        int start = rowStart;
        for (int field = 0; field <= last; field++) {
            if (current > lastMark) {
                return -1;
            }
            int end = found[current++];
            int first = start;
            int length = end - start;
            if (from[end] == quote && length == 0) {
                do {
                    if (current > lastMark || from[found[current]] < ' ') {
                        return -1;
                    }
                    end = found[current++];
                } while (from[end] != quote);
                first = start + 1;
                length = end - first;
                if (found[current++] != ++end) {
                    return -1;
                }
            } else {
                length = nullIfEmpty(length);
            }
            if (field < last ? from[end] != delimiter : from[end] != '\n' && from[end] != '\r') {
                return -1;
            }
            block[field * STRIDE + row] = CellColumn.span(first, length);
            start = end + 1;
        }
        if (from[start - 1] == '\r') {
            return current < chunk.marks().count() && found[current] == start && from[start] == '\n' ? current + 1 : -1;
        }
        return current;
    }

    /** The length of an unquoted field as that of a cell, without a branch: nobody can guess which fields are empty. */
    private static int nullIfEmpty(int length) {
        return length - (length - 1 >>> 31);
    }

    /** Takes one row apart, whatever is in it. */
    private void splitRecord() throws IOException {
        int start = at;
        int firstMark = cursor.mark();
        int end = cursor.splitRow(start, spans, rows);
        if (cursor.syntaxFault() != null) {
            unescaped.drop(rows);
            endMalformed(start, firstMark);
            return;
        }
        int next = cursor.behindBreak(end);
        int record = records;
        if (end == start && (fieldCount != 1 || isHeaderNext)) {
            emptyLines++;
        } else if (isHeaderNext) {
            isHeaderNext = false;
            unescaped.drop(rows);
        } else {
            records++;
            String fault = fault(start, end);
            if (fault == null) {
                recordOfRow[rows] = record;
                lineOfRow[rows++] = lines;
            } else {
                unescaped.drop(rows);
                malformed.add(new Malformed(record, lines, fault, rawLine(start)));
            }
        }
        lines += cursor.breaksInside() + 1;
        at = next;
    }

    /** Ends a row that cannot be taken apart: the next begins with the next line, wherever that may be. */
    private void endMalformed(int start, int firstMark) throws IOException {
        malformed.add(new Malformed(records++, lines++, cursor.syntaxFault(), rawLine(start)));
        int breakPlace = cursor.nextBreak(firstMark);
        if (breakPlace < 0) {
            endOffset = chunk.isAtEnd() ? chunk.offsetOf(chunk.length()) : chunk.offsetOfLineBehind();
            at = chunk.length();
            return;
        }
        at = cursor.behindBreak(breakPlace);
        bytesReadAgain += Math.max(0, cursor.faultPlace() - at);
    }

    /** The line that begins at a place, as far as it is shown. */
    private String rawLine(int start) {
        byte[] bytes = chunk.bytes();
        int most = Math.min(chunk.length(), start + BYTES_PER_CHARACTER * MalformedRow.MOST_RAW);
        int end = start;
        while (end < most && bytes[end] != '\n' && bytes[end] != '\r') {
            end++;
        }
        String raw = fields.form().restored(new String(bytes, start, end - start, StandardCharsets.UTF_8));
        return raw.substring(
                0, raw.offsetByCodePoints(0, Math.min(MalformedRow.MOST_RAW, raw.codePointCount(0, raw.length()))));
    }

    /** Why a row whose fields could be told apart is malformed all the same; null when it is sound. */
    private String fault(int start, int end) {
        byte[] bytes = chunk.bytes();
        if (cursor.isSuspicious() || (checksBytes && !Utf8.isValid(bytes, start, end))) {
            String fault = RowFault.ofCharacters(bytes, start, end, delimiter, quote, nullWords);
            if (fault != null) {
                return fault;
            }
        }
        return cursor.fieldsSeen() == fieldCount ? null : RowFault.wrongCount(cursor.fieldsSeen(), fieldCount);
    }

    /** Where the first row begins that was left to the next chunk. */
    long endOffset() {
        return endOffset;
    }

    /** How many rows there were, sound or not. */
    int records() {
        return records;
    }

    /** How many lines were passed. */
    int lines() {
        return lines;
    }

    /** Whether the row that names the columns is still to come. */
    boolean isHeaderNext() {
        return isHeaderNext;
    }

    long emptyLines() {
        return emptyLines;
    }

    /** How many bytes behind quotes left open are looked at again. */
    long bytesReadAgain() {
        return bytesReadAgain;
    }

    List<Place> places() {
        return places;
    }

    /** Puts the characters that changed places for taking the text apart back in theirs. */
    private void restoreCells() {
        for (int field = 0; field < fieldCount; field++) {
            for (int row = 0; row < rows && fields.columnOf(field) >= 0; row++) {
                int length = (int) spans[field][row];
                if (length > 0) {
                    String cell =
                            new String(chunk.bytes(), (int) (spans[field][row] >>> 32), length, StandardCharsets.UTF_8);
                    String restored = fields.form().restored(cell);
                    if (!restored.equals(cell)) {
                        byte[] text = restored.getBytes(StandardCharsets.UTF_8);
                        spans[field][row] = CellColumn.span(chunk.addText(text, text.length), text.length);
                    }
                }
            }
        }
    }

    /** Hands the rows to the batch, once it is known which they are. */
    void handOver(int part, long firstRow, long firstLine) {
        if (nullWords.areAny()) {
            for (int field = 0; field < fieldCount; field++) {
                if (fields.columnOf(field) >= 0) {
                    nullWords.find(chunk.bytes(), spans[field], rows, quote);
                }
            }
        }
        unescaped.handOver(chunk, spans);
        if (fields.form().areExchanged()) {
            restoreCells();
        }
        batch.clear();
        for (int column = 0; column < batch.columnCount(); column++) {
            batch.column(column).set(chunk.bytes(), rows);
        }
        long firstRef = RowRef.of(part, firstRow);
        batch.setRows(rows, (refs, lineNumbers) -> {
            for (int row = 0; row < rows; row++) {
                refs[row] = firstRef + recordOfRow[row];
                lineNumbers[row] = firstLine + lineOfRow[row];
            }
        });
        for (Malformed row : malformed) {
            batch.addMalformed(
                    new MalformedRow(firstRef + row.record(), firstLine + row.line(), row.reason(), row.raw()));
        }
    }
}
