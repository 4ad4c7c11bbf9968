package taxiomet.browse;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static taxiomet.testing.Expressions.column;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Condition;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.finding.Hint;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.Below;
import taxiomet.finding.TraceResult.Children;
import taxiomet.finding.TraceResult.LinkState;
import taxiomet.finding.TraceResult.Parent;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.finding.TraceResult.TracedRow;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

class TraceTest {
    @TempDir
    private Path folder;

    private static TestTable ferry() {
        return table("ferry", "code varchar(6)", "name varchar(30)", "sister varchar(6)")
                .key("code")
                .label("name")
                .link("ferry_sister", "sister -> ferry(code)")
                .rows("F1|Gannet|NULL", "F2|Puffin|F1", "f3|Heron|F2", "F2|Tern|F9");
    }

    private static TestTable crossing() {
        return table("crossing", "no integer", "ferry varchar(6)", "seats integer")
                .key("no")
                .link("crossing_ferry", "ferry -> ferry(code)")
                .total("seats", whole(2))
                .rows("1|F2|10", "2|F1|20", "3|F2|30", "4|F3|5", "5|NULL|7", "6|F2|40");
    }

    private static TestTable ticket() {
        return table("ticket", "no integer", "crossing integer", "price integer")
                .key("no")
                .link("ticket_crossing", "crossing -> crossing(no)")
                .total("price", whole(2))
                .rows("11|1|5", "12|3|6", "13|3|7", "14|2|8", "15|6|9");
    }

    private TestTables tables() {
        return TestTables.of(folder, ferry(), crossing(), ticket());
    }

    private TraceResult trace(String table, RowAsked asked, int up, int down) {
        TestTables tables = tables();
        return Trace.of(
                tables.charter(),
                table,
                asked,
                new TraceOptions(up, down, 2),
                each -> tables.table(each.name()).source(),
                tables.context());
    }

    private static RowAsked by(String column, String cell) {
        return new RowAsked.ByCells(List.of(column), List.of(List.of(cell)));
    }

    private static String name(TracedRow row) {
        return row.table() + " " + String.join(",", row.keyValues());
    }

    private static List<String> children(TracedRow row) {
        List<String> told = new ArrayList<>();
        for (Children children : row.children()) {
            told.add(children.table() + ": " + children.rows() + sums(children.totals())
                    + children.first().stream().map(each -> " " + name(each)).reduce("", String::concat));
            for (Below below : children.below()) {
                told.add("below " + below.table() + ": " + below.rows() + sums(below.totals()));
            }
        }
        return told;
    }

    private static String sums(List<Sum> sums) {
        return sums.stream().map(sum -> " " + sum.text() + "=" + sum.sum()).reduce("", String::concat);
    }

    @Test
    void a_row_has_its_parents_level_by_level() {
        TracedRow heron = trace("ferry", by("name", "Heron"), 2, 0).rows().get(0);

        Parent sister = heron.parents().get(0);
        assertThat(sister.state()).isEqualTo(LinkState.THERE);
        assertThat(sister.parents()).as("rows with the key F2").isEqualTo(2);
        assertThat(sister.parent().orElseThrow().label()).isEqualTo("Puffin");
        assertThat(sister.parent().orElseThrow().parents().get(0).parent().map(TraceTest::name))
                .contains("ferry F1");
    }

    @Test
    void a_missing_parent_comes_with_the_one_that_was_meant() {
        Parent ferry =
                trace("crossing", by("no", "4"), 1, 0).rows().get(0).parents().get(0);

        assertThat(ferry.state()).isEqualTo(LinkState.MISSING);
        assertThat(ferry.hint()).hasValueSatisfying(hint -> {
            assertThat(hint.kind()).isEqualTo(Hint.Kind.OTHER_CASE);
            assertThat(hint.parents()).first().isEqualTo(List.of("f3"));
        });
    }

