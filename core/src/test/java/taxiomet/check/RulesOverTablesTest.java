package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.atLeast;
import static taxiomet.testing.Expressions.column;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.is;
import static taxiomet.testing.Expressions.like;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Finding.Broken;
import taxiomet.finding.Finding.Reason;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Rules over the columns of a row, and over those of its parents. */
class RulesOverTablesTest {
    @TempDir
    private Path folder;

    private List<String> findings(TestTable... tables) {
        return TestTables.of(folder, tables).findings();
    }

    private static String figures(RuleResult rule) {
        return "judged " + rule.judged() + ", not judged " + rule.notJudged() + ", unknown " + rule.unknown()
                + ", broken " + rule.broken();
    }

    @Test
    void a_rule_is_broken_where_it_is_false_and_not_where_it_is_unknown() {
        TestTable table = table("t", "a integer", "b integer")
                .rule("r", is(Comparator.LESS, whole(0), whole(1)))
                .rows("1|2", "2|2", "3|2", "NULL|1", "1|NULL", "x|1", MemorySource.MALFORMED);
        assertThat(findings(table)).contains("broken rule at t.r: 2 3");
        CheckResult result = TestTables.of(folder, table).check();
        assertThat(figures(result.rules().get(0))).isEqualTo("judged 5, not judged 1, unknown 2, broken 2");
        assertThat(result.rules().get(0).asksParents()).isFalse();
    }

    @Test
    void a_division_by_zero_breaks_the_rule() {
        TestTable table = table("t", "a integer")
                .rule("r", atLeast(reckoned(number("10"), Operator.DIVIDED_BY, whole(0), Type.INTEGER), number("2")))
                .rows("5", "0", "6", "0");
        assertThat(findings(table)).containsExactly("broken rule at t.r: 2 3 4");
        Broken broken =
                (Broken) TestTables.of(folder, table).check().findings().get(0).details();
        assertThat(broken.reasons().stream().map(Reason::rows).toList()).containsExactly(2L, 1L);
        assertThat(broken.reasons().get(0).words()).contains("zero");
    }

    @Test
    void rules_know_every_type() {
        assertThat(findings(table("t", "d numeric(9,3)")
                        .rule("r", equal(column(0, Type.DECIMAL), number("1.5")))
                        .rows("1.500", "1.501")))
                .contains("broken rule at t.r: 2");
        assertThat(findings(table("t", "d double precision")
                        .rule("r", is(Comparator.LESS, column(0, Type.APPROXIMATE), number("0.5")))
                        .rows("0.25", "0.5", "NaN", "-Infinity")))
                .containsExactly("broken rule at t.r: 2 3");
        assertThat(findings(table("t", "b boolean")
                        .rule("r", column(0, Type.BOOLEAN))
                        .rows("true", "no", "NULL")))
                .contains("broken rule at t.r: 2");
        assertThat(findings(table("t", "c text")
                        .rule("r", like(column(0, Type.TEXT), "a%"))
                        .rows("ab", "ba", "")))
                .containsExactly("broken rule at t.r: 2 3");
        assertThat(findings(table("t", "d date", "e timestamp")
                        .rule("r", is(Comparator.LESS_OR_EQUAL, column(0, Type.MOMENT), column(1, Type.MOMENT)))
                        .rows("2024-01-02|2024-01-02 00:00", "2024-01-02|2024-01-01 23:59")))
                .containsExactly("broken rule at t.r: 2");
        assertThat(findings(table("t", "a time", "b time")
                        .rule("r", is(Comparator.LESS, column(0, Type.TIME), column(1, Type.TIME)))
                        .rows("09:00|10:00", "10:00|09:59:59.999999")))
                .containsExactly("broken rule at t.r: 2");
        assertThat(findings(table("t", "u uuid", "v uuid")
                        .rule("r", equal(column(0, Type.UUID), column(1, Type.UUID)))
                        .rows("0f0e0d0c-0b0a-4908-8706-050403020100|0F0E0D0C-0B0A-4908-8706-050403020100")))
                .noneMatch(f -> f.startsWith("broken"));
        assertThat(findings(table("t", "n numeric")
                        .rule("r", is(Comparator.LESS, column(0, Type.DECIMAL), number("1e30")))
                        .rows("999999999999999999999999999999.5", "1000000000000000000000000000000.5")))
                .containsExactly("broken rule at t.r: 2");
    }

