package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Severity;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.Finding.Reasons;
import taxiomet.testing.Columns;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** What a column declares: type, not null, length, values and pattern. */
class ColumnsOfTablesTest {
    @TempDir
    private Path folder;

    private List<String> findings(TestTable table) {
        return TestTables.of(folder, table).findings();
    }

    private Finding first(TestTable table) {
        return TestTables.of(folder, table).check().findings().get(0);
    }

    @Test
    void values_not_of_their_type_are_told_with_their_reasons() {
        Finding finding = first(table("t", "n integer").rows("1", "x", "1.5", "y", "3000000000", "NULL", "z"));
        assertThat(finding.kind().words()).isEqualTo("type mismatch");
        assertThat(finding.rows()).isEqualTo(5);
        assertThat(finding.details())
                .isEqualTo(new Reasons(
                        "integer",
                        List.of(
                                new Reason("not a whole number", 3),
                                new Reason("out of the type's range", 1),
                                new Reason(
                                        "written with a fraction or an exponent, which an integer cannot hold", 1))));
        assertThat(finding.examples().get(1).problem())
                .isEqualTo("written with a fraction or an exponent, which an integer cannot hold");
        assertThat(finding.examples().get(1).values()).containsExactly("1.5");
    }

    @Test
    void an_odd_spelling_is_a_note_and_no_fault() {
        CheckResult result = TestTables.of(folder, table("t", "n integer").rows("1", "007", " 7", "+7"))
                .check();
        assertThat(result.findings()).hasSize(1);
        assertThat(result.findings().get(0).severity()).isEqualTo(Severity.NOTE);
        assertThat(result.findings().get(0).rows()).isEqualTo(3);
        assertThat(result.isSound()).isTrue();
        assertThat(result.faultyRows()).isZero();
    }

    @Test
    void a_value_is_missing_where_none_may_be() {
        assertThat(findings(table("t", "n integer not null", "m text not null").rows("1|a", "NULL|", "NULL|NULL")))
                .containsExactly("null not allowed at t.n: 2 3", "null not allowed at t.m: 3");
    }

    @Test
    void a_length_is_counted_in_characters() {
        assertThat(findings(table("t", "c text")
                        .with("c", Columns.length("2..3"))
                        .rows("a", "ab", "abc", "abcd", "🐝🐝", "🐝🐝🐝🐝", "NULL", "", "e\u0301")))
                .containsExactly("wrong length at t.c: 1 4 6 8");
        assertThat(findings(table("t", "c text").with("c", Columns.length("4")).rows("abcd", "abcde", "abc")))
                .containsExactly("wrong length at t.c: 2 3");
        assertThat(findings(
                        table("t", "c text").with("c", Columns.length("..2")).rows("", "ab", "abc")))
                .containsExactly("wrong length at t.c: 3");
    }

    @Test
    void values_are_those_of_the_list() {
        assertThat(findings(table("t", "c text")
                        .with("c", Columns.oneOf("calm", "wary"))
                        .rows("calm", "Calm", "NULL", "", "wary ")))
                .containsExactly("value not allowed at t.c: 2 4 5");
        assertThat(findings(table("t", "c text")
                        .with("c", Columns.oneOf("calm"))
                        .with("c", Columns::ignoringCase)
                        .rows("calm", "CALM", "wary")))
                .containsExactly("value not allowed at t.c: 3");
        assertThat(findings(table("t", "n numeric")
                        .with("n", Columns.oneOf("1", "2.50"))
                        .rows("1.0", "2.5", "3", "1e0")))
                .contains("value not allowed at t.n: 3");
        assertThat(findings(table("t", "d date")
                        .with("d", Columns.oneOf("2024-02-29"))
                        .rows("20240229", "2024-03-01")))
                .contains("value not allowed at t.d: 2");
    }

