package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding.Consequence;
import taxiomet.finding.Finding.Missing;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.testing.TestTables;

/** Which parent an orphan was probably meant for, and why it missed it. */
class HintsTest {
    @TempDir
    private Path folder;

    private List<String> hints(String type, List<String> parents, String... orphans) {
        return TestTables.of(
                        folder,
                        table("p", "k " + type).key("k").rows(parents.toArray(String[]::new)),
                        table("c", "x " + type).link("l", "x -> p (k)").rows(orphans))
                .hints();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', ignoreLeadingAndTrailingWhitespace = false, textBlock = """
                    HIVE-17|HIVE-17 |perhaps HIVE-17, but for blanks at an end
                    HIVE-17|\u00a0HIVE-17\u200b|perhaps HIVE-17, but for blanks at an end
                    HIVE-17|hive-17|perhaps HIVE-17, in another case
                    17|0017|perhaps 17, but for leading zeros
                    0017|17|perhaps 0017, but for leading zeros
                    1.50|1.5|perhaps 1.50, written otherwise
                    2024-02-01|01.02.2024|perhaps 2024-02-01, written otherwise
                    2024-02-01|2024-02-01 00:00:00|perhaps 2024-02-01, written otherwise
                    Zoë|Zoe\u0308|perhaps Zoë, in another Unicode form
                    ﬁr|fir|perhaps ﬁr, in another Unicode form
                    heather|heathr|perhaps heather, one keystroke away
                    heather|heaather|perhaps heather, one keystroke away
                    heather|haether|perhaps heather, one keystroke away
                    heather|xeather|perhaps heather, one keystroke away
                    heather|hethr|none
                    abc|abd|none
                    abc|ab|perhaps abc, one keystroke away
                    A01|A1|perhaps A01, but for leading zeros
                    A01|A001|perhaps A01, but for leading zeros
                    A01|AO1|perhaps A01, but for characters that look alike
                    A01|a1|perhaps A01, but for leading zeros
                    A01|A-01|perhaps A01, but for marks between or around
                    A01|A01,|perhaps A01, but for marks between or around
                    A01|(A01)|perhaps A01, but for marks between or around
                    A01|A02|none
                    ROCK|ROK|perhaps ROCK, one keystroke away
                    JAZZ|JAZ|perhaps JAZZ, one keystroke away
                    H-0017|H17|perhaps H-0017, but for leading zeros
                    S5B8|55BB|perhaps S5B8, but for characters that look alike
                    Zoë|Zoe|perhaps Zoë, but for characters that look alike
                    123456|123457|perhaps 123456, one keystroke away
                    12345|12346|none
                    heather|n/a|probably stands for nothing
                    heather|-|probably stands for nothing
                    heather|NULL |probably stands for nothing
                    heather|lavender|none
                    """)
    void a_text_has_the_nearest_parent(String parent, String orphan, String hint) {
        assertThat(hints("text", List.of(parent), orphan)).containsExactly(hint);
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    integer;  1234567; 1234568; perhaps 1234567, one keystroke away
                    integer;  1234567; 12345678; perhaps 1234567, one keystroke away
                    integer;  1234567; 123456;  perhaps 1234567, one keystroke away
                    integer;  1234567; 2134567; perhaps 1234567, one keystroke away
                    integer;  17;      18;      none
                    integer;  17;      l7;      perhaps 17, but for characters that look alike
                    integer;  17;      q;       not of its column's type
                    bigint;   1234567890123456789; 1234567890123456788; perhaps 1234567890123456789, one keystroke away
                    integer;  17;      unknown; probably stands for nothing
                    bigint;   -1234567; 1234567; perhaps -1234567, but for marks between or around
                    """)
    void a_number_has_the_nearest_parent(String type, String parent, String orphan, String hint) {
        assertThat(hints(type, List.of(parent), orphan)).containsExactly(hint);
    }

    @Test
    void up_to_three_that_are_equally_near_are_named_and_of_more_none() {
        assertThat(hints("text", List.of("heather", "leather"), "weather"))
                .containsExactly("perhaps heather or leather, one keystroke away");
        assertThat(hints("text", List.of("feather", "heather", "leather"), "weather"))
                .containsExactly("perhaps feather or heather or leather, one keystroke away");
        assertThat(hints("text", List.of("feather", "heather", "leather", "yeather"), "weather"))
                .containsExactly("none");
        assertThat(hints("text", List.of("heather", "wweather", "leather", "feather", "yeather"), "weather"))
                .containsExactly("perhaps wweather, one keystroke away");
    }

