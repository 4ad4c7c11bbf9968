package taxiomet.sources.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.JsonItems;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;

class JsonItemsSourceTest {
    private static final String ORDERS = """
            {"exported": "today", "skipped": [[1], {"orders": 3}],
             "orders": [
              {"no": 1, "lines": [{"pos": 1, "item": "X1"},
                                  {"pos": 2, "item": null}], "buyer": {"id": "B7"}, "tags": ["new", true]},
              {"no": 2, "lines": [], "buyer": {"id": "B8", "more": [1, "a"]}},
              {"no": 3, "lines": {"pos": 9, "item": "alone"}}],
             "behind": 1}
            """;

    @TempDir
    private Path folder;

    private JsonItemsSource open(String file, String items, Map<String, String> fields, String... columns) {
        return JsonItemsSource.open(new JsonItems(folder, file, items, fields), List.of(columns));
    }

    private static void addRows(RowBatch batch, List<String> rows) {
        for (int row = 0; row < batch.size(); row++) {
            int number = row;
            rows.add(batch.line(row) + ": "
                    + String.join(
                            "|",
                            IntStream.range(0, batch.columnCount())
                                    .mapToObj(column ->
                                            String.valueOf(batch.column(column).text(number)))
                                    .toList()));
        }
        batch.malformed().forEach(row -> rows.add(row.line() + ": " + row.reason()));
    }

    private static List<String> rows(JsonItemsSource source) {
        List<String> rows = new ArrayList<>();
        source.read(IntStream.range(0, source.columns().size()).toArray(), batch -> addRows(batch, rows));
        return rows;
    }

    private void write(String file, String json) throws IOException {
        Files.writeString(folder.resolve(file), json);
    }

    @Test
    void a_list_anywhere_is_a_table() throws IOException {
        write("o.json", ORDERS);
        assertThat(rows(open(
                        "o.json",
                        "/orders",
                        Map.of("buyer", "/buyer/id", "second", "/buyer/more/1"),
                        "no",
                        "buyer",
                        "second")))
                .containsExactly("3: 1|B7|null", "5: 2|B8|a", "6: 3|null|null");
        JsonItemsSource whole = open("o.json", "/orders", Map.of("buyer", "/buyer"), "buyer");
        assertThat(rows(whole))
                .containsExactly("3: {\"id\":\"B7\"}", "5: {\"id\":\"B8\",\"more\":[1,\"a\"]}", "6: null");
        assertThat(whole.undeclared().names()).containsExactly("lines", "no", "tags");
        write("l.json", "[{\"a\": 1.50}, {\"a\": 1e3}, [2], 7, null]");
        assertThat(rows(open("l.json", "", Map.of(), "a")))
                .containsExactly(
                        "1: 1.50",
                        "1: 1e3",
                        "1: an object is expected, not a list",
                        "1: an object is expected, not a number or a truth value",
                        "1: an object is expected, not null");
        write("p.json", "{\"a\": 1}");
        assertThat(rows(open("p.json", "", Map.of(), "a"))).containsExactly("1: 1");
        assertThat(rows(open("p.json", "/b/*/c", Map.of(), "a"))).isEmpty();
    }

    @Test
    void lists_inside_elements_are_tables_that_know_what_they_stand_in() throws IOException {
        write("o.json", ORDERS);
        assertThat(rows(open(
                        "o.json", "/orders/*/lines", Map.of("order", "2/no", "place", "0#"), "order", "place", "item")))
                .containsExactly(
                        "3: 1|0|X1",
                        "3: 1|1|null",
                        "6: a column is to be read 2 steps out of the row, beyond the"
                                + " outermost list: what is there is not kept");
        assertThat(rows(open("o.json", "/orders/*/tags", Map.of("order", "2/no", "tag", "0"), "order", "tag")))
                .containsExactly("3: 1|new", "3: 1|true");
        assertThat(rows(open("o.json", "/orders/*/buyer", Map.of("order", "1/no"), "order", "id")))
                .containsExactly("3: 1|B7", "5: 2|B8");
    }

    @Test
    void lists_inside_lines_know_their_line_and_parts_are_one_table() throws IOException {
        write("f1.jsonl", "{\"id\": 1, \"kids\": [{\"n\": \"a\"}, {\"n\": \"b\"}]}\n\n{\"id\": 2}\n");
        write("f2.jsonl", "{\"id\": 3, \"kids\": [{\"n\": \"c\"}]}\n");
        JsonItemsSource source = open("f*.jsonl", "/kids", Map.of("id", "2/id"), "id", "n");
        assertThat(rows(source)).containsExactly("1: 1|a", "1: 1|b", "1: 3|c");
        long[] wanted = {RowRef.of(0, 2), RowRef.of(1, 1), RefCursor.END};
        int[] next = {0};
        List<String> fetched = new ArrayList<>();
        source.fetch(() -> wanted[next[0]++], new int[] {1}, batch -> addRows(batch, fetched));
        assertThat(fetched).containsExactly("1: b", "1: c");
        assertThat(source.partName(1)).isEqualTo("f2.jsonl, /kids");
    }

