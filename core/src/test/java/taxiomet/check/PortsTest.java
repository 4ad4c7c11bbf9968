package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.AdditionalMatchers.aryEq;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.atLeastOnce;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.inOrder;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.spy;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;
import static taxiomet.testing.TestTable.table;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.mockito.InOrder;
import taxiomet.charter.ColumnType;
import taxiomet.check.pass.CheckOptions;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillException;
import taxiomet.testing.Columns;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/** What a check does when what it reads from and writes to fails, and whom it tells. */
class PortsTest {
    private static final CheckOptions OPTIONS = new CheckOptions(Set.of(), 3, 3);

    @TempDir
    private Path folder;

    private final TestTable parents = table("p", "k integer").key("k").rows("1", "2");
    private final TestTable children =
            table("c", "x integer").link("l", "x -> p (k)").rows("1", "3");

    private CheckRun start(TestTables tables, TableSource broken, CheckProgress progress) {
        return CheckRun.start(
                tables.charter(),
                OPTIONS,
                table -> table.name().equals("c")
                        ? broken
                        : tables.table(table.name()).source(),
                tables.context().toldTo(progress));
    }

    private void leavesNothingBehind() throws IOException {
        try (Stream<Path> left = Files.list(folder)) {
            assertThat(left).isEmpty();
        }
    }

    @Test
    void a_source_that_fails_midway_ends_the_check_and_is_closed() throws IOException {
        TestTables tables = TestTables.of(folder, parents, children);
        TableSource broken = spy(children.source());
        Scan scan = mock(Scan.class);
        Scan.BatchReader reader = mock(Scan.BatchReader.class);
        when(scan.reader()).thenReturn(reader);
        when(reader.next()).thenThrow(new SourceException("c.csv", "was cut short", "look at the disk"));
        doAnswer(call -> scan).when(broken).scan(any(), any());
        assertThatThrownBy(() -> start(tables, broken, CheckProgress.NONE))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("was cut short");
        verify(broken, atLeastOnce()).close();
        verify(scan, atLeastOnce()).close();
        leavesNothingBehind();
    }

    @Test
    void a_fault_of_the_program_is_not_taken_for_one_of_the_rows() throws IOException {
        TestTables tables = TestTables.of(folder, parents, children);
        TableSource broken = spy(children.source());
        doAnswer(call -> {
                    throw new IllegalStateException("a fault");
                })
                .when(broken)
                .scan(any(), any());
        assertThatThrownBy(() -> start(tables, broken, CheckProgress.NONE))
                .isInstanceOf(IllegalStateException.class)
                .hasMessageContaining("a fault");
        leavesNothingBehind();
    }

    @Test
    void a_table_that_cannot_be_opened_ends_the_check() {
        TestTables tables = TestTables.of(folder, parents, children);
        assertThatThrownBy(() -> CheckRun.start(
                        tables.charter(),
                        OPTIONS,
                        table -> {
                            throw new SourceException(table.name() + ".csv", "there is no such file", "");
                        },
                        tables.context()))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("no such file");
    }

    @Test
    void columns_that_their_keeper_vouches_for_are_not_read() {
        TestTable vouched = table(
                        "c",
                        "x integer",
                        "y integer not null",
                        "z varchar(5)",
                        "w integer not null",
                        "r integer",
                        "d date")
                .with("r", Columns.oneOf("5"))
                .with("d", Columns.written("dd.MM.uuuu"))
                .link("l", "x -> p (k)")
                .rows("1|2|three|4|5|01.02.2024");
        TestTables tables = TestTables.of(folder, parents, vouched);
        TableSource source = spy(vouched.source());
        when(source.facts(anyInt())).thenAnswer(call -> switch ((int) call.getArgument(0)) {
            case 1 -> Optional.of(new ColumnFacts(ColumnType.of(ColumnType.Name.SMALLINT), false));
            case 2 -> Optional.of(new ColumnFacts(new ColumnType(ColumnType.Name.VARCHAR, 6, -1, 0), false));
            case 5 -> Optional.of(new ColumnFacts(ColumnType.of(ColumnType.Name.DATE), false));
            case 3 -> Optional.of(new ColumnFacts(ColumnType.of(ColumnType.Name.INTEGER), true));
            default -> Optional.of(new ColumnFacts(ColumnType.of(ColumnType.Name.INTEGER), false));
        });
        start(tables, source, CheckProgress.NONE).close();
        // Of x the link wants the values, of z the length is not certain, w may be null, r is one of some values,
        // and how d is written no type tells.
        verify(source).scan(aryEq(new int[] {0, 2, 3, 4, 5}), any());
    }

    @Test
    void progress_is_told_table_by_table_parents_first() {
        CheckProgress progress = mock(CheckProgress.class);
        start(TestTables.of(folder, children, parents), children.source(), progress)
                .close();
        InOrder order = inOrder(progress);
        order.verify(progress).reading("p");
        order.verify(progress).reading("c");
        order.verify(progress).concluding();
        verify(progress, atLeastOnce()).advanced(any(), anyLong());
    }

    @Test
    void a_place_for_temporary_files_that_is_not_there_is_an_error_only_where_it_is_needed() {
        String[] keys = IntStream.range(0, 300_000).mapToObj(i -> "key " + i).toArray(String[]::new);
        TestTable many = table("p", "k text").key("k").inBatchesOf(1_000).rows(keys);
        TestTables tables = TestTables.of(folder, many);
        Path nowhere = folder.resolve("nowhere");
        RunContext scarce = new RunContext(nowhere, new MemoryBudget(0), 1, 1);
        assertThatThrownBy(() -> CheckRun.start(tables.charter(), OPTIONS, table -> many.source(), scarce))
                .isInstanceOf(SpillException.class)
                .hasMessageContaining("nowhere");
        RunContext ample = new RunContext(nowhere, new MemoryBudget(1 << 28), 1, 1);
        try (CheckRun run = CheckRun.start(tables.charter(), OPTIONS, table -> many.source(), ample)) {
            assertThat(run.result().isSound()).isTrue();
        }
    }

    @Test
    void temporary_files_go_with_the_run() throws IOException {
        String[] keys = IntStream.range(0, 100_000).mapToObj(i -> "key " + i).toArray(String[]::new);
        TestTable many = table("p", "k text").key("k").inBatchesOf(1_000).rows(keys);
        assertThat(TestTables.of(folder, many).withMemory(0).check().isSound()).isTrue();
        leavesNothingBehind();
    }
}
