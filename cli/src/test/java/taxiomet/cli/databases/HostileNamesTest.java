package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
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
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.MariadbServer;

/**
 * Tables, columns and values whose names and texts are made to end a quotation: whatever is asked of a server about them means them, and a table
 * beside them stays as it is.
 */
final class HostileNamesTest {
    private static final int CASES = Integer.getInteger("taxiomet.hostile", 25);

    private static final List<String> PIECES = List.of(
            "'",
            "\"",
            "`",
            "\\",
            ";",
            "--",
            "/*",
            "*/",
            "?",
            "{",
            "}",
            "{fn ",
            "[",
            "]",
            "$$",
            "$1",
            "%",
            ":x",
            "@a",
            "#",
            " ",
            ".",
            ",",
            "(",
            ")",
            "::int",
            "\u00FC",
            "DROP TABLE canary",
            "' OR 1=1 --",
            "\"; DROP TABLE canary; --",
            "` ",
            "\\'",
            "\\\"",
            "a",
            "Z",
            "9");

    private static final ObjectMapper JSON = new ObjectMapper();

    @TempDir
    private Path folder;

    private char quote;

    @Test
    void postgresql_is_asked_about_what_is_meant() throws Exception {
        quote = '"';
        try (EmbeddedPostgres server = EmbeddedPostgres.start();
                Connection connection = server.getPostgresDatabase().getConnection()) {
            run(
                    connection,
                    "jdbc:postgresql://localhost:" + server.getPort() + "/postgres?user=postgres",
                    "postgresql",
                    "text",
                    "");
        }
    }