    @Test
    void many_elements_are_read_in_batches_and_found_again() throws IOException {
        StringBuilder json = new StringBuilder("{\"a\": {\"rows\": [");
        IntStream.range(0, 7_000)
                .forEach(i -> json.append(i == 0 ? "" : ",\n")
                        .append("{\"i\": ")
                        .append(i)
                        .append("}"));
        write("many.json", json + "]}}");
        JsonItemsSource source = open("many.json", "/a/rows", Map.of(), "i");
        List<String> rows = rows(source);
        assertThat(rows).hasSize(7_000).endsWith("7000: 6999");
        List<String> fetched = new ArrayList<>();
        long[] wanted = {RowRef.of(0, 1), RowRef.of(0, 6_500), RefCursor.END};
        int[] next = {0};
        source.fetch(() -> wanted[next[0]++], new int[] {0}, batch -> addRows(batch, fetched));
        assertThat(fetched).containsExactly("1: 0", "6500: 6499");
    }

    @Test
    void broken_documents_are_refused_with_the_place() throws IOException {
        write("b.json", "[{\"a\": 1},\n {\"a\": 1, \"a\": 2}]");
        assertThatThrownBy(() -> rows(open("b.json", "", Map.of(), "a")))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("b.json, line 2")
                .hasMessageContaining("names field `a` twice");
        write("b.json", "[{\"a\": 1},\n {\"a\": ]");
        assertThatThrownBy(() -> rows(open("b.json", "", Map.of(), "a"))).hasMessageContaining("line 2, column 8");
        write("b.json", "[{\"a\": 1},\n {\"a\": 1");
        assertThatThrownBy(() -> rows(open("b.json", "", Map.of(), "a"))).isInstanceOf(SourceException.class);
        write("b.json", "[".repeat(5_000));
        assertThatThrownBy(() -> rows(open("b.json", "", Map.of(), "a"))).hasMessageContaining("nested too deeply");
        Files.write(folder.resolve("b.json"), "[{\"a\": \"x\u00e9\"}]".getBytes(StandardCharsets.ISO_8859_1));
        assertThatThrownBy(() -> rows(open("b.json", "", Map.of(), "a"))).hasMessageContaining("no JSON there");
        write("b.json", "[{\"a\": \"\\ud800\"}]");
        assertThat(rows(open("b.json", "", Map.of(), "a")).get(0)).contains("half of a surrogate pair");
    }

    /** Seeds 1 to 300. */
    @Test
    void damaged_documents_are_read_or_refused_in_words() throws IOException {
        byte[] whole = ORDERS.getBytes(StandardCharsets.UTF_8);
        for (int seed = 1; seed <= 300; seed++) {
            Random random = new Random(seed);
            byte[] damaged =
                    random.nextInt(5) == 0 ? Arrays.copyOf(whole, random.nextInt(whole.length)) : whole.clone();
            for (int i = random.nextInt(4); i >= 0 && damaged.length > 0; i--) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt();
            }
            Files.write(folder.resolve("d.json"), damaged);
            try {
                rows(open("d.json", "/orders/*/lines", Map.of("order", "2/no"), "order", "item"));
                ListSniffer.sniff(folder.resolve("d.json"), true);
            } catch (SourceException e) {
                assertThat(e.getMessage()).contains("d.json");
            } catch (RuntimeException | Error e) {
                throw new AssertionError("seed " + seed, e);
            }
        }
    }

    @Test
    void a_survey_finds_each_list_with_what_it_stands_in() throws IOException {
        write("o.json", ORDERS);
        Map<String, List<String>> found = new LinkedHashMap<>();
        ListSniffer.sniff(folder.resolve("o.json"), true)
                .forEach(list -> found.put(list.name(), list.rows().columns()));
        assertThat(found)
                .containsEntry("orders", List.of("no", "buyer_id"))
                .containsEntry("orders_lines", List.of("orders_no", "pos", "item"))
                .containsEntry("orders_tags", List.of("orders_no", "tags"))
                .containsEntry("orders_buyer_more", List.of("orders_no", "more"));
        write("f.jsonl", "{\"id\": 1, \"kids\": [{\"id\": \"a\"}]}\n");
        assertThat(ListSniffer.sniff(folder.resolve("f.jsonl"), false)
                        .get(0)
                        .rows()
                        .rows())
                .isEqualTo(new JsonItems(folder.toAbsolutePath(), "f.jsonl", "/kids", Map.of("f_id", "2/id")));
    }
}
