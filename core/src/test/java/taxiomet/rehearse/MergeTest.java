package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.Rehearsed.delete;
import static taxiomet.testing.Rehearsed.deleteListed;
import static taxiomet.testing.Rehearsed.insert;
import static taxiomet.testing.Rehearsed.merge;
import static taxiomet.testing.Rehearsed.mergeAll;
import static taxiomet.testing.Rehearsed.renumber;
import static taxiomet.testing.Rehearsed.updateListed;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.Combination;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Merges, other keys for rows, and changes that name their rows by lists or by numbers. */
class MergeTest {
    @TempDir
    private Path folder;

    private final TestTable keepers = table("keeper", "id integer", "name text", "phone text")
            .key("id")
            .rows("1|Ada|NULL", "2|Ada B.|77", "3|Cem|NULL");

    private TestTables tables(TestTable... more) {
        TestTable[] all = new TestTable[more.length + 1];
        all[0] = keepers;
        System.arraycopy(more, 0, all, 1, more.length);
        return TestTables.of(folder, all);
    }

    private static TestTable apiaries() {
        return table("apiary", "id integer", "keeper integer")
                .key("id")
                .link("ak", "keeper -> keeper (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("10|1", "11|2", "12|3");
    }

    private static TestTable visits() {
        return table("visit", "keeper integer", "day integer", "hours integer", "note text")
                .key("keeper", "day")
                .link("vk", "keeper -> keeper (id)")
                .rows("1|5|2|a", "2|5|3|b", "2|6|4|c");
    }

    @Test
    void what_points_at_the_one_points_at_the_other() {
        Rehearsed came = Rehearsed.as(Server.STANDARD, tables(apiaries()), merge("keeper", "2", "1"));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("keeper")).containsExactly("1|Ada|77", "3|Cem|NULL");
        assertThat(came.rows("apiary")).containsExactly("10|1", "11|1", "12|3");
        assertThat(came.findingChanges()).isEmpty();
    }

