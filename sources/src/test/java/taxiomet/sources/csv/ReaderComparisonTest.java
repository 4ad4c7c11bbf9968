package taxiomet.sources.csv;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.IntStream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;

/**
 * The byte-level reader gives what the library's reader gives, on random documents in pieces of any size. {@code
 * -Dtaxiomet.documents} says how many, {@code -Dtaxiomet.fuzz.seconds} for how long random bytes are tried, {@code -Dtaxiomet.seed} which.
 */
class ReaderComparisonTest {
    private static final long SEED = Long.getLong("taxiomet.seed", 20_261_125L);
    private static final int DOCUMENTS = Integer.getInteger("taxiomet.documents", 1_500);
    private static final int FUZZ_SECONDS = Integer.getInteger("taxiomet.fuzz.seconds", 3);
    private static final List<String> ENCODINGS = List.of(
            "UTF-8",
            "UTF-8",
            "UTF-8",
            "ISO-8859-1",
            "windows-1252",
            "windows-1251",
            "US-ASCII",
            "UTF-16LE",
            "UTF-16BE",
            "GB18030",
            "Shift_JIS");

    @TempDir
    private Path folder;

    /** A document and how it is written. */
    @SuppressWarnings("ArrayRecordComponent")
    private record Document(DelimitedFiles rows, int fields, byte[] bytes) {
        Document with(byte[] other) {
            return new Document(rows, fields, other);
        }
    }

    private Document document(Random random) {
        String encoding = ENCODINGS.get(random.nextInt(ENCODINGS.size()));
        boolean knowsAll = encoding.startsWith("UTF") || encoding.equals("GB18030");
        char delimiter = ",;|\t".charAt(random.nextInt(4));
        char quote = random.nextInt(4) == 0 ? '\'' : random.nextInt(10) == 0 ? '~' : '"';
        if (knowsAll && random.nextInt(5) == 0) {
            delimiter = "\u00A6\u00A7\u3001\u001C".charAt(random.nextInt(4));
            quote = random.nextBoolean() ? '\u00FE' : quote;
        }
        int fields = random.nextInt(4) == 0 ? 1 : 1 + random.nextInt(6);
        boolean hasHeader = random.nextInt(3) > 0;
        List<String> names = IntStream.range(0, fields).mapToObj(i -> "c" + i).toList();
        List<String> nulls = List.of(List.<String>of(), List.of("NULL"), List.of("\\N", "-", "n/a"))
                .get(random.nextInt(3));
        String[] ends = {"\n", "\r\n", "\r"};
        boolean isMixed = random.nextInt(5) == 0;
        String usualEnd = ends[random.nextInt(8) == 0 ? 2 : random.nextInt(2)];
        StringBuilder text = new StringBuilder();
        if (hasHeader) {
            text.append("\n".repeat(random.nextInt(5) == 0 ? 1 : 0));
            text.append(String.join(String.valueOf(delimiter), names)).append(usualEnd);
        }
        boolean isClean = random.nextBoolean();
        int rows = random.nextInt(random.nextInt(4) == 0 ? 300 : 25);
        for (int row = 0; row < rows; row++) {
            int width = !isClean && random.nextInt(12) == 0 ? random.nextInt(fields + 2) : fields;
            for (int field = 0; field < width; field++) {
                text.append(field > 0 ? String.valueOf(delimiter) : "")
                        .append(field(random, isClean, delimiter, quote));
            }
            text.append(row == rows - 1 && random.nextBoolean() ? "" : isMixed ? ends[random.nextInt(3)] : usualEnd);
        }
        byte[] bytes = text.toString().getBytes(Charset.forName(encoding));
        if (!isClean && bytes.length > 40 && random.nextInt(3) == 0) {
            bytes[(hasHeader ? 20 : 0) + random.nextInt(bytes.length - 20 - (hasHeader ? 20 : 0))] =
                    (byte) (random.nextBoolean() ? 0xC3 : random.nextInt(256));
        }
        DelimitedFiles file = new DelimitedFiles(
                folder,
                "t.csv",
                delimiter,
                quote,
                encoding,
                hasHeader,
                hasHeader ? Optional.empty() : Optional.of(names),
                nulls);
        return new Document(file, fields, bytes);
    }

