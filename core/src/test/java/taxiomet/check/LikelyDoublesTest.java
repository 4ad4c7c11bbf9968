package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Alike;
import taxiomet.charter.Severity;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

class LikelyDoublesTest {
    private static final String[] COLUMNS = {
        "no integer", "given varchar(40)", "family varchar(40)", "born date", "street varchar(40)", "phone text"
    };

    @TempDir
    private Path folder;

    private static TestTable keepers(Alike rule, String... rows) {
        String[] withNulls = Stream.of(rows)
                .map(row -> Stream.of(row.split("\\|", -1))
                        .map(cell -> cell.isEmpty() ? "NULL" : cell)
                        .collect(Collectors.joining("|")))
                .toArray(String[]::new);
        return table("keeper", COLUMNS).key("no").alike(rule).rows(withNulls).inBatchesOf(7);
    }

    private static Alike threeOf(String... neverDiffer) {
        return Alike.of("same_keeper", List.of("given", "family", "born", "street", "phone"), 3, neverDiffer);
    }

    private CheckResult check(TestTable keepers) {
        TestTables tables = TestTables.of(folder, keepers);
        try (CheckRun run = CheckRun.start(
                tables.charter(),
                new CheckOptions(Set.of(), 50, 0),
                each -> tables.table(each.name()).source(),
                tables.context())) {
            return run.result();
        }
    }

    private static List<Evidence> doubles(CheckResult result) {
        return result.findings().stream()
                .filter(finding -> finding.kind() == FindingKind.LIKELY_DOUBLE)
                .flatMap(finding -> finding.examples().stream())
                .toList();
    }

