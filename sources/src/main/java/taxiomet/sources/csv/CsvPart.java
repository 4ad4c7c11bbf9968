package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvParseException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.DelimitedFiles;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowSink;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.PlaceIndex;
import taxiomet.sources.file.PlainInput;
import taxiomet.sources.file.RowQueue;
import taxiomet.sources.file.UnpackedInput;

/** One file of a table. */
final class CsvPart {
    /** A field with more characters makes its row malformed; most often a quote was left open. */
    static final int MAX_FIELD = 4 << 20;

    private final DelimitedFiles format;
    private final DataFile file;
    private final int number;
    private final Charset encoding;
    private final int markLength;
    private final List<String> header;
    private final PlaceIndex places = new PlaceIndex();
    private boolean placesAreKnown;
    private long emptyLines;

    /** @throws SourceException when the file cannot be read, or its header is none */
    CsvPart(DelimitedFiles format, Path path, int number) {
        this.format = format;
        this.file = new DataFile(path);
        this.number = number;
        try {
            byte[] first;
            try (InputStream in = file.open(0)) {
                first = in.readNBytes(4);
            }
            markLength = markLength(first);
            encoding = encoding(first);
            header = format.hasHeader() ? readHeader() : null;
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    private static boolean startsWith(byte[] bytes, int... mark) {
        for (int i = 0; i < mark.length; i++) {
            if (i >= bytes.length || (bytes[i] & 0xFF) != mark[i]) {
                return false;
            }
        }
        return true;
    }

    private Charset encoding(byte[] first) {
        boolean isLittle = startsWith(first, 0xFF, 0xFE);
        boolean isBig = startsWith(first, 0xFE, 0xFF);
        if (format.encoding().equals("UTF-16")) {
            return isLittle ? StandardCharsets.UTF_16LE : StandardCharsets.UTF_16BE;
        }
        if (format.encoding().equals("UTF-8") && (isLittle || isBig)) {
            throw new SourceException(
                    file.path().toString(),
                    "the file begins with the byte order mark of UTF-16, and the charter says UTF-8",
                    "write `encoding: UTF-16` in the table's rows");
        }
        return Charset.forName(format.encoding());
    }

    private int markLength(byte[] first) {
        return switch (format.encoding()) {
            case "UTF-8" -> startsWith(first, 0xEF, 0xBB, 0xBF) ? 3 : 0;
            case "UTF-16" -> startsWith(first, 0xFF, 0xFE) || startsWith(first, 0xFE, 0xFF) ? 2 : 0;
            case "UTF-16LE" -> startsWith(first, 0xFF, 0xFE) ? 2 : 0;
            case "UTF-16BE" -> startsWith(first, 0xFE, 0xFF) ? 2 : 0;
            default -> 0;
        };
    }

    private List<String> readHeader() throws IOException {
        List<String> names = new ArrayList<>();
        boolean[] isMalformed = new boolean[1];
        try (LineReader reader = new LineReader(file.open(markLength), encoding, markLength, 1, LineReader.BLOCK)) {
            HeaderHandler handler = new HeaderHandler(names);
            try {
                CloseableIterator<Boolean> records =
                        RecordCursor.csv(format).build(handler, reader).iterator();
                while (names.isEmpty() && records.hasNext()) {
                    records.next();
                }
            } catch (CsvParseException e) {
                isMalformed[0] = true;
            } catch (UncheckedIOException e) {
                throw e.getCause();
            }
        }
        boolean isInvalid =
                names.stream().anyMatch(name -> name.indexOf(LineReader.INVALID) >= 0 || name.indexOf(0) >= 0);
        if (isMalformed[0] || isInvalid) {
            throw new SourceException(
                    file.path() + ":1",
                    isInvalid
                            ? "the header line holds bytes that are not text in " + format.encoding()
                            : "the header line cannot be taken apart (a quote is left open or followed by more)",
                    "check that this is a text file, its encoding, and its quotes");
        }
        if (names.isEmpty()) {
            throw new SourceException(
                    file.path().toString(),
                    "the file is empty, and should begin with a line that names the columns",
                    "write that line, or name the columns in the charter (`header: [...]`)");
        }
        return names;
    }

    Path file() {
        return file.path();
    }

    /** The names in the file's header line; null when it has none. */
    List<String> header() {
        return header;
    }

    long size() {
        return file.size();
    }

    long bytesRead() {
        return file.bytesRead();
    }

    long emptyLines() {
        return emptyLines;
    }

    /** Whether rows can be read at any place, since they are not compressed. */
    boolean isPlain() {
        return file.isPlain();
    }

    /** Opens the bytes behind any byte order mark for the byte-level reader; {@link #firstOffset} is where they begin. */
    ByteInput openBytes() throws IOException {
        file.startCount();
        return isPlain() ? openBytesAgain() : new UnpackedInput(file.open(0));
    }

    /** Opens the bytes of a part while its pass is not to begin anew. */
    ByteInput openBytesAgain() throws IOException {
        if (!isPlain()) {
            return new UnpackedInput(file.open(0));
        }
        return new PlainInput(file.path(), file.size(), file::count);
    }

    /** Where the first line begins. */
    int firstOffset() {
        return markLength;
    }

    Charset encoding() {
        return encoding;
    }

    int number() {
        return number;
    }

    /** Where rows begin, as far as that is known. */
    PlaceIndex places() {
        return places;
    }

    /** Whether places are worth keeping, and not yet known. */
    boolean keepsPlaces() {
        return !placesAreKnown && isPlain();
    }

    /** All rows have been read once. */
    void endFirstPass(long emptyLinesSeen) {
        emptyLines = emptyLinesSeen;
        placesAreKnown = true;
    }

    /** All rows from the first on, by the library's reader. */
    RecordCursor records(CsvFields fields, RowBatch batch) throws IOException {
        file.startCount();
        LineReader reader = new LineReader(file.open(markLength), encoding, markLength, 1, LineReader.BLOCK);
        PlaceIndex kept = keepsPlaces() ? places : null;
        RecordHandler handler = new RecordHandler(reader, number, fields, batch, kept, null);
        return new RecordCursor(file.path(), format, reader, handler, 1, firstRow());
    }

    /**
     * Reads the rows that a queue names in this part, with jumps over those between where places are known.
     */
    void fetch(RowQueue wanted, CsvFields fields, RowBatch batch, RowSink sink) {
        requireUnchanged();
        while (wanted.hasNextIn(number)) {
            long before = wanted.taken();
            fetchFrom(placeBefore(wanted), wanted, fields, batch, sink);
            if (wanted.taken() == before) {
                throw changed();
            }
        }
        requireUnchanged();
    }

    private int placeBefore(RowQueue wanted) {
        return isPlain() ? places.before(wanted.row()) : -1;
    }

    private void fetchFrom(int place, RowQueue wanted, CsvFields fields, RowBatch batch, RowSink sink) {
        long offset = place < 0 ? markLength : places.offset(place);
        long line = place < 0 ? 1 : places.line(place);
        long row = place < 0 ? firstRow() : places.row(place);
        try (LineReader reader = new LineReader(file.open(offset), encoding, offset, line, LineReader.SMALL_BLOCK)) {
            RecordHandler handler = new RecordHandler(reader, number, fields, batch, null, wanted);
            RecordCursor cursor = new RecordCursor(file.path(), format, reader, handler, line, row);
            boolean goesOn = true;
            while (goesOn) {
                batch.clear();
                goesOn = cursor.read(() -> wanted.hasNextIn(number) && !canJump(handler, wanted) && !batch.isFull());
                goesOn &= wanted.hasNextIn(number) && !canJump(handler, wanted);
                if (!batch.isEmpty()) {
                    sink.accept(batch);
                }
            }
        } catch (IOException e) {
            requireUnchanged();
            throw unreadable(e);
        }
    }

    /** Whether a place between here and the next row wanted saves reading what lies before it. */
    private boolean canJump(RecordHandler handler, RowQueue wanted) {
        int place = placeBefore(wanted);
        return place >= 0 && places.row(place) > handler.row() + 1;
    }

    /** The number of the first record: that of a header is 0. */
    private long firstRow() {
        return header == null ? 1 : 0;
    }

    /** @throws SourceException when the file looks different from what it was when it was opened */
    void requireUnchanged() {
        file.requireUnchanged();
    }

    SourceException changed() {
        return file.changed();
    }

    /** What to say of a part that cannot be read. */
    SourceException unreadable(IOException cause) {
        return file.unreadable(cause);
    }
}
