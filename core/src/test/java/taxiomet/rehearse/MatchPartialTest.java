package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.Rehearsed.delete;
import static taxiomet.testing.Rehearsed.insert;
import static taxiomet.testing.Rehearsed.update;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/**
 * Match partial (S5), each case worked out by hand from the standard's unique matching rows (ISO/IEC 9075-2, 4.18.3.2 and 11.8): a child
 * row belongs to every parent row that agrees with it where it is not null, and an action takes it with the last of them.
 */
class MatchPartialTest {
    @TempDir
    private Path folder;

    private TestTable parents(String... rows) {
        return table("p", "a integer", "b integer").key("a", "b").rows(rows);
    }

    private TestTable children(ActionName onDelete, ActionName onUpdate, String... rows) {
        return table("c", "id integer", "x integer default 1", "y integer default 1")
                .key("id")
                .link("l", "x, y -> p (a, b)", Match.PARTIAL, onDelete, onUpdate)
                .rows(rows);
    }

    private Rehearsed run(TestTable parents, TestTable children, Change... changes) {
        return Rehearsed.as(Server.STANDARD, TestTables.of(folder, parents, children), changes);
    }

    private static Change deleteParent(int a, int b) {
        return delete(
                "p",
                new taxiomet.charter.Expression.And(List.of(
                        equal(whole(0), number(String.valueOf(a))), equal(whole(1), number(String.valueOf(b))))));
    }

    /** The children are (1, null), (1, 1), (null, 2) and (null, null); parent (1, 1) goes, and no other matches (1, null). */
    @ParameterizedTest
    @CsvSource(delimiter = '@', textBlock = """
                    CASCADE @ accepted @ 3|NULL|2, 4|NULL|NULL
                    SET_NULL @ accepted @ 1|NULL|NULL, 2|NULL|NULL, 3|NULL|2, 4|NULL|NULL
                    SET_DEFAULT @ blocked: no such parent at c.l 1; rows still point at it at c.l 2 @ 1|1|NULL, 2|1|1, 3|NULL|2, 4|NULL|NULL
                    NO_ACTION @ blocked: rows still point at it at c.l 1 2 @ 1|1|NULL, 2|1|1, 3|NULL|2, 4|NULL|NULL
                    RESTRICT @ blocked: rows still point at it at c.l 1 2 @ 1|1|NULL, 2|1|1, 3|NULL|2, 4|NULL|NULL
                    """)
    void the_last_parent_that_matches_takes_the_child_along(ActionName action, String answer, String rows) {
        Rehearsed came = run(
                parents("1|1", "2|2"),
                children(action, ActionName.NO_ACTION, "1|1|NULL", "2|1|1", "3|NULL|2", "4|NULL|NULL"),
                deleteParent(1, 1));
        assertThat(came.answers()).containsExactly(answer);
        assertThat(String.join(", ", came.rows("c"))).isEqualTo(rows);
    }