    @Test
    void a_total_may_ask_for_parents_of_the_children_and_a_missing_one_adds_nothing() {
        Expression fare = parent("ticket_fare", 1, Type.DECIMAL);
        TestTables tables = TestTables.of(
                folder,
                table("crossing", "no integer").key("no").rows("1", "2"),
                table("fare", "code varchar(2)", "price numeric(6,2)")
                        .key("code")
                        .rows("A|2.50", "B|x", "C|4"),
                table("ticket", "no integer", "crossing integer", "fare varchar(2)", "persons integer")
                        .key("no")
                        .link("ticket_crossing", "crossing -> crossing(no)")
                        .link("ticket_fare", "fare -> fare(code)")
                        .total("persons * ticket_fare.price", reckoned(whole(3), Operator.TIMES, fare, Type.DECIMAL))
                        .rows("1|1|A|3", "2|1|B|9", "3|1|Z|9", "4|1|NULL|9", "5|1|C|2", "6|2|C|1"));
        TracedRow crossing = Trace.of(
                        tables.charter(),
                        "crossing",
                        by("no", "1"),
                        new TraceOptions(1, 1, 2),
                        each -> tables.table(each.name()).source(),
                        tables.context())
                .rows()
                .get(0);

        assertThat(children(crossing)).containsExactly("ticket: 5 persons * ticket_fare.price=15.5 ticket 1 ticket 2");
    }

    @Test
    void children_are_counted_all_and_shown_in_part_with_what_hangs_below_all_of_them() {
        TracedRow puffin = trace("ferry", by("code", "F2"), 1, 2).rows().get(0);

        assertThat(children(puffin))
                .containsExactly(
                        "ferry: 1 ferry f3", "crossing: 3 seats=80 crossing 1 crossing 3", "below ticket: 4 price=27");
        assertThat(children(puffin.children().get(1).first().get(1)))
                .containsExactly("ticket: 2 price=13 ticket 12 ticket 13");
    }

    @Test
    void rows_that_share_the_key_stand_beside_it() {
        TraceResult result = trace("ferry", by("code", "F2"), 1, 1);

        assertThat(result.found()).isEqualTo(2);
        TracedRow first = result.rows().get(0);
        assertThat(first.twins()).singleElement().satisfies(twin -> {
            assertThat(twin.others()).isEqualTo(1);
            assertThat(twin.first().get(0).label()).isEqualTo("Tern");
        });
        assertThat(first.faults()).extracting(fault -> fault.kind().words()).containsExactly("duplicate");
    }

    @Test
    void a_row_is_named_by_where_it_stands() {
        TracedRow tern = trace("ferry", new RowAsked.ByNumber(Optional.empty(), 4), 1, 1)
                .rows()
                .get(0);

        assertThat(tern.label()).isEqualTo("Tern");
        assertThat(tern.parents().get(0).state()).isEqualTo(LinkState.MISSING);
        assertThat(tern.faults()).extracting(fault -> fault.kind().words()).containsExactly("duplicate", "orphan");
        assertThatThrownBy(() -> trace("ferry", new RowAsked.ByNumber(Optional.empty(), 5), 1, 1))
                .isInstanceOf(NoSuchPlace.class)
                .hasMessageContaining("no row 5");
        assertThatThrownBy(() -> trace("ferry", new RowAsked.ByNumber(Optional.of("elsewhere"), 1), 1, 1))
                .isInstanceOf(NoSuchPlace.class)
                .hasMessageContaining("part0");
    }

    @Test
    void a_condition_that_several_rows_meet_lists_them_without_relatives() {
        Condition onF2 = new Condition("ferry = 'F2'", equal(column(1, Type.TEXT), text("F2")));

        TraceResult result = trace("crossing", new RowAsked.ByCondition(onF2), 1, 1);

        assertThat(result.found()).isEqualTo(3);
        assertThat(result.rows()).extracting(TraceTest::name).containsExactly("crossing 1", "crossing 3");
        assertThat(result.rows().get(0).parents()).isEmpty();
    }

    @Test
    void a_key_that_no_row_has_is_answered_with_those_that_are_like_it() {
        TraceResult result = trace("ferry", by("code", "F 1"), 1, 1);

        assertThat(result.found()).isZero();
        assertThat(result.near().orElseThrow().parents()).contains(List.of("F1"));
        assertThat(trace("crossing", by("no", "900"), 1, 1).near()).isEmpty();
    }

    @Test
    void personal_values_are_told_by_pseudonyms_that_join_a_row_to_its_parent() {
        TestTables tables =
                TestTables.of(folder, ferry().with("code", code -> code.asPersonal(true)), crossing(), ticket());

        TracedRow crossing = Trace.of(
                        tables.charter(),
                        "crossing",
                        by("no", "1"),
                        new TraceOptions(1, 1, 2),
                        each -> tables.table(each.name()).source(),
                        tables.context())
                .rows()
                .get(0);

        assertThat(crossing.value("ferry")).startsWith("veiled-");
        assertThat(crossing.parents().get(0).parent().orElseThrow().value("code"))
                .isEqualTo(crossing.value("ferry"));
    }
}
