package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

class AcceptedFindingsTest {
    private static final LocalDate DAY = LocalDate.of(2027, 5, 31);

    @TempDir
    private Path folder;

    private static TestTable boats(String... rows) {
        return table("boat", "boat_no integer", "quay integer", "fee numeric(5,2)")
                .key("boat_no")
                .link("boat_quay", "quay -> quay(no)")
                .rows(rows);
    }

    private CheckResult check(LocalDate today, List<Accepted> accepted, String... boats) {
        TestTables tables =
                TestTables.of(folder, table("quay", "no integer").key("no").rows("1"), boats(boats));
        try (CheckRun run = CheckRun.start(
                tables.charter().withAccepted(accepted),
                new CheckOptions(Set.of(), 9, 9, false, Optional.of(today)),
                each -> tables.table(each.name()).source(),
                tables.context())) {
            return run.result();
        }
    }

    private static Accepted orphans(List<AcceptedRow> rows, List<List<String>> values) {
        return new Accepted(
                "orphan", "boat", "boat_quay", rows, values, "the archive arrives in May", Optional.of(DAY));
    }

    private static AcceptedRow row(String key, String... holds) {
        return new AcceptedRow(List.of(key), holds.length == 0 ? Optional.empty() : Optional.of(Arrays.asList(holds)));
    }

    private static List<Long> accepted(Finding finding) {
        return finding.examples().stream()
                .filter(Evidence::isAccepted)
                .map(Evidence::row)
                .toList();
    }

    private static List<String> remarks(CheckResult result) {
        return result.table("boat").remarks().stream().map(Remark::text).toList();
    }

    @Test
    void rows_named_by_key_or_by_value_are_counted_apart_and_all_of_a_finding_make_it_a_note() {
        CheckResult some = check(DAY, List.of(orphans(List.of(row("01")), List.of())), "1|7|1", "2|8|1");
        assertThat(some.findings()).singleElement().satisfies(finding -> {
            assertThat(finding.rows()).isEqualTo(2);
            assertThat(finding.openRows()).isEqualTo(1);
            assertThat(accepted(finding)).containsExactly(1L);
        });
        assertThat(some.isSound()).isFalse();
        assertThat(some.faultyRows()).isEqualTo(1);
        CheckResult all =
                check(DAY, List.of(orphans(List.of(row("1")), List.of(List.of("08")))), "1|7|1", "2|8|1", "3|8|1");
        assertThat(all.isSound()).isTrue();
        assertThat(all.faultyRows()).isZero();
        assertThat(all.findings().get(0).accepted())
                .containsExactly(new Finding.Accepting("the archive arrives in May", Optional.of(DAY), 3));
    }

    @Test
    void what_was_accepted_counts_again_when_the_day_has_passed() {
        CheckResult result = check(DAY.plusDays(1), List.of(orphans(List.of(row("1")), List.of())), "1|7|1");
        assertThat(result.isSound()).isFalse();
        assertThat(remarks(result))
                .contains("orphan at boat_quay: was accepted until 2027-05-31, and is counted again");
    }

    @Test
    void a_row_that_holds_something_else_counts_again_and_one_that_is_mended_is_told() {
        List<Accepted> accepted = List.of(orphans(List.of(row("1", "7"), row("2"), row("3", "9")), List.of()));
        CheckResult result = check(DAY, accepted, "1|8|1", "2|1|1", "3|09|1");
        assertThat(accepted(result.findings().get(0))).containsExactly(3L);
        assertThat(remarks(result))
                .contains(
                        "orphan at boat_quay: 1 accepted row is at fault no more",
                        "orphan at boat_quay: 1 accepted row has changed since, and is counted again");
    }
}
