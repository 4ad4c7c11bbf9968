package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.RecordType;
import java.util.Arrays;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowBatch.MalformedRow;
import taxiomet.rows.RowRef;
import taxiomet.sources.file.PlaceIndex;
import taxiomet.sources.file.RowQueue;
import taxiomet.values.CellColumn;

/**
 * Puts the fields of records into batches. It is called for each field, and written for speed: characters go straight into the
 * column's bytes, in one loop that also looks for what makes a row malformed.
 */
final class RecordHandler extends CsvCallbackHandler<Boolean> {
    private static final int NOT_WANTED = -1;
    private static final int BYTES_PER_CHARACTER = 3;

    private final LineReader reader;
    private final int part;
    private final char quote;
    private final char[][] nullWords;
    private final CsvFields layout;
    private RowBatch batch;
    private final PlaceIndex places;
    private final RowQueue wanted;

    private long lineBase;
    private long row;
    private long line;
    private int fields;
    private boolean isEmptyLine;
    private boolean isWanted;
    private String fault;
    private long rowBytes;
    private long emptyLines;

    /**
     * @param batch gets the rows; whoever reads records empties it when it is full
     * @param places gets the places of some rows; null when they are known
     * @param wanted the rows to hand over; null for all
     */
    RecordHandler(LineReader reader, int part, CsvFields layout, RowBatch batch, PlaceIndex places, RowQueue wanted) {
        this.reader = reader;
        this.part = part;
        this.quote = layout.format().quote();
        this.nullWords =
                layout.format().nullWords().stream().map(String::toCharArray).toArray(char[][]::new);
        this.layout = layout;
        this.batch = batch;
        this.places = places;
        this.wanted = wanted;
    }

    /** Records that follow begin at this line; the next one is row {@code nextRow}, 0 for a header. */
    void startAt(long firstLine, long nextRow) {
        lineBase = firstLine - 1;
        row = nextRow - 1;
    }

    /** Rows that follow go into another batch. */
    void writeTo(RowBatch next) {
        batch = next;
    }

    @Override
    protected void beginRecord(long startingLine) {
        line = lineBase + startingLine;
        fields = 0;
        isEmptyLine = false;
        fault = null;
        rowBytes = 0;
        isWanted = wanted == null || wanted.isNext(part, row + 1);
        reader.forgetBefore(line);
    }

    @Override
    protected void addField(char[] buffer, int offset, int length, boolean isQuoted) {
        if (length > CsvPart.MAX_FIELD) {
            throw new CsvParseException(RowFault.TOO_LONG);
        }
        int field = fields++;
        int column = field < layout.count() && isWanted ? layout.columnOf(field) : NOT_WANTED;
        if (!isQuoted && isNull(buffer, offset, length)) {
            if (column != NOT_WANTED) {
                batch.column(column).addNull();
            }
            return;
        }
        if (column == NOT_WANTED) {
            scan(buffer, offset, length, isQuoted);
        } else {
            copy(buffer, offset, length, isQuoted, batch.column(column));
        }
    }

    private boolean isNull(char[] buffer, int offset, int length) {
        if (length == 0) {
            return true;
        }
        for (char[] word : nullWords) {
            if (word.length == length && Arrays.equals(word, 0, length, buffer, offset, offset + length)) {
                return true;
            }
        }
        return false;
    }

