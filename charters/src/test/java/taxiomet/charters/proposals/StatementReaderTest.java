package taxiomet.charters.proposals;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charters.sql.Tables;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.proposal.ProposalException;

/** Which statements become which changes, and which are refused. */
class StatementReaderTest {
    private static final Table SAMPLE = Tables.table("sample", "id integer", "year integer", "we\"ird text");
    private static final Table HIVE = inSchema(Tables.table("hive", "id integer", "place text"), "coop");

    private static Table inSchema(Table table, String schema) {
        return new Table(
                table.name(),
                Optional.of(schema),
                table.rows(),
                table.columns(),
                table.primaryKey(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    private static List<Change> read(String sql) {
        Charter charter = new Charter("c", List.of(SAMPLE, HIVE), Server.STANDARD);
        return new ProposalReader(charter, Instant.parse("2026-05-01T10:00:00Z")).sql(sql, "-e");
    }

    private static String problem(String sql) {
        ProposalException e = catchThrowableOfType(ProposalException.class, () -> read(sql));
        assertThat(e).as(sql).isNotNull();
        return e.getMessage();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "DELETE FROM sample WHERE id = 1",
                "delete from SAMPLE s where s.year = 1990 and sample.id > 0",
                "DELETE FROM sample AS \"s\" WHERE \"s\".id IN (SELECT id FROM hive WHERE place = 'x')",
                "DELETE FROM coop.hive",
                "DELETE FROM COOP.hive AS h WHERE h.id = 1;;",
                "UPDATE sample SET year = year + 1, \"we\"\"ird\" = 'a'",
                "UPDATE sample AS s SET (year, id) = (1, DEFAULT) WHERE id = 3 IS NULL",
                "UPDATE sample SET sample.year = NULL",
                "INSERT INTO sample VALUES (1, 2, 'x'), (-2, DEFAULT, NULL)",
                "INSERT INTO sample (id, year) VALUES (1, 2 + 3)",
                "INSERT INTO sample DEFAULT VALUES",
                "UPDATE sample SET \"we\"\"ird\" = '\\''a'"
            })
    void a_statement_is_read(String sql) {
        assertThat(read(sql)).hasSize(1);
    }

    /** Each of these says more than would be done. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "DELETE TOP (5) FROM sample",
                "DELETE FROM sample LIMIT 1",
                "DELETE FROM sample ORDER BY id LIMIT 1",
                "DELETE FROM ONLY sample",
                "DELETE FROM sample TABLESAMPLE SYSTEM (10)",
                "DELETE FROM sample SAMPLE 10",
                "DELETE FROM sample USING hive WHERE sample.id = hive.id",
                "DELETE FROM sample PARTITION (p0) WHERE id = 1",
                "DELETE FROM sample FOR PORTION OF p FROM 1 TO 2",
                "DELETE FROM sample@remote WHERE id = 1",
                "DELETE FROM archive.sample",
                "DELETE FROM archive.hive",
                "DELETE FROM public.sample",
                "DELETE IGNORE FROM sample",
                "DELETE sample FROM sample",
                "DELETE FROM sample WHERE id = 1 RETURNING *",
                "DELETE FROM sample OUTPUT deleted.id",
                "DELETE FROM sample WHERE CURRENT OF c",
                "DELETE FROM sample WHERE id = 1 QUALIFY id = 1",
                "DELETE FROM sample CONNECT BY PRIOR id = year",
                "DELETE FROM sample WHERE id IN (SELECT DISTINCT ON (id) id FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT DISTINCT id FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT TOP 1 id FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT id INTO x FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT FIRST 1 id FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive LIMIT 1 BY id)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive GROUP BY id)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive FOR SYSTEM_TIME AS OF 1)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive LATERAL VIEW x)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive h PIVOT (x))",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive, sample)",
                "DELETE FROM sample WHERE id IN (SELECT id, id FROM hive)",
                "DELETE FROM sample WHERE id IN (SELECT id FROM hive WHERE id IN (SELECT id FROM hive))",
                "UPDATE IGNORE sample SET year = 1",
                "UPDATE sample, hive SET year = 1",
                "UPDATE sample SET year = 1 FROM hive",
                "UPDATE sample SET year += 1",
                "UPDATE sample SET year = 1, year = 2",
                "UPDATE sample SET (id, year) = (1)",
                "UPDATE sample SET (id, year) = (SELECT 1, 2)",
                "UPDATE sample SET year = 1 LIMIT 1",
                "UPDATE sample SET year[1] = 2",
                "UPDATE sample SET \"we\"\"ird\" = 'a' || 'b'",
                "INSERT IGNORE INTO sample VALUES (1, 2, 'x')",
                "INSERT OVERWRITE sample VALUES (1, 2, 'x')",
                "INSERT INTO sample VALUES (1, 2, 'x') ON DUPLICATE KEY UPDATE year = 1",
                "INSERT INTO sample VALUES (1, 2, 'x') ON CONFLICT DO NOTHING",
                "INSERT INTO sample (id) OVERRIDING SYSTEM VALUE VALUES (1)",
                "INSERT INTO sample SELECT * FROM hive",
                "INSERT INTO sample (id, id) VALUES (1, 2)",
                "INSERT INTO sample (id) VALUES (year)",
                "INSERT INTO sample (id) VALUES (1, 2)",
                "INSERT INTO sample SET id = 1",
                "WITH x AS (SELECT 1) DELETE FROM sample",
                "REPLACE INTO sample VALUES (1, 2, 'x')",
                "MERGE INTO sample USING hive ON 1 = 1 WHEN MATCHED THEN DELETE",
                "TRUNCATE sample",
                "DELETE FROM sample /*! WHERE id = 1 */",
                "DELETE FROM",
                "DELETE",
                "DELETE FROM ;",
                "UPDATE",
                "UPDATE sample",
                "UPDATE sample SET",
                "INSERT",
                "INSERT INTO sample VALUES",
                "DELETE FROM sample WHERE",
                "DELETE FROM order",
                "DELETE FROM 'sample'"
            })
    void what_would_be_dropped_is_refused(String sql) {
        assertThat(problem(sql)).startsWith("-e:1");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
                    DELETE FROM sample LIMIT 1          | this part is not read: `LIMIT 1`
                    DELETE FROM                         | it ends too early: a table is missing
                    DELETE                              | this statement cannot be read: the statement ends where from should follow
                    DELETE FROM archive.hive            | table `hive` was declared in schema `coop`, not in `archive`
                    DELETE FROM public.sample           | table `sample` was declared without a schema, not in `public`
                    DELETE FROM order                   | `order` is a word of SQL: a table of that name stands in double quotes
                    DELETE FROM simple                  | there is no table `simple`; did you mean `sample`?
                    UPDATE sample SET yeer = 1          | there is no column `yeer`; did you mean `year`?
                    DROP TABLE sample                   | `DROP` is no change that can be rehearsed
                    """)
    void a_refusal_says_what_it_is_about(String sql, String expected) {
        assertThat(problem(sql)).contains(expected);
    }

    @Test
    void a_change_keeps_its_whole_text_and_its_line() {
        List<Change> changes =
                read("-- first\n\nDELETE FROM sample\n  WHERE id IN (" + "1, ".repeat(100) + "2);\nDELETE FROM hive");
        assertThat(changes.get(0).origin().words())
                .startsWith("DELETE FROM sample WHERE")
                .endsWith("1, 2)")
                .hasSizeGreaterThan(300);
        assertThat(changes).extracting(change -> change.origin().place()).containsExactly("-e:3", "-e:5");
    }

    @Test
    void a_semicolon_in_a_text_or_a_name_ends_no_statement() {
        assertThat(read("UPDATE sample SET \"we\"\"ird\" = 'a;b'; DELETE FROM sample"))
                .hasSize(2);
    }

    @Test
    void values_are_constants_or_defaults() {
        Change.Insert insert = (Change.Insert)
                read("INSERT INTO sample (id, year) VALUES (2 + 3, DEFAULT)").get(0);
        assertThat(insert.columns()).containsExactly("id", "year");
        assertThat(insert.rows().get(0).values().get(0)).isInstanceOf(Input.Computed.class);
        assertThat(insert.rows().get(0).values().get(1)).isInstanceOf(Input.Default.class);
    }

    @Test
    void an_open_quote_names_its_line() {
        assertThat(problem("DELETE FROM sample;\nUPDATE sample SET year = 'x")).startsWith("-e:2");
    }
}
