package taxiomet.settle.sift;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.charter.ForeignKey.ActionName.NO_ACTION;
import static taxiomet.testing.Expressions.is;
import static taxiomet.testing.Expressions.parent;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.rows.RowRef;
import taxiomet.settle.sift.Keeping.Choice;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.RunContext;

class SiftTest {
    @TempDir
    private Path folder;

    /** What is set aside of each table: {@code table: row why at place (cause), ...}. */
    private List<String> aside(Choice choice, TestTable... tables) {
        TestTables all = TestTables.of(folder, tables);
        return sifted(
                all,
                new Keeping(Map.of(), choice),
                sift -> all.charter().tables().stream()
                        .map(table -> {
                            List<String> rows = new ArrayList<>();
                            sift.forEachAside(
                                    table.name(),
                                    (ref, reason, cause) -> rows.add(RowRef.row(ref) + " "
                                            + reason.finding()
                                                    .map(kind -> kind.words() + " ")
                                                    .orElse("")
                                            + (reason.finding().isPresent()
                                                            && reason.causeTable()
                                                                    .isEmpty()
                                                    ? ""
                                                    : reason.why().word() + " ")
                                            + "at " + reason.at()
                                            + (cause < 0 ? "" : " by " + RowRef.row(cause))));
                            return table.name() + ": " + String.join(", ", rows);
                        })
                        .toList());
    }

    private static <T> T sifted(TestTables tables, Keeping keeping, Function<Sift, T> look) {
        Charter charter = tables.charter();
        RunContext context = tables.context();
        try (CheckRun run = CheckRun.start(
                        charter,
                        new CheckOptions(Set.of(), 0, 0),
                        table -> tables.table(table.name()).source(),
                        context);
                Sift sift = Sift.of(charter, run, keeping, context)) {
            return look.apply(sift);
        }
    }

    private static TestTable quay(String... rows) {
        return table("quay", "quay_no integer", "name varchar(5)", "built date")
                .key("quay_no")
                .rows(rows);
    }

    private static TestTable boat(String... rows) {
        return table("boat", "boat_no integer", "quay_no integer", "tows integer")
                .key("boat_no")
                .link("boat_quay", "quay_no -> quay(quay_no)")
                .link("boat_tows", "tows -> boat(boat_no)")
                .rows(rows);
    }

    @Test
    void a_row_at_fault_takes_its_children_with_it_to_the_end_of_all_links() {
        assertThat(aside(
                        new Choice.None(),
                        quay("1|much too long|NULL", "2|fine|NULL"),
                        boat("1|1|NULL", "2|2|1", "3|2|2", "4|9|NULL", "5|2|4", "6|2|6")))
                .containsExactly(
                        "quay: 1 type mismatch at name",
                        "boat: 1 parent set aside at boat_quay by 1, 2 parent set aside at boat_tows by 1,"
                                + " 3 parent set aside at boat_tows by 2, 4 orphan at boat_quay,"
                                + " 5 parent set aside at boat_tows by 4");
    }

    @Test
    void one_of_several_rows_with_a_key_stays_as_was_chosen_and_their_children_with_it() {
        TestTable quays = quay("1|a|2001-01-05", "1|NULL|1999-12-31", "1|c|NULL", "2|b|NULL");
        TestTable boats = boat("1|1|NULL", "2|2|NULL");
        assertThat(aside(new Choice.First(), quays, boats))
                .containsExactly(
                        "quay: 2 duplicate another stays at primary_key by 1,"
                                + " 3 duplicate another stays at primary_key by 1",
                        "boat: ");
        assertThat(aside(new Choice.Last(), quays, boats).get(0)).contains("1 duplicate", "2 duplicate", "by 3");
        assertThat(aside(new Choice.MostComplete(), quays, boats).get(0)).contains("2 duplicate", "3 duplicate");
        assertThat(aside(new Choice.ByColumn("built", false), quays, boats).get(0))
                .contains("1 duplicate another stays at primary_key by 2", "3 duplicate");
        assertThat(aside(new Choice.ByColumn("built", true), quays, boats).get(0))
                .contains("2 duplicate another stays at primary_key by 1", "3 duplicate");
        assertThat(aside(new Choice.None(), quays, boats))
                .containsExactly(
                        "quay: 1 duplicate none chosen at primary_key by 2,"
                                + " 2 duplicate none chosen at primary_key by 1,"
                                + " 3 duplicate none chosen at primary_key by 1",
                        "boat: 1 parent set aside at boat_quay by 3");
    }