    private static String field(Random random, boolean isClean, char delimiter, char quote) {
        String[] words = {
            "",
            "1",
            "12345678",
            "NULL",
            "\\N",
            "-",
            "n/a",
            "plain text",
            "2023-02-05",
            "é",
            "naïve café",
            "Ж",
            "a b c d e f g h",
            "€",
            "a\u001Db",
            "x".repeat(random.nextInt(30))
        };
        String word = words[random.nextInt(words.length)];
        if (random.nextInt(6) > 0) {
            return word;
        }
        String[] insides = {
            word, word + delimiter, "a\nb", "a\r\nb", "\r", "\n\n", "" + quote + quote, "x" + quote + quote + "y"
        };
        String inside = insides[random.nextInt(insides.length)];
        if (isClean) {
            return quote + inside + quote;
        }
        return switch (random.nextInt(9)) {
            case 0 -> quote + inside;
            case 1 -> inside + quote;
            case 2 -> quote + inside + quote + "x";
            case 3 -> "x\0y";
            case 4 -> " " + quote + inside + quote;
            default -> quote + inside + quote;
        };
    }

    /** What is to be read: all rows and some of them, as the library gives them; or the header's fault. */
    private List<String> expected(Document document) {
        List<String> all = new ArrayList<>();
        try (TableSource source = CsvTableSource.open(document.rows(), names(document), CsvTableSource.USUAL_CHUNK)) {
            assertThat(source.partCount()).isEqualTo(1);
        } catch (SourceException e) {
            return List.of(e.getMessage());
        }
        LibraryReading library = new LibraryReading(document.rows(), document.fields(), document.bytes());
        TreeMap<Long, String> rows = new TreeMap<>();
        for (LibraryReading.Row row : library.rows()) {
            long ref = RowRef.of(0, rows.size() + 1L);
            StringBuilder text = new StringBuilder().append(ref).append('@').append(row.line());
            if (row.fault() != null) {
                text.append(" ! ").append(row.fault()).append(": ").append(row.raw());
            } else {
                row.cells().forEach(cell -> text.append(cell == null ? " null" : " [" + cell + "]"));
            }
            rows.put(ref, text.toString());
        }
        all.addAll(rows.values());
        all.add("empty lines " + library.emptyLines());
        rows.keySet().stream().filter(ReaderComparisonTest::isFetched).forEach(ref -> all.add(rows.get(ref)));
        all.addAll(rows.subMap(firstOfSome(all), true, lastOfSome(all), true).values());
        return all;
    }

    private static boolean isFetched(long ref) {
        return ref * 7 % 5 < 2;
    }

    private static long firstOfSome(List<String> soFar) {
        return RowRef.of(0, 1 + soFar.size() / 5);
    }

    private static long lastOfSome(List<String> soFar) {
        return RowRef.of(0, 2 + soFar.size() / 3);
    }

    private static List<String> names(Document document) {
        return IntStream.range(0, document.fields()).mapToObj(i -> "c" + i).toList();
    }

