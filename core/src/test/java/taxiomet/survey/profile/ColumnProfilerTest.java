package taxiomet.survey.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.values.CellColumn;

/** What is said of a column is the same however its rows come: all at once, in runs, or in parts that are brought together. */
class ColumnProfilerTest {
    private static final int CAPACITY = 1 << 10;
    private static final int ROWS = 3_000;

    /** Columns as they are met, most of them with slips. */
    private static Map<String, Function<Random, String>> kinds() {
        Map<String, Function<Random, String>> kinds = new LinkedHashMap<>();
        kinds.put("whole numbers", random -> "" + (random.nextInt(5_000) - 2_000));
        kinds.put(
                "whole numbers with slips", random -> any(random, "" + random.nextInt(900), "007", "+12", " 5", "n/a"));
        kinds.put("numbers that no double holds", random -> "900719925474" + (1_000 + random.nextInt(50)));
        kinds.put("days without hyphens", random -> "2024" + (10 + random.nextInt(3)) + (10 + random.nextInt(18)));
        kinds.put("zeros and ones", random -> any(random, "0", "1", "1", "0", "0"));
        kinds.put("amounts", random -> money(random, 2));
        kinds.put("amounts with slips", random -> any(random, money(random, 2), "17", "1.5", "0.125", "-3.00"));
        kinds.put("fine amounts", random -> money(random, 9));
        kinds.put("dates", random -> "20" + (10 + random.nextInt(15)) + "-0" + (1 + random.nextInt(9)) + "-11");
        kinds.put("dates with slips", random -> any(random, "2024-03-0" + (1 + random.nextInt(9)), "1.3.2024", "soon"));
        kinds.put(
                "a few words",
                random -> any(random, "ash", "oak", "OAK", "lime ", "Żółw in a longer text of many letters"));
        kinds.put("many words", random -> "word " + random.nextInt(2_000_000));
        kinds.put("yes and no", random -> any(random, "true", "false", "t", "yes", "f"));
        kinds.put("moments", random -> "2024-03-01 10:" + (10 + random.nextInt(50)) + ":00");
        return kinds;
    }

    private static String money(Random random, int scale) {
        return String.format("%d.%0" + scale + "d", random.nextInt(300), random.nextInt(100));
    }

    /** The first one mostly. */
    private static String any(Random random, String... values) {
        return random.nextInt(3) > 0 ? values[0] : values[random.nextInt(values.length)];
    }

    private static Stream<String> kindsOfColumns() {
        return kinds().keySet().stream();
    }

    private static List<String> values(String kind) {
        Random random = new Random(kind.hashCode());
        Function<Random, String> one = kinds().get(kind);
        List<String> values = new ArrayList<>();
        for (int row = 0; row < ROWS; row++) {
            values.add(random.nextInt(20) == 0 ? null : one.apply(random));
        }
        return values;
    }

    private static ColumnProfiler profiler(List<String> values, int run, int firstRun) {
        ColumnProfiler profiler = new ColumnProfiler("c", new Classifier(), CAPACITY);
        for (int from = 0, number = firstRun; from < values.size(); from += run, number++) {
            CellColumn cells = new CellColumn(run);
            List<String> some = values.subList(from, Math.min(values.size(), from + run));
            for (String value : some) {
                if (value == null) {
                    cells.addNull();
                } else {
                    cells.add(value);
                }
            }
            profiler.addAll(cells, some.size(), number, new long[some.size()]);
        }
        return profiler;
    }

    @ParameterizedTest
    @MethodSource("kindsOfColumns")
    void runs_and_parts_say_what_all_rows_at_once_say(String kind) {
        List<String> values = values(kind);
        ColumnProfile atOnce = profiler(values, ROWS, 0).profile();
        assertThat(profiler(values, 70, 0).profile()).isEqualTo(atOnce);
        ColumnProfiler parts = profiler(values.subList(0, 1_000), 100, 0);
        parts.merge(profiler(values.subList(1_000, ROWS), 100, 10));
        assertThat(parts.profile()).isEqualTo(atOnce);
    }