    @Test
    void rows_that_are_the_same_throughout_need_no_choice_and_an_ill_row_is_none_of_those_to_choose_from() {
        assertThat(aside(new Choice.None(), quay("1|a|NULL", "1|a|NULL", "2|b|NULL", "2|much too long|NULL")))
                .containsExactly("quay: 2 duplicate another stays at primary_key by 1, 4 type mismatch at name");
    }

    @Test
    void a_ring_and_parents_with_too_few_children_left_go_whole() {
        TestTable quays = quay("1|a|NULL", "2|b|NULL", "3|c|NULL");
        TestTable ringed = table("boat", "boat_no integer", "quay_no integer not null", "tows integer")
                .key("boat_no")
                .link("boat_quay", "quay_no -> quay(quay_no)")
                .with(link -> TestTable.children(link, "1..2"))
                .link("boat_tows", "tows -> boat(boat_no)")
                .with(TestTable::acyclic)
                .rows("1|1|2", "2|2|1", "3|3|NULL", "4|3|NULL", "5|3|x", "6|2|NULL");
        assertThat(aside(new Choice.None(), quays, ringed))
                .containsExactly(
                        "quay: 1 too few children at boat_quay",
                        "boat: 1 own ancestor at boat_tows, 2 own ancestor at boat_tows, 5 type mismatch at tows");
    }

    @Test
    void a_chain_of_many_rows_is_followed_whichever_way_it_stands() {
        int length = 3_000;
        String[] chain = IntStream.rangeClosed(1, length)
                .mapToObj(i -> i + "|NULL|" + (i == length ? "x" : i + 1))
                .toArray(String[]::new);
        TestTables tables = TestTables.of(folder, quay(), boat(chain));
        long aside = sifted(tables, Keeping.NOTHING, sift -> sift.aside("boat").size());
        assertThat(aside).isEqualTo(length);
    }

    /** Tables a, b, c: each has id, k, m (a unique pair), note, and links to tables before it, itself, or anywhere. */
    private record Case(long seed, List<TestTable> tables, List<List<String>> rows, Choice choice, Match match) {
        @Override
        public String toString() {
            return "seed " + seed;
        }
    }

    static List<Case> cases() {
        return IntStream.range(0, 500).mapToObj(i -> random(31_000 + i)).toList();
    }

    private static Case random(long seed) {
        Random random = new Random(seed);
        Match match = List.of(Match.SIMPLE, Match.FULL, Match.PARTIAL).get(random.nextInt(3));
        List<TestTable> tables = new ArrayList<>();
        List<List<String>> rows = new ArrayList<>();
        List<String> names = List.of("a", "b", "c");
        for (int t = 0; t < 3; t++) {
            int one = random.nextInt(3);
            int other = random.nextInt(3);
            List<String> own = new ArrayList<>();
            for (int r = 0; r < 2 + random.nextInt(4); r++) {
                own.add(String.join(
                        "|",
                        any(random, 8, "1", "2", "3", "4", "5", random.nextInt(6) == 0 ? "x" : "6"),
                        any(random, 4, "p", "q"),
                        any(random, 4, "1", "2"),
                        any(random, 3, "ok", "no", random.nextInt(4) == 0 ? "far too long" : "ok"),
                        any(random, 3, "1", "2", "3", "4"),
                        any(random, 3, "p", "q"),
                        any(random, 3, "1", "2")));
            }
            tables.add(table(
                            names.get(t),
                            "id integer",
                            "k varchar(3)",
                            "m integer",
                            "note varchar(4)",
                            "up integer",
                            "x varchar(3)",
                            "y integer")
                    .key("id")
                    .unique("pair", "k", "m")
                    .link("up", "up -> " + names.get(one) + "(id)")
                    .link("xy", "x, y -> " + names.get(other) + "(k, m)", match, NO_ACTION, NO_ACTION)
                    .rows(own.toArray(new String[0])));
            rows.add(own);
        }
        List<Choice> choices = List.of(
                new Choice.None(),
                new Choice.First(),
                new Choice.Last(),
                new Choice.MostComplete(),
                new Choice.ByColumn("up", true),
                new Choice.ByColumn("note", false));
        return new Case(seed, tables, rows, choices.get(random.nextInt(choices.size())), match);
    }

