package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.Rehearsed.delete;
import static taxiomet.testing.Rehearsed.update;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.proposal.Change;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTables;

/** What totals that ask for parents come to over rows at stake. */
class TotalsAtStakeTest {
    @TempDir
    private Path folder;

    private TestTables tables(ActionName ofFare) {
        return TestTables.of(
                folder,
                table("crossing", "no integer").key("no").rows("1", "2"),
                table("fare", "code varchar(2)", "name varchar(9)", "price numeric(6,2)")
                        .key("code")
                        .rows("A|full|2.50", "C|half|4", "D|none|x"),
                table("ticket", "no integer", "crossing integer", "fare varchar(2)", "persons integer")
                        .key("no")
                        .link("ticket_crossing", "crossing -> crossing(no)", ActionName.CASCADE, ActionName.CASCADE)
                        .link("ticket_fare", "fare -> fare(code)", ofFare, ActionName.CASCADE)
                        .total(
                                "owed",
                                reckoned(
                                        whole(3), Operator.TIMES, parent("ticket_fare", 2, Type.DECIMAL), Type.DECIMAL))
                        .rows("1|1|A|3", "2|1|D|9", "3|1|Z|9", "4|1|NULL|9", "5|1|C|2", "6|2|C|1"));
    }

    private static List<String> told(List<TotalSum> sums) {
        return sums.stream()
                .map(sum -> sum.rows() + " " + sum.rowsAre() + ": " + sum.text() + " = " + sum.sum())
                .toList();
    }

    private static Change crossingGoes() {
        return delete("crossing", equal(whole(0), number("1")));
    }

    @Test
    void rows_that_go_along_are_reckoned_with_their_parents() {
        RehearsalResult result = Rehearsed.as(Server.STANDARD, tables(ActionName.NO_ACTION), crossingGoes())
                .result();

        assertThat(told(result.changes().get(0).totals())).containsExactly("5 deleted: owed = 15.50");
    }

    @Test
    void parents_that_the_proposal_changes_or_takes_away_count_as_they_were() {
        Change dearer = update("fare", "price", number("100"));
        RehearsalResult result = Rehearsed.as(
                        Server.POSTGRESQL, tables(ActionName.SET_NULL), dearer, delete("fare"), crossingGoes())
                .result();

        assertThat(told(result.changes().get(1).totals())).containsExactly("4 emptied: owed = 19.50");
        assertThat(told(result.changes().get(2).totals())).containsExactly("5 deleted: owed = 15.50");
    }

    @Test
    void rows_in_the_way_are_reckoned_with_their_parents() {
        RehearsalResult result = Rehearsed.as(Server.MARIADB, tables(ActionName.RESTRICT), delete("fare"))
                .result();

        assertThat(told(result.changes().get(0).refusals().get(0).totals()))
                .allMatch(sum -> sum.matches("\\d in the way: owed = \\d+\\.?\\d*"))
                .isNotEmpty();
    }

    @Test
    void what_is_personal_is_not_added_up() {
        TestTables tables = tables(ActionName.NO_ACTION);
        Charter personal = tables.charter().withPersonal((table, column) -> column.equals("price"));
        RehearsalOptions options =
                new RehearsalOptions(Server.STANDARD, 100, false, true, RehearsalOptions.USUALLY_NEAR, false);
        try (Rehearsal rehearsal = Rehearsed.start(tables, personal, Rehearsed.inTurn(crossingGoes()), options)) {
            assertThat(rehearsal.result().changes().get(0).totals()).isEmpty();
        }
    }
}