    private void copy(char[] buffer, int offset, int length, boolean isQuoted, CellColumn target) {
        byte[] bytes = target.reserve(length * BYTES_PER_CHARACTER);
        int at = target.byteCount();
        int end = offset + length;
        for (int i = offset; i < end; i++) {
            char c = buffer[i];
            if (c < 0x80) {
                if (c == 0 || (c == quote && !isQuoted)) {
                    reportCharacter(c);
                }
                bytes[at++] = (byte) c;
            } else if (c < 0x800) {
                bytes[at++] = (byte) (0xC0 | c >> 6);
                bytes[at++] = (byte) (0x80 | c & 0x3F);
                if (c == quote && !isQuoted) {
                    reportCharacter(c);
                }
            } else if (Character.isHighSurrogate(c) && i + 1 < end && Character.isLowSurrogate(buffer[i + 1])) {
                int point = Character.toCodePoint(c, buffer[++i]);
                bytes[at++] = (byte) (0xF0 | point >> 18);
                bytes[at++] = (byte) (0x80 | point >> 12 & 0x3F);
                bytes[at++] = (byte) (0x80 | point >> 6 & 0x3F);
                bytes[at++] = (byte) (0x80 | point & 0x3F);
            } else {
                if (Character.isSurrogate(c) || (c == quote && !isQuoted)) {
                    reportCharacter(c);
                }
                bytes[at++] = (byte) (0xE0 | c >> 12);
                bytes[at++] = (byte) (0x80 | c >> 6 & 0x3F);
                bytes[at++] = (byte) (0x80 | c & 0x3F);
            }
        }
        rowBytes += at - target.byteCount();
        target.commit(at);
    }

    /** Looks for what makes a row malformed in a field that nobody asked for. */
    private void scan(char[] buffer, int offset, int length, boolean isQuoted) {
        int end = offset + length;
        for (int i = offset; i < end; i++) {
            char c = buffer[i];
            if (c == 0 || (c == quote && !isQuoted)) {
                reportCharacter(c);
            } else if (Character.isSurrogate(c)) {
                if (Character.isHighSurrogate(c) && i + 1 < end && Character.isLowSurrogate(buffer[i + 1])) {
                    i++;
                } else {
                    reportCharacter(c);
                }
            }
        }
    }

    private void reportCharacter(char c) {
        if (fault == null) {
            fault = c == 0 ? RowFault.NUL : c == quote ? RowFault.QUOTE_INSIDE : RowFault.NOT_IN_ENCODING;
        }
    }

    @Override
    protected Boolean buildRecord() {
        if (isEmptyLine) {
            if (layout.count() != 1 || row < 0) {
                emptyLines++;
                return true;
            }
            addField(new char[0], 0, 0, false);
        } else if (fields == 0) {
            // What FastCSV calls a record behind the last line break is none.
            return true;
        }
        row++;
        if (row == 0) {
            dropCells();
            return true;
        }
        if (places != null && places.wants(row)) {
            long offset = reader.offsetOf(line);
            if (offset >= 0) {
                places.add(row, line, offset);
            }
        }
        if (fields != layout.count() && fault == null) {
            fault = RowFault.wrongCount(fields, layout.count());
        }
        endRow();
        return true;
    }

    /** Ends a record that cannot be taken apart. */
    void endMalformed(String reason) {
        row++;
        fault = reason;
        endRow();
    }

    private void endRow() {
        long ref = RowRef.of(part, row);
        if (fault != null) {
            dropCells();
            if (isWanted) {
                batch.addMalformed(new MalformedRow(ref, line, fault, reader.text(line, MalformedRow.MOST_RAW)));
            }
        } else if (isWanted) {
            batch.endRow(ref, line, rowBytes);
        }
        if (isWanted && wanted != null) {
            wanted.take();
        }
    }

    private void dropCells() {
        for (int column = 0; column < batch.columnCount(); column++) {
            batch.column(column).truncate(batch.size());
        }
    }

    /** The line in which the current record begins. */
    long line() {
        return line;
    }

    /** The number of the last row that has ended. */
    long row() {
        return row;
    }

    long emptyLines() {
        return emptyLines;
    }

    @Override
    protected void setEmpty() {
        isEmptyLine = true;
    }

    @Override
    protected void setComment(char[] buffer, int offset, int length) {
        throw new IllegalStateException("comments are switched off");
    }

    @Override
    protected RecordType getRecordType() {
        return isEmptyLine ? RecordType.EMPTY : RecordType.DATA;
    }

    @Override
    protected int getFieldCount() {
        return fields;
    }
}