    private static String any(Random random, int nullIn, String... values) {
        return random.nextInt(nullIn) == 0 ? "NULL" : values[random.nextInt(values.length)];
    }

    @ParameterizedTest
    @MethodSource("cases")
    void what_is_left_is_sound_and_the_greatest_such_set_for_the_choice(Case random) {
        TestTables tables = TestTables.of(folder, random.tables().toArray(new TestTable[0]));
        List<List<String>> sound = sifted(
                tables,
                new Keeping(Map.of(), random.choice()),
                sift -> List.of("a", "b", "c").stream()
                        .map(name -> MemorySource.rowsOf(sift.sound(name)))
                        .toList());
        SiftByTrial trial = new SiftByTrial(tables.charter(), random.rows(), random.choice(), random.match());
        assertThat(sound).isEqualTo(trial.sound());
        for (int t = 0; t < 3; t++) {
            random.tables().get(t).rows(sound.get(t).toArray(new String[0]));
        }
        assertThat(tables.findings()).isEmpty();
    }

    @Test
    void a_rule_over_a_parent_is_judged_by_the_parent_that_stays() {
        TestTable quays = quay("1|a|NULL", "1|b|NULL", "2|c|NULL");
        TestTable boats = table("boat", "boat_no integer", "quay_no integer", "tows integer")
                .key("boat_no")
                .link("boat_quay", "quay_no -> quay(quay_no)")
                .rule("not_at_a", is(Comparator.NOT_EQUAL, parent("boat_quay", 1, Type.TEXT), text("a")))
                .rows("1|1|NULL", "2|2|NULL");
        assertThat(aside(new Choice.Last(), quays, boats))
                .containsExactly("quay: 1 duplicate another stays at primary_key by 2", "boat: ");
        assertThat(aside(new Choice.First(), quays, boats))
                .containsExactly(
                        "quay: 2 duplicate another stays at primary_key by 1", "boat: 1 broken rule at not_at_a");
    }

    /** The same by trying all sets of rows: right by its looks, and slow. */
    private static final class SiftByTrial {
        private final Charter charter;
        private final List<List<String>> rows;
        private final Choice choice;
        private final Match match;

        SiftByTrial(Charter charter, List<List<String>> rows, Choice choice, Match match) {
            this.charter = charter;
            this.rows = rows;
            this.choice = choice;
            this.match = match;
        }

        private record Row(int table, int number, List<String> cells) {
            String at(int column) {
                String cell = cells.get(column);
                return cell.equals("NULL") ? null : cell;
            }

            boolean isWell(Match match) {
                boolean isHalf = (at(5) == null) != (at(6) == null);
                return at(0) != null
                        && !at(0).equals("x")
                        && (at(3) == null || at(3).length() <= 4)
                        && !(isHalf && match == Match.FULL);
            }
        }

        List<List<String>> sound() {
            List<Row> left = new ArrayList<>();
            for (int t = 0; t < rows.size(); t++) {
                for (int r = 0; r < rows.get(t).size(); r++) {
                    Row row = new Row(t, r, List.of(rows.get(t).get(r).split("\\|")));
                    if (row.isWell(match)) {
                        left.add(row);
                    }
                }
            }
            left = onePerKey(left, row -> row.table() + " " + row.at(0));
            left = onePerKey(
                    left,
                    row -> row.at(1) == null || row.at(2) == null
                            ? "row " + row.table() + " " + row.number()
                            : row.table() + " " + row.at(1) + " " + row.at(2));
            List<Row> greatest = greatest(left);
            return IntStream.range(0, rows.size())
                    .mapToObj(t -> greatest.stream()
                            .filter(row -> row.table() == t)
                            .map(row -> String.join("|", row.cells()))
                            .toList())
                    .toList();
        }

