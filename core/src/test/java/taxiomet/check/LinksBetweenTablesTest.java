package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.Finding.Missing;
import taxiomet.finding.Finding.Rings;
import taxiomet.testing.Columns;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Links between rows: orphans, half nulls, numbers of children and rings. */
class LinksBetweenTablesTest {
    @TempDir
    private Path folder;

    private List<String> findings(TestTable... tables) {
        return TestTables.of(folder, tables).findings();
    }

    private static TestTable parents(String type, String... rows) {
        return table("p", "k " + type).key("k").rows(rows);
    }

    private static TestTable children(String type, String... rows) {
        return table("c", "x " + type).link("l", "x -> p (k)").rows(rows);
    }

    @Test
    void a_child_without_a_parent_is_an_orphan_and_null_points_nowhere() {
        assertThat(findings(parents("integer", "1", "2"), children("integer", "1", "3", "NULL", "2", "3")))
                .containsExactly("orphan at c.l: 2 5");
    }

    @Test
    void it_is_said_how_many_were_judged() {
        CheckResult result = TestTables.of(
                        folder,
                        parents("integer", "1", "2"),
                        children("integer", "1", "3", "NULL", "x", MemorySource.MALFORMED, "3", "4"))
                .check();
        LinkResult link = result.links().get(0);
        assertThat(List.of(link.rows(), link.judged(), link.nulls(), link.halfNulls(), link.illTyped(), link.orphans()))
                .containsExactly(6L, 5L, 1L, 0L, 1L, 4L);
        Missing missing = (Missing) result.findings().stream()
                .filter(f -> f.at().equals("l"))
                .findFirst()
                .orElseThrow()
                .details();
        assertThat(missing.distinct()).isEqualTo(3);
        assertThat(missing.commonest().get(0).values()).containsExactly("3");
        assertThat(missing.commonest().get(0).rows()).isEqualTo(2);
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    integer;  bigint;       01;        true
                    integer;  numeric(9,2); 1.00;      true
                    numeric;  integer;      1;         true
                    integer;  numeric(9,2); 1.01;      false
                    date;     timestamp;    0001-01-01 00:00; false
                    char(4);  varchar(9);   1   ;      true
                    text;     text;         1x;        false
                    """)
    void values_of_related_types_meet(String parent, String child, String value, boolean isThere) {
        String key = parent.equals("date") ? "2024-01-01" : "1";
        List<String> found = findings(parents(parent, key), children(child, value));
        assertThat(found.contains("orphan at c.l: 1")).isNotEqualTo(isThere);
    }

    @Test
    void case_and_blanks_are_left_out_as_the_child_declares() {
        TestTable parents = parents("text", "Rose", "lily").with("k", Columns::ignoringCase);
        TestTable children = children("text", "ROSE", "LILY", "daisy").with("x", Columns::ignoringCase);
        assertThat(findings(parents, children)).containsExactly("orphan at c.l: 3");
        assertThat(findings(parents("text", "Rose"), children("text", "ROSE"))).containsExactly("orphan at c.l: 1");
    }

    @Test
    void a_parent_without_a_declared_key_is_looked_up_as_well() {
        TestTable parents = table("p", "k integer").rows("1", "1", "2");
        assertThat(findings(parents, children("integer", "1", "3"))).containsExactly("orphan at c.l: 2");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    SIMPLE;  2; none
                    FULL;    2; 3 4 6
                    PARTIAL; 2 6; none
                    """)
    void half_nulls_are_judged_as_the_match_says(Match match, String orphans, String halfNull) {
        TestTable parents = table("p", "a integer", "b integer").key("a", "b").rows("1|1", "1|2", "2|2");
        TestTable children = table("c", "x integer", "y integer")
                .link("l", "x, y -> p (a, b)", match, ActionName.NO_ACTION, ActionName.NO_ACTION)
                .rows("1|1", "2|1", "1|NULL", "NULL|2", "NULL|NULL", "3|NULL");
        List<String> found = findings(parents, children);
        assertThat(found).contains("orphan at c.l: " + orphans);
        assertThat(found.contains("half-null link at c.l: " + halfNull)).isNotEqualTo(halfNull.equals("none"));
    }

    /** More columns than the bits of an int, and than those of a long. */
    @ParameterizedTest
    @ValueSource(ints = {2, 31, 32, 33, 40, 64, 65, 70})
    void match_partial_holds_for_any_number_of_columns(int width) {
        String[] columns =
                IntStream.range(0, width).mapToObj(i -> "c" + i + " integer").toArray(String[]::new);
        String names = IntStream.range(0, width).mapToObj(i -> "c" + i).collect(Collectors.joining(", "));
        String parent = IntStream.range(0, width).mapToObj(String::valueOf).collect(Collectors.joining("|"));
        List<String> rows = new ArrayList<>();
        for (int last = 0; last < 2; last++) {
            for (int nulls = 0; nulls < width; nulls += Math.max(1, width / 3)) {
                String[] cells = parent.split("\\|");
                cells[width - 1] = String.valueOf(width - 1 + last);
                Arrays.fill(cells, 0, Math.min(nulls, width - 1), "NULL");
                rows.add(String.join("|", cells));
            }
        }
        int half = rows.size() / 2;
        String orphans = IntStream.rangeClosed(half + 1, 2 * half)
                .mapToObj(String::valueOf)
                .collect(Collectors.joining(" "));
        assertThat(findings(
                        table("p", columns).key(names.split(", ")).rows(parent),
                        table("c", columns)
                                .link(
                                        "l",
                                        names + " -> p (" + names + ")",
                                        Match.PARTIAL,
                                        ActionName.NO_ACTION,
                                        ActionName.NO_ACTION)
                                .rows(rows.toArray(String[]::new))))
                .containsExactly("orphan at c.l: " + orphans);
    }

