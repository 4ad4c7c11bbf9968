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
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.proposal.Change;
import taxiomet.rows.RowEdits;
import taxiomet.testing.MemorySource;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** What a rehearsal hands on: statements for a server, edits of files, links as they might be declared. */
class PlansTest {
    @TempDir
    private Path folder;

    private TestTables tables() {
        return TestTables.of(
                folder,
                table("apiary", "id integer", "place text").key("id").rows("1|a", "2|b"),
                table("hive", "id integer", "apiary integer")
                        .key("id")
                        .link("ha", "apiary -> apiary (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                        .rows("10|1", "---", "11|1", "12|2"));
    }

    private static Change deleteFirst() {
        return delete("apiary", equal(whole(0), number("1")));
    }

    private static Rehearsal start(TestTables tables, Charter charter, Server behaviour, int near, Change... changes) {
        return Rehearsed.start(
                tables,
                charter,
                Rehearsed.inTurn(changes),
                new RehearsalOptions(behaviour, 10, false, true, near, true));
    }

    @ParameterizedTest
    @EnumSource(
            value = Server.class,
            names = {"STANDARD", "POSTGRESQL", "SQLITE", "MARIADB"})
    void a_plan_tells_each_statement_with_its_rows_and_what_follows(Server behaviour) {
        TestTables tables = tables();
        try (Rehearsal rehearsal = start(
                tables,
                tables.charter(),
                behaviour,
                100,
                deleteFirst(),
                insert("apiary", List.of("id", "place"), "3|c"),
                update("hive", "apiary", number("3")))) {
            List<PlannedStatement> plan = rehearsal.statements();
            assertThat(plan.stream().map(PlannedStatement::kind).toList())
                    .containsExactly(Kind.DELETE, Kind.INSERT, Kind.UPDATE);
            assertThat(plan.get(0).rows().get(0).before()).containsExactly("1", "a");
            assertThat(plan.get(0).rows().get(0).end()).isEmpty();
            assertThat(plan.get(0).followers().stream()
                            .map(row -> row.before().get(0))
                            .toList())
                    .containsExactlyInAnyOrder("10", "11");
            assertThat(plan.get(1).rows().get(0).after()).containsExactly("3", "c");
            assertThat(plan.get(2).set()).containsExactly("apiary");
            assertThat(plan.get(2).rows().get(0).before()).containsExactly("12", "2");
            assertThat(plan.get(2).rows().get(0).after()).containsExactly("12", "3");
        }
    }

    @Test
    void a_blocked_change_is_in_no_plan() {
        TestTables tables = tables();
        try (Rehearsal rehearsal = start(
                tables,
                tables.charter(),
                Server.STANDARD,
                100,
                insert("hive", List.of("id", "apiary"), "20|9"),
                insert("hive", List.of("id", "apiary"), "21|2"))) {
            assertThat(rehearsal.statements()).hasSize(1);
            assertThat(rehearsal.statements().get(0).rows().get(0).after()).containsExactly("21", "2");
        }
    }

    @Test
    void edits_name_rows_by_part_and_number_and_cells_by_place() {
        TestTables tables = tables();
        try (Rehearsal rehearsal = start(
                tables,
                tables.charter(),
                Server.STANDARD,
                100,
                update("hive", "apiary", number("1"), equal(whole(0), number("12"))),
                delete("hive", equal(whole(0), number("10"))),
                insert("hive", List.of("id", "apiary"), "20|NULL"))) {
            RowEdits edits = rehearsal.edits("hive");
            assertThat(edits.rows()).hasSize(2);
            assertThat(edits.rows().firstEntry().getValue().isDeleted()).isTrue();
            assertThat(edits.rows().lastEntry().getValue().cells()).containsEntry(1, "1");
            assertThat(edits.newRows()).hasSize(1);
            assertThat(edits.newRows().get(0).get(0)).isEqualTo("20");
            assertThat(edits.newRows().get(0).get(1)).isNull();
            assertThat(rehearsal.edits("apiary").isEmpty()).isTrue();
            assertThat(MemorySource.rowsOf(rehearsal.source("hive"))).containsExactly("10|1", "11|1", "12|2");
        }
    }

    /** Near the rows reached, or by reading all of them twice: the findings added and mended are the same. */
    @Test
    void findings_are_compared_alike_near_and_in_all() {
        TestTable dirty = table("hive", "id integer", "apiary integer")
                .key("id")
                .link("ha", "apiary -> apiary (id)", ActionName.SET_NULL, ActionName.NO_ACTION)
                .rule("few", equal(whole(1), number("1")))
                .rows("10|1", "10|1", "11|9", "12|2", "x|1");
        TestTables tables =
                TestTables.of(folder, table("apiary", "id integer").key("id").rows("1", "2"), dirty);
        List<List<String>> came = new ArrayList<>();
        for (int near : new int[] {0, 1, 1_000}) {
            try (Rehearsal rehearsal = start(
                    tables,
                    tables.charter(),
                    Server.STANDARD,
                    near,
                    delete("apiary", equal(whole(0), number("2"))),
                    delete("hive", equal(whole(0), number("11"))),
                    insert("apiary", List.of("id"), "9"))) {
                List<String> changes = new ArrayList<>();
                rehearsal.result().added().forEach(f -> changes.add("+" + f.kind() + f.at() + f.rows()));
                rehearsal.result().mended().forEach(f -> changes.add("-" + f.kind() + f.at() + f.rows()));
                came.add(changes);
            }
        }
        assertThat(came.get(1)).isEqualTo(came.get(0));
        assertThat(came.get(2)).isEqualTo(came.get(0));
        assertThat(came.get(0)).contains("-ORPHANha1");
    }

    @Test
    void a_link_can_be_tried_with_another_action() {
        TestTables tables = tables();
        Charter charter = tables.charter();
        LinkTrial loose = new LinkTrial("hive", "ha", Optional.empty(), Optional.empty(), Optional.of(false));
        LinkTrial emptying = new LinkTrial(
                "hive",
                "ha",
                Optional.of(new Action(ActionName.SET_NULL, List.of())),
                Optional.of(new Action(ActionName.CASCADE, List.of())),
                Optional.empty());
        assertThat(loose.in(charter).links().get(0).isEnforced()).isFalse();
        assertThat(emptying.in(charter).links().get(0).onUpdate().name()).isEqualTo(ActionName.CASCADE);
        try (Rehearsal rehearsal = start(tables, emptying.in(charter), Server.STANDARD, 100, deleteFirst())) {
            assertThat(MemorySource.rowsOf(rehearsal.after("hive"))).containsExactly("10|NULL", "11|NULL", "12|2");
        }
        try (Rehearsal rehearsal = start(tables, loose.in(charter), Server.STANDARD, 100, deleteFirst())) {
            assertThat(MemorySource.rowsOf(rehearsal.after("hive"))).hasSize(3);
            assertThat(rehearsal.result().added().get(0).rows()).isEqualTo(2);
        }
    }
}