    @Test
    void what_is_not_of_its_type_is_not_judged_further() {
        assertThat(findings(table("t", "n integer")
                        .with("n", Columns.oneOf("1", "2"))
                        .rows("1", "x", "3")))
                .containsExactly("type mismatch at t.n: 2", "value not allowed at t.n: 3");
    }

    @Test
    void a_pattern_must_be_met_by_the_whole_value() {
        assertThat(findings(table("t", "c text")
                        .with("c", Columns.pattern("[A-Z]{2}\\d+"))
                        .rows("AB1", "xAB1", "AB1x", "AB", "NULL", "ÄB1")))
                .containsExactly("pattern not met at t.c: 2 3 4 6");
        Finding finding =
                first(table("t", "c text").with("c", Columns.pattern("[A-Z]+")).rows("a"));
        assertThat(((Reasons) finding.details()).declared()).isEqualTo("pattern [A-Z]+");
    }

    @Test
    void a_format_is_the_only_way_to_write() {
        TestTable dates = table("t", "d date").with("d", Columns.written("dd.MM.yyyy"));
        assertThat(findings(dates.rows("05.02.2023", "2023-02-05", "30.02.2023", "NULL", "")))
                .containsExactly("type mismatch at t.d: 2 3 5");
        assertThat(((Reasons) first(dates).details()).declared()).isEqualTo("date, written dd.MM.yyyy");
        TestTable numbers = table("t", "n numeric(6,2)").with("n", Columns::decimalComma);
        assertThat(findings(numbers.rows("1,50", "1.50", "-0,5"))).contains("type mismatch at t.n: 2");
    }

    @Test
    void malformed_rows_are_counted_and_judged_no_further() {
        CheckResult result = TestTables.of(
                        folder,
                        table("t", "n integer not null")
                                .rows("1", MemorySource.MALFORMED, "---", MemorySource.MALFORMED))
                .check();
        assertThat(result.findings()).hasSize(1);
        assertThat(result.findings().get(0).kind().words()).isEqualTo("malformed row");
        assertThat(result.findings().get(0).examples().get(0).problem()).isEqualTo("too few fields");
        assertThat(result.findings().get(0).examples().get(1).part()).isEqualTo("part1");
        assertThat(result.table("t").rows()).isEqualTo(3);
        assertThat(result.table("t").malformedRows()).isEqualTo(2);
        assertThat(result.table("t").faultyRows()).isEqualTo(2);
    }

    @Test
    void a_row_with_many_faults_is_one_faulty_row() {
        CheckResult result = TestTables.of(
                        folder,
                        table("t", "n integer", "c text not null")
                                .with("c", Columns.length("2"))
                                .rows("x|NULL", "y|abc", "1|ab"))
                .check();
        assertThat(result.findings()).hasSize(3);
        assertThat(result.faultyRows()).isEqualTo(2);
    }

    @Test
    void findings_come_worst_first_then_in_the_order_in_which_they_are_mended() {
        CheckResult result = TestTables.of(
                        folder,
                        table("t", "n integer", "w integer")
                                .with("w", Columns::warning)
                                .with("n", Columns.oneOf("1"))
                                .rows("2|x", "y|1", "01|1"))
                .check();
        assertThat(result.findings().stream()
                        .map(f -> f.severity() + " " + f.kind().words() + " " + f.at())
                        .toList())
                .containsExactly(
                        "ERROR type mismatch n",
                        "ERROR value not allowed n",
                        "WARNING type mismatch w",
                        "NOTE odd spelling n");
    }

    @ParameterizedTest
    @CsvSource({"1, 1", "2, 2", "5, 4"})
    void so_many_examples_as_are_asked_for(int asked, int shown) {
        CheckResult result = TestTables.of(folder, table("t", "n integer").rows("a", "b", "c", "d"))
                .check(new CheckOptions(java.util.Set.of(), asked, 0));
        assertThat(result.findings().get(0).examples()).hasSize(shown);
        assertThat(result.findings().get(0).rows()).isEqualTo(4);
    }
}