    /** Found by pieces brought together: such a parent was seen only where the keys were not in memory. */
    @ParameterizedTest
    @ValueSource(longs = {0, 1 << 26})
    void a_parent_that_is_no_number_is_seen_among_numbers(long memory) {
        TestTables tables = TestTables.of(
                        folder,
                        table("p", "k integer").key("k").rows("7.", "1"),
                        table("c", "x integer").link("l", "x -> p (k)").rows("7"))
                .withMemory(memory);
        assertThat(tables.hints()).containsExactly("perhaps 7., written otherwise");
    }

    /** Numbers alone are looked up, other keys read: the same is found in both ways, with memory for the keys and without. */
    @ParameterizedTest
    @CsvSource({"bigint", "text"})
    void hints_depend_on_nothing_but_the_data(String type) {
        Random random = new Random(20_261_128L);
        TreeSet<String> parents = new TreeSet<>();
        List<String> children = new ArrayList<>();
        for (int i = 0; i < 200; i++) {
            long number = random.nextLong() >> random.nextInt(60);
            parents.add("" + number);
            StringBuilder slip = new StringBuilder("" + number);
            int place = random.nextInt(slip.length());
            switch (random.nextInt(5)) {
                case 0 -> slip.deleteCharAt(place);
                case 1 -> slip.insert(place, random.nextInt(10));
                case 2 -> slip.setCharAt(place, (char) ('0' + random.nextInt(10)));
                case 3 -> slip.setCharAt(place, 'l');
                default -> slip.insert(0, "00");
            }
            children.add(slip + "|" + (random.nextInt(3) == 0 ? "l" : "1"));
        }
        List<List<String>> all = new ArrayList<>();
        for (long memory : new long[] {0, 1 << 26}) {
            TestTables tables = TestTables.of(
                            folder,
                            table("p", "k " + type, "n " + type)
                                    .key("k", "n")
                                    .rows(parents.stream().map(p -> p + "|1").toArray(String[]::new)),
                            table("c", "x " + type, "y " + type)
                                    .link("l", "x, y -> p (k, n)")
                                    .rows(children.toArray(String[]::new)))
                    .withMemory(memory);
            all.add(tables.hints());
        }
        assertThat(all.get(0)).isEqualTo(all.get(1)).anyMatch(hint -> hint.contains("look alike"));
        // As texts, with whatever is not a number read closely.
        assertThat(all.get(0).stream().filter(hint -> hint.startsWith("perhaps")))
                .hasSizeGreaterThan(50);
    }

    @Test
    void a_surer_hint_comes_before_a_keystroke() {
        assertThat(hints("text", List.of("Heather", "heathers"), "heather"))
                .containsExactly("perhaps Heather, in another case");
    }

