package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.Rehearsed.delete;
import static taxiomet.testing.Rehearsed.insert;
import static taxiomet.testing.Rehearsed.update;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** MariaDB goes row by row and index by index: what it finds depends on whose turn it is. */
class MariadbOrderTest {
    @TempDir
    private Path folder;

    private Rehearsed run(TestTables tables, Change... changes) {
        return Rehearsed.as(Server.MARIADB, tables, changes);
    }

    private static TestTable ladder(ActionName onDelete, ActionName onUpdate, String... rows) {
        return table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)", onDelete, onUpdate)
                .rows(rows);
    }

    /** The row moves to another primary key; by its second key, whose index comes later, it is still found. */
    @Test
    void a_parent_that_moves_is_still_found_by_an_index_whose_turn_has_not_come() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "a integer", "b integer", "u integer not null")
                        .key("a", "b")
                        .unique("pu", "u")
                        .rows("7|2|7", "1|5|4"),
                table("c", "a integer", "b integer")
                        .key("a", "b")
                        .link("l0", "a, b -> p (a, b)", ActionName.CASCADE, ActionName.CASCADE)
                        .link("l1", "a -> p (u)", ActionName.CASCADE, ActionName.CASCADE)
                        .rows("7|2"));
        Rehearsed came = run(
                tables,
                update(
                        "p",
                        "b",
                        reckoned(whole(1), Operator.PLUS, number("10"), Type.INTEGER),
                        equal(whole(0), number("7"))));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("c")).containsExactly("7|12");
    }

    @Test
    void rows_are_checked_one_by_one_and_not_at_the_end() {
        TestTables tables = TestTables.of(folder, ladder(ActionName.NO_ACTION, ActionName.NO_ACTION, "1|2", "2|NULL"));
        assertThat(run(tables, delete("s")).answers()).containsExactly("accepted");
        TestTables reversed =
                TestTables.of(folder, ladder(ActionName.NO_ACTION, ActionName.NO_ACTION, "1|NULL", "2|1"));
        assertThat(run(reversed, delete("s")).answers()).containsExactly("blocked: rows still point at it at s.su 2");
        assertThat(Rehearsed.as(Server.POSTGRESQL, reversed, delete("s")).answers())
                .containsExactly("accepted");
    }

    /** Rows are looked for by the index of the link: what a cascade empties stands at its beginning from then on. */
    @ParameterizedTest
    @CsvSource({"3, 1, 1|NULL", "1, 3, ''"})
    void a_row_that_moves_is_met_ahead_and_not_behind(int parent, int child, String left) {
        TestTables tables = TestTables.of(
                folder, ladder(ActionName.SET_NULL, ActionName.NO_ACTION, parent + "|NULL", child + "|" + parent));
        Rehearsed came = run(tables, delete("s", new IsNull(whole(1))));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(String.join(" ", came.rows("s"))).isEqualTo(left);
    }

    @Test
    void keys_are_taken_while_a_neighbour_still_has_them() {
        TestTables tables =
                TestTables.of(folder, table("t", "id integer").key("id").rows("1", "2"));
        Change shift = update("t", "id", reckoned(whole(0), Operator.PLUS, number("1"), Type.INTEGER));
        assertThat(run(tables, shift).answers()).containsExactly("blocked: key taken at t.primary_key 1");
        assertThat(Rehearsed.as(Server.STANDARD, tables, shift).answers()).containsExactly("accepted");
        Change back = update("t", "id", reckoned(whole(0), Operator.MINUS, number("1"), Type.INTEGER));
        assertThat(run(tables, back).answers()).containsExactly("accepted");
    }

    @Test
    void a_key_change_that_comes_back_to_its_table_is_refused() {
        TestTables tables = TestTables.of(folder, ladder(ActionName.CASCADE, ActionName.CASCADE, "1|NULL", "2|1"));
        Change change = update("s", "id", number("9"), equal(whole(0), number("1")));
        assertThat(run(tables, change).answers()).singleElement().asString().startsWith("blocked: ");
        Rehearsed there = Rehearsed.as(Server.POSTGRESQL, tables, change);
        assertThat(there.answers()).containsExactly("accepted");
        assertThat(there.rows("s")).containsExactly("9|NULL", "2|9");
    }

    @ParameterizedTest
    @CsvSource({"14, true", "15, false", "40, false"})
    void a_cascade_goes_so_deep_and_no_deeper(int length, boolean isAccepted) {
        List<String> rows = new ArrayList<>(List.of("0|NULL"));
        IntStream.rangeClosed(1, length).forEach(i -> rows.add(i + "|" + (i - 1)));
        TestTables tables =
                TestTables.of(folder, ladder(ActionName.CASCADE, ActionName.NO_ACTION, rows.toArray(String[]::new)));
        Rehearsed came = run(tables, delete("s", equal(whole(0), number("0"))));
        assertThat(came.answers().get(0).equals("accepted")).isEqualTo(isAccepted);
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, delete("s", equal(whole(0), number("0"))))
                        .rows("s"))
                .isEmpty();
    }

    @Test
    void numbers_go_on_from_the_greatest_and_zero_asks_for_one() {
        TestTables tables = TestTables.of(
                folder, table("t", "id integer numbered", "v text").key("id").rows("7|a"));
        Rehearsed came =
                run(tables, insert("t", List.of("id", "v"), "NULL|b", "0|c", "20|d"), insert("t", List.of("v"), "e"));
        assertThat(came.rows("t")).containsExactly("7|a", "8|b", "9|c", "20|d", "21|e");
    }

    @Test
    void assignments_see_those_before_them() {
        TestTables tables = TestTables.of(
                folder, table("t", "id integer", "v integer").key("id").rows("1|5"));
        java.util.Map<String, Input> both = new java.util.LinkedHashMap<>();
        both.put("id", new Input.Computed(number("3")));
        both.put("v", new Input.Computed(whole(0)));
        Change change = update("t", both, java.util.Optional.empty());
        assertThat(run(tables, change).rows("t")).containsExactly("3|3");
        assertThat(Rehearsed.as(Server.STANDARD, tables, change).rows("t")).containsExactly("3|1");
    }

    @Test
    void rules_are_not_judged_for_what_an_action_writes() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "k text").key("k").rows("a"),
                table("c", "id integer", "x text")
                        .key("id")
                        .link("l", "x -> p (k)", ActionName.NO_ACTION, ActionName.CASCADE)
                        .rule("short", equal(taxiomet.testing.Expressions.column(1, Type.TEXT), text("a")))
                        .rows("1|a"));
        Change change = update("p", "k", text("b"));
        assertThat(run(tables, change).answers()).containsExactly("accepted");
        assertThat(run(tables, change).findingChanges()).containsExactly("+broken rule at c.short 1");
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, change).answers())
                .containsExactly("blocked: broken rule at c.short 1");
    }
}
