package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.function.BooleanSupplier;
import taxiomet.charter.DelimitedFiles;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;

/** Reads records one after the other with the library's reader, going on behind those that cannot be taken apart. */
final class RecordCursor implements AutoCloseable {
    /** So much may be read a second time behind quotes left open before the file is given up. */
    static final long MAX_READ_AGAIN = 1L << 30;

    /** What the readers below have taken from the file ahead of the record at hand: it is no sign of an open quote. */
    private static final int READ_AHEAD = 1 << 17;

    private final Path file;
    private final DelimitedFiles format;
    private final LineReader reader;
    private final RecordHandler handler;
    private CloseableIterator<Boolean> records;
    private long readAgain;
    /** The record read last could not be taken apart: the next begins in the next line, which may be far away. */
    private boolean isBehindFault;

    /**
     * @param line the line at which the reader stands
     * @param nextRow number of the first row; 0 when the header stands before it
     */
    RecordCursor(Path file, DelimitedFiles format, LineReader reader, RecordHandler handler, long line, long nextRow) {
        this.file = file;
        this.format = format;
        this.reader = reader;
        this.handler = handler;
        begin(line, nextRow);
    }

    static CsvReader.CsvReaderBuilder csv(DelimitedFiles format) {
        return CsvReader.builder()
                .fieldSeparator(format.delimiter())
                .quoteCharacter(format.quote())
                .skipEmptyLines(false)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .allowUnclosedQuote(false)
                // A field that is not too long may have all its quotes doubled.
                .maxBufferSize(2 * CsvPart.MAX_FIELD + 4);
    }

    private void begin(long line, long nextRow) {
        handler.startAt(line, nextRow);
        records = csv(format).build(handler, reader.shared()).iterator();
    }

    /**
     * Reads records as long as the condition holds before each of them.
     *
     * @return false when there are no more
     */
    boolean read(BooleanSupplier goOn) throws IOException {
        while (goOn.getAsBoolean()) {
            if (isBehindFault && !goOnBehindFault()) {
                return false;
            }
            try {
                if (!records.hasNext()) {
                    return false;
                }
                records.next();
            } catch (CsvParseException e) {
                readAgain += Math.max(0, reader.charactersSince(handler.line() + 1) - READ_AHEAD);
                handler.endMalformed(reason(e));
                isBehindFault = true;
            } catch (UncheckedIOException e) {
                throw e.getCause();
            }
        }
        return true;
    }

    private boolean goOnBehindFault() throws IOException {
        isBehindFault = false;
        if (readAgain > MAX_READ_AGAIN) {
            throw tooManyOpenQuotes(file, handler.line());
        }
        long line = handler.line() + 1;
        boolean hasMore = reader.goTo(line);
        if (hasMore) {
            begin(line, handler.row() + 1);
        }
        return hasMore;
    }

    static SourceException tooManyOpenQuotes(Path file, long line) {
        return new SourceException(
                file + ":" + line,
                "too many quotes are left open to make out the rows of this file",
                "check `quote` and `delimiter` in the charter");
    }

    private static String reason(CsvParseException e) {
        String message = e.getMessage();
        if (message.contains("Unclosed")) {
            return RowFault.NEVER_CLOSED;
        } else if (message.contains("after closing quote")) {
            return RowFault.BEHIND_QUOTE;
        }
        return RowFault.TOO_LONG;
    }

    /** Rows that follow go into another batch. */
    void writeTo(RowBatch batch) {
        handler.writeTo(batch);
    }

    long emptyLines() {
        return handler.emptyLines();
    }

    @Override
    public void close() throws IOException {
        reader.close();
    }
}
