package taxiomet.settle.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.charter.Charter;
import taxiomet.charter.Severity;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.KeptResult;
import taxiomet.finding.ResultComparison;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

class ComparingTest {
    private static final Secret ONE = Secret.random();

    @TempDir
    private Path folder;

    private KeptResult kept(Secret secret, List<Accepted> accepted, TestTable... all) {
        TestTables tables = TestTables.of(folder, all);
        Charter charter = tables.charter().withAccepted(accepted);
        RunContext context = tables.context().under(secret);
        try (CheckRun run = CheckRun.start(
                charter,
                new CheckOptions(Set.of(), 1, 0, false, Optional.of(LocalDate.of(2027, 5, 31))),
                each -> tables.table(each.name()).source(),
                context)) {
            return new ResultKeeper(charter, run, secret).keep(Instant.EPOCH, true);
        }
    }

    private KeptResult kept(String... rows) {
        return kept(ONE, List.of(), moorings(rows));
    }

    private static TestTable moorings(String... rows) {
        return table("mooring", "no integer", "boat varchar(9) not null", "fee integer")
                .key("no")
                .rows(rows);
    }

    private static List<String> told(KeptResult before, KeptResult now) {
        return Comparing.of(before, now).shifts().stream()
                .filter(shift -> shift.severity() != Severity.NOTE)
                .map(shift -> shift.kind().words() + " at " + shift.at() + ": " + shift.before() + " to " + shift.now()
                        + ", new " + shift.newRows() + ", gone " + shift.goneRows()
                        + (shift.renumbered().isEmpty()
                                ? ""
                                : ", renumbered " + shift.renumbered().get(0).before() + " "
                                        + shift.renumbered().get(0).now()))
                .toList();
    }

    @Test
    void rows_are_known_again_by_their_key_wherever_they_stand() {
        assertThat(told(kept("1|NULL|5", "2|Auk|x", "3|NULL|7"), kept("9|Tern|1", "03|NULL|8", "2|Auk|y", "4|NULL|1")))
                .containsExactly("null not allowed at boat: 2 to 2, new [4], gone [1]");
    }

    @Test
    void rows_whose_key_is_at_fault_are_known_again_by_all_they_hold() {
        assertThat(told(kept("1|Auk|1", "1|Auk|1", "1|Gull|2"), kept("1|Auk|01", "1|Gull|2")))
                .containsExactly("duplicate at primary_key: 3 to 2, new [], gone [1]");
        assertThat(told(kept("NULL|Auk|1"), kept("NULL|Tern|1")))
                .containsExactly("null in key at primary_key: 1 to 1, new [null], gone [null]");
    }

    @Test
    void findings_come_and_go() {
        assertThat(told(kept("1|Auk|1"), kept("1|Auk|one")))
                .containsExactly("type mismatch at fee: 0 to 1, new [1], gone []");
        assertThat(told(kept("1|Auk|one"), kept("1|Auk|1")))
                .containsExactly("type mismatch at fee: 1 to 0, new [], gone [1]");
        assertThat(told(kept("1|Auk|one"), kept("1|Auk|one"))).isEmpty();
    }

    @Test
    void a_row_under_another_key_is_the_same_where_nothing_else_holds_what_it_does() {
        assertThat(told(kept("1|Auk|one", "2|Tern|x"), kept("7|Auk|one", "2|Tern|x")))
                .containsExactly("type mismatch at fee: 2 to 2, new [], gone [], renumbered 1 7");
        assertThat(told(kept("1|Auk|one", "2|Auk|one"), kept("7|Auk|one", "8|Auk|one")))
                .containsExactly("type mismatch at fee: 2 to 2, new [7, 8], gone [1, 2]");
    }

    @Test
    void an_orphan_whose_parent_was_there_is_told_from_one_whose_parent_never_was() {
        TestTable boats = table("boat", "boat_no integer", "no numeric(5,0)")
                .key("boat_no")
                .link("boat_mooring", "no -> mooring(no)")
                .rows("1|1", "2|2", "3|9");
        ResultComparison comparison = Comparing.of(
                kept(ONE, List.of(), moorings("1|Auk|1", "2|Tern|1"), boats),
                kept(ONE, List.of(), moorings("1|Auk|1"), boats));
        assertThat(comparison.shifts()).singleElement().satisfies(shift -> {
            assertThat(shift.newRows()).containsExactly("2");
            assertThat(shift.lostParents()).containsExactly("2");
        });
        assertThat(comparison.still()).isEqualTo(1);
    }

    @Test
    void under_another_key_rows_are_not_compared_and_counts_are() {
        ResultComparison comparison = Comparing.of(
                kept(ONE, List.of(), moorings("1|Auk|x")),
                kept(Secret.random(), List.of(), moorings("1|Auk|x", "2|Auk|x")));
        assertThat(comparison.areRowsKnown()).isFalse();
        assertThat(comparison.newFaults()).isEqualTo(1);
        assertThat(comparison.shifts())
                .singleElement()
                .satisfies(shift -> assertThat(shift.newRows()).isEmpty());
    }

    private static Accepted accepted(LocalDate until, AcceptedRow... rows) {
        return new Accepted(
                "type mismatch",
                "mooring",
                "fee",
                List.of(rows),
                List.of(),
                "the office knows",
                Optional.ofNullable(until));
    }

    private static AcceptedRow row(String key) {
        return new AcceptedRow(List.of(key), Optional.empty());
    }

    @Test
    void what_is_accepted_is_not_new_and_counts_again_when_its_day_has_passed() {
        KeptResult before = kept(ONE, List.of(), moorings("1|Auk|x"));
        KeptResult borne = kept(ONE, List.of(accepted(LocalDate.of(2027, 5, 31), row("1"))), moorings("1|Auk|x"));
        KeptResult again = kept(ONE, List.of(accepted(LocalDate.of(2027, 5, 30), row("1"))), moorings("1|Auk|x"));
        assertThat(Comparing.of(before, borne)).satisfies(comparison -> {
            assertThat(comparison.isAnythingNew()).isFalse();
            assertThat(comparison.shifts().get(0).newlyAccepted()).isEqualTo(1);
            assertThat(comparison.later().faultyRows()).isZero();
        });
        assertThat(Comparing.of(borne, again)).satisfies(comparison -> {
            assertThat(comparison.isAnythingNew()).isTrue();
            assertThat(comparison.shifts().get(0).acceptedAgain()).containsExactly("1");
        });
    }
}
