package taxiomet.sources.csv;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableRewriter.Content;
import taxiomet.rows.TableRewriter.Contents;
import taxiomet.rows.TableRewriter.UndoSink;
import taxiomet.sources.file.ByteInput;
import taxiomet.work.ContentHash;

/**
 * Copies one part with some of its rows left out or changed. The rows are told apart by the same splitter that reads them, one at a time,
 * from the nearest place known; what lies between rows that are edited is copied as it stands.
 */
final class PartRewriter {
    private static final int PIECE = 1 << 16;
    /** Rows are walked over in smaller pieces: from the place known before a row it is a few thousand bytes to it. */
    private static final int WALKED = 1 << 13;

    private final CsvPart part;
    private final ByteInput in;
    private final Charset charset;
    private final byte delimiter;
    private final byte quote;
    private final NullWords nullWords;
    /** For each field, the place of its column in the source; -1 for one that is not declared. */
    private final int[] columnOf;

    private final Chunk chunk;
    private final RowSplitter splitter;
    private final OutputStream out;
    private final UndoSink undo;

    // Where the walk over the rows stands.
    private long offset;
    private long row;
    private boolean isHeaderNext;
    private boolean isLoaded;

    /** How far the part has been copied, and how much has been written. */
    private long copied;

    private long written;
    private byte last;
    private final boolean isHashed;
    private final ContentHash ofOriginal = new ContentHash();
    private final ContentHash ofCopy = new ContentHash();

    PartRewriter(CsvPart part, ByteInput in, CsvFields fields, int width, OutputStream out, UndoSink undo) {
        this.part = part;
        this.in = in;
        this.charset = part.encoding();
        this.delimiter = fields.form().delimiter();
        this.quote = fields.form().quote();
        this.nullWords = fields.form().nullWords();
        this.columnOf = new int[fields.count()];
        for (int field = 0; field < columnOf.length; field++) {
            columnOf[field] = fields.columnOf(field);
        }
        this.chunk = new Chunk(fields.form());
        this.splitter = new RowSplitter(fields, new RowBatch(width));
        this.out = out;
        this.undo = undo;
        this.isHashed = undo != UndoSink.NONE;
        goTo(-1);
    }

    /** What was read and what was written, when all is done. */
    Contents contents() {
        return new Contents(new Content(copied, ofOriginal.hex()), new Content(written, ofCopy.hex()));
    }

    /** Leaves a row out, or changes it; rows come ascending. */
    void edit(long rowNumber, RowEdit edit) throws IOException {
        long start = walkTo(rowNumber);
        copyTo(start);
        byte[] old = bytes(start, offset);
        hash(ofOriginal, old, old.length);
        byte[] now = edit.isDeleted() ? new byte[0] : changed(old, edit.cells());
        undo.edit(written, now.length, old);
        write(now);
        copied = offset;
    }

    /** Writes what stands before the first row. */
    void pickHeader() throws IOException {
        while (isHeaderNext && step()) {
            // Empty lines may stand before it.
        }
        out.write(bytes(0, offset));
        // Before the first row, whatever stands there ends its line.
        last = '\n';
        if (offset > part.firstOffset()) {
            last = bytes(offset - 1, offset)[0];
        }
    }

    /** Writes a row as it stands; rows come ascending. */
    void pick(long rowNumber) throws IOException {
        byte[] bytes = bytes(walkTo(rowNumber), offset);
        if (last != '\n' && last != '\r') {
            out.write(lineEnd());
        }
        out.write(bytes);
        last = bytes[bytes.length - 1];
    }

    /** Goes behind a row, from the nearest place known; gives where it begins. */
    private long walkTo(long rowNumber) throws IOException {
        int place = part.isPlain() ? part.places().before(rowNumber) : -1;
        if (place >= 0 && part.places().row(place) > row) {
            goTo(place);
        }
        long start = offset;
        while (row <= rowNumber) {
            start = offset;
            if (!step()) {
                throw part.changed();
            }
        }
        return start;
    }

    private void hash(ContentHash into, byte[] bytes, int length) {
        if (isHashed) {
            into.digest().update(bytes, 0, length);
        }
    }

    private void goTo(int place) {
        offset = place < 0 ? part.firstOffset() : part.places().offset(place);
        row = place < 0 ? 1 : part.places().row(place);
        isHeaderNext = place < 0 && part.header() != null;
        isLoaded = false;
    }

    /** Passes over one row, the header, or an empty line; false at the end. */
    private boolean step() throws IOException {
        int place = isLoaded ? chunk.placeOf(offset) : -1;
        if (place < 0 || place >= chunk.length()) {
            chunk.load(in, offset, WALKED);
            isLoaded = true;
            place = chunk.placeOf(offset);
            if (chunk.length() == 0) {
                return false;
            }
        }
        splitter.split(chunk, place, place + 1, isHeaderNext, true);
        offset = splitter.endOffset();
        row += splitter.records();
        isHeaderNext = splitter.isHeaderNext();
        return true;
    }

    private byte[] bytes(long from, long to) throws IOException {
        byte[] bytes = new byte[Math.toIntExact(to - from)];
        int read = 0;
        while (read < bytes.length) {
            int count = in.read(from + read, bytes, read, bytes.length - read);
            if (count <= 0) {
                throw part.changed();
            }
            read += count;
        }
        return bytes;
    }

