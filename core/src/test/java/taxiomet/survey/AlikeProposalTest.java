package taxiomet.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Alike;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.spill.MemoryBudget;
import taxiomet.survey.profile.FoundTable;
import taxiomet.testing.MemorySource;
import taxiomet.work.RunContext;

/** When a survey proposes that rows are probably one thing, and what is compared then. */
class AlikeProposalTest {
    private static final String[] SYLLABLES = {"ash", "bur", "cot", "den", "el", "fen", "gor", "hol", "ing", "jun"};

    @TempDir
    private Path folder;

    private final Random random = new Random(11);
    private final List<String> rows = new ArrayList<>();

    private Optional<Alike> proposed(String header) {
        List<String> columns = List.of(header.split("\\|"));
        SurveyResult result = Survey.of(
                "test",
                List.of(new FoundTable(
                        "keeper",
                        new DelimitedFiles(
                                Path.of("."), "keeper", ',', '"', "UTF-8", true, Optional.empty(), List.of()),
                        columns,
                        List.of())),
                new SurveyOptions(4, 0, 5),
                table -> new MemorySource(columns, rows, 100),
                new RunContext(folder, new MemoryBudget(64 << 20), 2, 1));
        assertThat(result.draft().table("keeper").alike())
                .isEqualTo(Optional.ofNullable(result.alike().get("keeper")).stream()
                        .map(proposal -> proposal.rule())
                        .toList());
        return result.draft().table("keeper").alike().stream().findFirst();
    }

    private String given() {
        return SYLLABLES[random.nextInt(10)] + SYLLABLES[random.nextInt(10)];
    }

    private String name() {
        return SYLLABLES[random.nextInt(10)] + SYLLABLES[random.nextInt(10)] + SYLLABLES[random.nextInt(10)];
    }

    private String day(int from, int years) {
        return String.format(
                "%d-%02d-%02d", from + random.nextInt(years), 1 + random.nextInt(12), 1 + random.nextInt(28));
    }

    private String phone() {
        return "0" + (100_000 + random.nextInt(900_000));
    }

    /** Households of one to four who share all but given name and day of birth; each row is entered on some day. */
    private void households(int people, String key) {
        while (rows.size() < people) {
            String shared = name() + "|%s|" + name() + " lane " + random.nextInt(90) + "|" + phone();
            for (int i = 1 + random.nextInt(4); i > 0; i--) {
                rows.add(String.format(key, rows.size() + 1) + "|" + given() + "|"
                        + String.format(shared, day(1940, 60)) + "|" + day(2001, 20));
            }
        }
    }

    /** Some are entered once more on another day, in other letters. */
    private void again(int doubles, String key) {
        for (int i = 0; i < doubles; i++) {
            String[] cells = rows.get(random.nextInt(rows.size())).split("\\|");
            cells[0] = String.format(key, rows.size() + 1);
            cells[2] = cells[2].toUpperCase(Locale.ROOT);
            cells[6] = day(2001, 20);
            rows.add(String.join("|", cells));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"%d", "K-%05d"})
    void whatFamiliesShareTellsNobodyApartAndTheDayOfEntryTellsEveryRowApart(String key) {
        households(3_000, key);
        again(150, key);
        Alike rule =
                proposed("keeper_no|given|family|born|street|phone|entered_on").orElseThrow();
        assertThat(rule.name()).isEqualTo("same_keeper");
        assertThat(rule.agree()).isEqualTo(3);
        assertThat(rule.columns()).contains("given", "family", "born").doesNotContain("keeper_no", "entered_on");
        assertThat(rule.neverDiffer()).containsExactly("given", "born");
    }

    @Test
    void whereNobodySharesAnythingNoColumnIsSingledOut() {
        for (int i = 1; i <= 2_000; i++) {
            rows.add(i + "|" + name() + "|" + name() + " lane " + random.nextInt(90) + "|" + name());
        }
        for (int i = 1; i <= 100; i++) {
            rows.add((2_000 + i) + rows.get(random.nextInt(2_000)).replaceFirst("^\\d+", ""));
        }
        Alike rule = proposed("no|firm|street|town").orElseThrow();
        assertThat(rule.neverDiffer()).isEmpty();
        assertThat(rule.columns()).containsExactly("firm", "street", "town");
    }

    @ParameterizedTest
    @CsvSource({"200, 0", "20, 4"})
    void withoutDoublesOrWithFewRowsThereIsNothingToPropose(int people, int doubles) {
        households(people, "%d");
        again(doubles, "%d");
        assertThat(proposed("keeper_no|given|family|born|street|phone|entered_on"))
                .isEmpty();
    }

    @Test
    void rowsThatAreToldApartByWhatTheyHoldNeedNoRule() {
        for (int i = 1; i <= 400; i++) {
            rows.add("tr" + name().substring(0, 4) + (i % 7 == 0 ? "x" : "") + i + "|" + name() + "|" + name());
        }
        rows.replaceAll(row -> row.replaceFirst("tr(\\w+?)\\d+\\|", "$1|"));
        assertThat(proposed("code|name|place")).isEmpty();
    }

    @Test
    void whatIsWrittenDownDayByDayIsNoThing() {
        for (int i = 1; i <= 3_000; i++) {
            rows.add(i + "|" + random.nextInt(200) + "|" + day(2024, 1) + "|" + SYLLABLES[random.nextInt(5)] + "|"
                    + SYLLABLES[random.nextInt(3)]);
        }
        assertThat(proposed("visit_no|hive|visited_on|seen_by|note")).isEmpty();
    }
}
