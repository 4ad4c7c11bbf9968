package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.reader.FieldMismatchStrategy;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.EncodingGuess;
import taxiomet.sources.file.FileContent;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.Packing;
import taxiomet.sources.file.Sniffed;

/** Finds out how a file is written of which nothing is declared: encoding, delimiter, and whether its first line names the columns. */
public final class Sniffer {
    private static final int FIRST_BYTES = 1 << 16;
    private static final int MOST_RECORDS = 200;
    private static final char[] DELIMITERS = {',', ';', '\t', '|'};
    /** Words that programs write for null when they export. */
    private static final List<String> NULL_WORDS = List.of("NULL", "\\N");

    private Sniffer() {}

    /**
     * Looks at the beginning of a file.
     *
     * @param delimiter where it is known; empty to find it out
     * @param encoding where it is known; empty to find it out
     * @throws SourceException when the file cannot be read, or has nothing in it
     */
    public static Sniffed sniff(Path file, Optional<Character> delimiter, Optional<String> encoding) {
        byte[] first;
        FileParts.requireFile(file);
        try (InputStream raw = Files.newInputStream(file);
                InputStream in = Packing.of(file).unpack(raw)) {
            first = in.readNBytes(FIRST_BYTES);
            if (first.length == FIRST_BYTES && !hasLineEnd(first)) {
                // The line that names the columns is longer than that.
                byte[] more = in.readNBytes(CsvPart.MAX_FIELD);
                first = Arrays.copyOf(first, FIRST_BYTES + more.length);
                System.arraycopy(more, 0, first, FIRST_BYTES, more.length);
            }
        } catch (IOException e) {
            throw FileParts.unreadable(file, e);
        }
        if (first.length == 0) {
            throw new SourceException(file.toString(), "the file is empty", "leave it out, or name the other files");
        }
        FileContent.requireDelimitedText(file, first);
        EncodingGuess guess = EncodingGuess.of(first);
        String charset = encoding.orElse(guess.encoding());
        String text = wholeLines(decoded(first, charset), first.length >= FIRST_BYTES);
        char separator = delimiter.orElseGet(() -> delimiterOf(text));
        List<List<String>> records = records(text, separator);
        List<String> names = records.isEmpty() ? List.of() : records.get(0);
        boolean hasHeader = isHeader(records);
        List<String> columns = hasHeader ? names : numbered(names.size());
        Path folder = file.toAbsolutePath().getParent();
        DelimitedFiles rows = new DelimitedFiles(
                folder,
                file.getFileName().toString(),
                separator,
                '"',
                charset,
                hasHeader,
                hasHeader ? Optional.empty() : Optional.of(columns),
                NULL_WORDS);
        List<String> remarks = encoding.isEmpty() ? guess.remark().stream().toList() : List.of();
        return new Sniffed(rows, String.valueOf(rows.delimiter()), columns, remarks);
    }

    private static boolean hasLineEnd(byte[] bytes) {
        for (byte b : bytes) {
            if (b == '\n' || b == '\r') {
                return true;
            }
        }
        return false;
    }

    private static String decoded(byte[] first, String charset) {
        String text = new String(first, Charset.forName(charset));
        return text.startsWith("\uFEFF") ? text.substring(1) : text;
    }

    private static String wholeLines(String text, boolean isCut) {
        int end = isCut ? text.lastIndexOf('\n') : -1;
        return end > 0 ? text.substring(0, end + 1) : text;
    }

    private static List<List<String>> records(String text, char delimiter) {
        List<List<String>> records = new ArrayList<>();
        try (CsvReader<CsvRecord> reader = CsvReader.builder()
                .fieldSeparator(delimiter)
                .extraFieldStrategy(FieldMismatchStrategy.IGNORE)
                .missingFieldStrategy(FieldMismatchStrategy.IGNORE)
                .build(CsvPart.records(), text)) {
            for (CsvRecord record : reader) {
                records.add(record.getFields());
                if (records.size() == MOST_RECORDS) {
                    break;
                }
            }
        } catch (IOException | RuntimeException e) {
            // What has been read until a quote was left open is enough to judge by.
            return records;
        }
        return records;
    }

    /** The delimiter with which most lines have the same number of fields, more than one; the comma when none has. */
    private static char delimiterOf(String text) {
        char best = ',';
        double bestScore = 0;
        for (char delimiter : DELIMITERS) {
            Map<Integer, Integer> counts = new HashMap<>();
            List<List<String>> records = records(text, delimiter);
            records.forEach(record -> counts.merge(record.size(), 1, Integer::sum));
            for (Map.Entry<Integer, Integer> count : counts.entrySet()) {
                double share = (double) count.getValue() / records.size();
                double score = count.getKey() > 1 ? share + Math.min(count.getKey(), 50) * 0.001 : 0;
                if (score > bestScore) {
                    bestScore = score;
                    best = delimiter;
                }
            }
        }
        return best;
    }

    /** Names are different from one another, not empty, and none of them is a number or a date. */
    private static boolean isHeader(List<List<String>> records) {
        if (records.isEmpty()) {
            return true;
        }
        List<String> first = records.get(0);
        boolean areDifferent = new HashSet<>(first).size() == first.size();
        return areDifferent && first.stream().noneMatch(name -> name.isBlank() || name.matches("[-+0-9.,:/ ]+"));
    }

    private static List<String> numbered(int count) {
        List<String> names = new ArrayList<>();
        for (int i = 1; i <= count; i++) {
            names.add("column_" + i);
        }
        return names;
    }
}
