package taxiomet.check.rule;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.atLeast;
import static taxiomet.testing.Expressions.children;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.is;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Type;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Rules over what the children of a row come to. */
class ChildrenRulesTest {
    private static final Expression COUNT = children(Aggregate.COUNT, "lot", "lot_crate", -1, Type.INTEGER);
    private static final Expression KILOS = children(Aggregate.SUM, "lot", "lot_crate", 1, Type.DECIMAL);

    @TempDir
    private Path folder;

    private static TestTable crates(Expression rule, String... rows) {
        return table("crate", "id integer", "holds integer")
                .key("id")
                .rule("r", rule)
                .rows(rows);
    }

    private static TestTable lots(String... rows) {
        return table("lot", "crate_id integer", "kilos numeric(9,3)")
                .link("lot_crate", "crate_id -> crate (id)")
                .rows(rows);
    }

    private CheckResult check(TestTable... tables) {
        return TestTables.of(folder, tables).check();
    }

    private List<String> brokenIn(TestTable... tables) {
        return check(tables).findings().stream()
                .filter(finding -> finding.at().equals("r"))
                .flatMap(finding -> finding.examples().stream())
                .map(row -> row.row() + " " + row.problem())
                .toList();
    }

    private static String figures(RuleResult rule) {
        return "judged " + rule.judged() + ", not judged " + rule.notJudged() + ", unknown " + rule.unknown()
                + ", broken " + rule.broken();
    }

    @Test
    void rows_without_children_count_none_and_their_sum_is_unknown() {
        TestTable lots = lots("1|2.5", "1|1.5", "2|NULL");
        assertThat(brokenIn(crates(atLeast(COUNT, number("1")), "1|0", "2|0", "3|0"), lots))
                .containsExactly("3 the condition is false: count(lot.lot_crate) is 0");
        CheckResult sums = check(crates(is(Comparator.GREATER, KILOS, number("4")), "1|0", "2|0", "3|0"), lots);
        assertThat(figures(sums.rules().get(0))).isEqualTo("judged 3, not judged 0, unknown 2, broken 1");
        assertThat(sums.rules().get(0).asksChildren()).isTrue();
        assertThat(brokenIn(crates(new IsNull(KILOS), "1|0", "2|0", "3|0"), lots))
                .containsExactly("1 the condition is false: sum(lot.lot_crate.1) is 4");
    }

    @ParameterizedTest
    @CsvSource({"COUNT, 3", "SUM, 6.75", "AVG, 2.25", "MIN, 0.25", "MAX, 4"})
    void nulls_are_left_out_of_every_figure(Aggregate aggregate, String value) {
        Expression figure =
                children(aggregate, "lot", "lot_crate", 1, aggregate == Aggregate.COUNT ? Type.INTEGER : Type.DECIMAL);
        TestTable lots = lots("1|2.500", "1|NULL", "1|0.25", "1|4.0", "NULL|9", "2|9", "x|9");
        assertThat(brokenIn(crates(equal(figure, number(value)), "1|0"), lots)).isEmpty();
        assertThat(brokenIn(crates(is(Comparator.NOT_EQUAL, figure, number(value)), "1|0"), lots))
                .singleElement()
                .asString()
                .endsWith(" is " + value);
    }

    @Test
    void a_child_whose_value_is_not_of_its_type_keeps_its_parent_from_being_judged() {
        TestTable lots = lots("1|2.5", "1|heavy", "2|1", "2|1");
        CheckResult sums = check(crates(equal(KILOS, number("7")), "1|0", "2|0"), lots);
        assertThat(figures(sums.rules().get(0))).isEqualTo("judged 1, not judged 1, unknown 0, broken 1");
        CheckResult counts = check(crates(equal(COUNT, number("2")), "1|0", "2|0"), lots);
        assertThat(figures(counts.rules().get(0))).isEqualTo("judged 2, not judged 0, unknown 0, broken 0");
    }

    @Test
    void each_of_doubled_parents_has_the_children_and_one_without_a_key_has_none() {
        assertThat(brokenIn(
                        crates(equal(COUNT, number("0")), "1|0", "1|0", "NULL|0", "x|0", "7|0"), lots("1|1", "NULL|2")))
                .containsExactly(
                        "1 the condition is false: count(lot.lot_crate) is 1",
                        "2 the condition is false: count(lot.lot_crate) is 1");
    }

    @Test
    void children_are_held_against_columns_of_the_row_and_of_its_parent() {
        TestTable yards = table("yard", "id integer", "most integer").key("id").rows("1|1", "2|5");
        TestTable crates = table("crate", "id integer", "yard_id integer")
                .key("id")
                .link("crate_yard", "yard_id -> yard (id)")
                .rule("r", is(Comparator.LESS_OR_EQUAL, COUNT, parent("crate_yard", 1, Type.INTEGER)))
                .rows("1|1", "2|2", "3|9", "4|1");
        TestTable lots = lots("1|1", "1|1", "2|1", "2|1", "3|1", "4|1");
        assertThat(brokenIn(yards, crates, lots))
                .containsExactly("1 the condition is false: count(lot.lot_crate) is 2");
        assertThat(figures(check(yards, crates, lots).rules().get(0)))
                .isEqualTo("judged 3, not judged 1, unknown 0, broken 1");
        assertThat(brokenIn(crates(is(Comparator.LESS, COUNT, whole(1)), "1|2", "2|3"), lots))
                .containsExactly("1 the condition is false: count(lot.lot_crate) is 2");
    }

