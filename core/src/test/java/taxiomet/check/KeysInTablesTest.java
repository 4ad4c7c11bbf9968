package taxiomet.check;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.atLeast;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.whole;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Condition;
import taxiomet.charter.Key;
import taxiomet.charter.Severity;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.Duplicates;
import taxiomet.finding.Finding.Gap;
import taxiomet.finding.Finding.Gaps;
import taxiomet.testing.Columns;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

/** Primary and unique keys: which rows share one, which have none, and which numbers are missing. */
class KeysInTablesTest {
    @TempDir
    private Path folder;

    private List<String> findings(TestTable... tables) {
        return TestTables.of(folder, tables).findings();
    }

    @Test
    void rows_with_one_key_are_duplicates_group_by_group() {
        assertThat(findings(table("hive", "id integer").key("id").rows("1", "2", "1", "3", "2", "1")))
                .containsExactly("duplicate at hive.primary_key: 1/1 3/1 6/1 2/2 5/2");
    }

    @Test
    void copies_are_told_from_rows_that_contradict_one_another() {
        TestTable hives = table("hive", "id integer", "name text", "fee numeric(6,2)")
                .key("id")
                .rows("1|Fern|1.00", "2|Gorse|NULL", "1|Fern|1.00", "01|Fern|2.00", "2|Heath|3.00", "3|x|0");
        Finding finding = TestTables.of(folder, hives).check().findings().get(0);
        List<String> said = new ArrayList<>();
        finding.evidence().forEach(row -> said.add(row.row() + " " + row.problem() + " " + row.differsIn()));
        assertThat(said)
                .containsExactly(
                        "1  []",
                        "3 a copy of the first []",
                        "4 not as the first: fee [fee]",
                        "2  []",
                        "5 not as the first: name, fee [name, fee]");
        assertThat(finding.examples()).extracting(row -> row.problem()).contains("a copy of the first");
    }

    @Test
    void a_null_in_a_primary_key_is_one_fault_also_where_the_column_says_not_null() {
        assertThat(findings(table("hive", "id integer not null", "name text not null")
                        .key("id")
                        .rows("NULL|a", "1|NULL")))
                .containsExactly("null in key at hive.primary_key: 1", "null not allowed at hive.name: 2");
    }

    @Test
    void of_each_group_one_row_would_do() {
        CheckResult result = TestTables.of(
                        folder, table("hive", "id integer").key("id").rows("1", "2", "1", "3", "2", "1"))
                .check();
        Finding finding = result.findings().get(0);
        assertThat(finding.details()).isEqualTo(new Duplicates(2, 3));
        assertThat(finding.rows()).isEqualTo(5);
        assertThat(result.table("hive").faultyRows()).isEqualTo(5);
        assertThat(result.isSound()).isFalse();
    }