    /** All that our reader gives, row by row, and what it says at the end. */
    private List<String> read(Document document, int chunkBytes, int threads) {
        int[] columns = IntStream.range(0, document.fields()).toArray();
        TreeMap<Long, String> rows = new TreeMap<>();
        List<String> all = new ArrayList<>();
        try (TableSource source = CsvTableSource.open(document.rows(), names(document), chunkBytes)) {
            try (Scan scan = source.scan(columns, RefRanges.ALL)) {
                List<Scan.BatchReader> readers = new ArrayList<>();
                IntStream.range(0, threads).forEach(i -> readers.add(scan.reader()));
                long number = 0;
                for (int turn = 0; ; turn++) {
                    RowBatch batch = readers.get(turn % threads).next();
                    if (batch == null) {
                        break;
                    }
                    assertThat(batch.number()).isEqualTo(number++);
                    describe(batch, rows);
                }
            }
            all.addAll(rows.values());
            all.add("empty lines " + source.emptyLines());
            Iterator<Long> single = List.copyOf(rows.keySet()).stream()
                    .filter(ReaderComparisonTest::isFetched)
                    .iterator();
            rows.clear();
            source.fetch(() -> single.hasNext() ? single.next() : RefCursor.END, columns, b -> describe(b, rows));
            all.addAll(rows.values());
            rows.clear();
            // A second pass over some of the rows knows where they begin.
            long first = firstOfSome(all);
            long last = lastOfSome(all);
            RefRanges some = RefRanges.none();
            some.add(first, last);
            try (Scan scan = source.scan(columns, some);
                    Scan.BatchReader reader = scan.reader()) {
                for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                    describe(batch, rows);
                }
            }
            all.addAll(rows.subMap(first, true, last, true).values());
        } catch (SourceException e) {
            all.add(e.getMessage());
        }
        return all;
    }

    private static void describe(RowBatch batch, Map<Long, String> rows) {
        for (int row = 0; row < batch.size(); row++) {
            StringBuilder text = new StringBuilder();
            text.append(batch.ref(row)).append('@').append(batch.line(row));
            for (int column = 0; column < batch.columnCount(); column++) {
                String cell = batch.column(column).text(row);
                text.append(cell == null ? " null" : " [" + cell + "]");
            }
            assertThat(rows.put(batch.ref(row), text.toString())).isNull();
        }
        batch.malformed()
                .forEach(bad -> assertThat(rows.put(
                                bad.ref(), bad.ref() + "@" + bad.line() + " ! " + bad.reason() + ": " + bad.raw()))
                        .isNull());
    }

    private void compare(Document document, String what, int... chunkSizes) throws IOException {
        Files.write(folder.resolve("t.csv"), document.bytes());
        List<String> expected = expected(document);
        for (int size : chunkSizes) {
            assertThat(read(document, size, 1))
                    .as("%s in pieces of %d: %s", what, size, document)
                    .isEqualTo(expected);
        }
    }

    @Test
    void random_documents_are_read_alike() throws IOException {
        Random random = new Random(SEED);
        for (int i = 0; i < DOCUMENTS; i++) {
            Document document = document(random);
            compare(document, "seed " + SEED + ", document " + i, 1, 2 + random.nextInt(60), 256, 1 << 18);
        }
    }

    @Test
    void a_compressed_document_is_read_alike() throws IOException {
        Random random = new Random(SEED);
        for (int i = 0; i < DOCUMENTS / 20; i++) {
            Document document = document(random);
            Files.write(folder.resolve("t.csv"), document.bytes());
            List<String> expected = expected(document);
            ByteArrayOutputStream packed = new ByteArrayOutputStream();
            try (OutputStream out = new GZIPOutputStream(packed)) {
                out.write(document.bytes());
            }
            Files.write(folder.resolve("t.csv.gz"), packed.toByteArray());
            DelimitedFiles plain = document.rows();
            DelimitedFiles rows = new DelimitedFiles(
                    folder,
                    "t.csv.gz",
                    plain.delimiter(),
                    plain.quote(),
                    plain.encoding(),
                    plain.hasHeader(),
                    plain.header(),
                    plain.nullWords());
            Document same = new Document(rows, document.fields(), document.bytes());
            for (int size : new int[] {1, 100, 1 << 18}) {
                assertThat(read(same, size, 1))
                        .as("seed %d, document %d in pieces of %d", SEED, i, size)
                        .isEqualTo(expected.stream()
                                .map(line -> line.replace("t.csv", "t.csv.gz"))
                                .toList());
            }
        }
    }

    @Test
    void random_bytes_and_changed_documents_are_read_alike() throws IOException {
        Instant end = Instant.now().plus(Duration.ofSeconds(FUZZ_SECONDS));
        long seed = SEED;
        while (Instant.now().isBefore(end)) {
            Random random = new Random(++seed);
            Document document = document(random);
            byte[] bytes = document.bytes();
            if (random.nextInt(4) == 0) {
                bytes = new byte[random.nextInt(400)];
                random.nextBytes(bytes);
            }
            String special = "\"'\n\r,;|\t~\0 \u00e9\uFEFFNULL";
            for (int change = random.nextInt(12); change > 0 && bytes.length > 0; change--) {
                int at = random.nextInt(bytes.length);
                bytes[at] = random.nextInt(3) == 0
                        ? (byte) random.nextInt(256)
                        : (byte) special.charAt(random.nextInt(special.length()));
            }
            compare(document.with(bytes), "seed " + seed, 1 + random.nextInt(5), 1 + random.nextInt(100), 1 << 18);
        }
    }
}
