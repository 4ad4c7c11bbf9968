package taxiomet.sources.csv;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeSet;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;

/** Rows come out of files as they were written, with the numbers and lines at which they stand. */
class CsvTableSourceTest {
    @TempDir
    private Path folder;

    private DelimitedFiles rows(String path, String encoding) {
        return new DelimitedFiles(folder, path, ',', '"', encoding, true, Optional.empty(), List.of("NULL"));
    }

    private void write(String name, String text, Charset encoding) throws IOException {
        Files.write(folder.resolve(name), text.getBytes(encoding));
    }

    /** Each row as {@code part/row@line cells}, malformed ones with an exclamation mark and the reason. */
    private static List<String> read(TableSource source) {
        List<String> rows = new ArrayList<>();
        int[] columns = {0, 1};
        source.read(columns, batch -> describe(batch, rows));
        return rows;
    }

    private static void describe(RowBatch batch, List<String> rows) {
        List<String> described = new ArrayList<>();
        for (int row = 0; row < batch.size(); row++) {
            described.add(
                    place(batch.ref(row), batch.line(row)) + " " + cell(batch, 0, row) + "|" + cell(batch, 1, row));
        }
        batch.malformed().forEach(m -> described.add(place(m.ref(), m.line()) + " ! " + m.reason() + ": " + m.raw()));
        described.sort((a, b) -> Long.compare(number(a), number(b)));
        rows.addAll(described);
    }

    private static long number(String described) {
        return Long.parseLong(described.substring(described.indexOf('/') + 1, described.indexOf('@')));
    }

    private static String place(long ref, long line) {
        return RowRef.part(ref) + "/" + RowRef.row(ref) + "@" + line;
    }

    private static String cell(RowBatch batch, int column, int row) {
        String text = batch.column(column).text(row);
        return text == null ? "null" : "'" + text + "'";
    }

    /** In pieces of several sizes: all must agree. */
    private List<String> read(String name, String encoding) {
        List<String> expected = read(name, encoding, CsvTableSource.USUAL_CHUNK);
        for (int chunkBytes : new int[] {1, 2, 3, 7, 64}) {
            assertThat(read(name, encoding, chunkBytes))
                    .as("in pieces of %d", chunkBytes)
                    .isEqualTo(expected);
        }
        return expected;
    }

    private List<String> read(String name, String encoding, int chunkBytes) {
        try (TableSource source = CsvTableSource.open(rows(name, encoding), List.of("a", "b"), chunkBytes)) {
            return read(source);
        }
    }

    @Test
    void nulls_quotes_line_breaks_and_columns_in_any_order() throws IOException {
        write(
                "t.csv",
                "\uFEFFb,extra,a\r\n2,x,1\r\n\r\n\"\",y,NULL\r\"l1\r\nl2\",z,\"NULL\"\n\"q\"\"q\",,é😀",
                StandardCharsets.UTF_8);
        try (TableSource source =
                CsvTableSource.open(rows("t.csv", "UTF-8"), List.of("a", "b"), CsvTableSource.USUAL_CHUNK)) {
            assertThat(read(source))
                    .containsExactly("0/1@2 '1'|'2'", "0/2@4 null|''", "0/3@5 'NULL'|'l1\r\nl2'", "0/4@7 'é😀'|'q\"q'");
            assertThat(source.emptyLines()).isEqualTo(1);
            assertThat(source.undeclared().names()).containsExactly("extra");
        }
    }

    @Test
    void a_malformed_row_costs_itself_and_no_other() throws IOException {
        write(
                "t.csv",
                "a,b\n1,2\n1\n1,2,3\nx\"y,2\n\"ab\"c,2\n3,4\n\"never closed,5\n6,7\n8,\0\n\"open in the last line",
                StandardCharsets.UTF_8);
        assertThat(read("t.csv", "UTF-8"))
                .containsExactly(
                        "0/1@2 '1'|'2'",
                        "0/2@3 ! 1 field where the table has 2: 1",
                        "0/3@4 ! 3 fields where the table has 2: 1,2,3",
                        "0/4@5 ! a quote inside a field that does not begin with one: x\"y,2",
                        "0/5@6 ! more characters behind a closing quote: \"ab\"c,2",
                        "0/6@7 '3'|'4'",
                        "0/7@8 ! more characters behind a closing quote: \"never closed,5",
                        "0/8@9 '6'|'7'",
                        "0/9@10 ! a NUL character: 8,\0",
                        "0/10@11 ! a quote that is never closed: \"open in the last line");
    }

    @Test
    void encodings_are_decoded_and_their_faults_are_rows() throws IOException {
        for (String encoding : List.of("UTF-8", "UTF-16", "UTF-16LE", "UTF-16BE", "ISO-8859-1", "windows-1252")) {
            write("t.csv", "a,b\né,ß\n", Charset.forName(encoding));
            assertThat(read("t.csv", encoding)).as(encoding).containsExactly("0/1@2 'é'|'ß'");
        }
        Files.write(
                folder.resolve("bad.csv"),
                new byte[] {'a', ',', 'b', '\n', '1', ',', (byte) 0xE9, '\n', '3', ',', '4', '\n'});
        assertThat(read("bad.csv", "UTF-8"))
                .containsExactly("0/1@2 ! bytes that are not valid in the file's encoding: 1,\uFFFD", "0/2@3 '3'|'4'");
        assertThat(read("bad.csv", "windows-1252")).containsExactly("0/1@2 '1'|'é'", "0/2@3 '3'|'4'");
    }