    /** Each random case is also answered by looking through all parents for each child. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void random_partial_links_are_those_that_a_search_finds(long seed) {
        Random random = new Random(seed);
        int width = 2 + random.nextInt(3);
        List<String> parents = rows(random, 12, width, 0);
        List<String> children = rows(random, 40, width, 3);
        List<String> orphans = new ArrayList<>();
        for (int i = 0; i < children.size(); i++) {
            String[] child = children.get(i).split("\\|");
            boolean isBlank = Arrays.stream(child).allMatch("NULL"::equals);
            if (!isBlank && parents.stream().noneMatch(parent -> agrees(parent.split("\\|"), child))) {
                orphans.add(String.valueOf(i + 1));
            }
        }
        String[] columns =
                IntStream.range(0, width).mapToObj(i -> "c" + i + " integer").toArray(String[]::new);
        String names = IntStream.range(0, width).mapToObj(i -> "c" + i).collect(Collectors.joining(", "));
        List<String> found = TestTables.of(
                        folder,
                        table("p", columns).rows(parents.toArray(String[]::new)),
                        table("c", columns)
                                .link(
                                        "l",
                                        names + " -> p (" + names + ")",
                                        Match.PARTIAL,
                                        ActionName.NO_ACTION,
                                        ActionName.NO_ACTION)
                                .rows(children.toArray(String[]::new)))
                .withMemory(random.nextBoolean() ? 0 : 1 << 20)
                .findings();
        assertThat(found)
                .containsExactlyElementsOf(
                        orphans.isEmpty() ? List.of() : List.of("orphan at c.l: " + String.join(" ", orphans)));
    }

    private static List<String> rows(Random random, int count, int width, int nullsOf10) {
        List<String> rows = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            rows.add(IntStream.range(0, width)
                    .mapToObj(c -> random.nextInt(10) < nullsOf10 ? "NULL" : String.valueOf(random.nextInt(4)))
                    .collect(Collectors.joining("|")));
        }
        return rows;
    }

    private static boolean agrees(String[] parent, String[] child) {
        return IntStream.range(0, child.length).allMatch(i -> child[i].equals("NULL") || child[i].equals(parent[i]));
    }

    @Test
    void a_link_of_some_rows_looks_at_no_others() {
        TestTable children = table("c", "x integer", "kind integer")
                .link("l", "x -> p (k)")
                .where(equal(whole(1), number("1")))
                .rows("1|1", "7|1", "7|2", "7|NULL");
        CheckResult result =
                TestTables.of(folder, parents("integer", "1"), children).check();
        assertThat(TestTables.of(folder, parents("integer", "1"), children).findings())
                .containsExactly("orphan at c.l: 2");
        assertThat(result.links().get(0).judged()).isEqualTo(2);
    }

    @Test
    void a_column_may_point_at_two_tables_by_what_stands_beside_it() {
        TestTable other = table("q", "k integer").key("k").rows("5");
        TestTable children = table("c", "x integer", "kind integer")
                .link("to_p", "x -> p (k)")
                .where(equal(whole(1), number("1")))
                .link("to_q", "x -> q (k)")
                .where(equal(whole(1), number("2")))
                .rows("1|1", "5|1", "5|2", "1|2");
        assertThat(findings(parents("integer", "1"), other, children))
                .containsExactly("orphan at c.to_p: 2", "orphan at c.to_q: 4");
    }

    @Test
    void tables_in_a_circle_and_tables_that_point_at_themselves_are_judged() {
        TestTable a = table("a", "id integer", "b integer")
                .key("id")
                .link("ab", "b -> b (id)")
                .rows("1|1", "2|9");
        TestTable b = table("b", "id integer", "a integer")
                .key("id")
                .link("ba", "a -> a (id)")
                .rows("1|2", "2|8");
        TestTable self = table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)")
                .rows("1|2", "2|1", "3|4");
        assertThat(findings(a, b, self)).containsExactly("orphan at a.ab: 2", "orphan at b.ba: 2", "orphan at s.su: 3");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    1..2;  3 4;  1
                    ..1;   none; 1 2
                    1..;   3 4;  none
                    0..3;  none; none
                    2;     3 4;  1
                    """)
    void parents_have_as_many_children_as_the_link_says(String range, String few, String many) {
        TestTable children =
                children("integer", "1", "1", "1", "2", "2", "9", "NULL").with(link -> TestTable.children(link, range));
        List<String> found = findings(parents("integer", "1", "2", "3", "4"), children);
        assertThat(found).contains("orphan at c.l: 6");
        assertThat(found.contains("too few children at p.l: " + few)).isNotEqualTo(few.equals("none"));
        assertThat(found.contains("too many children at p.l: " + many)).isNotEqualTo(many.equals("none"));
        assertThat(found).hasSize(1 + (few.equals("none") ? 0 : 1) + (many.equals("none") ? 0 : 1));
    }

    @Test
    void children_are_told_by_number() {
        TestTable children = children("integer", "1", "1", "2").with(link -> TestTable.children(link, "1"));
        CheckResult result = TestTables.of(folder, parents("integer", "1", "2", "3"), children)
                .check();
        assertThat(result.findings().stream()
                        .flatMap(f -> f.examples().stream())
                        .map(row -> row.problem())
                        .toList())
                .containsExactly("0 children", "2 children");
        assertThat(result.links().get(0).children().orElseThrow().childless()).isEqualTo(1);
    }

    @Test
    void children_of_some_rows_are_counted_over_these() {
        TestTable children = table("c", "x integer", "kind integer")
                .link("l", "x -> p (k)")
                .with(link -> TestTable.children(link, "1..1"))
                .where(equal(whole(1), number("1")))
                .rows("1|1", "1|2", "2|2", "3|1", "3|1");
        assertThat(findings(parents("integer", "1", "2", "3"), children))
                .containsExactly("too few children at p.l: 2", "too many children at p.l: 3");
    }

    private static TestTable ladder(String... rows) {
        return table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)")
                .with(TestTable::acyclic)
                .rows(rows);
    }

    @Test
    void rows_above_themselves_are_found_ring_by_ring() {
        TestTable rings = ladder("1|2", "2|3", "3|1", "4|3", "5|NULL", "6|6", "7|8", "8|7", "9|5");
        assertThat(findings(rings)).containsExactly("own ancestor at s.su: 1/1 2/1 3/1 6/2 7/3 8/3");
        assertThat(TestTables.of(folder, rings).check().findings().get(0).details())
                .isEqualTo(new Rings(3));
    }

    @Test
    void a_long_chain_is_no_ring_until_its_ends_meet() {
        int length = 50_000;
        List<String> rows = new ArrayList<>();
        IntStream.range(1, length).forEach(i -> rows.add(i + "|" + (i + 1)));
        rows.add(length + "|NULL");
        assertThat(findings(ladder(rows.toArray(String[]::new)).inBatchesOf(1000)))
                .isEmpty();
        rows.set(length - 1, length + "|" + (length - 9));
        List<String> found = findings(ladder(rows.toArray(String[]::new)).inBatchesOf(1000));
        assertThat(found)
                .containsExactly("own ancestor at s.su: "
                        + IntStream.rangeClosed(length - 9, length)
                                .mapToObj(i -> i + "/1")
                                .collect(Collectors.joining(" ")));
    }

    @Test
    void with_little_memory_the_same_orphans_are_found() {
        Random random = new Random(7);
        List<String> parents = new ArrayList<>();
        List<String> children = new ArrayList<>();
        Set<Integer> missing = Set.of(17, 4_711, 19_998);
        IntStream.range(0, 20_000).filter(i -> !missing.contains(i)).forEach(i -> parents.add("p-" + i));
        List<String> orphans = new ArrayList<>();
        for (int i = 0; i < 30_000; i++) {
            int parent = random.nextInt(20_000);
            children.add("p-" + parent);
            if (missing.contains(parent)) {
                orphans.add(String.valueOf(i + 1));
            }
        }
        String expected = "orphan at c.l: " + String.join(" ", orphans);
        for (int memory : new int[] {64 << 20, 1 << 16, 0}) {
            assertThat(TestTables.of(
                                    folder,
                                    parents("text", parents.toArray(String[]::new))
                                            .inBatchesOf(512),
                                    children("text", children.toArray(String[]::new))
                                            .inBatchesOf(512))
                            .withMemory(memory)
                            .findings())
                    .as("memory of " + memory)
                    .containsExactly(expected);
        }
    }

    @Test
    void only_some_tables_are_judged_where_that_is_asked_for() {
        TestTables tables = TestTables.of(
                folder,
                parents("integer", "1", "1"),
                children("integer", "2"),
                table("o", "x integer").rows("x"));
        CheckResult result = tables.check(new CheckOptions(Set.of("c"), 3, 3));
        assertThat(result.tables().stream().map(t -> t.name()).toList()).containsExactly("c");
        assertThat(result.findings().stream().map(f -> f.table()).toList()).containsExactly("c");
    }

    @Test
    void sources_are_closed_behind_the_check() {
        MemorySource source = parents("integer", "1").source();
        TestTables tables = TestTables.of(folder, parents("integer", "1"));
        CheckRun.start(tables.charter(), new CheckOptions(Set.of(), 3, 3), table -> source, tables.context())
                .close();
        assertThat(source.isClosed()).isTrue();
    }
}