    @Test
    void mariadb_is_asked_about_what_is_meant() throws Exception {
        quote = '`';
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get();
                Connection connection = DriverManager.getConnection(server.address())) {
            run(connection, server.address(), "mariadb", "varchar(60)", "row_no int AUTO_INCREMENT PRIMARY KEY, ");
        }
    }

    private static String hostile(Random random) {
        StringBuilder name = new StringBuilder();
        for (int i = 1 + random.nextInt(4); i > 0; i--) {
            name.append(PIECES.get(random.nextInt(PIECES.size())));
        }
        // Servers take no name that ends with a blank.
        return name.append(random.nextInt(10)).toString().strip();
    }

    private String quoted(String name, char with) {
        return with + name.replace(String.valueOf(with), String.valueOf(with) + with) + with;
    }

    private String quoted(String name) {
        return quoted(name, quote);
    }

    private void run(Connection connection, String url, String server, String text, String more) throws Exception {
        Program.allow(url);
        try (Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE canary (still_there int)");
            statement.execute("INSERT INTO canary VALUES (1)");
            for (int seed = 0; seed < CASES; seed++) {
                Random random = new Random(7_000L + seed);
                List<String> names = new ArrayList<>();
                while (names.size() < 6) {
                    String name = hostile(random);
                    if (names.stream().noneMatch(name::equalsIgnoreCase)) {
                        names.add(name);
                    }
                }
                Case drawn = new Case(
                        names.get(0),
                        names.get(1),
                        names.get(2),
                        names.get(3),
                        names.get(4),
                        names.get(5),
                        hostile(random));
                create(connection, statement, drawn, text, more);
                requireMeant(drawn, seed, url, server);
                statement.execute("DROP TABLE " + quoted(drawn.child));
                statement.execute("DROP TABLE " + quoted(drawn.parent));
                try (ResultSet canary = statement.executeQuery("SELECT count(*) FROM canary")) {
                    canary.next();
                    assertThat(canary.getInt(1)).as("seed %d", seed).isEqualTo(1);
                }
            }
        }
    }

    private record Case(String parent, String key, String child, String id, String link, String label, String value) {}

    private void create(Connection connection, Statement statement, Case drawn, String text, String more)
            throws SQLException {
        statement.execute("CREATE TABLE " + quoted(drawn.parent) + " (" + more + quoted(drawn.key) + " " + text + ")");
        statement.execute("CREATE TABLE " + quoted(drawn.child) + " (" + more + quoted(drawn.id) + " int, "
                + quoted(drawn.link) + " " + text + ", " + quoted(drawn.label) + " " + text + ")");
        for (String key : List.of(drawn.value, "plain")) {
            insert(connection, "INSERT INTO " + quoted(drawn.parent) + " (" + quoted(drawn.key) + ") VALUES (?)", key);
        }
        String columns =
                " (" + quoted(drawn.id) + ", " + quoted(drawn.link) + ", " + quoted(drawn.label) + ") VALUES (";
        int id = 0;
        for (String link : List.of(drawn.value, "plain", drawn.value + "x")) {
            insert(connection, "INSERT INTO " + quoted(drawn.child) + columns + ++id + ", ?, ?)", link, drawn.value);
        }
        insert(connection, "INSERT INTO " + quoted(drawn.child) + columns + "3, ?, ?)", "plain", drawn.value);
    }

    private static void insert(Connection connection, String sql, String... values) throws SQLException {
        // Names hold question marks: the statement is taken apart around those of its own.
        try (PreparedStatement statement = connection.prepareStatement(sql)) {
            for (int i = 0; i < values.length; i++) {
                statement.setString(i + 1, values[i]);
            }
            statement.executeUpdate();
        }
    }

    private void requireMeant(Case drawn, int seed, String url, String server) throws Exception {
        Path charter = Files.writeString(folder.resolve("c" + seed + ".json"), charter(drawn, url));
        JsonNode read = json("check", charter.toString(), "--json");
        JsonNode inside = json("check", charter.toString(), "--json", "--inside");
        assertThat(told(read))
                .as("seed %d: %s", seed, charter)
                .containsExactly("duplicate 2", "orphan 1", "value not allowed 4");
        assertThat(told(inside)).as("seed %d: %s", seed, charter).isEqualTo(told(read));
        assertThat(inside.toString()).contains("looked at inside");
        JsonNode proved = json(
                "rehearse",
                charter.toString(),
                "--server",
                server,
                "-e",
                "DELETE FROM p WHERE " + quoted(drawn.key, '"') + " = '" + drawn.value.replace("'", "''")
                        + "';\nUPDATE c SET "
                        + quoted(drawn.label, '"') + " = '" + (drawn.value + "z").replace("'", "''") + "' WHERE "
                        + quoted(drawn.id, '"') + " = 1",
                "--prove",
                "--json");
        assertThat(proved.at("/proof/agrees").asBoolean())
                .as("seed %d: %s", seed, proved.toPrettyString())
                .isTrue();
    }

    private static JsonNode json(String... words) {
        Program program = Program.run(words);
        assertThat(program.status()).as(program.err()).isLessThan(2);
        return program.json();
    }

    private static List<String> told(JsonNode result) {
        List<String> told = new ArrayList<>();
        result.get("findings")
                .forEach(finding -> told.add(finding.get("finding").asText() + " "
                        + finding.get("rows").asInt()));
        told.sort(null);
        return told;
    }

    private String charter(Case drawn, String url) throws Exception {
        return """
                {"charter": 1, "database": {"url": %s, "prove": true}, "tables": {
                  "p": {"rows": {"table": %s}, "columns": {%s: "varchar(60)"}, "primary_key": [%s]},
                  "c": {"rows": {"table": %s},
                    "columns": {%s: "integer", %s: "varchar(60)", %s: {"type": "varchar(60)", "values": ["other", %s]}},
                    "primary_key": [%s],
                    "foreign_keys": {%s: {"columns": [%s], "references": {"p": [%s]}, "enforced": false}}}}}
                """.formatted(
                        text(url),
                        text(quoted(drawn.parent, '"')),
                        text(drawn.key),
                        text(drawn.key),
                        text(quoted(drawn.child, '"')),
                        text(drawn.id),
                        text(drawn.link),
                        text(drawn.label),
                        text(drawn.value + "z"),
                        text(drawn.id),
                        text("link"),
                        text(drawn.link),
                        text(drawn.key));
    }

    private static String text(String text) throws Exception {
        return JSON.writeValueAsString(text);
    }
}