    @Test
    void parts_are_read_in_the_order_of_their_names_compressed_or_not() throws IOException {
        write("p-2.csv", "b,a\n2,1\n", StandardCharsets.UTF_8);
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(folder.resolve("p-1.csv.gz")))) {
            out.write("a,b\n1,2\n3,4\n".getBytes(StandardCharsets.UTF_8));
        }
        // A frame as the reference tool writes it: a raw block of "a,b\n5,6\n".
        Files.write(folder.resolve("p-3.csv.zst"), new byte[] {
            0x28, (byte) 0xB5, 0x2F, (byte) 0xFD, 0x20, 8, 0x41, 0, 0, 'a', ',', 'b', '\n', '5', ',', '6', '\n'
        });
        assertThat(read("p-*", "UTF-8"))
                .containsExactly("0/1@2 '1'|'2'", "0/2@3 '3'|'4'", "1/1@2 '1'|'2'", "2/1@2 '5'|'6'");
    }

    @Test
    void single_rows_are_found_again() throws IOException {
        long seed = 20_261_124L;
        Random random = new Random(seed);
        StringBuilder text = new StringBuilder("a,b\n");
        for (int i = 1; i <= 20_000; i++) {
            text.append(i)
                    .append(
                            random.nextInt(50) == 0
                                    ? ",\"two\nlines é\"\n"
                                    : random.nextInt(97) == 0 ? ",x,y\n" : ",v" + i + "\n");
        }
        write("t.csv", text.toString(), StandardCharsets.UTF_8);
        try (TableSource source =
                CsvTableSource.open(rows("t.csv", "UTF-8"), List.of("a", "b"), CsvTableSource.USUAL_CHUNK)) {
            List<String> all = read(source);
            assertThat(all).hasSize(20_000);
            for (int wanted : new int[] {1, 3, 40, 5_000}) {
                TreeSet<Integer> numbers = new TreeSet<>(List.of(20_000));
                while (numbers.size() < wanted) {
                    numbers.add(1 + random.nextInt(20_000));
                }
                Iterator<Integer> next = numbers.iterator();
                List<String> found = new ArrayList<>();
                source.fetch(
                        () -> next.hasNext() ? RowRef.of(0, next.next()) : RefCursor.END,
                        new int[] {0, 1},
                        b -> describe(b, found));
                assertThat(found)
                        .as("seed %d", seed)
                        .isEqualTo(numbers.stream().map(n -> all.get(n - 1)).toList());
            }
            Files.writeString(folder.resolve("t.csv"), "a,b\n1,2\n");
            assertThatThrownBy(() -> source.fetch(() -> RowRef.of(0, 1), new int[] {0}, b -> {}))
                    .isInstanceOf(SourceException.class)
                    .hasMessageContaining("changed while it was being read");
        }
    }

    @Test
    void what_a_sink_throws_comes_out_as_it_is() throws IOException {
        write("t.csv", "a,b\n" + "1,2\n".repeat(5_000), StandardCharsets.UTF_8);
        try (TableSource source =
                CsvTableSource.open(rows("t.csv", "UTF-8"), List.of("a", "b"), CsvTableSource.USUAL_CHUNK)) {
            for (RuntimeException thrown :
                    List.of(new UncheckedIOException(new IOException("disk full")), new IllegalStateException("x"))) {
                assertThatThrownBy(() -> source.read(new int[] {0}, batch -> {
                            throw thrown;
                        }))
                        .isSameAs(thrown);
            }
        }
    }

    @Test
    void headers_that_cannot_be_used_are_refused() throws IOException {
        write("twice.csv", "a,b,a\n", StandardCharsets.UTF_8);
        write("case.csv", "A,b\n", StandardCharsets.UTF_8);
        write("empty.csv", "", StandardCharsets.UTF_8);
        write("alone.csv", "a,b", StandardCharsets.UTF_8);
        assertThatThrownBy(() -> read("twice.csv", "UTF-8")).hasMessageContaining("names column `a` 2 times");
        assertThatThrownBy(() -> read("case.csv", "UTF-8")).hasMessageContaining("`A` looks like it");
        assertThatThrownBy(() -> read("empty.csv", "UTF-8")).hasMessageContaining("the file is empty");
        assertThat(read("alone.csv", "UTF-8")).isEmpty();
    }

    @Test
    void the_charter_can_name_the_columns() throws IOException {
        write("t.txt", "1;'x;y'\n", StandardCharsets.UTF_8);
        DelimitedFiles rows = new DelimitedFiles(
                folder, "t.txt", ';', '\'', "UTF-8", false, Optional.of(List.of("b", "a")), List.of());
        try (TableSource source = CsvTableSource.open(rows, List.of("a", "b"), CsvTableSource.USUAL_CHUNK)) {
            assertThat(read(source)).containsExactly("0/1@1 'x;y'|'1'");
        }
    }
}
