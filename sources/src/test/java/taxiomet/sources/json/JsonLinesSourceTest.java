package taxiomet.sources.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.place.JsonLines;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.TableSource;
import taxiomet.work.Workers;

class JsonLinesSourceTest {
    @TempDir
    private Path folder;

    private TableSource open(String text, int runBytes, Map<String, String> fields, String... columns)
            throws IOException {
        Files.writeString(folder.resolve("t.jsonl"), text);
        return JsonLinesSource.open(new JsonLines(folder, "t.jsonl", fields), List.of(columns), runBytes);
    }

    /** Each row as part, row, line and cells, or why it is malformed. */
    private static String words(RowBatch batch, int row) {
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < batch.columnCount(); i++) {
            cells.add(batch.column(i).text(row));
        }
        return RowRef.row(batch.ref(row)) + "@" + batch.line(row) + " " + cells;
    }

    private static void add(RowBatch batch, Map<Long, String> rows) {
        for (int row = 0; row < batch.size(); row++) {
            rows.put(batch.ref(row), words(batch, row));
        }
        batch.malformed()
                .forEach(row -> rows.put(
                        row.ref(), RowRef.row(row.ref()) + "@" + row.line() + " " + row.reason() + ": " + row.raw()));
    }

    private static int[] all(TableSource source) {
        int[] all = new int[source.columns().size()];
        java.util.Arrays.setAll(all, i -> i);
        return all;
    }

    private static List<String> read(TableSource source, int threads) {
        Map<Long, String> rows = java.util.Collections.synchronizedMap(new TreeMap<>());
        try (Scan scan = source.scan(all(source), RefRanges.ALL)) {
            Workers.run(threads, "test", workers -> {
                try (Scan.BatchReader reader = scan.reader()) {
                    for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                        add(batch, rows);
                    }
                }
            });
        }
        return List.copyOf(rows.values());
    }

    @Test
    void values_keep_the_spelling_that_they_have() throws IOException {
        String text =
                "{\"a\":1,\"b\":\"x\"}\n{\"b\":null,\"a\":1.50}\n{\"a\":true,\"b\":{\"c\":[1, 2]}}\n{\"a\":\"\"}\n";
        try (TableSource source = open(text, 1 << 16, Map.of(), "a", "b")) {
            assertThat(read(source, 1))
                    .containsExactly("1@1 [1, x]", "2@2 [1.50, null]", "3@3 [true, {\"c\":[1,2]}]", "4@4 [, null]");
        }
    }

    @Test
    void pointers_lead_into_objects_and_lists() throws IOException {
        String text = "{\"a\":{\"b/c\":7,\"d\":{\"e\":8}},\"l\":[5,{\"m\":6}]}\n{\"a\":1,\"l\":[]}\n";
        Map<String, String> fields =
                Map.of("one", "/a/b~1c", "two", "/a/d/e", "three", "/l/1/m", "four", "/a/d", "five", "/l/0");
        try (TableSource source = open(text, 1 << 16, fields, "one", "two", "three", "four", "five")) {
            assertThat(read(source, 1))
                    .containsExactly("1@1 [7, 8, 6, {\"e\":8}, 5]", "2@2 [null, null, null, null, null]");
        }
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            [1]                        | a JSON object is expected, not an array
            7                          | a JSON object is expected, not a number
            {"a":1                     | the JSON object does not end in its line
            {"a":1} {"a":2}            | more than one JSON value in the line
            {"a":1,"a":2}              | the object names field `a` twice
            {"b":{"x":1,"x":2}}        | the object names field `x` twice
            {a:1}                      | no JSON near character 1
            {"a":"\\ud800"}            | a text holds half of a surrogate pair, which is no character
            {"a":NaN}                  | no JSON near character 8
            """)
    void what_is_no_object_is_a_malformed_row(String line, String reason) throws IOException {
        try (TableSource source = open("{\"a\":0}\n" + line + "\n{\"a\":9}", 1 << 16, Map.of(), "a", "b")) {
            List<String> rows = read(source, 1);
            assertThat(rows).hasSize(3).element(2).isEqualTo("3@3 [9, null]");
            assertThat(rows.get(1)).startsWith("2@2 " + reason);
        }
    }

    @Test
    void hostile_depth_numbers_and_bytes_are_malformed_rows() throws IOException {
        String deep = "{\"a\":" + "[".repeat(5_000) + "]".repeat(5_000) + "}";
        String digits = "{\"a\":" + "9".repeat(2_000) + "}";
        Files.write(
                folder.resolve("t.jsonl"),
                (deep + "\n" + digits + "\n{\"a\":\"\u00FF\"}\n").getBytes(StandardCharsets.ISO_8859_1));
        try (TableSource source =
                JsonLinesSource.open(new JsonLines(folder, "t.jsonl", Map.of()), List.of("a"), 1 << 16)) {
            assertThat(read(source, 1).stream().map(row -> row.replaceAll(":.*", "")))
                    .containsExactly(
                            "1@1 JSON nested deeper than 200 levels, or a number of more than 1000 digits",
                            "2@2 JSON nested deeper than 200 levels, or a number of more than 1000 digits",
                            "3@3 bytes that are not valid UTF-8");
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 64, 1 << 16})
    void rows_are_the_same_however_they_are_cut_and_can_be_fetched_by_number(int runBytes) throws IOException {
        Random random = new Random(runBytes);
        StringBuilder text = new StringBuilder("\uFEFF");
        List<String> expected = new ArrayList<>();
        long line = 0;
        while (expected.size() < 3_000) {
            line++;
            if (random.nextInt(10) == 0) {
                text.append(random.nextBoolean() ? "\n" : " \t\r\n");
                continue;
            }
            String name = "n".repeat(random.nextInt(20));
            text.append("{\"a\":")
                    .append(line)
                    .append(",\"b\":\"")
                    .append(name)
                    .append("\"}")
                    .append(random.nextBoolean() ? "\n" : "\r\n");
            expected.add((expected.size() + 1) + "@" + line + " [" + line + ", " + name + "]");
        }
        try (TableSource source = open(text.toString(), runBytes, Map.of(), "a", "b")) {
            assertThat(read(source, 3)).isEqualTo(expected);
            assertThat(source.emptyLines()).isEqualTo(line - expected.size());
            long[] wanted = random.longs(200, 1, expected.size() + 1)
                    .sorted()
                    .distinct()
                    .toArray();
            int[] at = {0};
            RefCursor refs = () -> at[0] < wanted.length ? RowRef.of(0, wanted[at[0]++]) : RefCursor.END;
            Map<Long, String> fetched = new TreeMap<>();
            source.fetch(refs, all(source), batch -> add(batch, fetched));
            List<String> these = new ArrayList<>();
            for (long row : wanted) {
                these.add(expected.get((int) row - 1));
            }
            assertThat(List.copyOf(fetched.values())).isEqualTo(these);
        }
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 20, 100, 100_000})
    void pieces_hold_every_row_once_and_number_them_from_1(long bytes) throws IOException {
        StringBuilder text = new StringBuilder("\uFEFF\n");
        for (int row = 1; row <= 200; row++) {
            text.append("{\"a\":").append(row).append(row % 7 == 0 ? "}\n\n" : "}\n");
        }
        try (SplittableSource source = (SplittableSource) open(text.toString(), 64, Map.of(), "a")) {
            List<Split> splits = source.splits(bytes);
            List<String> rows = new ArrayList<>();
            long emptyLines = 0;
            for (Split split : splits) {
                int before = rows.size();
                try (SplittableSource.SplitScan scan = source.scan(all(source), Split.parse(split.text()));
                        Scan.BatchReader reader = scan.reader()) {
                    for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                        for (int row = 0; row < batch.size(); row++) {
                            rows.add(batch.column(0).text(row));
                            assertThat(RowRef.row(batch.ref(row))).isEqualTo(rows.size() - before);
                        }
                    }
                    emptyLines += scan.emptyLines();
                }
            }
            assertThat(rows).hasSize(200).first().isEqualTo("1");
            assertThat(rows.get(199)).isEqualTo("200");
            assertThat(emptyLines).isEqualTo(29);
            assertThat(splits.size()).isEqualTo(bytes == 1 ? 229 : bytes == 100_000 ? 1 : splits.size());
        }
    }

    @Test
    void parts_may_be_compressed_and_fields_nobody_declared_are_told() throws IOException {
        Files.writeString(folder.resolve("p1.jsonl"), "{\"a\":1,\"more\":2}\n");
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(folder.resolve("p2.jsonl.gz")))) {
            out.write("{\"a\":2,\"extra\":{}}".getBytes(StandardCharsets.UTF_8));
        }
        try (TableSource source = JsonLinesSource.open(new JsonLines(folder, "p*", Map.of()), List.of("a"), 1 << 16)) {
            assertThat(read(source, 2)).containsExactly("1@1 [1]", "1@1 [2]");
            assertThat(source.partName(1)).isEqualTo("p2.jsonl.gz");
            assertThat(source.undeclared().text()).isEqualTo("fields `extra`, `more` are not declared, and not read");
        }
    }

    @Test
    void a_file_that_changes_between_two_reads_ends_the_run() throws IOException {
        try (TableSource source = open("{\"a\":1}\n{\"a\":2}\n", 1 << 16, Map.of(), "a")) {
            read(source, 1);
            Files.writeString(folder.resolve("t.jsonl"), "{\"a\":1}\n");
            assertThatThrownBy(() -> read(source, 1))
                    .isInstanceOf(SourceException.class)
                    .hasMessageContaining("changed while it was being read");
        }
        assertThatThrownBy(() -> JsonLinesSource.open(new JsonLines(folder, "no.jsonl", Map.of()), List.of("a"), 9))
                .hasMessageContaining("there is no such file");
    }
}
