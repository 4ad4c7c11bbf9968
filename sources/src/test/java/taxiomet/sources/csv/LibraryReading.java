package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CloseableIterator;
import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import de.siegmar.fastcsv.reader.RecordType;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.RowBatch.MalformedRow;

/**
 * What a library makes of a document, to compare our reader with: the whole text in memory, taken apart by the library from its beginning
 * on, and again from the next line behind each record that the library cannot take apart.
 */
final class LibraryReading {
    /** A surrogate on its own, which no decoder gives for valid bytes. */
    private static final char INVALID = '\uDFFF';

    private static final int MARK = 0xFEFF;

    private final DelimitedFiles rows;
    private final int fieldCount;
    private final String text;
    private final List<Row> found = new ArrayList<>();
    private long emptyLines;
    private boolean isHeaderNext;
    private long line = 1;

    /** A row: its cells, or why it has none. */
    record Row(long line, List<String> cells, String fault, String raw) {}

    LibraryReading(DelimitedFiles rows, int fieldCount, byte[] document) {
        this.rows = rows;
        this.fieldCount = fieldCount;
        this.text = withoutMark(decoded(document, rows.encoding()), rows.encoding());
        this.isHeaderNext = rows.hasHeader();
        int from = 0;
        while (from >= 0 && from < text.length()) {
            from = readFrom(from);
        }
    }

    List<Row> rows() {
        return found;
    }

    long emptyLines() {
        return emptyLines;
    }

    private static String withoutMark(String text, String encoding) {
        return encoding.startsWith("UTF-") && !text.isEmpty() && text.charAt(0) == MARK ? text.substring(1) : text;
    }

    private static String decoded(byte[] document, String encoding) {
        CharsetDecoder decoder = Charset.forName(encoding)
                .newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        ByteBuffer bytes = ByteBuffer.wrap(document);
        CharBuffer characters = CharBuffer.allocate(2 * document.length + 8);
        CoderResult result = decoder.decode(bytes, characters, true);
        while (result.isError()) {
            characters.put(INVALID);
            bytes.position(bytes.position() + result.length());
            result = decoder.decode(bytes, characters, true);
        }
        decoder.flush(characters);
        return characters.flip().toString();
    }

    /** Reads records from the beginning of a line on; gives where to go on behind one that cannot be taken apart, or -1. */
    private int readFrom(int from) {
        long firstLine = line;
        Records records = new Records(firstLine);
        CloseableIterator<Boolean> all = CsvReader.builder()
                .fieldSeparator(rows.delimiter())
                .quoteCharacter(rows.quote())
                .skipEmptyLines(false)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .allowUnclosedQuote(false)
                .maxBufferSize(2 * CsvPart.MAX_FIELD + 4)
                .build(records, text.substring(from))
                .iterator();
        try {
            while (all.hasNext()) {
                all.next();
            }
            return -1;
        } catch (CsvParseException e) {
            String reason = e.getMessage().contains("Unclosed") ? RowFault.NEVER_CLOSED : RowFault.BEHIND_QUOTE;
            found.add(new Row(records.line, null, reason, rawLine(records.line)));
            line = records.line + 1;
            return startOf(line);
        }
    }

    /** Where a line begins; -1 when there is none. */
    private int startOf(long wanted) {
        int at = 0;
        for (long current = 1; current < wanted; current++) {
            while (at < text.length() && text.charAt(at) != '\n' && text.charAt(at) != '\r') {
                at++;
            }
            if (at >= text.length()) {
                return -1;
            }
            at += text.startsWith("\r\n", at) ? 2 : 1;
        }
        return at;
    }

    private String rawLine(long wanted) {
        int start = startOf(wanted);
        int end = start;
        while (end < text.length() && text.charAt(end) != '\n' && text.charAt(end) != '\r') {
            end++;
        }
        String raw = text.substring(start, end).replace(INVALID, '\uFFFD');
        return raw.substring(
                0, raw.offsetByCodePoints(0, Math.min(MalformedRow.MOST_RAW, raw.codePointCount(0, raw.length()))));
    }

    private final class Records extends CsvCallbackHandler<Boolean> {
        private final long firstLine;
        private long line;
        private final List<String> cells = new ArrayList<>();
        private boolean isEmptyLine;
        private String fault;

        Records(long firstLine) {
            this.firstLine = firstLine;
        }

        @Override
        protected void beginRecord(long startingLine) {
            line = firstLine + startingLine - 1;
            cells.clear();
            isEmptyLine = false;
            fault = null;
        }

        @Override
        protected void addField(char[] buffer, int offset, int length, boolean isQuoted) {
            String cell = new String(buffer, offset, length);
            if (!isQuoted && (cell.isEmpty() || rows.nullWords().contains(cell))) {
                cells.add(null);
                return;
            }
            cells.add(cell);
            for (int i = 0; i < cell.length(); i++) {
                char c = cell.charAt(i);
                if (fault == null) {
                    fault = c == 0
                            ? RowFault.NUL
                            : c == INVALID
                                    ? RowFault.NOT_IN_ENCODING
                                    : c == rows.quote() && !isQuoted ? RowFault.QUOTE_INSIDE : null;
                }
            }
        }

        @Override
        protected Boolean buildRecord() {
            if (isEmptyLine && (fieldCount != 1 || isHeaderNext)) {
                emptyLines++;
            } else if (isEmptyLine) {
                found.add(new Row(line, Arrays.asList((String) null), null, null));
            } else if (cells.isEmpty()) {
                // What the library calls a record behind the last line break is none.
                return true;
            } else if (isHeaderNext) {
                isHeaderNext = false;
            } else if (fault != null || cells.size() != fieldCount) {
                String why = fault != null ? fault : RowFault.wrongCount(cells.size(), fieldCount);
                found.add(new Row(line, null, why, rawLine(line)));
            } else {
                found.add(new Row(line, new ArrayList<>(cells), null, null));
            }
            return true;
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
            return cells.size();
        }
    }
}