    private List<Evidence> doubles(Alike rule, String... rows) {
        return doubles(check(keepers(rule, rows)));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "2|ADA|MARROW|1984-03-12||; spelled otherwise",
                "2|Ada|Márrów|1984-03-12||; spelled otherwise",
                "2|Ada|Mar row|1984-03-12||; spelled otherwise",
                "2|Ada|Mar-row.|1984-03-12||; spelled otherwise",
                "2|Ada|Marow|1984-03-12||; a slip apart",
                "2|Ada|Marrwo|1984-03-12||; a slip apart",
                "2|Ada|Marrowe|1984-03-12||; a slip apart",
                "2|Ada|Narrow|1984-03-12||; a slip apart",
                "2|Ada|Marrow|1984-12-03||; day and month changed round"
            })
    void aRowEnteredTwiceIsFoundHoweverItIsSpelled(String copy, String manner) {
        List<Evidence> rows =
                doubles(threeOf(), "1|Ada|Marrow|1984-03-12|Mill Lane 4|0", copy, "3|Ida|Farrow|1984-03-12||");
        assertThat(rows).extracting(Evidence::row).containsExactly(1L, 2L);
        assertThat(rows).extracting(Evidence::group).containsExactly(1L, 1L);
        assertThat(rows.get(0).problem()).startsWith("as row 2: ");
        assertThat(rows.get(1).problem()).startsWith("as row 1: ").contains(manner);
    }

    @Test
    void wordsMayStandInAnotherOrder() {
        Alike name = Alike.of("same_name", List.of("given", "street"), 2);
        List<Evidence> rows = doubles(
                name,
                "1|Ada Rose Marrow|||Mill Lane 4|",
                "2|Marrow, Rose Ada|||Lane Mill 4|",
                "3|Ada Rose|||Mill Lane 4|");
        assertThat(rows).extracting(Evidence::row).containsExactly(1L, 2L);
        assertThat(rows.get(0).problem()).isEqualTo("as row 2: given and street words in another order");
        assertThat(rows.get(0).differsIn()).containsExactly("given", "street");
    }

    @Test
    void whatSpeaksForItAndAgainstItIsSaidColumnByColumn() {
        List<Evidence> rows = doubles(
                threeOf(), "1|Ada|Marrow|1984-03-12|Mill Lane 4|", "2|Ada|MARROW|1984-12-03|Fen Road 9|040 123456");
        assertThat(rows.get(1).problem())
                .isEqualTo("as row 1: given equal; family spelled otherwise; born day and month changed round;"
                        + " phone not in both; street different");
        assertThat(rows.get(1).differsIn()).containsExactly("family", "born", "street", "phone");
    }

    @Test
    void relativesAreToldApartByWhatNeverDiffers() {
        String[] family = {
            "1|Ada|Marrow|1984-03-12|Mill Lane 4|040 123456",
            "2|Ben|Marrow|1986-07-01|Mill Lane 4|040 123456",
            "3|Ada|Marrow|1984-03-12|Fen Road 9|050 987654"
        };
        assertThat(doubles(threeOf(), family)).extracting(Evidence::row).containsExactly(1L, 2L, 3L);
        assertThat(doubles(threeOf("given", "born"), family))
                .extracting(Evidence::row)
                .containsExactly(1L, 3L);
    }

    @Test
    void nothingAgreesWithNothing() {
        assertThat(doubles(
                        threeOf(),
                        "1|Ada|n/a|1900-01-01|-|",
                        "2|Ada|n/a|1900-01-01|-|",
                        "3||||x|",
                        "4|Ada|Marrow|no date|Mill Lane 4|",
                        "5|Ada|Fenn|no date|Mill Lane 4|"))
                .isEmpty();
    }

    @Test
    void shortNumbersAreNoSlips() {
        Alike place = Alike.of("same_place", List.of("family", "street"), 2);
        assertThat(doubles(place, "1||Marrow||Mill Lane 4|", "2||Marrow||Mill Lane 5|", "3||Marrow||Mill Lane 45|"))
                .isEmpty();
    }

    @Test
    void longTextsAgreeOnlyWhenTheyAreEqual() {
        String prose = "the hive was moved ".repeat(60);
        Alike note = Alike.of("same_note", List.of("given", "phone"), 2);
        List<Evidence> rows = doubles(
                note,
                "1|Ada||||" + prose + "x",
                "2|Ada||||" + prose + "x",
                "3|Ada||||" + prose + "y",
                "4|Ada||||" + prose.toUpperCase(Locale.ROOT) + "x");
        assertThat(rows).extracting(Evidence::row).containsExactly(1L, 2L);
    }

    @Test
    void whatIsLikeOneRowIsOfItsGroupAndItsLikestRowIsNamed() {
        CheckResult result = check(keepers(
                Alike.of("same_name", List.of("given", "family"), 2),
                "1|Roberta|Marrow|||",
                "2|Robertha|Marrow|||",
                "3|Robertham|Marrow|||",
                "4|Edith|Fenn|||",
                "5|EDITH|Fenn|||"));
        Finding finding = result.findings().get(0);
        assertThat(finding.severity()).isEqualTo(Severity.WARNING);
        assertThat(finding.rows()).isEqualTo(5);
        assertThat(finding.details()).isEqualTo(new Finding.LikelyDoubles(3, 2, "given and family agree"));
        assertThat(finding.examples()).extracting(Evidence::group).containsExactly(1L, 1L, 1L, 2L, 2L);
        assertThat(finding.examples().get(2).problem()).startsWith("as row 2: ");
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4})
    void noPairIsMissedThatHasTwoColumnsAlikeButForSlips(int agree) {
        for (int seed = 0; seed < 60; seed++) {
            Random random = new Random(seed * 31L + agree);
            String[] rows = random.ints(40, 0, 9).mapToObj(i -> row(random)).toArray(String[]::new);
            for (int i = 0; i < rows.length; i++) {
                rows[i] = i + 1 + "|" + rows[i];
            }
            Alike rule = new Alike(
                    "same",
                    List.of("given", "family", "born", "street", "phone"),
                    agree,
                    List.of("born"),
                    Severity.NOTE);
            Set<Long> expected = new TreeSet<>();
            for (int i = 0; i < rows.length; i++) {
                for (int j = 0; j < i; j++) {
                    if (isAlike(rows[i].split("\\|", -1), rows[j].split("\\|", -1), agree)) {
                        expected.add(i + 1L);
                        expected.add(j + 1L);
                    }
                }
            }
            assertThat(doubles(rule, rows))
                    .as("seed %d, %d agree", seed, agree)
                    .extracting(Evidence::row)
                    .containsExactlyInAnyOrderElementsOf(expected);
        }
    }

    /** Values of which each is another, or the same in other letters, or a slip apart from one. */
    private static String row(Random random) {
        String[][] values = {
            {"Ada", "ADA", "Ben", "Cora", ""},
            {"Marrow", "Marow", "MARROW", "Fenwick", "Thistle", ""},
            {"1984-03-12", "1984-12-03", "1990-05-05", ""},
            {"Mill Lane 4", "Lane Mill 4", "Mill Lane 5", "Fen Road 9", ""},
            {"040123456", "040123465", "050987654", ""}
        };
        List<String> cells = new ArrayList<>();
        for (String[] of : values) {
            cells.add(of[random.nextInt(of.length)]);
        }
        return String.join("|", cells);
    }

    private static boolean isAlike(String[] one, String[] other, int agree) {
        List<Set<String>> same = List.of(
                Set.of("Ada", "ADA"),
                Set.of("Marrow", "Marow", "MARROW"),
                Set.of("1984-03-12", "1984-12-03"),
                Set.of("Mill Lane 4", "Lane Mill 4"),
                Set.of("040123456", "040123465"));
        int agreeing = 0;
        for (int i = 1; i < one.length; i++) {
            if (one[i].isEmpty() || other[i].isEmpty()) {
                continue;
            }
            boolean agrees = one[i].equals(other[i])
                    || (same.get(i - 1).contains(one[i]) && same.get(i - 1).contains(other[i]));
            if (!agrees && i == 3) {
                return false;
            }
            agreeing += agrees ? 1 : 0;
        }
        return agreeing >= agree;
    }

    @Test
    void manyRowsOfOneKindAreStillBroughtTogetherAndItIsSaidThatNotEveryTwoWereCompared() {
        List<String> rows = new ArrayList<>();
        for (int i = 1; i <= 400; i++) {
            rows.add(i + "|Ada|Marrow|||");
        }
        CheckResult result =
                check(keepers(Alike.of("same_name", List.of("given", "family"), 2), rows.toArray(String[]::new)));
        assertThat(result.findings().get(0).rows()).isEqualTo(400);
        assertThat(((Finding.LikelyDoubles) result.findings().get(0).details()).groups())
                .isEqualTo(1);
        assertThat(result.table("keeper").remarks())
                .anyMatch(remark -> remark.text().contains("not every two were compared"));
    }
}