        private List<Row> onePerKey(List<Row> from, Function<Row, String> key) {
            Map<String, List<Row>> groups =
                    from.stream().collect(Collectors.groupingBy(key, TreeMap::new, Collectors.toList()));
            List<Row> stay = new ArrayList<>();
            groups.values().forEach(group -> stay.addAll(chosen(group)));
            return from.stream().filter(stay::contains).toList();
        }

        private List<Row> chosen(List<Row> group) {
            boolean areSame = group.stream()
                    .allMatch(row -> row.cells().equals(group.get(0).cells()));
            if (group.size() == 1 || areSame || choice instanceof Choice.First) {
                return group.subList(0, 1);
            } else if (choice instanceof Choice.None) {
                return List.of();
            } else if (choice instanceof Choice.Last) {
                return group.subList(group.size() - 1, group.size());
            }
            Row best = group.get(0);
            for (Row row : group) {
                best = isBetter(row, best) ? row : best;
            }
            return List.of(best);
        }

        private boolean isBetter(Row row, Row best) {
            if (choice instanceof Choice.MostComplete) {
                return nulls(row) < nulls(best);
            }
            Choice.ByColumn by = (Choice.ByColumn) choice;
            int column = by.column().equals("up") ? 4 : 3;
            if (row.at(column) == null || best.at(column) == null) {
                return row.at(column) != null && best.at(column) == null;
            }
            int order = row.at(column).compareTo(best.at(column));
            return by.isGreatest() ? order > 0 : order < 0;
        }

        private static long nulls(Row row) {
            return row.cells().stream().filter("NULL"::equals).count();
        }

        /** The set with the most rows, of all in which each row has its parents. */
        private List<Row> greatest(List<Row> of) {
            int[][] needs = new int[of.size()][];
            for (int i = 0; i < of.size(); i++) {
                needs[i] = needs(of, of.get(i));
            }
            int best = 0;
            for (int set = 0; set < 1 << of.size(); set++) {
                if (Integer.bitCount(set) > Integer.bitCount(best) && isClosed(set, needs)) {
                    best = set;
                }
            }
            List<Row> rowsLeft = new ArrayList<>();
            for (int i = 0; i < of.size(); i++) {
                if ((best & 1 << i) != 0) {
                    rowsLeft.add(of.get(i));
                }
            }
            return rowsLeft;
        }

        private static boolean isClosed(int set, int[][] needs) {
            for (int i = 0; i < needs.length; i++) {
                if ((set & 1 << i) != 0) {
                    for (int oneOf : needs[i]) {
                        if ((set & oneOf) == 0) {
                            return false;
                        }
                    }
                }
            }
            return true;
        }

        /** For each link of a row that asks for a parent, the rows that could be it, as bits. */
        private int[] needs(List<Row> of, Row row) {
            List<Integer> needs = new ArrayList<>();
            if (row.at(4) != null) {
                needs.add(bits(of, parent(row, 0), other -> row.at(4).equals(other.at(0))));
            }
            boolean hasOne = row.at(5) != null || row.at(6) != null;
            boolean hasBoth = row.at(5) != null && row.at(6) != null;
            if (hasBoth || (hasOne && match == Match.PARTIAL)) {
                needs.add(bits(
                        of,
                        parent(row, 1),
                        other -> (row.at(5) == null || row.at(5).equals(other.at(1)))
                                && (row.at(6) == null || row.at(6).equals(other.at(2)))));
            }
            return needs.stream().mapToInt(Integer::intValue).toArray();
        }

        private int parent(Row row, int link) {
            return charter.indexOf(
                    charter.tables().get(row.table()).links().get(link).parent());
        }

        private static int bits(List<Row> of, int table, Function<Row, Boolean> isParent) {
            int bits = 0;
            for (int i = 0; i < of.size(); i++) {
                bits |= of.get(i).table() == table && isParent.apply(of.get(i)) ? 1 << i : 0;
            }
            return bits;
        }
    }
}
