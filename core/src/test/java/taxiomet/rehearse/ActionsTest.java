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
import org.junit.jupiter.params.provider.EnumSource;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal.Deferral;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Referential actions on tables of a few rows, worked out by hand, in each behaviour. */
class ActionsTest {
    @TempDir
    private Path folder;

    private TestTables tables(TestTable... all) {
        return TestTables.of(folder, all);
    }

    private static TestTable apiaries() {
        return table("apiary", "id integer").key("id").rows("1", "2");
    }

    private static TestTable hives(ActionName onDelete, ActionName onUpdate) {
        return table("hive", "id integer", "apiary integer default 2")
                .key("id")
                .link("hive_apiary", "apiary -> apiary (id)", onDelete, onUpdate)
                .rows("10|1", "11|1", "12|2", "13|NULL");
    }

    private static Change deleteFirst() {
        return delete("apiary", equal(whole(0), number("1")));
    }

    private static Change renumberFirst() {
        return update("apiary", "id", number("7"), equal(whole(0), number("1")));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    STANDARD;   CASCADE;     accepted; 12|2, 13|NULL
                    POSTGRESQL; CASCADE;     accepted; 12|2, 13|NULL
                    SQLITE;     CASCADE;     accepted; 12|2, 13|NULL
                    MARIADB;    CASCADE;     accepted; 12|2, 13|NULL
                    STANDARD;   SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    POSTGRESQL; SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    SQLITE;     SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    MARIADB;    SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    STANDARD;   SET_DEFAULT; accepted; 10|2, 11|2, 12|2, 13|NULL
                    POSTGRESQL; SET_DEFAULT; accepted; 10|2, 11|2, 12|2, 13|NULL
                    SQLITE;     SET_DEFAULT; accepted; 10|2, 11|2, 12|2, 13|NULL
                    STANDARD;   NO_ACTION;   blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    POSTGRESQL; NO_ACTION;   blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    SQLITE;     NO_ACTION;   blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    MARIADB;    NO_ACTION;   blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    STANDARD;   RESTRICT;    blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    MARIADB;    RESTRICT;    blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    """)
    void a_parent_that_goes_does_this_to_its_children(Server behaviour, ActionName action, String answer, String rows) {
        Rehearsed came =
                Rehearsed.as(behaviour, tables(apiaries(), hives(action, ActionName.NO_ACTION)), deleteFirst());
        assertThat(came.answers()).containsExactly(answer);
        assertThat(String.join(", ", came.rows("hive"))).isEqualTo(rows);
        assertThat(came.rows("apiary")).hasSize(answer.equals("accepted") ? 1 : 2);
        assertThat(came.findingChanges()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    STANDARD;   CASCADE;     accepted; 10|7, 11|7, 12|2, 13|NULL
                    POSTGRESQL; CASCADE;     accepted; 10|7, 11|7, 12|2, 13|NULL
                    SQLITE;     CASCADE;     accepted; 10|7, 11|7, 12|2, 13|NULL
                    MARIADB;    CASCADE;     accepted; 10|7, 11|7, 12|2, 13|NULL
                    STANDARD;   SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    SQLITE;     SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    MARIADB;    SET_NULL;    accepted; 10|NULL, 11|NULL, 12|2, 13|NULL
                    STANDARD;   SET_DEFAULT; accepted; 10|2, 11|2, 12|2, 13|NULL
                    POSTGRESQL; RESTRICT;    blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    SQLITE;     RESTRICT;    blocked: rows still point at it at hive.hive_apiary 10 11; 10|1, 11|1, 12|2, 13|NULL
                    """)
    void a_parent_that_gets_another_key_does_this_to_its_children(
            Server behaviour, ActionName action, String answer, String rows) {
        Rehearsed came =
                Rehearsed.as(behaviour, tables(apiaries(), hives(ActionName.NO_ACTION, action)), renumberFirst());
        assertThat(came.answers()).containsExactly(answer);
        assertThat(String.join(", ", came.rows("hive"))).isEqualTo(rows);
    }

