package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doReturn;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static taxiomet.testing.TestTable.table;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.finding.RehearsalResult;
import taxiomet.proposal.Change;
import taxiomet.proposal.Origin;
import taxiomet.rows.Inside;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Sought;
import taxiomet.rows.TableSource;
import taxiomet.testing.MemorySource;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Rehearsals of tables that live where rows can be looked for by the values of columns. */
class SoughtRowsTest {
    @TempDir
    private Path folder;

    private final TestTable parents = table("p", "k integer").key("k").rows("1", "2", "3");
    private final TestTable children = table("c", "n integer", "x integer")
            .key("n")
            .link("l", "x -> p (k)", ActionName.CASCADE, ActionName.NO_ACTION)
            .rows("10|1", "11|2", "12|1");
    private final Map<String, TableSource> sources = new HashMap<>();
    private final Map<String, Inside> places = new HashMap<>();
    private final List<String> asked = new ArrayList<>();

    @BeforeEach
    void placesThatSeek() {
        for (TestTable each : List.of(parents, children)) {
            TableSource source = spy(each.source());
            Inside place = mock(Inside.class);
            when(source.inside(any(), any(), any())).thenReturn(Optional.of(place));
            when(place.rowsInAll()).thenReturn(3L);
            when(place.seek(any())).thenAnswer(call -> {
                List<Sought> wanted = call.getArgument(0);
                wanted.forEach(one -> asked.add(each.name() + one.columns() + one.values()));
                return Optional.of(found(each.source(), wanted));
            });
            sources.put(each.name(), source);
            places.put(each.name(), place);
        }
    }

    /** Of all rows those that have one of the values. */
    private static SievedRows found(TableSource all, List<Sought> wanted) {
        List<String> rows = MemorySource.rowsOf(all);
        List<Integer> numbers = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            String[] cells = rows.get(i).split("\\|");
            boolean isWanted = wanted.stream()
                    .anyMatch(one -> one.values().stream()
                            .anyMatch(values ->
                                    values.get(0).equals(cells[one.columns().get(0)])));
            if (isWanted) {
                numbers.add(i);
            }
        }
        SievedRows kept = new SievedRows(
                all, numbers.stream().mapToLong(number -> number + 1).toArray());
        RowBatch batch = new RowBatch(all.columns().size());
        for (int number : numbers) {
            String[] cells = rows.get(number).split("\\|");
            for (int i = 0; i < cells.length; i++) {
                byte[] bytes = cells[i].getBytes(StandardCharsets.UTF_8);
                batch.column(i).add(bytes, 0, bytes.length);
            }
            batch.endRow(1, 0, 1);
        }
        kept.add(batch);
        return kept;
    }

    private RehearsalResult rehearse(Comparator comparator, int key) {
        TestTables tables = TestTables.of(folder, parents, children);
        Expression condition = new Compared(
                comparator,
                new ColumnValue(0, Expression.Type.INTEGER),
                new Literal(java.math.BigDecimal.valueOf(key), Expression.Type.INTEGER));
        Change delete = new Change.Delete(new Origin("DELETE", "-e"), "p", Optional.of(condition));
        RehearsalOptions options =
                new RehearsalOptions(Server.STANDARD, 100, false, true, RehearsalOptions.USUALLY_NEAR, false);
        try (Rehearsal rehearsal = Rehearsal.start(
                tables.charter(),
                Rehearsed.inTurn(delete),
                options,
                table -> sources.get(table.name()),
                tables.context())) {
            return rehearsal.result();
        }
    }

    private static long deleted(RehearsalResult result, String table) {
        return result.tables().stream()
                .filter(change -> change.table().equals(table))
                .mapToLong(RehearsalResult.TableChange::deleted)
                .sum();
    }

    @Test
    void what_keys_name_is_sought_and_nothing_else_is_read() {
        assertThat(deleted(rehearse(Comparator.EQUAL, 1), "c")).isEqualTo(2);
        assertThat(asked).contains("p[0][[1]]", "c[1][[1]]");
        sources.values().forEach(source -> {
            verify(source, never()).scan(any(), any());
            verify(source, never()).fetch(any(), any(), any());
        });
    }

    @Test
    void what_no_key_names_is_read() {
        rehearse(Comparator.LESS, 2);
        verify(sources.get("p")).scan(any(), any());
        verify(sources.get("c"), never()).scan(any(), any());
    }

    @Test
    void where_there_are_too_many_the_table_is_read() {
        doReturn(Optional.empty()).when(places.get("c")).seek(any());
        assertThat(deleted(rehearse(Comparator.EQUAL, 1), "c")).isEqualTo(2);
        verify(sources.get("c"), org.mockito.Mockito.atLeastOnce()).scan(any(), any());
    }

    @Test
    void keys_of_other_types_are_not_sought() {
        TestTable days = table("p", "k date").key("k").rows("2024-01-01");
        TableSource source = spy(days.source());
        when(source.inside(any(), any(), any())).thenReturn(Optional.of(mock(Inside.class)));
        sources.put("p", source);
        TestTables tables = TestTables.of(folder, days);
        Expression condition = new Compared(
                Comparator.EQUAL,
                new ColumnValue(0, Expression.Type.MOMENT),
                new Literal(1_704_067_200_000_000L, Expression.Type.MOMENT));
        Change delete = new Change.Delete(new Origin("DELETE", "-e"), "p", Optional.of(condition));
        RehearsalOptions options =
                new RehearsalOptions(Server.STANDARD, 100, false, true, RehearsalOptions.USUALLY_NEAR, false);
        try (Rehearsal rehearsal = Rehearsal.start(
                tables.charter(), Rehearsed.inTurn(delete), options, table -> source, tables.context())) {
            assertThat(deleted(rehearsal.result(), "p")).isEqualTo(1);
        }
        verify(source, org.mockito.Mockito.atLeastOnce()).scan(any(), any());
    }
}
