package taxiomet.rehearse.proof;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Table;
import taxiomet.finding.ProofResult;
import taxiomet.finding.ProofResult.TableProof;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.Secret;

/** What a database did, held against what was rehearsed. */
class ProofTest {
    private static final String[] COLUMNS = {"k integer", "n numeric(6,2)", "t varchar(9)", "c char(3)"};

    @TempDir
    private Path folder;

    private static ChangeResult change(boolean isAccepted) {
        return new ChangeResult(
                "a change", "here", isAccepted, 1, false, List.of(), List.of(), List.of(), List.of(), 0, 0);
    }

    private static RehearsalResult rehearsed(ChangeResult... changes) {
        return new RehearsalResult(
                "t",
                "postgresql",
                "now",
                List.of(),
                List.of(changes),
                List.of(),
                false,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of());
    }

    private ProofResult proof(RehearsalResult rehearsed, TestTable foreseen, TestTable found, Proving database) {
        Table table = TestTables.of(folder, foreseen).charter().table("t");
        when(database.triggers()).thenReturn(List.of("late on t"));
        when(database.server()).thenReturn("a database");
        when(database.rows(any())).thenAnswer(call -> found.source());
        return Proof.of(rehearsed, List.of(table), name -> foreseen.source(), database, Secret.random());
    }

    private static TestTable rows(String... rows) {
        return table("t", COLUMNS).key("k").rows(rows);
    }

    private TableProof compared(TestTable foreseen, TestTable found) {
        Proving database = mock(Proving.class);
        when(database.end()).thenReturn(Optional.empty());
        return proof(rehearsed(), foreseen, found, database).tables().get(0);
    }

    @Test
    void rows_are_compared_by_value_in_any_order_and_spelling() {
        TableProof alike = compared(
                rows("1|1.5|a|b", "2|NULL||c", "2|NULL||c", "x|1|a|b"),
                rows("2|NULL||c", "x|1.00|a|b  ", "01|1.50|a|b ", "2|NULL||c"));
        assertThat(alike.agrees()).as(alike.examples().toString()).isTrue();
        assertThat(alike.rows()).isEqualTo(4);
        assertThat(compared(rows("1|1|NULL|b"), rows("1|1||b")).agrees())
                .as("null is not the empty text")
                .isFalse();
        assertThat(compared(rows("1|1|a|b"), rows("1|1|b|a")).agrees())
                .as("cells of two columns")
                .isFalse();
        assertThat(compared(rows("x|1|a|b"), rows("y|1|a|b")).agrees())
                .as("ill-typed values")
                .isFalse();
        assertThat(compared(rows("1|1|a|b", "1|1|a|b", "2|1|a|b"), rows("1|1|a|b", "2|1|a|b", "2|1|a|b"))
                        .agrees())
                .as("how often a row stands there")
                .isFalse();
    }

    @Test
    void what_differs_is_counted_and_named() {
        TableProof differs = compared(rows("1|1|a|b", "2|2|a|b", "3|3|a|b"), rows("1|1|a|b", "2|9|a|b"));
        assertThat(differs.missing()).isEqualTo(2);
        assertThat(differs.more()).isEqualTo(1);
        assertThat(differs.examples())
                .containsExactly(
                        "not foreseen: k 2, n 9, t \"a\", c \"b\"",
                        "foreseen: k 2, n 2, t \"a\", c \"b\"",
                        "foreseen: k 3, n 3, t \"a\", c \"b\"");
    }

    @Test
    void each_change_is_held_against_its_own_answer_and_the_end_against_its_own() {
        Proving database = mock(Proving.class);
        when(database.carryOut())
                .thenReturn(Optional.empty())
                .thenReturn(Optional.of("it is refused"))
                .thenReturn(Optional.empty());
        when(database.end()).thenReturn(Optional.of("no parent"));
        ProofResult result =
                proof(rehearsed(change(true), change(true), change(false)), rows("1|1|a|b"), rows("1|1|a|b"), database);
        assertThat(result.changes().stream().map(ProofResult.ChangeProof::agrees))
                .containsExactly(true, false, false);
        assertThat(result.changes().get(1).said()).isEqualTo("it is refused");
        assertThat(result.atEnd().orElseThrow().agrees()).isFalse();
        assertThat(result.agrees()).isFalse();
        assertThat(result.triggers()).containsExactly("late on t");
        assertThat(result.tables().get(0).agrees()).isTrue();
    }
}