    @ParameterizedTest
    @EnumSource(
            value = Server.class,
            names = {"STANDARD", "POSTGRESQL", "SQLITE", "MARIADB"})
    void effects_are_told_with_the_link_that_they_come_by(Server behaviour) {
        TestTable frames = table("frame", "id integer", "hive integer")
                .key("id")
                .link("frame_hive", "hive -> hive (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("100|10", "101|12");
        Rehearsed came = Rehearsed.as(
                behaviour, tables(apiaries(), hives(ActionName.CASCADE, ActionName.NO_ACTION), frames), deleteFirst());
        assertThat(came.effects())
                .containsExactlyInAnyOrder(
                        "apiary 1 deleted",
                        "hive 10 deleted by hive_apiary",
                        "hive 11 deleted by hive_apiary",
                        "frame 100 deleted by frame_hive");
        assertThat(came.result().changes().get(0).direct()).isEqualTo(1);
        assertThat(came.result().tables().stream()
                        .map(t -> t.table() + " " + t.rowsBefore() + " " + t.rowsAfter())
                        .toList())
                .containsExactly("apiary 2 1", "hive 4 2", "frame 2 1");
    }

    @ParameterizedTest
    @EnumSource(
            value = Server.class,
            names = {"STANDARD", "POSTGRESQL", "SQLITE", "MARIADB"})
    void what_is_written_has_a_parent(Server behaviour) {
        TestTables tables = tables(apiaries(), hives(ActionName.NO_ACTION, ActionName.NO_ACTION));
        Rehearsed came = Rehearsed.as(
                behaviour,
                tables,
                insert("hive", List.of("id", "apiary"), "20|9"),
                insert("hive", List.of("id", "apiary"), "21|NULL", "22|2"),
                update("hive", "apiary", number("9"), equal(whole(0), number("12"))));
        assertThat(came.answers())
                .containsExactly(
                        "blocked: no such parent at hive.hive_apiary 20",
                        "accepted",
                        "blocked: no such parent at hive.hive_apiary 12");
        assertThat(came.rows("hive")).containsExactly("10|1", "11|1", "12|2", "13|NULL", "21|NULL", "22|2");
    }

    @ParameterizedTest
    @EnumSource(
            value = Server.class,
            names = {"STANDARD", "POSTGRESQL", "MARIADB"})
    void what_is_written_keeps_keys_types_and_rules(Server behaviour) {
        TestTable hives = table("t", "id integer", "n smallint not null", "name varchar(3)")
                .key("id")
                .unique("names", "name")
                .rule(
                        "small",
                        taxiomet.testing.Expressions.is(
                                taxiomet.charter.Expression.Comparator.LESS, whole(1), number("100")))
                .rows("1|1|a", "2|2|NULL");
        Rehearsed came = Rehearsed.as(
                behaviour,
                tables(hives),
                insert("t", List.of("id", "n", "name"), "1|1|b"),
                insert("t", List.of("id", "n", "name"), "3|NULL|b"),
                insert("t", List.of("id", "n", "name"), "3|1|a"),
                insert("t", List.of("id", "n", "name"), "3|100|c"),
                insert("t", List.of("id", "n", "name"), "3|40000|c"),
                insert("t", List.of("id", "n", "name"), "3|3|NULL"),
                update("t", "name", text("a"), equal(whole(0), number("2"))));
        assertThat(came.answers().stream().map(a -> a.replaceAll(" at .*", "")).toList())
                .startsWith(
                        "blocked: key taken", "blocked: null not allowed", "blocked: key taken", "blocked: broken rule")
                .endsWith("accepted", "blocked: key taken");
        assertThat(came.answers().get(4)).startsWith("blocked: ");
        assertThat(came.rows("t")).containsExactly("1|1|a", "2|2|NULL", "3|3|NULL");
    }

    @Test
    void no_action_waits_for_the_end_of_the_statement_and_restrict_does_not() {
        TestTable self = table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)", ActionName.NO_ACTION, ActionName.NO_ACTION)
                .rows("1|NULL", "2|1");
        TestTable strict = table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)", ActionName.RESTRICT, ActionName.RESTRICT)
                .rows("1|NULL", "2|1");
        for (Server behaviour : List.of(Server.STANDARD, Server.POSTGRESQL, Server.SQLITE)) {
            assertThat(Rehearsed.as(behaviour, tables(self), delete("s")).answers())
                    .as(behaviour.name())
                    .containsExactly("accepted");
        }
        // PostgreSQL looks when the statement is through, and RESTRICT there differs in keys that come back alone.
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables(strict), delete("s")).answers())
                .containsExactly("accepted");
        assertThat(Rehearsed.as(Server.SQLITE, tables(strict), delete("s")).answers())
                .containsExactly("blocked: rows still point at it at s.su 2");
    }

    /** Top over two roads to bottom: which of the links was declared first decides in PostgreSQL. */
    @ParameterizedTest
    @CsvSource({"true, accepted", "false, blocked: rows still point at it at bottom.bm2 1"})
    void which_link_is_declared_first_decides(boolean isCascadeFirst, String answer) {
        TestTable top = table("top", "id integer").key("id").rows("1");
        TestTable one = table("m1", "id integer", "t integer")
                .key("id")
                .link("m1t", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("1|1");
        TestTable two = table("m2", "id integer", "t integer")
                .key("id")
                .link("m2t", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("1|1");
        TestTable bottom = table("bottom", "id integer", "a integer", "b integer")
                .key("id")
                .link("bm1", "a -> m1 (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .link("bm2", "b -> m2 (id)", ActionName.RESTRICT, ActionName.NO_ACTION)
                .rows("1|1|1");
        TestTables tables = isCascadeFirst ? tables(top, one, two, bottom) : tables(top, two, one, bottom);
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, delete("top")).answers())
                .containsExactly(answer);
        assertThat(Rehearsed.elsewhere(Server.POSTGRESQL, tables, delete("top")))
                .anyMatch(words -> words.startsWith("PostgreSQL, were the links declared the other way round, "
                        + (isCascadeFirst ? "refuses" : "accepts")));
    }

    @ParameterizedTest
    @CsvSource({
        "DEFERRED, DECLARED, true",
        "IMMEDIATE, DECLARED, false",
        "IMMEDIATE, DEFERRABLE, true",
        "NO, DEFERRABLE, false",
        "NO, ALL, true"
    })
    void a_link_may_wait_for_the_end_of_the_proposal(Deferrable declared, Deferral deferral, boolean waits) {
        TestTable hives =
                hives(ActionName.NO_ACTION, ActionName.NO_ACTION).with(link -> TestTable.deferrable(link, declared));
        Change child = insert("hive", List.of("id", "apiary"), "20|9");
        Change parent = insert("apiary", List.of("id"), "9");
        Rehearsed came = Rehearsed.as(Server.POSTGRESQL, deferral, tables(apiaries(), hives), child, parent);
        assertThat(came.answers().get(0))
                .isEqualTo(waits ? "accepted" : "blocked: no such parent at hive.hive_apiary 20");
        Rehearsed alone = Rehearsed.as(Server.POSTGRESQL, deferral, tables(apiaries(), hives), child);
        assertThat(alone.answers())
                .containsExactlyElementsOf(
                        waits
                                ? List.of("accepted", "at the end: no such parent at hive.hive_apiary 20")
                                : List.of("blocked: no such parent at hive.hive_apiary 20"));
        assertThat(alone.result().isAccepted()).isFalse();
    }

    @Test
    void all_or_nothing_undoes_what_was_accepted() {
        TestTables tables = tables(apiaries(), hives(ActionName.NO_ACTION, ActionName.NO_ACTION));
        Change good = insert("apiary", List.of("id"), "9");
        Rehearsed came = Rehearsed.allOrNothing(Server.STANDARD, tables, good, deleteFirst());
        assertThat(came.result().isUndone()).isTrue();
        assertThat(came.rows("apiary")).containsExactly("1", "2");
        assertThat(Rehearsed.as(Server.STANDARD, tables, good, deleteFirst()).rows("apiary"))
                .containsExactly("1", "2", "9");
    }

    @Test
    void a_later_change_that_would_let_a_blocked_one_pass_is_named() {
        TestTables tables = tables(apiaries(), hives(ActionName.NO_ACTION, ActionName.NO_ACTION));
        Rehearsed came =
                Rehearsed.as(Server.STANDARD, tables, deleteFirst(), delete("hive", equal(whole(1), number("1"))));
        assertThat(came.result().changes().get(0).passesAfter()).isEqualTo(2);
        assertThat(came.result().changes().get(0).refusals().get(0).remedy()).isNotEmpty();
    }

    @Test
    void a_change_that_meets_no_row_is_idle() {
        TestTables tables = tables(apiaries(), hives(ActionName.NO_ACTION, ActionName.NO_ACTION));
        Rehearsed came =
                Rehearsed.as(Server.STANDARD, tables, delete("hive", equal(whole(0), number("99"))), delete("hive"));
        assertThat(came.result().changes().get(0).isIdle()).isTrue();
        assertThat(came.result().changes().get(1).isIdle()).isFalse();
        assertThat(came.result().severities().toList()).hasSize(1);
    }

    @Test
    void dirty_rows_are_taken_as_they_are() {
        TestTable hives = table("hive", "id integer", "apiary integer")
                .key("id")
                .link("hive_apiary", "apiary -> apiary (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("10|9", "10|9", "x|1", "11|1", "MALFORMED");
        Rehearsed came = Rehearsed.as(Server.STANDARD, tables(apiaries(), hives), deleteFirst());
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("hive")).containsExactly("10|9", "10|9", "MALFORMED");
        assertThat(came.findingChanges()).containsExactly("-type mismatch at hive.id 1");
    }

    @Test
    void a_parent_with_a_twin_keeps_its_children() {
        TestTable apiaries =
                table("apiary", "id integer", "place text").key("id").rows("1|a", "1|b", "2|c");
        TestTables tables = tables(apiaries, hives(ActionName.CASCADE, ActionName.NO_ACTION));
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                tables,
                delete("apiary", equal(taxiomet.testing.Expressions.column(1, Type.TEXT), text("a"))));
        assertThat(came.rows("hive")).hasSize(4);
        assertThat(came.result().changes().get(0).keptByTwins()).isEqualTo(1);
        assertThat(came.findingChanges()).containsExactly("-duplicate at apiary.primary_key 2");
    }

    @Test
    void columns_named_in_set_null_are_those_emptied() {
        TestTable parents = table("p", "a integer", "b integer").key("a", "b").rows("1|1");
        TestTable child = table("c", "id integer", "x integer", "y integer")
                .key("id")
                .link("l", "x, y -> p (a, b)", Match.SIMPLE, ActionName.SET_NULL, ActionName.CASCADE)
                .rows("1|1|1");
        child.with(link -> new taxiomet.charter.ForeignKey(
                link.name(),
                link.child(),
                link.columns(),
                link.parent(),
                link.parentColumns(),
                link.match(),
                new taxiomet.charter.ForeignKey.Action(ActionName.SET_NULL, List.of("y")),
                link.onUpdate(),
                link.deferrable(),
                true,
                link.where(),
                link.children(),
                false,
                link.severity()));
        assertThat(Rehearsed.as(Server.STANDARD, tables(parents, child), delete("p"))
                        .rows("c"))
                .containsExactly("1|1|NULL");
    }

    @ParameterizedTest
    @CsvSource({"STANDARD", "POSTGRESQL"})
    void keys_may_be_shifted_over_one_another(Server behaviour) {
        TestTables tables = tables(apiaries(), hives(ActionName.NO_ACTION, ActionName.CASCADE));
        Rehearsed came = Rehearsed.as(
                behaviour,
                tables,
                update("apiary", "id", reckoned(number("3"), Operator.MINUS, whole(0), Type.INTEGER)));
        if (behaviour == Server.STANDARD) {
            assertThat(came.rows("hive")).containsExactly("10|2", "11|2", "12|1", "13|NULL");
        } else {
            assertThat(came.answers()).singleElement().asString().startsWith("blocked: key taken");
        }
    }

    @ParameterizedTest
    @CsvSource({"900, true", "1100, false"})
    void sqlite_follows_so_deep_and_no_deeper(int length, boolean isAccepted) {
        List<String> rows = new ArrayList<>(List.of("0|NULL"));
        IntStream.rangeClosed(1, length).forEach(i -> rows.add(i + "|" + (i - 1)));
        TestTable chain = table("s", "id integer", "up integer")
                .key("id")
                .link("su", "up -> s (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows(rows.toArray(String[]::new));
        Change change = delete("s", equal(whole(0), number("0")));
        assertThat(Rehearsed.as(Server.SQLITE, tables(chain), change)
                        .answers()
                        .get(0)
                        .equals("accepted"))
                .isEqualTo(isAccepted);
        assertThat(Rehearsed.as(Server.STANDARD, tables(chain), change).rows("s"))
                .isEmpty();
    }

    @Test
    void sqlite_judges_a_deferrable_restrict_at_once() {
        TestTable hives = hives(ActionName.RESTRICT, ActionName.NO_ACTION)
                .with(link -> TestTable.deferrable(link, Deferrable.DEFERRED));
        assertThat(Rehearsed.as(Server.SQLITE, tables(apiaries(), hives), deleteFirst())
                        .answers())
                .containsExactly("blocked: rows still point at it at hive.hive_apiary 10 11");
    }

    @Test
    void sqlite_numbers_a_row_only_by_the_word_integer() {
        TestTable words = table("t", "id integer", "v text").key("id").rows("5|a");
        Rehearsed numbered = Rehearsed.as(Server.SQLITE, tables(words), insert("t", List.of("v"), "b"));
        assertThat(numbered.answers()).containsExactly("accepted");
        assertThat(numbered.rows("t")).containsExactly("5|a", "6|b");
        TestTable other = table("t", "id bigint", "v text").key("id").rows("5|a");
        assertThat(Rehearsed.as(Server.SQLITE, tables(other), insert("t", List.of("v"), "b"))
                        .rows("t"))
                .containsExactly("5|a", "NULL|b");
        assertThat(Rehearsed.as(Server.STANDARD, tables(other), insert("t", List.of("v"), "b"))
                        .answers())
                .containsExactly("blocked: null not allowed at t.id NULL".replace("NULL", "null"));
    }

    @Test
    void defaults_are_constants_clocks_or_nothing() {
        TestTable made = table(
                        "t",
                        "id integer",
                        "n numeric(6,2) default 1.5",
                        "c text default calm",
                        "d date default current_date",
                        "m timestamp default current_timestamp",
                        "x text")
                .key("id");
        Rehearsed came = Rehearsed.as(Server.STANDARD, tables(made), insert("t", List.of("id"), "1"));
        assertThat(came.rows("t")).containsExactly("1|1.50|calm|2026-05-01|2026-05-01 10:20:30|NULL");
    }
}
