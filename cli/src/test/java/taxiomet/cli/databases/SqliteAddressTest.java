package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** An SQLite database by its address: any column there may hold any value, and any column of a key but one of numbers a null. */
class SqliteAddressTest {
    private static final int NULLS = 12_000;

    @TempDir
    private Path folder;

    private String address;

    @BeforeEach
    void fill() throws SQLException {
        address = "jdbc:sqlite:" + folder.resolve("mixed.db");
        try (Connection connection = DriverManager.getConnection(address);
                Statement sql = connection.createStatement()) {
            sql.execute("CREATE TABLE mixed (id integer primary key, number integer, share numeric(9,2), day date)");
            sql.execute("INSERT INTO mixed VALUES (1, 5, 2.5, '2024-02-29'), (2, 'five', 'half', 20240229),"
                    + " (3, 2.5, x'00ff', NULL)");
            sql.execute("CREATE TABLE word (word varchar(9) primary key, id integer references mixed)");
            sql.execute("WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < " + NULLS
                    + ") INSERT INTO word SELECT NULL, 1 FROM n");
            sql.execute("INSERT INTO word VALUES ('last', 9)");
        }
    }

    private static long rows(Program check, String kind, String table, String at) throws Exception {
        long rows = 0;
        for (var finding : check.json().get("findings")) {
            boolean isIt = finding.get("finding").asText().equals(kind)
                    && finding.get("table").asText().equals(table)
                    && finding.get("at").asText().equals(at);
            rows += isIt ? finding.get("rows").asLong() : 0;
        }
        return rows;
    }

    @Test
    void values_come_as_they_are_whatever_their_column_declares() throws Exception {
        Program check = Program.run("check", address, "--json");
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        assertThat(rows(check, "type mismatch", "mixed", "number")).isEqualTo(2);
        assertThat(rows(check, "type mismatch", "mixed", "share")).isEqualTo(2);
        assertThat(rows(check, "type mismatch", "mixed", "day")).isZero();
    }

    @Test
    void a_row_is_traced_and_children_are_listed_by_the_address() {
        assertThat(Program.run("trace", address, "mixed", "2").out()).contains("number", "five");
        assertThat(Program.run("roster", address, "mixed", "--quiet").out()).contains("3 headings");
    }

    @Test
    void rows_without_a_key_are_read_to_the_last() throws Exception {
        Program check = Program.run("check", address, "--json");
        assertThat(rows(check, "null in key", "word", "primary_key")).isEqualTo(NULLS);
        assertThat(check.json().get("findings").findValuesAsText("finding")).contains("orphan");
    }
}