    private void copyTo(long to) throws IOException {
        while (copied < to) {
            byte[] piece = bytes(copied, Math.min(to, copied + PIECE));
            hash(ofOriginal, piece, piece.length);
            write(piece);
            copied += piece.length;
        }
    }

    private void write(byte[] bytes) throws IOException {
        out.write(bytes);
        hash(ofCopy, bytes, bytes.length);
        written += bytes.length;
        last = bytes.length == 0 ? last : bytes[bytes.length - 1];
    }

    /** Copies the rest, and puts new rows behind it. */
    void finish(List<List<String>> newRows) throws IOException {
        copyRest();
        if (newRows.isEmpty()) {
            return;
        }
        ByteArrayOutputStream rows = new ByteArrayOutputStream();
        byte[] lineEnd = lineEnd();
        boolean needsEnd = written > part.firstOffset() && last != '\n' && last != '\r';
        if (needsEnd) {
            rows.write(lineEnd);
        }
        for (List<String> cells : newRows) {
            for (int field = 0; field < columnOf.length; field++) {
                if (field > 0) {
                    rows.write(delimiter);
                }
                if (columnOf[field] >= 0) {
                    rows.write(cell(cells.get(columnOf[field])));
                }
            }
            rows.write(lineEnd);
        }
        undo.edit(written, rows.size(), new byte[0]);
        write(rows.toByteArray());
    }

    private void copyRest() throws IOException {
        byte[] piece = new byte[PIECE];
        for (int count = in.read(copied, piece, 0, PIECE); count > 0; count = in.read(copied, piece, 0, PIECE)) {
            hash(ofOriginal, piece, count);
            write(Arrays.copyOf(piece, count));
            copied += count;
        }
    }

    /** The line break that the part begins with; a line feed when it has none. */
    private byte[] lineEnd() throws IOException {
        byte[] piece = new byte[PIECE + 1];
        long at = part.firstOffset();
        for (int count = in.read(at, piece, 0, PIECE + 1); count > 0; count = in.read(at, piece, 0, PIECE + 1)) {
            for (int i = 0; i < count; i++) {
                if (piece[i] == '\n') {
                    return new byte[] {'\n'};
                } else if (piece[i] == '\r') {
                    boolean isPair = i + 1 < count && piece[i + 1] == '\n';
                    return isPair ? new byte[] {'\r', '\n'} : new byte[] {'\r'};
                }
            }
            at += PIECE;
        }
        return new byte[] {'\n'};
    }

    /** A row with new cells; its other fields stay as they are written. */
    private byte[] changed(byte[] old, Map<Integer, String> cells) throws IOException {
        ByteArrayOutputStream now = new ByteArrayOutputStream(old.length + 16);
        int start = 0;
        for (int field = 0; field < columnOf.length; field++) {
            int end = endOfField(old, start);
            if (columnOf[field] >= 0 && cells.containsKey(columnOf[field])) {
                now.write(cell(cells.get(columnOf[field])));
            } else {
                now.write(old, start, end - start);
            }
            if (field < columnOf.length - 1) {
                now.write(delimiter);
            }
            start = end + 1;
        }
        int end = Math.min(old.length, start - 1);
        now.write(old, end, old.length - end);
        return now.toByteArray();
    }

    /** The place behind a field of a sound row: a delimiter, a line break, or the end. */
    private int endOfField(byte[] bytes, int start) {
        int at = start;
        if (at < bytes.length && bytes[at] == quote) {
            at++;
            while (bytes[at] != quote || (at + 1 < bytes.length && bytes[at + 1] == quote)) {
                at += bytes[at] == quote ? 2 : 1;
            }
            at++;
        }
        while (at < bytes.length && bytes[at] != delimiter && bytes[at] != '\n' && bytes[at] != '\r') {
            at++;
        }
        return at;
    }

    /** A cell as the file writes it: nothing for null, in quotes where it would be read as something else. */
    private byte[] cell(String text) {
        if (text == null) {
            return new byte[0];
        }
        byte[] plain = encoded(text);
        boolean needsQuotes = plain.length == 0 || nullWords.isNull(plain, 0, plain.length);
        for (byte b : plain) {
            needsQuotes |= b == delimiter || b == quote || b == '\n' || b == '\r';
        }
        if (!needsQuotes) {
            return plain;
        }
        ByteArrayOutputStream quoted = new ByteArrayOutputStream(plain.length + 8);
        quoted.write(quote);
        for (byte b : plain) {
            if (b == quote) {
                quoted.write(quote);
            }
            quoted.write(b);
        }
        quoted.write(quote);
        return quoted.toByteArray();
    }

    private byte[] encoded(String text) {
        try {
            ByteBuffer bytes = charset.newEncoder().encode(CharBuffer.wrap(text));
            byte[] array = new byte[bytes.remaining()];
            bytes.get(array);
            return array;
        } catch (CharacterCodingException e) {
            throw new SourceException(
                    part.file().toString(),
                    "the text `" + text + "` cannot be written in " + charset,
                    "convert the file to UTF-8 first");
        }
    }
}
