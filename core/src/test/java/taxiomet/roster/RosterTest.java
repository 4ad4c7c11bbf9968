package taxiomet.roster;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.atLeast;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Condition;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Type;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.roster.RosterOptions.Childless;
import taxiomet.roster.RosterOptions.Sort;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

class RosterTest {
    @TempDir
    private Path folder;

    private RosterResult result;

    private static TestTable isle() {
        return table("isle", "no integer", "name varchar(20)", "height integer")
                .key("no")
                .label("name")
                .rows("3|Skerry|40", "1|Holm|NULL", "2|Ness|90", "2|Ness again|10", "4|Ayre|20");
    }

    private static TestTable bird() {
        return table("bird", "code varchar(4)", "name varchar(20)")
                .key("code")
                .label("name")
                .rows("AU|Auk", "TE|Tern");
    }

    private static TestTable nest() {
        return table("nest", "nest integer", "isle integer", "bird varchar(4)", "eggs integer")
                .key("nest")
                .link("nest_isle", "isle -> isle(no)")
                .link("nest_bird", "bird -> bird(code)")
                .total("eggs", whole(3))
                .rows("10|2|AU|2", "11|3|TE|1", "12|2|XX|4", "13|9|AU|3", "14|NULL|NULL|5", "15|3|AU|x", "MALFORMED");
    }

    private List<String> listed(RosterOptions options) {
        TestTables tables = TestTables.of(folder, isle(), bird(), nest());
        List<String> lines = new ArrayList<>();
        try (Roster roster = Roster.of(
                tables.charter(),
                "isle",
                options,
                each -> tables.table(each.name()).source(),
                tables.context())) {
            result = roster.result();
            roster.read(new RosterResult.Reader() {
                @Override
                public void section(Section section, String name, long children) {
                    lines.add((section == Section.HEADING ? name : section.name()) + ": " + children);
                }

                @Override
                public void group(Group group, List<String> columns) {
                    lines.add("  " + columns);
                }

                @Override
                public void row(List<String> cells) {
                    lines.add("  " + cells);
                }

                @Override
                public void endGroup(Group group, long rows, List<Sum> subtotals) {
                    lines.add("  " + rows + " rows, " + subtotals.get(0).sum());
                }
            });
        }
        return lines;
    }

    private static RosterOptions usual() {
        return new RosterOptions(List.of(), List.of(), List.of(), Optional.empty(), Optional.empty(), Childless.SHOW);
    }

    @Test
    void children_stand_below_their_heading_with_names_for_codes_and_the_others_behind_all() {
        assertThat(listed(usual()))
                .containsExactly(
                        "3  Skerry: 2",
                        "  [nest, bird, eggs]",
                        "  [11, Tern, 1]",
                        "  [15, Auk, x]",
                        "  2 rows, 1",
                        "1  Holm: 0",
                        "2  Ness: 2",
                        "  [nest, bird, eggs]",
                        "  [10, Auk, 2]",
                        "  [12, XX (no such bird), 4]",
                        "  2 rows, 6",
                        "2  Ness again: 0",
                        "4  Ayre: 0",
                        "PARENT_MISSING: 1",
                        "  [isle, nest, bird, eggs]",
                        "  [9, 13, Auk, 3]",
                        "  1 rows, 3",
                        "NO_PARENT: 1",
                        "  [nest, bird, eggs]",
                        "  [14, null, 5]",
                        "  1 rows, 5");
        Group nests = result.groups().get(0);
        assertThat(List.of(nests.rows(), nests.listed(), nests.orphans(), nests.withoutParent(), nests.malformed()))
                .containsExactly(7L, 4L, 1L, 1L, 1L);
        assertThat(nests.sums().get(0).sum()).isEqualByComparingTo("15");
        assertThat(result.remarks()).singleElement().asString().contains("1 row of isle bears a key");
    }

    @Test
    void headings_are_sorted_by_value_with_nulls_last_both_ways() {
        RosterOptions up = new RosterOptions(
                List.of(),
                List.of("nest"),
                List.of(new Sort("height", false)),
                Optional.empty(),
                Optional.empty(),
                Childless.HIDE);
        assertThat(listed(up))
                .filteredOn(line -> line.contains("  ") && line.endsWith(": 2"))
                .containsExactly("3  Skerry: 2", "2  Ness: 2");
        RosterOptions down = new RosterOptions(
                List.of(),
                List.of("nest"),
                List.of(new Sort("height", true)),
                Optional.empty(),
                Optional.empty(),
                Childless.SHOW);
        assertThat(listed(down))
                .filteredOn(line -> !line.startsWith("  ") && line.contains("  "))
                .containsExactly("2  Ness: 2", "3  Skerry: 2", "4  Ayre: 0", "2  Ness again: 0", "1  Holm: 0");
    }

