package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Finding;
import taxiomet.rows.Inside;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Sieved;
import taxiomet.rows.Sieved.NullCounts;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Suspicion;
import taxiomet.rows.TableSource;
import taxiomet.testing.Columns;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Tables whose place looks for faults itself, beside those that are read. */
class SieveTest {
    private static final Suspicion ORPHAN = new Suspicion.WithoutParent(List.of(1), "p", List.of(0));

    @TempDir
    private Path folder;

    private final TestTable parents = table("p", "k integer").key("k").rows("1", "2");
    private final TestTable children = table("c", "n integer", "x integer")
            .key("n")
            .link("l", "x -> p (k)")
            .rows("1|1", "2|7", "3|NULL", "3|2");
    private final Map<String, TableSource> sources = new HashMap<>();
    private final Map<String, Inside> places = new HashMap<>();

    @BeforeEach
    void placesThatCanLookForAll() {
        addPlace("p", parents);
        addPlace("c", children);
    }

    private void addPlace(String name, TestTable table) {
        TableSource source = spy(table.source());
        Inside place = mock(Inside.class);
        when(place.whyNot(any())).thenReturn(Optional.empty());
        when(source.inside(any(), any(), any())).thenReturn(Optional.of(place));
        sources.put(name, source);
        places.put(name, place);
    }

    /** A place answers with some rows. */
    private void finds(String table, long rowsInAll, Map<Suspicion, BitSet> met, long[] numbers, String... rows) {
        SievedRows kept = new SievedRows(sources.get(table), numbers);
        RowBatch batch = new RowBatch(rows.length == 0 ? 1 : rows[0].split("\\|", -1).length);
        for (String row : rows) {
            String[] cells = row.split("\\|", -1);
            for (int i = 0; i < cells.length; i++) {
                byte[] bytes = cells[i].getBytes(java.nio.charset.StandardCharsets.UTF_8);
                if (bytes.length == 0) {
                    batch.column(i).addNull();
                } else {
                    batch.column(i).add(bytes, 0, bytes.length);
                }
            }
            batch.endRow(1, 0, 1);
        }
        if (rows.length > 0) {
            kept.add(batch);
        }
        when(places.get(table).sieve(any(), any(), anyInt()))
                .thenReturn(
                        Optional.of(new Sieved(kept, rowsInAll, met, Map.of(List.of(1), new NullCounts(1_000, 0)))));
    }

    private CheckResult check(TestTable... tables) {
        TestTables all = TestTables.of(folder, tables);
        try (CheckRun run = CheckRun.start(
                all.charter(),
                new CheckOptions(Set.of(), 10, 10, true, java.util.Optional.empty()),
                table -> sources.get(table.name()),
                all.context())) {
            return run.result();
        }
    }

    private static BitSet places(int... of) {
        BitSet places = new BitSet();
        for (int place : of) {
            places.set(place);
        }
        return places;
    }

    private static List<String> told(CheckResult result) {
        return result.findings().stream()
                .map(finding -> finding.kind().words() + " at " + finding.at() + ": "
                        + finding.examples().stream().map(row -> row.row() + "").toList())
                .toList();
    }

    private static String remark(CheckResult result, String table) {
        return result.table(table).remarks().stream()
                .filter(remark -> remark.kind().equals("looked at inside")
                        || remark.kind().equals("read as a whole"))
                .map(CheckResult.Remark::text)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void rows_that_were_found_are_judged_under_their_own_numbers_and_all_are_counted() {
        finds("p", 500, Map.of(), new long[0]);
        finds("c", 9_000, Map.of(ORPHAN, places(1)), new long[] {20, 4_000, 7_000}, "5|1", "6|77", "5|2");
        CheckResult result = check(parents, children);
        assertThat(told(result)).containsExactly("duplicate at primary_key: [20, 7000]", "orphan at l: [4000]");
        LinkResult link = result.links().get(0);
        assertThat(List.of(link.rows(), link.judged(), link.nulls(), link.orphans()))
                .containsExactly(9_000L, 8_000L, 1_000L, 1L);
        assertThat(result.tables())
                .extracting(TableResult::rows, TableResult::faultyRows)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(500L, 0L), org.assertj.core.groups.Tuple.tuple(9_000L, 3L));
        assertThat(remark(result, "c")).contains("3 of 9,000 rows were moved");
        verify(sources.get("c"), never()).scan(any(), any());
    }

    @Test
    void parents_for_hints_are_sought_among_all_parents() {
        TestTable towns = table("p", "k text").key("k").rows("Ulmach", "Fors");
        TestTable people = table("c", "n integer", "x text")
                .key("n")
                .link("l", "x -> p (k)")
                .rows("1|fors");
        addPlace("p", towns);
        addPlace("c", people);
        finds("p", 2, Map.of(), new long[0]);
        finds("c", 9_000, Map.of(ORPHAN, places(0)), new long[] {4}, "5|fors");
        Finding orphan = check(towns, people).findings().get(0);
        assertThat(orphan.examples().get(0).hint().orElseThrow().parents()).containsExactly(List.of("Fors"));
    }

    @Test
    void what_only_this_program_judges_has_its_table_read_and_the_parents_too() {
        children.with("n", Columns.pattern("[0-9]+"));
        CheckResult result = check(parents, children);
        assertThat(told(result)).contains("orphan at l: [2]", "duplicate at primary_key: [3, 4]");
        assertThat(remark(result, "c")).isEqualTo("all rows were read: what is declared of `n` is judged here alone");
        assertThat(remark(result, "p")).isEqualTo("all rows were read: the rows of c are held against its keys");
        verify(places.get("p"), never()).sieve(any(), any(), anyInt());
    }

    @Test
    void so_do_links_whose_children_are_counted() {
        children.with(link -> TestTable.children(link, "0..2"));
        assertThat(remark(check(parents, children), "p")).contains("`k`");
        verify(places.get("c"), never()).sieve(any(), any(), anyInt());
    }

    @Test
    void a_place_says_why_it_cannot_look_for_something() {
        finds("p", 2, Map.of(), new long[0]);
        when(places.get("c").whyNot(ORPHAN)).thenReturn(Optional.of("p lives elsewhere"));
        CheckResult result = check(parents, children);
        assertThat(remark(result, "c")).isEqualTo("all rows were read: p lives elsewhere");
        assertThat(told(result)).contains("orphan at l: [2]");
    }

    @Test
    void with_too_many_suspect_rows_a_table_is_read_and_so_are_its_parents_that_were_asked_already() {
        finds("p", 2, Map.of(), new long[0]);
        when(places.get("c").sieve(any(), any(), anyInt())).thenReturn(Optional.empty());
        CheckResult result = check(parents, children);
        assertThat(told(result)).contains("orphan at l: [2]", "duplicate at primary_key: [3, 4]");
        assertThat(remark(result, "c")).contains("so many rows are suspect");
        assertThat(remark(result, "p")).contains("held against");
    }

    @Test
    void nothing_is_asked_unless_it_is_wanted() {
        TestTables all = TestTables.of(folder, parents, children);
        CheckRun.start(
                        all.charter(),
                        new CheckOptions(Set.of(), 10, 10),
                        table -> sources.get(table.name()),
                        all.context())
                .close();
        verify(sources.get("c"), never()).inside(any(), any(), any());
    }
}