    @Test
    void children_that_would_share_a_key_are_merged_only_where_it_is_said_how() {
        TestTables tables = tables(visits());
        Rehearsed blocked = Rehearsed.as(Server.STANDARD, tables, merge("keeper", "2", "1"));
        assertThat(blocked.answers())
                .containsExactly("blocked: two rows would share a key at visit.primary_key 2,5;"
                        + " rows still point at it at visit.vk 2,5");
        assertThat(blocked.rows("visit")).containsExactly("1|5|2|a", "2|5|3|b", "2|6|4|c");
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                tables,
                mergeAll("keeper", "2", "1", Map.of("visit", Map.of("hours", Combination.SUM))));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("visit")).containsExactly("1|5|5|a", "1|6|4|c");
    }

    @ParameterizedTest
    @CsvSource({"SUM, 5", "LEAST, 2", "GREATEST, 3", "FIRST, 2", "STAYER, 2"})
    void values_combine_as_they_are_told(Combination how, String hours) {
        Rehearsed came = Rehearsed.as(
                Server.STANDARD, tables(visits()), mergeAll("keeper", "2", "1", Map.of("visit", Map.of("hours", how))));
        assertThat(came.rows("visit").get(0)).isEqualTo("1|5|" + hours + "|a");
    }

    @Test
    void rows_that_are_not_there_cannot_be_merged() {
        assertThatThrownBy(() -> Rehearsed.as(Server.STANDARD, tables(), merge("keeper", "9", "1")))
                .isInstanceOf(ProposalException.class);
        assertThatThrownBy(() -> Rehearsed.as(Server.STANDARD, tables(), merge("keeper", "1", "1")))
                .isInstanceOf(ProposalException.class)
                .hasMessageContaining("the same row");
        assertThatThrownBy(() -> Rehearsed.as(Server.STANDARD, tables(), merge("keeper", "x", "1")))
                .isInstanceOf(ProposalException.class);
    }

    @Test
    void a_merge_along_a_circle_is_refused() {
        TestTable self = table("s", "id integer", "up integer", "n integer")
                .key("id")
                .unique("un", "up", "n")
                .link("su", "up -> s (id)")
                .rows("1|2|1", "2|1|1");
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                TestTables.of(folder, self),
                mergeAll("s", "2", "1", Map.of("s", Map.of("n", Combination.SUM))));
        assertThat(came.answers()).hasSize(1);
        assertThat(came.rows("s")).isNotEmpty();
    }

    @ParameterizedTest
    @CsvSource({"STANDARD", "POSTGRESQL", "SQLITE", "MARIADB"})
    void another_key_is_followed_whatever_the_link_says(Server behaviour) {
        Rehearsed came = Rehearsed.as(behaviour, tables(apiaries()), renumber("keeper", "2", "20"));
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("keeper")).containsExactlyInAnyOrder("1|Ada|NULL", "20|Ada B.|77", "3|Cem|NULL");
        assertThat(came.rows("apiary")).containsExactly("10|1", "11|20", "12|3");
    }

    @Test
    void another_key_must_be_free() {
        assertThat(Rehearsed.as(Server.STANDARD, tables(apiaries()), renumber("keeper", "2", "3"))
                        .answers())
                .singleElement()
                .asString()
                .startsWith("blocked: key taken at keeper.primary_key");
    }

    @Test
    void a_list_of_keys_names_the_rows() {
        Rehearsed came =
                Rehearsed.as(Server.STANDARD, tables(apiaries()), deleteListed("keeper", List.of("id"), "1", "3"));
        assertThat(came.rows("keeper")).containsExactly("2|Ada B.|77");
        assertThat(came.rows("apiary")).containsExactly("11|2");
        assertThat(came.result().changes().get(0).direct()).isEqualTo(2);
    }

    @Test
    void a_list_gives_each_row_its_own_values() {
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                tables(),
                updateListed("keeper", List.of("id"), List.of("name", "phone"), "1|Ida|5", "3|Jem|NULL"));
        assertThat(came.rows("keeper")).containsExactly("1|Ida|5", "2|Ada B.|77", "3|Jem|NULL");
    }

    @Test
    void a_key_that_no_row_has_is_an_error() {
        assertThatThrownBy(() -> Rehearsed.as(Server.STANDARD, tables(), deleteListed("keeper", List.of("id"), "9")))
                .isInstanceOf(ProposalException.class)
                .hasMessageContaining("9");
    }

    @Test
    void the_number_of_a_row_names_one_of_two_copies() {
        TestTable copies = table("t", "id integer", "v text").key("id").rows("1|a", "1|b", "2|c");
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                TestTables.of(folder, copies),
                delete("t", equal(new Expression.RowNumber(), number("2"))));
        assertThat(came.rows("t")).containsExactly("1|a", "2|c");
        assertThat(came.findingChanges()).containsExactly("-duplicate at t.primary_key 2");
    }

    @Test
    void a_line_of_evidence_names_the_row_that_still_holds_what_it_says() {
        TestTable copies = table("t", "id integer", "v text").key("id").rows("1|a", "1|b", "2|c");
        Change.RowPlace second = new Change.RowPlace("part0", 2);
        Change.ListedRow line = new Change.ListedRow("e.csv:2", List.of("1", "b"), List.of(), Optional.of(second));
        Change change = new Change.DeleteListed(new Origin("e.csv", "e.csv"), "t", List.of("id", "v"), List.of(line));
        assertThat(Rehearsed.as(Server.STANDARD, TestTables.of(folder, copies), change)
                        .rows("t"))
                .containsExactly("1|a", "2|c");
        Change.ListedRow stale = new Change.ListedRow("e.csv:2", List.of("1", "z"), List.of(), Optional.of(second));
        Change wrong = new Change.DeleteListed(new Origin("e.csv", "e.csv"), "t", List.of("id", "v"), List.of(stale));
        assertThatThrownBy(() -> Rehearsed.as(Server.STANDARD, TestTables.of(folder, copies), wrong))
                .isInstanceOf(ProposalException.class);
    }

    @Test
    void why_a_row_is_touched_is_told_step_by_step() {
        TestTable hives = table("hive", "id integer", "apiary integer")
                .key("id")
                .link("ha", "apiary -> apiary (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .rows("100|10");
        Change change = delete("keeper", equal(whole(0), number("1")));
        TestTables tables = tables(apiaries(), hives);
        assertThat(Rehearsed.ways(Server.STANDARD, tables, "hive", List.of("100"), change))
                .containsExactly("keeper 1 deleted > apiary 10 deleted > hive 100 deleted");
        assertThat(Rehearsed.ways(Server.STANDARD, tables, "apiary", List.of("12"), change))
                .isEmpty();
        assertThatThrownBy(() -> Rehearsed.ways(Server.STANDARD, tables, "hive", List.of("101"), change))
                .isInstanceOf(ProposalException.class)
                .hasMessageContaining("there is no such row")
                .hasMessageContaining("did you mean 100?");
    }

    @Test
    void why_a_row_is_in_the_way_is_told_too() {
        TestTables tables = tables(visits());
        assertThat(Rehearsed.ways(
                        Server.STANDARD,
                        tables,
                        "visit",
                        List.of("2", "6"),
                        delete("keeper", equal(whole(0), number("2")))))
                .containsExactly("change 1: rows still point at it (vk)");
    }

    @Test
    void a_row_that_a_change_makes_can_be_asked_for() {
        assertThat(Rehearsed.ways(
                        Server.STANDARD,
                        tables(),
                        "keeper",
                        List.of("9"),
                        insert("keeper", List.of("id", "name"), "9|Eve")))
                .containsExactly("keeper 9 inserted");
    }

    @Test
    void sums_are_told_over_what_would_go() {
        TestTable costly = visits().total("hours", whole(2));
        TestTable gone = table("keeper", "id integer", "name text", "phone text")
                .key("id")
                .rows("1|Ada|NULL", "2|B|NULL");
        TestTable cascading = table("visit", "keeper integer", "day integer", "hours integer", "note text")
                .key("keeper", "day")
                .link("vk", "keeper -> keeper (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .total("hours", whole(2))
                .rows("1|5|2|a", "2|5|3|b", "2|6|4|c");
        Rehearsed came = Rehearsed.as(
                Server.STANDARD,
                TestTables.of(folder, gone, cascading),
                delete("keeper", equal(whole(0), number("2"))));
        assertThat(came.result().changes().get(0).totals().get(0).sum()).isEqualByComparingTo("7");
        assertThat(came.result().changes().get(0).totals().get(0).rows()).isEqualTo(2);
        Rehearsed blocked = Rehearsed.as(
                Server.STANDARD, TestTables.of(folder, gone, costly), delete("keeper", equal(whole(0), number("2"))));
        assertThat(blocked.result()
                        .changes()
                        .get(0)
                        .refusals()
                        .get(0)
                        .totals()
                        .get(0)
                        .sum())
                .isEqualByComparingTo("7");
    }
}
