package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** Values and names that look like SQL are nothing but values and names in a script, whatever mode the server is in. */
final class HostileScriptTest {
    private static final List<String> VALUES = List.of(
            "\\",
            "\\'; DROP TABLE victim; --",
            "'; DROP TABLE victim; --",
            "''; DROP TABLE victim; --",
            "\\\\'; DROP TABLE victim; --",
            "a;\nDROP TABLE victim;\n-- b",
            "*/ DROP TABLE victim; /*",
            "$$; DROP TABLE victim; $$",
            "\r\n; DROP TABLE victim;\r\n",
            "\\x27; DROP TABLE victim; --",
            "\\0\\n\\Z\\%\\_",
            "\"; DROP TABLE victim; --",
            "`; DROP TABLE victim; --",
            "# DROP TABLE victim",
            "{fn now()} ? :x @y %s ${z}",
            "\uFF07; DROP TABLE victim; --",
            "\u00BF'; DROP TABLE victim; --",
            "\u2028\uD83D\uDE80\t",
            "NULL",
            "");
    private static final String TABLE = "t;\"x";
    private static final String COLUMN = "no`t\"e--\\";

    @TempDir
    Path folder;

    private interface Quoting {
        String name(String name);

        default String afterTable() {
            return "";
        }
    }

    private static String twice(String mark, String name) {
        return mark + name.replace(mark, mark + mark) + mark;
    }

    private static void execute(Connection connection, String script) throws SQLException {
        try (Statement sql = connection.createStatement()) {
            sql.setEscapeProcessing(false);
            if (connection.getMetaData().getURL().startsWith("jdbc:sqlite")) {
                // Its driver runs the first statement alone otherwise.
                sql.executeUpdate(script);
                return;
            }
            boolean isMore = true;
            sql.execute(script);
            while (isMore) {
                // An error of a later statement comes with its turn.
                isMore = sql.getMoreResults() || sql.getUpdateCount() >= 0;
            }
        }
    }

    private static void fill(Connection connection, Quoting quoting, int numbered) throws SQLException {
        String table = quoting.name(TABLE);
        execute(connection, "DROP TABLE IF EXISTS " + table);
        execute(connection, "DROP TABLE IF EXISTS victim");
        execute(connection, "CREATE TABLE victim (id integer)");
        execute(
                connection,
                "CREATE TABLE " + table + " (id integer PRIMARY KEY, " + quoting.name(COLUMN) + " varchar(100))"
                        + quoting.afterTable());
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO " + table + " VALUES (?, ?)")) {
            for (int i = 0; i < VALUES.size(); i++) {
                insert.setInt(1, i + numbered);
                insert.setString(2, VALUES.get(i));
                insert.executeUpdate();
            }
        }
    }

    private static Map<Integer, String> rows(Connection connection, Quoting quoting) throws SQLException {
        Map<Integer, String> rows = new TreeMap<>();
        try (Statement sql = connection.createStatement();
                ResultSet found = sql.executeQuery("SELECT * FROM " + quoting.name(TABLE))) {
            while (found.next()) {
                rows.put(found.getInt(1), found.getString(2));
            }
        }
        // Fails where it is gone.
        execute(connection, "SELECT count(*) FROM victim");
        return rows;
    }

    private static String csv(String value) {
        return twice("\"", value);
    }

    private Program rehearse(String server) throws Exception {
        StringBuilder rows = new StringBuilder("id," + csv(COLUMN) + "\n");
        for (int i = 0; i < VALUES.size(); i++) {
            rows.append(i).append(',').append(csv(VALUES.get(i))).append('\n');
        }
        Files.writeString(folder.resolve("rows.csv"), rows);
        Files.writeString(
                folder.resolve("charter.yaml"),
                "charter: 1\ntables:\n  '" + TABLE + "':\n    rows: rows.csv\n    columns: {id: integer, '" + COLUMN
                        + "': varchar(100)}\n    primary_key: id\n");
        String name = twice("\"", TABLE);
        List<String> changes = new ArrayList<>();
        for (int i = 0; i < VALUES.size(); i++) {
            // Each value is written over another one, inserted and deleted.
            String next = twice("'", VALUES.get((i + 1) % VALUES.size()));
            changes.add("UPDATE " + name + " SET " + twice("\"", COLUMN) + " = " + next + " WHERE id = " + i);
            changes.add("INSERT INTO " + name + " VALUES (" + (100 + i) + ", " + twice("'", VALUES.get(i)) + ")");
        }
        changes.add("DELETE FROM " + name + " WHERE id < 7");
        return Program.run(
                "rehearse",
                folder.resolve("charter.yaml").toString(),
                "-e",
                String.join(";\n", changes),
                "--server",
                server,
                "--write-sql",
                folder.resolve("change.sql").toString(),
                "--force");
    }

    private void requireHarmless(String server, Connection connection, Quoting quoting) throws Exception {
        Program rehearsed = rehearse(server);
        assertThat(rehearsed.status()).as(rehearsed.out() + rehearsed.err()).isZero();
        fill(connection, quoting, 0);
        Map<Integer, String> before = rows(connection, quoting);
        Map<Integer, String> wanted = new TreeMap<>();
        for (int i = 0; i < VALUES.size(); i++) {
            if (i >= 7) {
                wanted.put(i, VALUES.get((i + 1) % VALUES.size()));
            }
            wanted.put(100 + i, VALUES.get(i));
        }
        execute(connection, Files.readString(folder.resolve("change.sql"), StandardCharsets.UTF_8));
        assertThat(rows(connection, quoting)).as(server).isEqualTo(wanted);
        execute(connection, Files.readString(folder.resolve("change.back.sql"), StandardCharsets.UTF_8));
        assertThat(rows(connection, quoting)).as(server).isEqualTo(before);
    }

    @Test
    void postgresql_in_both_modes_of_backslashes() throws Exception {
        try (PostgresServer server = new PostgresServer()) {
            for (String mode : List.of("on", "off")) {
                server.execute("SET standard_conforming_strings = " + mode, "SET backslash_quote = on");
                requireHarmless("postgresql", server.connection, name -> twice("\"", name));
            }
        }
    }

    @Test
    void sqlite() throws Exception {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:")) {
            requireHarmless("sqlite", connection, name -> twice("\"", name));
        }
    }

    @Test
    void mariadb_in_all_modes_of_backslashes_and_quotes() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get();
                Connection connection = DriverManager.getConnection(server.address() + "&allowMultiQueries=true")) {
            for (String mode : List.of("", "NO_BACKSLASH_ESCAPES", "ANSI_QUOTES", "ANSI,NO_BACKSLASH_ESCAPES")) {
                execute(connection, "SET sql_mode = '" + mode + "'");
                requireHarmless("mariadb", connection, new Quoting() {
                    @Override
                    public String name(String name) {
                        return twice("`", name);
                    }

                    @Override
                    public String afterTable() {
                        return " CHARACTER SET utf8mb4";
                    }
                });
            }
        }
    }
}
