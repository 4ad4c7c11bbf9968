package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import io.airlift.compress.MalformedInputException;
import io.airlift.compress.zstd.ZstdInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.channels.Channels;
import java.nio.channels.SeekableByteChannel;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.zip.GZIPInputStream;
import taxiomet.charter.RowsFile;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowSink;
import taxiomet.rows.SourceException;

/** One file of a table. */
final class CsvPart {
    /** A field with more characters makes its row malformed; most often a quote was left open. */
    static final int MAX_FIELD = 4 << 20;

    /** So many characters may be read a second time behind quotes left open before the file is given up. */
    private static final long MAX_READ_AGAIN = 1L << 30;

    private final RowsFile format;
    private final Path file;
    private final int number;
    private final Charset encoding;
    private final int markLength;
    private final Compression compression;
    private final FileStamp stamp;
    private final List<String> header;
    private final PlaceIndex places = new PlaceIndex();
    private boolean placesAreKnown;
    private long emptyLines;
    private long bytesRead;

    private enum Compression {
        NONE,
        GZIP,
        ZSTD
    }

    /** @throws SourceException when the file cannot be read, or its header is none */
    CsvPart(RowsFile format, Path file, int number) {
        this.format = format;
        this.file = file;
        this.number = number;
        String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
        compression =
                name.endsWith(".gz") ? Compression.GZIP : name.endsWith(".zst") ? Compression.ZSTD : Compression.NONE;
        try {
            stamp = FileStamp.of(file);
            byte[] first;
            try (InputStream in = decompressed(0)) {
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
                    file.toString(),
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
        try (InputStream in = decompressed(markLength)) {
            LineReader reader = new LineReader(in, encoding, markLength, 1);
            HeaderHandler handler = new HeaderHandler(names);
            try {
                CloseableIterator<Boolean> records =
                        csv().build(handler, reader).iterator();
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
                    file + ":1",
                    isInvalid
                            ? "the header line holds bytes that are not text in " + format.encoding()
                            : "the header line cannot be taken apart (a quote is left open or followed by more)",
                    "check that this is a text file, its encoding, and its quotes");
        }
        if (names.isEmpty()) {
            throw new SourceException(
                    file.toString(),
                    "the file is empty, and should begin with a line that names the columns",
                    "write that line, or name the columns in the charter (`header: [...]`)");
        }
        return names;
    }

    private CsvReader.CsvReaderBuilder csv() {
        return CsvReader.builder()
                .fieldSeparator(format.delimiter())
                .quoteCharacter(format.quote())
                .skipEmptyLines(false)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .allowUnclosedQuote(false)
                .maxBufferSize(MAX_FIELD);
    }

    Path file() {
        return file;
    }

    /** The names in the file's header line; null when it has none. */
    List<String> header() {
        return header;
    }

    long size() {
        return stamp.size();
    }

    long bytesRead() {
        return bytesRead;
    }

    long emptyLines() {
        return emptyLines;
    }

    /** Reads all rows. */
    void read(int fieldCount, int[] columnOfField, RowBatch batch, RowSink sink) {
        bytesRead = 0;
        boolean keepsPlaces = !placesAreKnown && compression == Compression.NONE;
        try (InputStream in = decompressed(markLength)) {
            LineReader reader = new LineReader(in, encoding, markLength, 1);
            RecordHandler handler = new RecordHandler(
                    reader,
                    number,
                    format.quote(),
                    format.nullWords(),
                    fieldCount,
                    columnOfField,
                    batch,
                    sink,
                    keepsPlaces ? places : null,
                    null);
            readRecords(reader, handler, 1, firstRow(), () -> true);
            handler.handOver();
            emptyLines = handler.emptyLines();
            placesAreKnown = true;
        } catch (IOException e) {
            requireUnchanged();
            throw unreadable(e);
        }
        requireUnchanged();
    }

    /**
     * Reads records from a line on, going on behind those that cannot be taken apart.
     *
     * @param nextRow number of the first row; 0 when the header stands before it
     */
    private void readRecords(
            LineReader reader, RecordHandler handler, long fromLine, long nextRow, BooleanSupplier goOn)
            throws IOException {
        long line = fromLine;
        long row = nextRow;
        long readAgain = 0;
        while (true) {
            handler.startAt(line, row);
            try {
                CloseableIterator<Boolean> records =
                        csv().build(handler, reader).iterator();
                while (goOn.getAsBoolean() && records.hasNext()) {
                    records.next();
                }
                return;
            } catch (CsvParseException e) {
                handler.rethrowSinkFailure();
                readAgain += reader.charactersSince(handler.line() + 1);
                handler.endMalformed(reason(e));
            } catch (UncheckedIOException e) {
                handler.rethrowSinkFailure();
                throw e.getCause();
            }
            if (readAgain > MAX_READ_AGAIN) {
                throw new SourceException(
                        file + ":" + handler.line(),
                        "too many quotes are left open to make out the rows of this file",
                        "check `quote` and `delimiter` in the charter");
            }
            line = handler.line() + 1;
            row = handler.row() + 1;
            if (!reader.goTo(line)) {
                return;
            }
        }
    }

    private static String reason(CsvParseException e) {
        String message = e.getMessage();
        if (message.contains("Unclosed")) {
            return "a quote that is never closed";
        } else if (message.contains("after closing quote")) {
            return "more characters behind a closing quote";
        }
        return "a field of more than " + MAX_FIELD + " characters (was a quote left open?)";
    }

    private InputStream decompressed(long offset) throws IOException {
        SeekableByteChannel channel = Files.newByteChannel(file);
        boolean isOpen = false;
        try {
            InputStream in;
            if (compression == Compression.NONE) {
                channel.position(offset);
                in = new Counting(Channels.newInputStream(channel));
            } else {
                InputStream packed = new Counting(Channels.newInputStream(channel));
                in = compression == Compression.GZIP ? new GZIPInputStream(packed, 1 << 16) : new ZstdStream(packed);
                in.skipNBytes(offset);
            }
            isOpen = true;
            return in;
        } finally {
            if (!isOpen) {
                channel.close();
            }
        }
    }

    /** Tells of bad data as streams do. */
    private static final class ZstdStream extends FilterInputStream {
        ZstdStream(InputStream packed) {
            super(new ZstdInputStream(packed));
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            try {
                return super.read(target, offset, length);
            } catch (MalformedInputException e) {
                throw new IOException(e.getMessage(), e);
            }
        }
    }

    private final class Counting extends FilterInputStream {
        Counting(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int value = super.read();
            bytesRead += value < 0 ? 0 : 1;
            return value;
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            int count = super.read(target, offset, length);
            bytesRead += Math.max(count, 0);
            return count;
        }
    }

    /**
     * Reads the rows that a queue names in this part, with jumps over those between where places are known.
     *
     * @param columnOfField as for {@link #read}
     */
    void fetch(RowQueue wanted, int fieldCount, int[] columnOfField, RowBatch batch, RowSink sink) {
        requireUnchanged();
        while (wanted.hasNextIn(number)) {
            long before = wanted.taken();
            fetchFrom(placeBefore(wanted), wanted, fieldCount, columnOfField, batch, sink);
            if (wanted.taken() == before) {
                throw changed();
            }
        }
        requireUnchanged();
    }

    private int placeBefore(RowQueue wanted) {
        return compression == Compression.NONE ? places.before(wanted.row()) : -1;
    }

    private void fetchFrom(
            int place, RowQueue wanted, int fieldCount, int[] columnOfField, RowBatch batch, RowSink sink) {
        long offset = place < 0 ? markLength : places.offset(place);
        long line = place < 0 ? 1 : places.line(place);
        long row = place < 0 ? firstRow() : places.row(place);
        try (InputStream in = decompressed(offset)) {
            LineReader reader = new LineReader(in, encoding, offset, line);
            RecordHandler handler = new RecordHandler(
                    reader,
                    number,
                    format.quote(),
                    format.nullWords(),
                    fieldCount,
                    columnOfField,
                    batch,
                    sink,
                    null,
                    wanted);
            readRecords(reader, handler, line, row, () -> wanted.hasNextIn(number) && !canJump(handler, wanted));
            handler.handOver();
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

    private void requireUnchanged() {
        try {
            if (!FileStamp.of(file).isSameAs(stamp)) {
                throw changed();
            }
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    private SourceException changed() {
        return new SourceException(
                file.toString(), "the file changed while it was being read", "check again when nobody writes to it");
    }

    private SourceException unreadable(IOException cause) {
        if (compression != Compression.NONE && !(cause instanceof FileSystemException)) {
            return new SourceException(
                    file.toString(),
                    "the file cannot be decompressed (" + cause.getMessage() + ")",
                    "check that it is whole, and that its ending (.gz, .zst) says what it is");
        }
        return FileParts.unreadable(file, cause);
    }
}
