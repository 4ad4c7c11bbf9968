package taxiomet.cause;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.Cause;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTables;

/** One planted fault, and many rows at fault for it: it is the first thing to be mended. */
class CausesTest {
    @TempDir
    private Path folder;

    private final List<String> clinics = new ArrayList<>();
    private final List<String> patients = new ArrayList<>();
    private final List<String> stays = new ArrayList<>();
    private final List<String> meals = new ArrayList<>();

    /** Clinics, their patients, the stays of these, and the meals of each stay. */
    @BeforeEach
    void makeSoundTables() {
        IntStream.rangeClosed(1, 6).forEach(c -> clinics.add("CL-0" + c + "|Clinic " + c));
        IntStream.rangeClosed(1, 60).forEach(p -> patients.add(p + "|CL-0" + (1 + p % 6) + "|Patient " + p));
        IntStream.rangeClosed(1, 120)
                .forEach(s -> stays.add((1 + s % 60) + "|2026-0" + (s <= 60 ? 3 : 4) + "-11|" + s % 9));
        IntStream.rangeClosed(1, 240)
                .forEach(m ->
                        meals.add(m + "|" + (1 + m % 60) + "|2026-0" + (m <= 120 ? 3 : 4) + "-11|" + 1250 * (m % 3)));
    }

    private TestTables tables() {
        return TestTables.of(
                folder,
                table("clinic", "code varchar(6)", "name varchar(30) not null")
                        .key("code")
                        .rows(clinics.toArray(new String[0])),
                table("patient", "patient_no integer", "clinic_code varchar(6) not null", "name varchar(30)")
                        .key("patient_no")
                        .link("patient_clinic", "clinic_code -> clinic(code)")
                        .rows(patients.toArray(new String[0])),
                table("stay", "patient_no integer", "since date", "nights smallint")
                        .key("patient_no", "since")
                        .link("stay_patient", "patient_no -> patient(patient_no)")
                        .rows(stays.toArray(new String[0])),
                table("meal", "meal_no integer", "patient_no integer", "since date", "energy integer")
                        .key("meal_no")
                        .link("meal_patient", "patient_no -> patient(patient_no)")
                        .link("meal_stay", "patient_no, since -> stay(patient_no, since)")
                        .rows(meals.toArray(new String[0])));
    }

    private static String words(Cause cause) {
        return cause.what().word() + " " + cause.table() + " " + cause.values()
                + (cause.meant().isEmpty() ? "" : " as " + cause.meant())
                + cause.place().map(place -> " row " + place.row()).orElse("") + ": "
                + cause.cures().stream()
                        .map(cure -> cure.rows() + " " + cure.kind().words() + " of " + cure.table())
                        .collect(Collectors.joining(", "));
    }

    private List<String> causes() {
        return tables().check().causes().stream().map(CausesTest::words).toList();
    }

    @Test
    void sound_tables_have_no_cause() {
        assertThat(causes()).isEmpty();
    }

    @Test
    void a_parent_that_is_missing_is_told_once_for_all_links_to_it() {
        patients.remove(29);
        assertThat(causes()).containsExactly("enter patient [30]: 4 orphan of meal, 2 orphan of stay");
    }

    @Test
    void a_missing_parent_of_two_columns_is_told_by_both() {
        stays.removeIf(stay -> stay.startsWith("12|2026-04"));
        assertThat(causes()).containsExactly("enter stay [12, 2026-04-11]: 2 orphan of meal");
    }

    @Test
    void values_in_another_case_are_told_together() {
        patients.replaceAll(patient -> patient.replace("|CL-03|", "|cl-03|").replace("|CL-05|", "|cl-05|"));
        assertThat(causes()).containsExactly("respell patient []: 20 orphan of patient");
        patients.replaceAll(patient -> patient.replace("|cl-05|", "|CL-05|"));
        assertThat(causes()).containsExactly("respell patient [cl-03] as [CL-03]: 10 orphan of patient");
    }

    @Test
    void a_key_that_is_not_of_its_type_is_mended_in_its_row() {
        patients.set(14, "15a|CL-04|Patient 15");
        assertThat(causes().get(0))
                .isIn(
                        "mend row patient [] row 15: 1 type mismatch of patient",
                        "enter patient [15]: 4 orphan of meal, 2 orphan of stay");
    }