    @ParameterizedTest
    @CsvSource({"CASCADE", "SET_NULL", "SET_DEFAULT", "NO_ACTION", "RESTRICT"})
    void while_another_parent_matches_the_child_stays_as_it_is(ActionName action) {
        Rehearsed came = run(parents("1|1", "1|2"), children(action, action, "1|1|NULL"), deleteParent(1, 1));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("c")).containsExactly("1|1|NULL");
        assertThat(came.findingChanges()).isEmpty();
    }

    @Test
    void parents_that_go_together_are_no_match_for_one_another() {
        Rehearsed came = run(
                parents("1|1", "1|2", "2|2"),
                children(ActionName.CASCADE, ActionName.NO_ACTION, "1|1|NULL", "2|NULL|2"),
                delete("p", equal(whole(0), number("1"))));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("c")).containsExactly("2|NULL|2");
        Rehearsed restricted = run(
                parents("1|1", "1|2", "2|2"),
                children(ActionName.RESTRICT, ActionName.NO_ACTION, "1|1|NULL"),
                delete("p", equal(whole(0), number("1"))));
        assertThat(restricted.answers()).containsExactly("blocked: rows still point at it at c.l 1");
    }

    @Test
    void one_after_the_other_the_second_takes_the_child() {
        Rehearsed came = run(
                parents("1|1", "1|2"),
                children(ActionName.CASCADE, ActionName.NO_ACTION, "1|1|NULL"),
                deleteParent(1, 1),
                deleteParent(1, 2));
        assertThat(came.rows("c")).isEmpty();
        assertThat(came.effects()).containsExactly("p 1,1 deleted", "p 1,2 deleted", "c 1 deleted by l");
    }

    @Test
    void of_three_columns_those_that_are_not_null_decide() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "a integer", "b integer", "d integer")
                        .key("a", "b", "d")
                        .rows("1|2|3", "1|2|4", "1|5|3"),
                table("c", "id integer", "x integer", "y integer", "z integer")
                        .key("id")
                        .link("l", "x, y, z -> p (a, b, d)", Match.PARTIAL, ActionName.CASCADE, ActionName.NO_ACTION)
                        .rows("1|1|2|NULL", "2|1|NULL|3", "3|NULL|2|3", "4|NULL|NULL|4", "5|1|2|3"));
        Rehearsed came = Rehearsed.as(Server.STANDARD, tables, delete("p", equal(whole(2), number("3"))));
        assertThat(came.rows("c")).containsExactly("1|1|2|NULL", "4|NULL|NULL|4");
    }

    /** Parent (1, 1) becomes (7, 1): only the column that changed is written, and only where it was not null. */
    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    CASCADE;     1|7|NULL, 2|7|1, 3|NULL|1
                    SET_NULL;    1|NULL|NULL, 2|NULL|1, 3|NULL|1
                    """)
    void a_key_change_writes_the_columns_that_changed(ActionName action, String rows) {
        Rehearsed came = run(
                parents("1|1", "2|2"),
                children(ActionName.NO_ACTION, action, "1|1|NULL", "2|1|1", "3|NULL|1"),
                update("p", "a", number("7"), equal(whole(0), number("1"))));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(String.join(", ", came.rows("c"))).isEqualTo(rows);
    }

    @Test
    void a_key_change_leaves_alone_who_matches_another_parent_or_this_one_still() {
        Rehearsed came = run(
                parents("1|1", "1|2"),
                children(ActionName.NO_ACTION, ActionName.CASCADE, "1|1|NULL", "2|NULL|1", "3|1|2"),
                update("p", "a", number("7"), equal(whole(1), number("1"))));
        assertThat(came.rows("c")).containsExactly("1|1|NULL", "2|NULL|1", "3|1|2");
    }

    @ParameterizedTest
    @CsvSource({"NO_ACTION", "RESTRICT"})
    void a_key_change_is_refused_while_children_would_be_without_any_match(ActionName action) {
        Rehearsed came = run(
                parents("1|1", "2|2"),
                children(ActionName.NO_ACTION, action, "1|1|NULL"),
                update("p", "a", number("7"), equal(whole(0), number("1"))));
        assertThat(came.answers()).containsExactly("blocked: rows still point at it at c.l 1");
    }

    @Test
    void no_action_is_content_with_another_parent_that_comes_in_the_same_statement() {
        Rehearsed came = run(
                parents("1|1", "2|2"),
                children(ActionName.NO_ACTION, ActionName.NO_ACTION, "1|1|NULL"),
                update(
                        "p",
                        "a",
                        taxiomet.testing.Expressions.reckoned(
                                number("3"),
                                taxiomet.charter.Expression.Operator.MINUS,
                                whole(0),
                                taxiomet.charter.Expression.Type.INTEGER)));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("p")).containsExactly("2|1", "1|2");
    }

    @Test
    void what_is_written_must_match_some_parent_unless_all_is_null() {
        TestTable parents = parents("1|1", "2|2");
        for (String row : List.of("9|1|NULL", "9|NULL|2", "9|2|2", "9|NULL|NULL")) {
            assertThat(run(
                                    parents,
                                    children(ActionName.CASCADE, ActionName.CASCADE),
                                    insert("c", List.of("id", "x", "y"), row))
                            .answers())
                    .as(row)
                    .containsExactly("accepted");
        }
        for (String row : List.of("9|7|NULL", "9|NULL|7", "9|1|2")) {
            assertThat(run(
                                    parents,
                                    children(ActionName.CASCADE, ActionName.CASCADE),
                                    insert("c", List.of("id", "x", "y"), row))
                            .answers())
                    .as(row)
                    .containsExactly("blocked: no such parent at c.l 9");
        }
        assertThat(run(
                                parents,
                                children(ActionName.CASCADE, ActionName.CASCADE, "1|1|NULL"),
                                update("c", "x", number("7")))
                        .answers())
                .containsExactly("blocked: no such parent at c.l 1");
    }

    @Test
    void a_link_that_is_not_enforced_neither_acts_nor_refuses() {
        Rehearsed came = run(
                parents("1|1"),
                children(ActionName.CASCADE, ActionName.CASCADE, "1|1|NULL").with(ForeignKey::notEnforced),
                deleteParent(1, 1));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("c")).containsExactly("1|1|NULL");
        assertThat(came.findingChanges()).containsExactly("+orphan at c.l 1");
    }

    @Test
    void the_cascade_goes_on_from_children_that_go() {
        TestTables tables = TestTables.of(
                folder,
                parents("1|1"),
                children(ActionName.CASCADE, ActionName.NO_ACTION, "5|1|NULL"),
                table("g", "id integer", "c integer")
                        .key("id")
                        .link("gl", "c -> c (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                        .rows("50|5"));
        Rehearsed came = Rehearsed.as(Server.STANDARD, tables, deleteParent(1, 1));
        assertThat(came.effects()).containsExactly("p 1,1 deleted", "c 5 deleted by l", "g 50 deleted by gl");
    }
}