    @Test
    void of_several_columns_one_may_differ() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "a text", "b text").key("a", "b").rows("north|heather", "south|clover"),
                table("c", "x text", "y text")
                        .link("l", "x, y -> p (a, b)")
                        .rows("NORTH|heather", "north|heathr", "nort|heathr", "south|heather", "East|clover"));
        assertThat(tables.hints())
                .containsExactly(
                        "perhaps (north, heather), in another case",
                        "perhaps (north, heather), one keystroke away",
                        "none",
                        "none",
                        "none");
    }

    @Test
    void the_commonest_values_are_told_with_their_hints() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "k text").key("k").rows("HIVE-17", "HIVE-18"),
                table("c", "x text")
                        .link("l", "x -> p (k)")
                        .rows("z", "hive-17", "hive-17", "hive-18", "hive-17", "y"));
        CheckResult result = tables.check(new CheckOptions(Set.of(), 1, 10));
        Missing missing = (Missing) result.findings().get(0).details();
        assertThat(missing.distinct()).isEqualTo(4);
        assertThat(missing.commonest().get(0).values()).containsExactly("hive-17");
        assertThat(missing.commonest().get(0).rows()).isEqualTo(3);
        assertThat(missing.commonest().get(0).hint().orElseThrow().kind()).isEqualTo(Hint.Kind.OTHER_CASE);
    }

    @Test
    void none_is_looked_for_where_none_is_asked_for() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "k text").key("k").rows("HIVE-17"),
                table("c", "x text").link("l", "x -> p (k)").rows("hive-17"));
        CheckResult result = tables.check(new CheckOptions(Set.of(), 5, 0));
        assertThat(result.findings().get(0).examples().get(0).hint()).isEmpty();
    }

    @Test
    void among_many_parents_the_one_is_found() {
        List<String> parents = new ArrayList<>();
        IntStream.range(0, 30_000).forEach(i -> parents.add("colony-" + i * 7919));
        parents.add("Meadow");
        assertThat(hints("text", parents, "meadow ", "colnoy-7919", "COLONY-79190", "colony-x1"))
                .containsExactly(
                        "perhaps Meadow, in another case",
                        "perhaps colony-7919, one keystroke away",
                        "perhaps colony-79190, in another case",
                        "none");
    }

    @Test
    void an_orphan_whose_parent_is_there_and_faulty_is_told_so_and_counted() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "a integer", "d date", "n text")
                        .key("a", "d")
                        .rows(
                                "1|2024-05-01|x",
                                "MALFORMED 07|2024-05-02|y|z",
                                "3|2024-13-01|x",
                                "4|NULL|x",
                                "MALFORMED 9",
                                "NULL|NULL|x"),
                table("c", "a integer", "d date")
                        .link("l", "a, d -> p (a, d)")
                        .rows(
                                "1|2024-05-01",
                                "7|2024-05-02",
                                "7|20240502",
                                "3|2024-13-01",
                                "4|2024-05-09",
                                "9|2024-05-02",
                                "1|2024-05-10"));
        assertThat(tables.hints())
                .containsExactly(
                        "row 2 of p, which is malformed, begins with this key",
                        "row 2 of p, which is malformed, begins with this key",
                        "row 3 of p has this key, which is not of its type",
                        "row 4 of p has the rest of this key, and null in it",
                        "none",
                        "perhaps (1, 2024-05-01), one keystroke away");
        Missing missing = (Missing) tables.check().findings().stream()
                .filter(finding -> finding.kind() == FindingKind.ORPHAN)
                .findFirst()
                .orElseThrow()
                .details();
        assertThat(missing.consequences())
                .containsExactly(
                        new Consequence(FindingKind.MALFORMED_ROW, "p", 2),
                        new Consequence(FindingKind.TYPE_MISMATCH, "p", 1),
                        new Consequence(FindingKind.NULL_IN_KEY, "p", 1));
    }

    @Test
    void only_the_key_that_a_faulty_parent_bears_follows_from_it() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "k varchar(6)", "n integer").key("k").rows("T-01|1", "MALFORMED T-22|2|3", "NULL|4"),
                table("c", "x varchar(6)").link("l", "x -> p (k)").rows("T-22", "t-22", "T-O1", "T-99"));
        assertThat(tables.hints())
                .containsExactly(
                        "row 2 of p, which is malformed, begins with this key",
                        "none",
                        "perhaps T-01, but for characters that look alike",
                        "none");
    }

    @ParameterizedTest
    @CsvSource({"integer, 256", "integer, 1000000", "varchar(9), 256", "varchar(9), 1000000"})
    void parts_the_other_way_round_and_single_characters_that_look_alike_are_seen(String type, long memory) {
        assertThat(TestTables.of(
                                folder,
                                table("p", "a " + type, "b " + type)
                                        .key("a", "b")
                                        .rows("2023|7", "2024|8", "5|5"),
                                table("c", "x " + type, "y " + type)
                                        .link("l", "x, y -> p (a, b)")
                                        .rows("7|2023", "08|2024", "7|2025"))
                        .withMemory(memory)
                        .hints())
                .containsExactly(
                        "perhaps (2023, 7), with two parts the other way round",
                        "perhaps (2024, 8), with two parts the other way round",
                        "none");
        assertThat(hints(type, List.of("1", "0", "17"), "l", "O", "S", "-1"))
                .containsExactly(
                        "perhaps 1, but for characters that look alike",
                        "perhaps 0, but for characters that look alike",
                        type.equals("integer") ? "not of its column's type" : "none",
                        "probably stands for nothing");
    }
}
