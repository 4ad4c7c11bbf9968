package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The rules of a charter as SQL. */
class DdlTest {
    @TempDir
    private Path folder;

    private Path charter() throws IOException {
        Path charter = folder.resolve("charter.yaml");
        Files.writeString(charter, """
                charter: 1
                tables:
                  crew:
                    rows: crew.csv
                    columns: {no: integer, boat: integer, name: {type: varchar(9), not_null: yes, pattern: "[A-Z].*"}}
                    primary_key: no
                    foreign_keys:
                      crew_boat: {columns: boat, references: boat, on_delete: set null, children: 0..4}
                      crew_meant: {columns: no, references: boat, enforced: no}
                    rules:
                      even: {condition: no > 1, severity: warning}
                      older: no >= crew_boat.no
                  boat:
                    rows: boat.csv
                    columns: {no: integer, "sail; DROP TABLE crew": {type: char(3), values: ["a'b", "c"]}}
                    primary_key: no
                    rules: {positive: no > 0}
                """);
        return charter;
    }

    private Program ddl(String... more) throws IOException {
        String[] all = new String[more.length + 2];
        all[0] = "ddl";
        all[1] = charter().toString();
        System.arraycopy(more, 0, all, 2, more.length);
        return Program.run(all);
    }

    @Test
    void rules_come_in_an_order_that_works_and_what_is_left_out_is_said() throws IOException {
        String sql = ddl("--server", "postgresql").out();
        assertThat(sql)
                .containsSubsequence(
                        "ALTER TABLE \"crew\" ALTER COLUMN \"name\" SET NOT NULL;",
                        "ALTER TABLE \"boat\" ADD CONSTRAINT \"boat_pkey\" PRIMARY KEY (\"no\");",
                        "CHECK (\"no\" > 0) NOT VALID;",
                        "CREATE INDEX CONCURRENTLY \"crew_crew_boat_idx\" ON \"crew\" (\"boat\");",
                        "FOREIGN KEY (\"boat\") REFERENCES \"boat\" (\"no\") ON DELETE SET NULL NOT VALID;",
                        "ALTER TABLE \"crew\" VALIDATE CONSTRAINT \"crew_boat\";")
                .contains("\"sail; DROP TABLE crew\" IN ('a''b', 'c')")
                .contains("-- not put in place: the link crew_meant of crew (the charter says that it is not enforced)")
                .contains("-- not put in place: the rule even of crew (the charter takes what breaks it for a warning)")
                .contains("-- not put in place: the rule older of crew (it asks for other rows")
                .contains("-- not put in place: the pattern of crew.name")
                .contains("-- not put in place: how many rows of crew each of boat may have");
    }

    @Test
    void the_way_back_takes_the_last_rule_away_first() throws IOException {
        assertThat(ddl("--server", "mariadb", "--back").out())
                .containsSubsequence(
                        "ALTER TABLE `crew` DROP FOREIGN KEY `crew_boat`;",
                        "ALTER TABLE `boat` DROP CONSTRAINT `positive`;",
                        "ALTER TABLE `boat` DROP PRIMARY KEY;",
                        "MODIFY COLUMN `name`");
    }

    @Test
    void sqlite_gets_its_rules_with_its_tables_and_holds_them() throws Exception {
        Path script = folder.resolve("boats.sql");
        Program program = ddl("--server", "sqlite", "--tables", "--report", script.toString());
        assertThat(program.status()).as(program.err()).isZero();
        assertThat(program.err()).contains("nothing was run");
        assertThat(script)
                .content()
                .contains(
                        "-- not put in place: how many rows of crew each of boat may have", "the pattern of crew.name");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("boats.db"));
                Statement sql = connection.createStatement()) {
            sql.executeUpdate("PRAGMA foreign_keys = ON");
            sql.executeUpdate(Files.readString(script));
            sql.executeUpdate("INSERT INTO boat VALUES (1, 'c')");
            sql.executeUpdate("INSERT INTO crew VALUES (2, 1, 'Ada')");
            for (String refused : new String[] {
                "INSERT INTO boat VALUES (1, 'c')",
                "INSERT INTO boat VALUES (0, 'c')",
                "INSERT INTO boat VALUES (3, 'x')",
                "INSERT INTO crew VALUES (3, 7, 'Bo')",
                "INSERT INTO crew VALUES (3, 1, NULL)"
            }) {
                assertThat(refuses(sql, refused)).as(refused).isTrue();
            }
        }
    }

    private static boolean refuses(Statement sql, String statement) {
        try {
            sql.executeUpdate(statement);
            return false;
        } catch (SQLException e) {
            return true;
        }
    }

    @Test
    void a_server_has_to_be_known_and_one_script_is_written_at_a_time() throws IOException {
        assertThat(ddl().status()).isEqualTo(2);
        assertThat(ddl().err()).contains("--server says for which");
        assertThat(ddl("--server", "postgres").err()).contains("did you mean postgresql?");
        assertThat(ddl("--server", "sqlite", "--queries", "--back").err()).contains("two scripts");
        assertThat(ddl("--server", "sqlite", "--against", "boats.db").err()).contains("begins with jdbc:");
        assertThat(ddl("--server", "sqlite", "--user", "ada").err()).contains("goes with the address of a database");
    }
}
