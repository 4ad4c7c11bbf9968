package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.cli.Program;
import taxiomet.cli.trust.AllowedDatabases;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;
import taxiomet.sources.jdbc.DatabaseSessions;

/** Rows on a real PostgreSQL: typed, in views and queries, beside files, and what is said when they cannot be read. */
class DatabaseTest {
    private static EmbeddedPostgres server;

    @TempDir
    private Path folder;

    @BeforeAll
    static void start() throws IOException {
        server = EmbeddedPostgres.start();
        Program.allow("jdbc:postgresql://localhost:" + server.getPort() + "/postgres");
        Program.allow("jdbc:postgresql://localhost:1/port");
    }

    @AfterAll
    static void stop() throws IOException {
        server.close();
    }

    private static void sql(String... statements) throws SQLException {
        try (Connection connection = server.getPostgresDatabase().getConnection();
                Statement sql = connection.createStatement()) {
            for (String statement : statements) {
                sql.execute(statement);
            }
        }
    }

    @BeforeEach
    void fill() throws SQLException {
        sql(
                "DROP SCHEMA IF EXISTS port CASCADE",
                "CREATE SCHEMA port",
                "CREATE TABLE port.\"Ship\" (imo bigint, name text, built date, weight numeric(12,3), on_sea boolean,"
                        + " seen timestamptz, code uuid)",
                "INSERT INTO port.\"Ship\" VALUES (1, E'tab\\tand\\\\slash\\nline', '1999-02-28', 12.500, true,"
                        + " '2024-05-01 10:00:00+02', 'a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11'),"
                        + " (2, '', NULL, -0.001, false, NULL, NULL), (2, '\\N', '2024-01-01', NULL, NULL, NULL, NULL)",
                "CREATE TABLE port.call (no integer, ship bigint)",
                "INSERT INTO port.call SELECT i, 1 + i % 3 FROM generate_series(1, 3000) i",
                "CREATE VIEW port.late AS SELECT no, ship FROM port.call WHERE no > 2990");
    }

    private Path charter(String call, String more) throws IOException {
        Path charter = folder.resolve("charter.yaml");
        Files.writeString(
                charter, """
                charter: 1
                database: {url: "%s", user: "${PORT_USER}"%s}
                tables:
                  ship:
                    rows: {table: port.Ship}
                    columns:
                      imo: bigint
                      name: text
                      built: date
                      weight: numeric(12,3)
                      on_sea: boolean
                      seen: timestamp with time zone
                      code: uuid
                    primary_key: imo
                  call:
                    rows: %s
                    columns: {no: integer, ship: bigint}
                    primary_key: no
                    foreign_keys: {call_ship: {columns: ship, references: ship}}
                """.formatted("jdbc:postgresql://localhost:" + server.getPort() + "/postgres", more, call));
        return charter;
    }

    private static Program as(String user, String... arguments) {
        return Program.run(Map.of("PORT_USER", user), arguments);
    }

    private Program check(Path charter) {
        return as("postgres", "check", charter.toString(), "--json");
    }

    private static String summary(Program check) throws IOException {
        StringBuilder summary = new StringBuilder();
        check.json()
                .get("findings")
                .forEach(each -> summary.append(each.get("finding").asText())
                        .append(' ')
                        .append(each.get("table").asText())
                        .append(' ')
                        .append(each.get("rows").asLong())
                        .append("; "));
        return summary.toString();
    }

    @Test
    void typed_values_and_odd_texts_come_as_they_are() throws Exception {
        Path charter = charter("{table: port.call}", "");
        Program check = check(charter);
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        assertThat(summary(check)).isEqualTo("duplicate ship 2; orphan call 1000; ");

        String ship = as("postgres", "trace", charter.toString(), "ship", "1").out();
        assertThat(ship)
                .contains("tab\\tand\\slash\\nline", "1999-02-28", "12.500", "2024-05-01 08:00:00+00")
                .contains("a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11");
    }

    @Test
    void views_and_queries_and_files_stand_in_one_charter() throws Exception {
        assertThat(summary(check(charter("{table: port.late}", "")))).isEqualTo("duplicate ship 2; orphan call 3; ");
        assertThat(summary(check(charter("{query: \"SELECT no, ship FROM port.call WHERE no <= 3;\"}", ""))))
                .isEqualTo("duplicate ship 2; orphan call 1; ");
        Files.writeString(folder.resolve("call.csv"), "no,ship\n1,1\n2,77\n");
        assertThat(summary(check(charter("call.csv", "")))).isEqualTo("duplicate ship 2; orphan call 1; ");
    }