    @Test
    void a_malformed_parent_comes_before_all_that_hangs_on_it() {
        patients.set(7, MemorySource.MALFORMED);
        assertThat(causes().subList(0, Math.min(2, causes().size())))
                .anyMatch(cause -> cause.contains("patient") && cause.contains("of stay"));
    }

    @Test
    void rows_on_which_nothing_hangs_are_mended_together() {
        meals.set(3, MemorySource.MALFORMED);
        meals.set(30, MemorySource.MALFORMED);
        meals.set(31, MemorySource.MALFORMED);
        assertThat(causes()).containsExactly("mend each meal []: 3 malformed row of meal");
    }

    @Test
    void a_row_that_stands_twice_is_one_cause_and_says_where() {
        clinics.add("CL-02|Clinic of two");
        Cause cause = tables().check().causes().get(0);
        assertThat(words(cause)).isEqualTo("keep one clinic [CL-02] row 7: 1 duplicate of clinic");
        assertThat(cause.differsIn()).containsExactly("name");
        assertThat(cause.count()).isEqualTo(2);
    }

    @Test
    void parents_that_are_missing_by_the_hundred_are_one_cause() {
        IntStream.range(0, 300).forEach(i -> stays.add((1_000 + i) + "|2026-05-01|1"));
        Cause cause = tables().check(new CheckOptions(Set.of(), 3, 50)).causes().get(0);
        assertThat(words(cause)).isEqualTo("enter patient []: 300 orphan of stay");
        assertThat(cause.count()).isEqualTo(300);
    }

    @Test
    void a_value_that_stands_for_nothing_may_be_left_empty_where_null_is_allowed() {
        meals.replaceAll(meal -> meal.startsWith("24|") || meal.startsWith("25|") || meal.startsWith("26|")
                ? meal.replaceFirst("\\|[0-9]+\\|", "|0|")
                : meal);
        assertThat(causes().get(0)).startsWith("empty meal [0]: 3 orphan of meal");
        patients.replaceAll(patient -> patient.replace("|CL-03|", "|n/a|"));
        assertThat(tables().check().causes().get(0).what()).isEqualTo(Cause.What.RESPELL);
        assertThat(causes().get(0)).isEqualTo("respell patient [n/a]: 10 orphan of patient");
    }

    @Test
    void an_ill_typed_link_counts_for_its_column() {
        stays.set(5, "seven|2026-03-11|2");
        meals.replaceAll(meal -> meal.replace("|2026-03-11|", "|11.03.2026|"));
        assertThat(causes().get(0)).isEqualTo("mend each meal []: 120 type mismatch of meal, 120 orphan of meal");
    }

    @Test
    void what_changes_a_parents_key_comes_before_what_points_at_it() {
        patients.add("12|CL-01|Another twelve");
        patients.remove(29);
        List<String> causes = causes();
        assertThat(causes.get(0)).startsWith("keep one patient [12]");
        assertThat(causes.get(1)).startsWith("enter patient [30]");
    }

    @Test
    void every_row_of_every_finding_is_cured_by_some_cause() {
        patients.subList(20, 40).clear();
        patients.replaceAll(patient -> patient.replace("|CL-03|", "|cl-03|"));
        patients.add("1|CL-01|Twice");
        meals.replaceAll(meal -> meal.startsWith("9") ? meal + "9999999999" : meal);
        IntStream.range(0, 300).forEach(i -> stays.add((1_000 + i) + "|2026-05-01|1"));
        TestTables tables = tables();
        for (int hinted : new int[] {1, 100}) {
            var result = tables.check(new CheckOptions(Set.of(), 3, hinted));
            long cured = result.causes().stream().mapToLong(Cause::rows).sum();
            long atFault = result.findings().stream()
                    .mapToLong(finding -> finding.details() instanceof taxiomet.finding.Finding.Duplicates duplicates
                            ? duplicates.excess()
                            : finding.rows())
                    .sum();
            assertThat(cured).isEqualTo(atFault);
        }
        assertThat(tables.check(new CheckOptions(Set.of(), 3, 0)).causes()).isEmpty();
    }
}
