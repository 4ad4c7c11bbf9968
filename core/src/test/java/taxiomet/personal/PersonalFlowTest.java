package taxiomet.personal;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.testing.TestTable;

/** What is computed from a personal value is personal, wherever changes and links carry it. */
class PersonalFlowTest {
    private static final Charter CHARTER = charter(
            table("person", "id integer", "given text", "note text", "code text")
                    .key("id")
                    .with("given", column -> column.asPersonal(true)),
            table("visit", "person integer", "seen text", "remark text")
                    .link("visit_person", "person -> person (id)")
                    .with("seen", column -> column.asPersonal(true)),
            table("badge", "code text", "colour text").link("badge_code", "code -> person (code)"));

    private static Charter charter(TestTable... tables) {
        return new Charter(
                "test", Arrays.stream(tables).map(TestTable::declared).toList(), Server.STANDARD);
    }

    private static Change update(String table, String column, Expression value) {
        return new Change.Update(
                new Origin("", ""), table, Map.of(column, new Input.Computed(value)), Optional.empty());
    }

    private static List<String> personal(Change... changes) {
        return PersonalFlow.through(CHARTER, List.of(changes)).tables().stream()
                .flatMap(table -> table.columns().stream()
                        .filter(Column::isPersonal)
                        .map(column -> table.name() + "." + column.name()))
                .toList();
    }

    private static Expression own(int column) {
        return new ColumnValue(column, Type.TEXT);
    }

    @Test
    void without_such_changes_it_is_what_the_charter_says() {
        assertThat(personal()).containsExactly("person.given", "visit.seen");
        assertThat(personal(update("person", "note", own(3)))).containsExactly("person.given", "visit.seen");
    }

    @Test
    void an_assignment_carries_it_on_whatever_it_computes_and_in_whatever_order() {
        assertThat(personal(update("person", "note", new Joined(List.of(own(3), own(1))))))
                .contains("person.note");
        assertThat(personal(update("person", "code", own(2)), update("person", "note", own(1))))
                .contains("person.note", "person.code");
    }

    @Test
    void links_join_what_is_assigned_and_parents_and_children_carry_it() {
        assertThat(personal(update("person", "code", own(1)))).contains("person.code", "badge.code");
        assertThat(personal(update("visit", "remark", new ParentValue(List.of("visit_person"), 1, Type.TEXT))))
                .contains("visit.remark");
        assertThat(personal(update("person", "note", below(Aggregate.MIN)))).contains("person.note");
        assertThat(personal(update("person", "note", below(Aggregate.COUNT)))).doesNotContain("person.note");
    }

    private static Expression below(Aggregate aggregate) {
        return new ChildrenValue(aggregate, "visit", "visit_person", Optional.of(1), "", Type.TEXT);
    }
}
