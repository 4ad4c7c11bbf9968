package taxiomet.survey.profile;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.survey.profile.ColumnProfile.CommonValue;

/** What a survey keeps of a column in bounded room: some of its values, by their hashes, and the commonest. */
class SketchesTest {
    private static final int ALL = Integer.MAX_VALUE;
    private static final byte[] NOTHING = new byte[16];

    private static long hash(long value) {
        long mixed = (value + 1) * 0x9E3779B97F4A7C15L;
        mixed = (mixed ^ mixed >>> 29) * 0xBF58476D1CE4E5B9L;
        return mixed ^ mixed >>> 32;
    }

    private static ValueSample sample(long from, long to) {
        ValueSample sample = new ValueSample(1 << 14);
        for (long value = from; value < to; value++) {
            sample.add(hash(value), NOTHING, 0, 0);
            sample.add(hash(value), NOTHING, 0, 0);
        }
        return sample;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 100, 16_000, 300_000, 2_000_000})
    void different_values_are_counted_exactly_while_few_and_nearly_when_many(int count) {
        ValueSample sample = sample(0, count);
        if (sample.isExact()) {
            assertThat(sample.distinct()).isEqualTo(count);
        } else {
            assertThat((double) sample.distinct()).isBetween(count * 0.94, count * 1.06);
        }
        assertThat(sample.isExact()).isEqualTo(count <= 16_000);
    }

    @Test
    void coverage_is_told_from_the_values_at_the_level_of_both() {
        ValueSample parents = sample(0, 1_000_000);
        assertThat(sample(0, 500_000).coverageBy(parents, ALL)).hasValue(1.0);
        assertThat(sample(900_000, 1_100_000).coverageBy(parents, ALL).orElseThrow())
                .isBetween(0.45, 0.55);
        assertThat(sample(2_000_000, 2_100_000).coverageBy(parents, ALL)).hasValue(0.0);
        assertThat(sample(7, 8).coverageBy(sample(0, 100), ALL)).hasValue(1.0);
    }

    @Test
    void values_that_no_sample_of_both_holds_say_nothing() {
        ValueSample parents = sample(0, 1_000_000);
        long absent = 0;
        while ((hash(absent) & 0x3F) == 0) {
            absent++;
        }
        assertThat(sample(absent, absent + 1).coverageBy(parents, ALL)).isEmpty();
    }

    private static RowSample rows(int lead, long[]... rows) {
        RowSample sample = new RowSample(rows.length == 0 ? 1 : rows[0].length, lead, 2048);
        for (long[] row : rows) {
            sample.addAll(Arrays.stream(row).mapToObj(cell -> new long[] {cell}).toArray(long[][]::new), 1);
        }
        return sample;
    }

    private static long[][] pairs(int count, int modulus, int shift) {
        long[][] rows = new long[count][];
        for (int i = 0; i < count; i++) {
            rows[i] = new long[] {hash(i), hash(i % modulus + shift)};
        }
        return rows;
    }

    @Test
    void columns_that_are_covered_one_by_one_may_not_be_covered_together() {
        RowSample parents = rows(0, pairs(50_000, 10, 0));
        int[] both = {0, 1};
        RowSample.Coverage same = rows(0, pairs(20_000, 10, 0)).coverageBy(both, parents, both);
        assertThat(same.rows()).isGreaterThan(100);
        assertThat(same.share()).isEqualTo(1.0);
        // The second column has the same values, each beside another first one.
        long[][] shifted = pairs(20_000, 10, 0);
        for (int i = 0; i < shifted.length; i++) {
            shifted[i][1] = hash((i + 3) % 10);
        }
        assertThat(rows(0, shifted).coverageBy(both, parents, both).share()).isZero();
    }

    @Test
    void rows_with_a_null_are_looked_at_by_nobody() {
        RowSample parents = rows(0, pairs(50, 10, 0));
        RowSample children = rows(0, new long[] {hash(1), 0}, new long[] {hash(2), hash(2)});
        assertThat(children.coverageBy(new int[] {0, 1}, parents, new int[] {0, 1}))
                .isEqualTo(new RowSample.Coverage(1, 1));
    }

    @Test
    void repeated_rows_are_found_among_those_that_share_a_value_of_the_lead() {
        long[][] rows = pairs(300_000, 7, 0);
        assertThat(rows(0, rows).excess(new int[] {0}, 1_000)).isZero();
        assertThat(rows(0, rows).excess(new int[] {1}, 1_000)).isPositive();
        assertThat(rows(0, rows).isWhole()).isFalse();
        assertThat(rows(0, pairs(300, 7, 0)).isWhole()).isTrue();
    }

    private static List<CommonValue> commonest(List<String> values) {
        return sample(values).commonest(3);
    }

    private static ValueSample sample(List<String> values) {
        ValueSample sample = new ValueSample(1 << 14);
        for (String value : values) {
            byte[] utf8 = ("<" + value + ">").getBytes(StandardCharsets.UTF_8);
            sample.add(hash(value.hashCode()), utf8, 1, utf8.length - 2);
        }
        return sample;
    }

    @Test
    void few_values_are_counted_exactly() {
        assertThat(commonest(List.of("ash", "oak", "ash", "Żółw", "ash", "oak")))
                .containsExactly(
                        new CommonValue("ash", 3, true),
                        new CommonValue("oak", 2, true),
                        new CommonValue("Żółw", 1, true));
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void a_common_value_is_found_among_any_number_of_rare_ones(boolean comesLate) {
        Random random = new Random(1);
        List<String> values = new ArrayList<>();
        Set<String> rare = new HashSet<>();
        for (int i = 0; i < 60_000; i++) {
            String value = random.nextInt(3) == 0 && (!comesLate || i > 3_000) ? "n/a" : "v" + i / 2;
            values.add(value);
            rare.add(value);
        }
        long count = values.stream().filter("n/a"::equals).count();
        CommonValue first = commonest(values).get(0);
        assertThat(rare).hasSizeGreaterThan(20_000);
        assertThat(first.value()).isEqualTo("n/a");
        assertThat(first.rows()).isBetween(count * 9 / 10, count);
    }

    @ParameterizedTest
    @ValueSource(ints = {60, 900, 60_000, 400_000})
    void parts_brought_together_are_the_sample_of_the_whole(int count) {
        Random random = new Random(count);
        List<String> values = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            values.add(random.nextInt(4) == 0 ? "n/a" : "v" + random.nextInt(count / 2));
        }
        ValueSample whole = sample(values);
        ValueSample first = sample(values.subList(0, count / 3));
        first.merge(sample(values.subList(count / 3, count)));
        assertThat(first.isExact()).isEqualTo(whole.isExact());
        assertThat(first.distinct()).isEqualTo(whole.distinct());
        assertThat(first.coverageBy(whole, ALL)).hasValue(1.0);
        assertThat(whole.coverageBy(first, ALL)).hasValue(1.0);
        assertThat(first.commonest(1)).isEqualTo(whole.commonest(1));
    }
}