    @Test
    void the_least_and_greatest_text_go_by_code_point() {
        TestTable lots = table("lot", "crate_id integer", "code text")
                .link("lot_crate", "crate_id -> crate (id)")
                .rows("1|b", "1|B", "1|a");
        Expression least = children(Aggregate.MIN, "lot", "lot_crate", 1, Type.TEXT);
        assertThat(brokenIn(crates(equal(least, text("B")), "1|0"), lots)).isEmpty();
        assertThat(brokenIn(crates(equal(least, text("a")), "1|0"), lots))
                .containsExactly("1 the condition is false: min(lot.lot_crate.1) is B");
    }

    @Test
    void sums_of_floating_point_numbers_do_not_depend_on_the_order_of_rows() {
        String[] rows = {"1|1e16", "1|1", "1|-1e16", "1|1"};
        String[] turned = {"1|1", "1|1e16", "1|1", "1|-1e16"};
        Expression sum = children(Aggregate.SUM, "lot", "lot_crate", 1, Type.APPROXIMATE);
        for (String[] each : List.of(rows, turned)) {
            TestTable lots = table("lot", "crate_id integer", "kilos double precision")
                    .link("lot_crate", "crate_id -> crate (id)")
                    .rows(each);
            assertThat(brokenIn(crates(equal(sum, number("2")), "1|0"), lots)).isEmpty();
        }
    }

    @Test
    void several_figures_are_told_in_the_order_of_the_rule() {
        Expression rule = new And(List.of(atLeast(KILOS, number("9")), atLeast(number("1"), COUNT)));
        assertThat(brokenIn(crates(rule, "1|0"), lots("1|2", "1|3")))
                .containsExactly("1 the condition is false: sum(lot.lot_crate.1) is 5, count(lot.lot_crate) is 2");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "date; MOMENT; 2024-08-09, 2023-01-31, 2024-08-17; 2024-08-17",
                "timestamp; MOMENT; 2024-08-09 10:00:00, 2024-08-09 10:00:00.5; 2024-08-09 10:00:00.5",
                "time; TIME; 09:30, 17:05:01; 17:05:01",
                "varchar(40); TEXT; ash, a name that takes more than one long, Żółw; Żółw",
                "double precision; APPROXIMATE; 1.5, -2; 1.5"
            })
    void the_greatest_value_is_told_whatever_its_type(String type, Type gives, String values, String greatest) {
        TestTable lots = table("lot", "crate_id integer", "what " + type)
                .link("lot_crate", "crate_id -> crate (id)")
                .rows(List.of(values.split(", ")).stream()
                        .map(value -> "1|" + value)
                        .toArray(String[]::new));
        Expression most = children(Aggregate.MAX, "lot", "lot_crate", 1, gives);
        assertThat(brokenIn(crates(new IsNull(most), "1|0"), lots))
                .containsExactly("1 the condition is false: max(lot.lot_crate.1) is " + greatest);
    }

    @Test
    void a_figure_with_more_digits_than_are_kept_says_so() {
        TestTable lots = table("lot", "crate_id integer", "kilos numeric")
                .link("lot_crate", "crate_id -> crate (id)")
                .rows("1|1e400", "1|2", "2|-9223372036854775808", "2|1");
        assertThat(brokenIn(crates(new IsNull(KILOS), "1|0", "2|0"), lots))
                .containsExactly(
                        "1 the condition is false: sum(lot.lot_crate.1) is about 1E+400",
                        "2 the condition is false: sum(lot.lot_crate.1) is -9223372036854775807");
    }

    @Test
    void evidence_of_many_rows_names_the_figure_of_each_also_from_disk() {
        String[] crates = new String[5_000];
        String[] lots = new String[5_000];
        for (int i = 0; i < crates.length; i++) {
            crates[i] = i + "|0";
            lots[i] = (crates.length - 1 - i) + "|" + (crates.length - 1 - i) + ".5";
        }
        TestTables tables = TestTables.of(folder, crates(new IsNull(KILOS), crates), lots(lots))
                .withMemory(1_000);
        List<String> all = tables.problems("r");
        assertThat(all).hasSize(5_000);
        assertThat(all.get(0)).isEqualTo("1 the condition is false: sum(lot.lot_crate.1) is 0.5");
        assertThat(all.get(4_321)).isEqualTo("4322 the condition is false: sum(lot.lot_crate.1) is 4321.5");
    }
}