    private static TestTable parents(String... rows) {
        return table("p", "k integer", "most integer", "up integer").key("k").rows(rows);
    }

    private static TestTable children(Expression rule, String... rows) {
        return table("c", "x integer", "n integer")
                .link("l", "x -> p (k)")
                .rule("r", rule)
                .rows(rows);
    }

    private static final Expression NO_MORE_THAN_PARENT =
            is(Comparator.LESS_OR_EQUAL, whole(1), parent("l", 1, Type.INTEGER));

    @Test
    void a_rule_may_ask_the_parent() {
        TestTable children =
                children(NO_MORE_THAN_PARENT, "1|10", "1|11", "2|11", "2|NULL", "3|5", "NULL|99", "x|99", "9|99");
        TestTables tables = TestTables.of(folder, parents("1|10|0", "2|20|0", "3|NULL|0"), children);
        assertThat(tables.findings()).contains("broken rule at c.r: 2");
        RuleResult rule = tables.check().rules().get(0);
        assertThat(rule.asksParents()).isTrue();
        assertThat(figures(rule)).isEqualTo("judged 5, not judged 3, unknown 2, broken 1");
    }

    @Test
    void of_parents_with_one_key_any_that_breaks_the_rule_does() {
        TestTable parents = parents("1|10|0", "1|5|0", "1|NULL|0");
        assertThat(findings(parents, children(NO_MORE_THAN_PARENT, "1|4", "1|7", "1|11")))
                .contains("broken rule at c.r: 2 3");
    }

    @Test
    void where_very_many_parents_share_a_key_the_row_is_not_judged_and_that_is_said() {
        String[] many = IntStream.range(0, 500).mapToObj(i -> "1|" + i + "|0").toArray(String[]::new);
        TestTables tables = TestTables.of(folder, parents(many), children(NO_MORE_THAN_PARENT, "1|4", "1|700"));
        CheckResult result = tables.check();
        assertThat(result.rules().get(0).notJudged()).isEqualTo(2);
        assertThat(result.table("c").remarks().stream().map(r -> r.kind()).toList())
                .contains("rule not judged");
    }

    @Test
    void a_rule_may_ask_the_parents_parent() {
        TestTable top = table("g", "k integer", "most integer").key("k").rows("1|10", "2|20");
        TestTable parents = parents("1|0|1", "2|0|2", "3|0|9", "4|0|NULL").link("m", "up -> g (k)");
        Expression rule = is(Comparator.LESS_OR_EQUAL, whole(1), new ParentValue(List.of("l", "m"), 1, Type.INTEGER));
        TestTable children = children(rule, "1|10", "1|11", "2|20", "2|21", "3|99", "4|99");
        assertThat(findings(top, parents, children)).contains("broken rule at c.r: 2 4");
    }

    @Test
    void a_rule_over_a_parent_that_is_not_there_may_allow_for_it() {
        Expression rule = new Or(List.of(new IsNull(whole(0)), NO_MORE_THAN_PARENT));
        TestTables tables = TestTables.of(folder, parents("1|10|0"), children(rule, "NULL|99", "1|11"));
        assertThat(tables.findings()).contains("broken rule at c.r: 2");
    }

    @Test
    void rows_out_of_order_and_little_memory_change_nothing() {
        List<String> parents = new ArrayList<>();
        List<String> children = new ArrayList<>();
        IntStream.range(0, 5_000).forEach(i -> parents.add(i + "|" + i + "|0"));
        IntStream.range(0, 9_000).forEach(i -> children.add(i % 5_000 + "|" + (i % 1_000 == 7 ? 6_000 : 0)));
        Collections.shuffle(parents, new java.util.Random(3));
        String expected = "broken rule at c.r: 8 1008 2008 3008 4008 5008 6008 7008 8008";
        for (int memory : new int[] {64 << 20, 0}) {
            assertThat(TestTables.of(
                                    folder,
                                    parents(parents.toArray(String[]::new)).inBatchesOf(300),
                                    children(NO_MORE_THAN_PARENT, children.toArray(String[]::new))
                                            .inBatchesOf(300))
                            .withMemory(memory)
                            .findings())
                    .containsExactly(expected);
        }
    }
}