    @Test
    void what_conditions_leave_out_is_counted() {
        Optional<Condition> high = Optional.of(new Condition("height >= 50", atLeast(whole(2), number("50"))));
        Optional<Condition> full = Optional.of(new Condition("eggs >= 3", atLeast(whole(3), number("3"))));

        assertThat(listed(new RosterOptions(
                        List.of("nest_isle"),
                        List.of("nest", "nest_bird.name"),
                        List.of(),
                        high,
                        full,
                        Childless.SHOW)))
                .containsExactly(
                        "2  Ness: 1",
                        "  [nest, nest_bird.name]",
                        "  [12, null]",
                        "  1 rows, 4",
                        "PARENT_MISSING: 1",
                        "  [isle, nest, nest_bird.name]",
                        "  [9, 13, Auk]",
                        "  1 rows, 3",
                        "NO_PARENT: 1",
                        "  [nest, nest_bird.name]",
                        "  [14, null]",
                        "  1 rows, 5");
        Group nests = result.groups().get(0);
        assertThat(nests.leftOut()).isEqualTo(3);
        assertThat(nests.listed()
                        + nests.orphans()
                        + nests.withoutParent()
                        + nests.underLeftOut()
                        + nests.leftOut()
                        + nests.malformed())
                .isEqualTo(nests.rows());
        assertThat(result.leftOut()).isEqualTo(4);
    }

    @Test
    void each_section_can_be_had_as_a_roster_of_its_own_and_read_again() {
        TestTables tables = TestTables.of(folder, isle(), bird(), nest());
        List<String> parts = new ArrayList<>();
        try (Roster roster = Roster.of(
                tables.charter(),
                "isle",
                usual(),
                each -> tables.table(each.name()).source(),
                tables.context())) {
            roster.eachSection(part -> {
                Lines first = new Lines();
                part.read(first);
                Lines again = new Lines();
                part.read(again);
                assertThat(again.lines).isEqualTo(first.lines);
                Group nests = part.result().groups().get(0);
                parts.add(part.section() + " " + part.name() + ": " + nests.rows() + " rows, "
                        + nests.sums().get(0).sum() + ", " + first.lines);
            });
        }

        assertThat(parts)
                .containsExactly(
                        "HEADING 3  Skerry: 2 rows, 1, [11,Tern,1, 15,Auk,x]",
                        "HEADING 1  Holm: 0 rows, 0, []",
                        "HEADING 2  Ness: 2 rows, 6, [10,Auk,2, 12,XX (no such bird),4]",
                        "HEADING 2  Ness again: 0 rows, 0, []",
                        "HEADING 4  Ayre: 0 rows, 0, []",
                        "PARENT_MISSING : 1 rows, 3, [9,13,Auk,3]",
                        "NO_PARENT : 1 rows, 5, [14,null,5]");
    }

    /** The rows alone. */
    private static final class Lines implements RosterResult.Reader {
        private final List<String> lines = new ArrayList<>();

        @Override
        public void section(Section section, String name, long children) {
            // The part says it.
        }

        @Override
        public void group(Group group, List<String> columns) {
            // There is one.
        }

        @Override
        public void row(List<String> cells) {
            lines.add(String.join(",", cells.stream().map(String::valueOf).toList()));
        }

        @Override
        public void endGroup(Group group, long rows, List<Sum> subtotals) {
            assertThat(rows).isEqualTo(lines.size());
        }
    }

    @Test
    void totals_may_ask_for_parents_and_personal_ones_are_said_to_be_left_out() {
        TestTables tables = TestTables.of(
                folder,
                isle(),
                table("bird", "code varchar(4)", "worth integer", "secret integer")
                        .key("code")
                        .rows("AU|10|7", "TE|100|8"),
                table("nest", "nest integer", "isle integer", "bird varchar(4)", "eggs integer")
                        .key("nest")
                        .link("nest_isle", "isle -> isle(no)")
                        .link("nest_bird", "bird -> bird(code)")
                        .total(
                                "worth",
                                reckoned(whole(3), Operator.TIMES, parent("nest_bird", 1, Type.INTEGER), Type.INTEGER))
                        .total("secret", parent("nest_bird", 2, Type.INTEGER))
                        .rows("10|2|AU|2", "11|3|TE|1", "12|2|XX|4", "13|9|AU|3"));
        Charter told = tables.charter().withPersonal((table, column) -> column.equals("secret"));

        try (Roster roster = Roster.of(
                told, "isle", usual(), each -> tables.table(each.name()).source(), tables.context())) {
            assertThat(roster.result().groups().get(0).sums())
                    .singleElement()
                    .isEqualTo(new Sum("worth", new BigDecimal("150")));
            assertThat(roster.result().remarks()).anyMatch(remark -> remark.startsWith("the total secret of nest"));
        }
    }

    @Test
    void those_without_children_can_be_had_alone() {
        assertThat(listed(new RosterOptions(
                        List.of(), List.of(), List.of(), Optional.empty(), Optional.empty(), Childless.ONLY)))
                .containsExactly("1  Holm: 0", "2  Ness again: 0", "4  Ayre: 0");
        assertThat(result.headings()).isEqualTo(3);
        assertThat(result.groups().get(0).listed()).isZero();
    }
}