    @Test
    void a_charter_of_a_database_is_written_again_as_it_was() throws Exception {
        Path charter = charter("{table: port.call}", ", password: \"${PORT_PASSWORD}\"");
        Path copy = folder.resolve("copy.yaml");
        Program vet = as("postgres", "vet", charter.toString(), "--write-charter", copy.toString());
        assertThat(vet.err()).contains("copy.yaml");
        assertThat(copy).content().contains("user: \"${PORT_USER}\"", "password: \"${PORT_PASSWORD}\"", "port.Ship");
    }

    @Test
    void a_change_is_rehearsed_and_its_script_carries_it_out_there() throws Exception {
        Path charter = charter("{table: port.call}", "");
        Path script = folder.resolve("change.sql");
        Program rehearsal = as(
                "postgres",
                "rehearse",
                charter.toString(),
                "-e",
                "DELETE FROM call WHERE no = 6",
                "--write-sql",
                "postgresql:" + script);
        assertThat(rehearsal.status()).as(rehearsal.err()).isZero();
        assertThat(rehearsal.out()).contains("1 row");
        assertThat(numbers("SELECT count(*) FROM port.call")).isEqualTo(3000);
        sql(Files.readString(script));
        assertThat(numbers("SELECT count(*) FROM port.call")).isEqualTo(2999);
        assertThat(numbers("SELECT count(*) FROM port.call WHERE no = 6")).isZero();
    }

    private static long numbers(String query) throws SQLException {
        try (Connection connection = server.getPostgresDatabase().getConnection();
                ResultSet result = connection.createStatement().executeQuery(query)) {
            result.next();
            return result.getLong(1);
        }
    }

    private interface Meanwhile {
        void happens() throws SQLException;
    }

    /** How many rows of a large table are read while something happens behind the first of them. */
    private long readWhile(Meanwhile meanwhile) throws Exception {
        sql(
                "CREATE TABLE port.large AS SELECT i AS no, repeat('x', 100) AS filler FROM generate_series(1, 300000) i",
                "DELETE FROM port.large WHERE no % 7 = 0");
        Path file = folder.resolve("large.yaml");
        Files.writeString(file, """
                charter: 1
                database: "jdbc:postgresql://localhost:%d/postgres?user=postgres"
                tables:
                  large: {rows: {table: port.large}, columns: {no: integer, filler: text}, primary_key: no}
                """.formatted(server.getPort()));
        Table table = Charters.read(file, Optional.empty()).charter().table("large");
        long[] rows = new long[1];
        try (DatabaseSessions sessions = new DatabaseSessions(new AllowedDatabases(Program.terminal()));
                TableSource source = RowSources.open(table, 1 << 16, sessions)) {
            source.read(new int[] {0, 1}, batch -> {
                if (rows[0] == 0) {
                    try {
                        meanwhile.happens();
                    } catch (SQLException e) {
                        throw new IllegalStateException(e);
                    }
                }
                rows[0] += batch.size();
            });
        }
        return rows[0];
    }

    @Test
    void all_is_read_as_it_was_at_one_moment() throws Exception {
        assertThat(readWhile(
                        () -> sql("DELETE FROM port.large WHERE no > 5", "INSERT INTO port.large VALUES (0, 'new')")))
                .isEqualTo(300_000 - 300_000 / 7);
    }

    @Test
    void a_connection_that_is_cut_is_said() {
        assertThatThrownBy(() -> readWhile(() -> sql("SELECT pg_terminate_backend(pid) FROM pg_stat_activity"
                        + " WHERE application_name = 'taxiomet'")))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("port.large")
                .hasMessageMatching("(?s).*(connection was lost|ended the connection).*check again");
    }

    @Test
    void what_a_catalogue_declares_is_believed_only_where_it_holds() throws Exception {
        sql(
                "CREATE TABLE port.loose (a integer, b integer NOT NULL)",
                "INSERT INTO port.loose VALUES (NULL, 1), (2, 2)",
                "ALTER TABLE port.loose ADD CONSTRAINT since NOT NULL a NOT VALID",
                "CREATE TABLE port.above (a integer CONSTRAINT own NOT NULL NO INHERIT)",
                "CREATE TABLE port.below () INHERITS (port.above)",
                "INSERT INTO port.below VALUES (NULL)",
                "CREATE TABLE port.strict (a integer NOT NULL)",
                "INSERT INTO port.strict VALUES (1)",
                "CREATE VIEW port.outside AS SELECT s.a FROM port.loose l LEFT JOIN port.strict s ON s.a = l.b + 5");
        Path charter = Files.writeString(folder.resolve("loose.yaml"), """
                charter: 1
                database: {url: "jdbc:postgresql://localhost:%s/postgres", user: "${PORT_USER}"}
                tables:
                  loose: {rows: {table: port.loose}, columns: {a: {type: integer, not_null: yes}}}
                  above: {rows: {table: port.above}, columns: {a: {type: integer, not_null: yes}}}
                  strict: {rows: {table: port.strict}, columns: {a: {type: integer, not_null: yes}}}
                  outside: {rows: {table: port.outside}, columns: {a: {type: integer, not_null: yes}}}
                  asked: {rows: {query: "SELECT * FROM port.outside"}, columns: {a: {type: integer, not_null: yes}}}
                """.formatted(server.getPort()));
        assertThat(summary(check(charter)))
                .isEqualTo(
                        "null not allowed loose 1; null not allowed above 1; null not allowed outside 2; null not allowed"
                                + " asked 2; ");
    }