    @Test
    void files_of_one_table_share_its_keys() {
        assertThat(findings(table("hive", "id integer").key("id").rows("1", "2", "---", "2", "3")))
                .containsExactly("duplicate at hive.primary_key: 2/1 part1:1/1");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    integer;            1, 01;             true
                    integer;            1, -1;             false
                    bigint;             9223372036854775807, 9223372036854775806; false
                    numeric(9,2);       1.5, 1.50;         true
                    numeric;            1e2, 100;          true
                    numeric;            0.1234567890123456789012345, 0.1234567890123456789012346; false
                    double precision;   0, -0;             true
                    double precision;   NaN, nan;          true
                    double precision;   0.1, 1e-1;         true
                    boolean;            true, yes;         true
                    boolean;            true, false;       false
                    date;               2024-02-29, 20240229; true
                    timestamp;          2024-02-29 10:00, 2024-02-29T10:00:00; true
                    timestamp with time zone; 2024-02-29 10:00Z, 2024-02-29 12:00+02; true
                    time;               10:00, 10:00:00;   true
                    uuid;               0f0e0d0c-0b0a-4908-8706-050403020100, 0F0E0D0C-0B0A-4908-8706-050403020100; true
                    text;               a, A;              false
                    text;               a, aa;             false
                    text;               é, e;              false
                    varchar(5);         a, b;              false
                    """)
    void values_are_compared_and_not_their_spellings(String type, String values, boolean isDuplicate) {
        String[] both = values.split(", ");
        List<String> found = findings(table("t", "k " + type).key("k").rows(both));
        assertThat(found.contains("duplicate at t.primary_key: 1/1 2/1")).isEqualTo(isDuplicate);
    }

    @Test
    void blanks_at_the_end_count_in_text_and_not_in_char() {
        assertThat(findings(table("t", "k text").key("k").rows("a", "a "))).isEmpty();
        assertThat(findings(table("t", "k varchar(9)").key("k").rows("a", "a ")))
                .isEmpty();
        assertThat(findings(table("t", "k char(9)").key("k").rows("a", "a ")))
                .containsExactly("duplicate at t.primary_key: 1/1 2/1");
    }

    @Test
    void case_is_left_out_where_the_column_says_so() {
        assertThat(findings(table("t", "k text")
                        .with("k", Columns::ignoringCase)
                        .key("k")
                        .rows("Rose", "ROSE", "rosé", "ROSÉ", "straße", "STRASSE")))
                .contains("duplicate at t.primary_key: 1/1 2/1 3/2 4/2");
    }

    @Test
    void a_null_in_a_primary_key_is_a_fault_of_its_own() {
        assertThat(findings(table("t", "a integer", "b integer")
                        .key("a", "b")
                        .rows("1|1", "1|NULL", "NULL|NULL", "1|NULL")))
                .contains("null in key at t.primary_key: 2 3 4")
                .noneMatch(f -> f.startsWith("duplicate"));
    }

    @Test
    void nulls_in_a_unique_key_differ_unless_they_are_declared_equal() {
        TestTable distinct = table("t", "a integer", "b integer").unique("ab", "a", "b");
        assertThat(findings(distinct.rows("1|NULL", "1|NULL", "NULL|NULL", "NULL|NULL", "1|1")))
                .isEmpty();
        Key equal = new Key("ab", List.of("a", "b"), false, true, Optional.empty(), Optional.empty(), Severity.ERROR);
        assertThat(findings(table("t", "a integer", "b integer")
                        .unique(equal)
                        .rows("1|NULL", "1|NULL", "NULL|NULL", "NULL|NULL", "1|1", "NULL|1")))
                .containsExactly("duplicate at t.ab: 1/1 2/1 3/2 4/2");
    }

    @Test
    void columns_of_a_key_do_not_run_into_one_another() {
        assertThat(findings(table("t", "a text", "b text").key("a", "b").rows("ab|c", "a|bc", "abc|", "|abc")))
                .noneMatch(f -> f.startsWith("duplicate"));
        assertThat(findings(table("t", "a integer", "b integer").key("a", "b").rows("1|23", "12|3", "1|2", "2|1")))
                .isEmpty();
    }

    @Test
    void a_key_of_some_rows_looks_at_no_others() {
        Key some = Key.of("code", List.of("code"), false)
                .where(Optional.of(new Condition("year >= 2020", atLeast(whole(1), number("2020")))));
        assertThat(findings(table("t", "code integer", "year integer")
                        .unique(some)
                        .rows("1|2019", "1|2019", "1|2020", "1|2021", "2|2020", "1|NULL")))
                .containsExactly("duplicate at t.code: 3/1 4/1");
    }

    @Test
    void ill_typed_and_malformed_rows_have_no_key() {
        assertThat(findings(table("t", "k integer").key("k").rows("x", "x", MemorySource.MALFORMED, "1")))
                .containsExactly("malformed row at t.t: 3", "type mismatch at t.k: 1 2");
    }

    @ParameterizedTest
    @ValueSource(strings = {"dense", "sparse", "text", "pair", "backwards"})
    void with_little_memory_the_same_duplicates_are_found(String kind) {
        List<String> rows = new ArrayList<>();
        IntStream.range(0, 20_000).forEach(i -> rows.add(key(kind, i)));
        rows.add(key(kind, 17));
        rows.add(key(kind, 19_999));
        rows.add(key(kind, 17));
        TestTable table = kind.equals("pair")
                ? table("t", "k integer", "l integer").key("k", "l")
                : table("t", kind.equals("text") ? "k text" : "k bigint").key("k");
        table.inBatchesOf(512).rows(rows.toArray(String[]::new));
        String expected = "duplicate at t.primary_key: 18/1 20001/1 20003/1 20000/2 20002/2";
        assertThat(findings(table)).containsExactly(expected);
        assertThat(TestTables.of(folder, table).withMemory(1 << 16).findings()).containsExactly(expected);
        assertThat(TestTables.of(folder, table).withMemory(0).withThreads(1).findings())
                .containsExactly(expected);
    }

    private static String key(String kind, int i) {
        return switch (kind) {
            case "dense" -> String.valueOf(i);
            case "backwards" -> String.valueOf(20_000 - i);
            case "sparse" -> String.valueOf(i * 4_611_686_018_427_387L);
            case "text" -> "hive-" + i;
            default -> i / 100 + "|" + i % 100;
        };
    }

    @Test
    void numbers_that_no_row_has_are_noted_where_the_column_asks_for_it() {
        CheckResult result = TestTables.of(
                        folder,
                        table("t", "n integer")
                                .with("n", Columns::notingGaps)
                                .rows("7", "1", "2", "NULL", "4", "x", "12"))
                .check();
        Finding gaps = result.findings().get(result.findings().size() - 1);
        assertThat(gaps.kind().words()).isEqualTo("gap in key");
        assertThat(gaps.severity()).isEqualTo(Severity.NOTE);
        assertThat(gaps.rows()).isZero();
        assertThat(gaps.details()).isEqualTo(new Gaps(3, 7, List.of(new Gap(3, 3), new Gap(5, 6), new Gap(8, 11))));
    }

    @Test
    void without_a_gap_there_is_nothing_to_note() {
        assertThat(findings(
                        table("t", "n integer").with("n", Columns::notingGaps).rows("-1", "0", "1", "1", "2")))
                .isEmpty();
        assertThat(findings(table("t", "n integer").with("n", Columns::notingGaps)))
                .isEmpty();
    }

    @Test
    void a_gap_may_reach_over_all_numbers() {
        CheckResult result = TestTables.of(
                        folder,
                        table("t", "n bigint").with("n", Columns::notingGaps).rows("0", "9223372036854775807"))
                .check();
        assertThat(result.findings().get(0).details())
                .isEqualTo(new Gaps(1, Long.MAX_VALUE - 1, List.of(new Gap(1, Long.MAX_VALUE - 1))));
    }

    @Test
    void the_weight_of_a_key_is_that_of_its_findings() {
        Key light = new Key("k", List.of("a"), false, false, Optional.empty(), Optional.empty(), Severity.WARNING);
        CheckResult result = TestTables.of(
                        folder, table("t", "a integer").unique(light).rows("1", "1"))
                .check();
        assertThat(result.count(Severity.WARNING)).isEqualTo(1);
        assertThat(result.count(Severity.ERROR)).isZero();
        assertThat(result.isSound()).isFalse();
    }

    @Test
    void two_keys_of_one_column_each_have_their_findings() {
        assertThat(findings(table("t", "a integer").key("a").unique("u", "a").rows("1", "1")))
                .containsExactly("duplicate at t.primary_key: 1/1 2/1", "duplicate at t.u: 1/1 2/1");
    }

    @Test
    void an_empty_table_is_sound() {
        CheckResult result =
                TestTables.of(folder, table("t", "a integer").key("a")).check();
        assertThat(result.isSound()).isTrue();
        assertThat(result.rows()).isZero();
    }
}
