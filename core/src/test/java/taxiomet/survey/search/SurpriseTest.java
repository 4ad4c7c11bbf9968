package taxiomet.survey.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.UUID;
import java.util.function.IntFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.survey.profile.FoundTable;
import taxiomet.survey.profile.RowSample;
import taxiomet.survey.profile.SampleSizes;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.TableProfiler;
import taxiomet.testing.MemorySource;

/** What an agreement of values says: much where it is improbable, nothing where small numbers lie in every range. */
class SurpriseTest {
    /** A table of one column. */
    private static TableProfile column(int rows, IntFunction<Object> value) {
        FoundTable found = new FoundTable(
                "t",
                new DelimitedFiles(Path.of("."), "t", ',', '"', "UTF-8", true, Optional.empty(), List.of()),
                List.of("c"),
                List.of());
        List<String> all =
                IntStream.range(0, rows).mapToObj(value).map(String::valueOf).toList();
        return TableProfiler.profile(
                found, new MemorySource(List.of("c"), all, 100), SampleSizes.of(List.of(found)), 1);
    }

    private static double bits(TableProfile child, TableProfile parent, double coverage) {
        return Surprise.bits(child, 0, parent, 0, coverage);
    }

    private final TableProfile dense = column(1_000, i -> i + 1);
    private final TableProfile sparse = column(1_000, i -> 3 + i * 37);

    @Test
    void numbers_in_a_range_without_gaps_say_nothing() {
        assertThat(bits(column(200, i -> i + 1), dense, 1)).isZero();
        assertThat(bits(column(800, i -> i % 40 + 1), dense, 1)).isZero();
    }

    @Test
    void sparse_keys_that_are_hit_say_the_more_the_more_are_hit() {
        // Of 37 numbers one is a key: 5.2 bits each.
        double two = bits(column(50, i -> 3 + i % 2 * 370), sparse, 1);
        double five = bits(column(50, i -> 3 + i % 5 * 370), sparse, 1);
        assertThat(two).isCloseTo(2 * 5.2, within(0.3));
        assertThat(five).isCloseTo(5 * 5.2, within(0.5)).isGreaterThan(Surprise.SURE);
        double half = bits(column(50, i -> 3 + i % 10 * 370), sparse, 0.5);
        assertThat(half).isPositive().isLessThan(bits(column(50, i -> 3 + i % 10 * 370), sparse, 1));
        assertThat(bits(column(50, i -> 3 + i % 10 * 370), sparse, 1.0 / 37)).isCloseTo(0, within(0.1));
    }

    @Test
    void a_single_value_says_nothing() {
        assertThat(bits(column(50, i -> 40), sparse, 1)).isZero();
        assertThat(bits(column(50, i -> 3 + i % 3 * 37), sparse, 1.0 / 3)).isZero();
    }

    @Test
    void numbers_far_from_0_agree_by_their_place_unless_they_are_years() {
        TableProfile far = column(100, i -> 50_001 + i);
        assertThat(bits(column(60, i -> 50_010 + i % 30), far, 1)).isGreaterThan(15);
        TableProfile years = column(60, i -> 1_960 + i);
        assertThat(bits(column(60, i -> 1_990 + i % 20), years, 1)).isZero();
    }

    @Test
    void long_codes_say_more_than_letters() {
        TableProfile codes = column(500, i -> "QX-" + (char) ('A' + i % 26) + (char) ('A' + i / 26) + "7");
        TableProfile letters = column(26, i -> (char) ('A' + i));
        assertThat(bits(column(60, i -> "QX-" + (char) ('A' + i % 6) + "A7"), codes, 1))
                .isGreaterThan(Surprise.SURE);
        assertThat(bits(column(60, i -> (char) ('A' + i % 6)), letters, 1)).isLessThan(Surprise.SURE / 2);
        Random random = new Random(1);
        List<String> ids = IntStream.range(0, 40)
                .mapToObj(i -> new UUID(random.nextLong(), random.nextLong()).toString())
                .toList();
        assertThat(bits(column(90, i -> ids.get(i % 3)), column(40, ids::get), 1))
                .isGreaterThan(Surprise.SURE);
    }

    @Test
    void numbers_that_crowd_among_the_keys_are_told_from_numbers_that_lie_anywhere() {
        TableProfile crowd = column(400, i -> i % 10 == 0 ? 900_000 - i * 7 : 1 + i % 900);
        assertThat(Surprise.ofCrowd(crowd, 0, dense, 0, new RowSample.Coverage(400, 360)))
                .isGreaterThan(Surprise.SURE);
        TableProfile anywhere = column(400, i -> 1 + i * 2_500);
        assertThat(Surprise.ofCrowd(anywhere, 0, dense, 0, new RowSample.Coverage(400, 0)))
                .isZero();
    }
}