    @ParameterizedTest
    @MethodSource("kindsOfColumns")
    void values_and_their_lengths_are_counted(String kind) {
        List<String> values = values(kind);
        List<String> there = values.stream().filter(Objects::nonNull).toList();
        ColumnProfile profile = profiler(values, 90, 0).profile();
        assertThat(profile.values()).isEqualTo(there.size());
        assertThat(profile.nulls()).isEqualTo(ROWS - there.size());
        assertThat(profile.shortest())
                .isEqualTo(there.stream().mapToInt(String::length).min().orElseThrow());
        assertThat(profile.longest())
                .isEqualTo(there.stream().mapToInt(String::length).max().orElseThrow());
        if (profile.distinctIsExact()) {
            for (ColumnProfile.CommonValue common : profile.commonest()) {
                assertThat(common.rows()).isGreaterThanOrEqualTo(Collections.frequency(there, common.value()));
            }
        }
    }

    @Test
    void a_value_of_many_rows_is_found_among_values_that_have_no_room() {
        List<String> values = new ArrayList<>();
        IntStream.range(0, 2_000).forEach(i -> values.add(i % 7 == 3 ? "n/a" : "name " + i));
        ColumnProfile profile = profiler(values, 2_000, 0).profile();
        assertThat(profile.distinctIsExact()).isFalse();
        assertThat(profile.commonest()).containsExactly(new ColumnProfile.CommonValue("n/a", 286, true));
        assertThat(profile.remarks()).containsExactly("may stand for nothing: n/a");
    }

    @Test
    void whole_numbers_that_no_double_holds_are_told_apart() {
        List<String> values = List.of("9007199254740993", "9007199254740992", "9007199254740994", "9007199254740993");
        for (int run : new int[] {1, 4}) {
            ColumnProfile profile = profiler(values, run, 0).profile();
            assertThat(profile.least()).hasValue("9007199254740992");
            assertThat(profile.greatest()).hasValue("9007199254740994");
        }
    }

    @Test
    void extremes_of_amounts_are_by_value_and_written_as_shortly_as_they_stand() {
        List<String> values = List.of("10.50", "9.75", "100.25", "9.750", "-2.00", "-2.0", "100.250", "0.99");
        for (int run : new int[] {1, 3, 8}) {
            ColumnProfile profile = profiler(values, run, 0).profile();
            assertThat(profile.least()).hasValue("-2.0");
            assertThat(profile.greatest()).hasValue("100.25");
            assertThat(profile.guess().type().toString()).isEqualTo("numeric(6,3)");
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 7, 100})
    void rows_that_go_up_are_told_from_rows_that_stay(int run) {
        List<String> up = IntStream.range(0, 300).mapToObj(i -> "" + i * 3).toList();
        List<String> stays = IntStream.range(0, 300).mapToObj(i -> "" + i / 4).toList();
        List<String> falls = new ArrayList<>(stays);
        Collections.swap(falls, 100, 200);
        assertThat(profiler(up, run, 0).isAscending()).isTrue();
        assertThat(profiler(up, run, 0).neverFalls()).isTrue();
        assertThat(profiler(stays, run, 0).isAscending()).isFalse();
        assertThat(profiler(stays, run, 0).neverFalls()).isTrue();
        assertThat(profiler(falls, run, 0).neverFalls()).isFalse();
    }

    @Test
    void all_values_are_known_while_they_are_few_and_spelled_in_one_way() {
        List<String> values = new ArrayList<>();
        IntStream.range(0, 900).forEach(i -> values.add("" + i % 30));
        values.addAll(Arrays.asList(null, "29"));
        KnownValues known = profiler(values, 100, 0).values().known().orElseThrow();
        assertThat(known.texts().size()).isEqualTo(30);
        assertThat(known.texts().text(0)).isEqualTo("29");
        assertThat(known.rows()[0]).isEqualTo(31);
        assertThat(Arrays.stream(known.rows()).sum()).isEqualTo(901);
        values.add("029");
        assertThat(profiler(values, 100, 0).values().known()).isEmpty();
        IntStream.range(0, 2 * CAPACITY).forEach(i -> values.add("" + i));
        assertThat(profiler(values, 100, 0).values().known()).isEmpty();
    }
}