    @Test
    void a_wrong_password_is_said_and_not_told() throws Exception {
        sql("DROP ROLE IF EXISTS locked", "CREATE ROLE locked LOGIN SUPERUSER PASSWORD 'the-right-one'");
        Path access = Path.of(text("SHOW hba_file"));
        String before = Files.readString(access);
        try {
            Files.writeString(access, "host all locked all scram-sha-256\n" + before);
            sql("SELECT pg_reload_conf()");
            String password = ", password: \"${PORT_PASSWORD}\"";
            String charter = charter("{table: port.call}", password).toString();
            Program wrong = Program.run(
                    Map.of("PORT_USER", "locked", "PORT_PASSWORD", "not-the-right-one"), "check", charter, "--verbose");
            assertThat(wrong.status()).isEqualTo(3);
            assertThat(wrong.err()).contains("the server does not let the user in");
            assertThat(wrong.err() + wrong.out()).doesNotContain("not-the-right-one");
            Program right = Program.run(
                    Map.of("PORT_USER", "locked", "PORT_PASSWORD", "the-right-one"), "check", charter, "--json");
            assertThat(right.status()).as(right.err()).isEqualTo(1);
            assertThat(right.out()).doesNotContain("the-right-one");
        } finally {
            Files.writeString(access, before);
            sql("SELECT pg_reload_conf()");
        }
    }

    private static String text(String query) throws SQLException {
        try (Connection connection = server.getPostgresDatabase().getConnection();
                ResultSet result = connection.createStatement().executeQuery(query)) {
            result.next();
            return result.getString(1);
        }
    }

    @Test
    void what_cannot_be_read_is_said_with_the_way_out_and_no_secret() throws Exception {
        Path charter = charter("{table: port.call}", "");
        Program unset = Program.run("check", charter.toString());
        assertThat(unset.status()).isEqualTo(3);
        assertThat(unset.err()).contains("variable PORT_USER", "is not set");
        assertThat(as("nobody_here", "check", charter.toString()).err()).contains("does not let the user in");

        sql("DROP ROLE IF EXISTS reader", "CREATE ROLE reader LOGIN", "GRANT USAGE ON SCHEMA port TO reader");
        Program right = as("reader", "check", charter.toString());
        assertThat(right.status()).isEqualTo(3);
        assertThat(right.err()).contains("may not read it", "SELECT granted");

        Program table = check(charter("{table: port.cal}", ""));
        assertThat(table.status()).isEqualTo(3);
        assertThat(table.err()).contains("no table or view `port.cal`", "did you mean `port.call`?");
        sql("ALTER TABLE port.call RENAME ship TO vessel");
        assertThat(check(charter("{table: port.call}", "")).err()).contains("has no column `ship`", "`vessel`");

        String secret = "swordfish-" + System.nanoTime();
        Path elsewhere = folder.resolve("elsewhere.yaml");
        Files.writeString(
                elsewhere,
                Files.readString(charter)
                        .replaceFirst(
                                "url: \"[^\"]*\"",
                                "url: \"jdbc:postgresql://mia:" + secret + "@localhost:1/port?password=" + secret
                                        + "\", password: \"" + secret + "\""));
        Program away = check(elsewhere);
        assertThat(away.status()).isEqualTo(3);
        assertThat(away.err()).contains("jdbc:postgresql://localhost:1/port", "cannot be reached");
        assertThat(away.err() + away.out()).doesNotContain(secret);
    }

    @Test
    void a_connection_that_is_not_given_is_said_in_the_server_s_words() throws Exception {
        sql(
                "CREATE ROLE narrow LOGIN CONNECTION LIMIT 1",
                "GRANT USAGE ON SCHEMA port TO narrow",
                "GRANT SELECT ON ALL TABLES IN SCHEMA port TO narrow");
        Program check = as("narrow", "check", charter("{table: port.call}", "").toString(), "--inside");
        assertThat(check.status()).isEqualTo(3);
        assertThat(check.err()).contains("too many connections").doesNotContain("Exception");
    }
}
