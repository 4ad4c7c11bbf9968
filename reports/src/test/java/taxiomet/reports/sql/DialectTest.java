package taxiomet.reports.sql;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/** How each server is told a name and a value. */
class DialectTest {
    private static Column column(String type) {
        return Column.of("x", ColumnType.parse(type).orElseThrow());
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '^',
            value = {
                "POSTGRESQL, hive, \"hive\"",
                "POSTGRESQL, a\"b, \"a\"\"b\"",
                "POSTGRESQL, Order By, \"Order By\"",
                "SQLITE, a\"b, \"a\"\"b\"",
                "MARIADB, hive, `hive`",
                "MARIADB, a`b, `a``b`",
                "MARIADB, a\"b, `a\"b`",
                "POSTGRESQL, a`b, \"a`b\""
            })
    void names_are_quoted_and_their_quotes_doubled(Dialect dialect, String name, String quoted) {
        assertThat(dialect.name(name)).isEqualTo(quoted);
    }

    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '^',
            delimiter = '|',
            value = {
                "POSTGRESQL | text      | a          | 'a'",
                "POSTGRESQL | text      | it's       | 'it''s'",
                "POSTGRESQL | text      | a\\'b      | E'a\\\\''b'",
                "MARIADB    | text      | a\\'b      | 'a\\\\''b'",
                "SQLITE     | text      | a\\'b      | 'a\\''b'",
                "POSTGRESQL | integer   | 7          | 7",
                "POSTGRESQL | numeric   | -1.50      | -1.50",
                "POSTGRESQL | double precision | 1.5E10 | 1.5E10",
                "POSTGRESQL | double precision | NaN | 'NaN'",
                "POSTGRESQL | double precision | -Infinity | '-Infinity'",
                "POSTGRESQL | boolean   | true       | 'true'",
                "MARIADB    | boolean   | true       | 1",
                "SQLITE     | boolean   | false      | 0",
                "MARIADB    | date      | 2024-02-29 | '2024-02-29'",
                "SQLITE     | uuid      | 0f0e0d0c-0b0a-4908-8706-050403020100 | '0f0e0d0c-0b0a-4908-8706-050403020100'",
                "POSTGRESQL | text      | '; DROP TABLE hive; -- | '''; DROP TABLE hive; --'"
            })
    void values_are_literals_of_their_server(Dialect dialect, String type, String text, String literal) {
        assertThat(dialect.literal(column(type), text)).isEqualTo(literal);
    }

    @Test
    void null_is_null_everywhere() {
        for (Dialect dialect : Dialect.values()) {
            assertThat(dialect.literal(column("text"), null)).isEqualTo("NULL");
            assertThat(dialect.literal(column("integer"), null)).isEqualTo("NULL");
            assertThat(dialect.literal(column("text"), "NULL")).isEqualTo("'NULL'");
            assertThat(dialect.literal(column("text"), "")).isEqualTo("''");
        }
    }

    @Test
    void a_script_begins_with_the_modes_that_its_texts_are_written_for() {
        assertThat(Dialect.POSTGRESQL.begin()).containsExactly("SET standard_conforming_strings = on", "BEGIN");
        assertThat(Dialect.SQLITE.begin()).containsExactly("PRAGMA foreign_keys = ON", "BEGIN");
        assertThat(Dialect.MARIADB.begin().get(0))
                .contains("NO_BACKSLASH_ESCAPES")
                .contains("NO_AUTO_VALUE_ON_ZERO");
        assertThat(Dialect.MARIADB.begin()).endsWith("START TRANSACTION");
    }

    @Test
    void rules_that_are_put_to_rest_are_woken_again() {
        assertThat(Dialect.SQLITE.beginWithoutRules()).contains("PRAGMA foreign_keys = OFF");
        assertThat(Dialect.SQLITE.afterWithoutRules()).contains("PRAGMA foreign_keys = ON");
        assertThat(Dialect.MARIADB.beginWithoutRules()).contains("SET foreign_key_checks = 0");
        assertThat(Dialect.MARIADB.afterWithoutRules()).contains("SET foreign_key_checks = 1");
        // LOCAL: over with the transaction.
        assertThat(Dialect.POSTGRESQL.beginWithoutRules()).contains("SET LOCAL session_replication_role = replica");
        for (Dialect dialect : Dialect.values()) {
            assertThat(dialect.remarksWithoutRules()).isNotEmpty();
        }
    }

    @Test
    void only_one_server_needs_to_be_told_to_take_given_numbers() {
        assertThat(Dialect.SQLITE.insertOrRollBack()).isEqualTo("INSERT OR ROLLBACK INTO");
        assertThat(Dialect.POSTGRESQL.insertOrRollBack()).isEqualTo("INSERT INTO");
        assertThat(Dialect.SQLITE.whileGuarded("a = 1")).contains("a = 1").contains(Dialect.GUARD);
        assertThat(Dialect.MARIADB.whileGuarded("a = 1")).isEqualTo("a = 1");
        assertThat(Dialect.SQLITE.valueWhileGuarded("7")).contains("7").contains(Dialect.GUARD);
        assertThat(Dialect.MARIADB.dropTemporary()).isEqualTo("DROP TEMPORARY TABLE");
    }
}
