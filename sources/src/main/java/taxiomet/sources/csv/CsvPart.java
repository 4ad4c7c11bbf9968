package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.CsvRecordHandler;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Iterator;
import java.util.List;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.PlaceIndex;
import taxiomet.sources.file.PlainInput;
import taxiomet.sources.file.UnpackedInput;

/** One file of a table. */
final class CsvPart {
    /** A field with more characters makes its row malformed; most often a quote was left open. */
    static final int MAX_FIELD = 4 << 20;
    /** More than any database has in a table. */
    private static final int MOST_COLUMNS = 100_000;

    /** What stands in a header for bytes that are not valid: no character. */
    private static final char INVALID = '\uFFFF';

    private final ByteForm form;
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
    CsvPart(ByteForm form, Path path, int number) {
        this.form = form;
        this.format = form.declared();
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
        List<String> names = List.of();
        boolean isMalformed = false;
        try (InputStream in = file.open(markLength);
                CsvReader<CsvRecord> reader = CsvReader.builder()
                        .fieldSeparator(format.delimiter())
                        .quoteCharacter(format.quote())
                        .allowUnclosedQuote(false)
                        .maxBufferSize(2 * MAX_FIELD + 4)
                        .build(records(), new InputStreamReader(in, lenientDecoder()))) {
            Iterator<CsvRecord> records = reader.iterator();
            names = records.hasNext() ? records.next().getFields() : names;
        } catch (CsvParseException e) {
            isMalformed = true;
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
        if (names.size() > MOST_COLUMNS) {
            throw new SourceException(
                    file.path() + ":1",
                    "the header line names more than " + MOST_COLUMNS + " columns",
                    "check that this is a table, and its delimiter");
        }
        boolean isInvalid = names.stream().anyMatch(name -> name.indexOf(INVALID) >= 0 || name.indexOf(0) >= 0);
        if (isMalformed || isInvalid) {
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

    /** Takes records apart that have as many fields as a table may have columns, and one more. */
    static CsvRecordHandler records() {
        return CsvRecordHandler.builder().maxFields(MOST_COLUMNS + 1).build();
    }

    private CharsetDecoder lenientDecoder() {
        return encoding.newDecoder()
                .onMalformedInput(CodingErrorAction.REPLACE)
                .onUnmappableCharacter(CodingErrorAction.REPLACE)
                .replaceWith(String.valueOf(INVALID));
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

    /** Whether rows can be read at any place, since the file is neither compressed nor recoded. */
    boolean isPlain() {
        return file.isPlain() && !form.isRecoded();
    }

    /** Opens the bytes of a part for a pass; {@link #firstOffset} is where its rows begin in them. */
    ByteInput openBytes() throws IOException {
        file.startCount();
        return openBytesAgain();
    }

    /** Opens the bytes of a part while its pass is not to begin anew. */
    ByteInput openBytesAgain() throws IOException {
        if (form.isRecoded()) {
            return new UnpackedInput(form.recode(file.open(markLength), encoding));
        }
        return file.isPlain() ? new PlainInput(file.path(), file.size(), file::count) : new UnpackedInput(file.open(0));
    }

    /** Where the first line begins: behind any byte order mark, unless that is gone. */
    int firstOffset() {
        return form.isRecoded() ? 0 : markLength;
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

    /** What to say when too much would have to be looked at again. */
    SourceException tooManyOpenQuotes(long line) {
        return new SourceException(
                file() + ":" + line,
                "too many quotes are left open to make out the rows of this file",
                "check `quote` and `delimiter` in the charter");
    }
}
