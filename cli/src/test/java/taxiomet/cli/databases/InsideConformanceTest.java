package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.MariadbServer;

/** What a server looks for itself is what is found when all of its rows are read, on random tables with random charters. */
final class InsideConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.inside", 60);

    /** Types as a charter may declare them, those of the servers that hold them, and values that these take. */
    private record Kind(List<String> declared, List<String> postgresql, List<String> mariadb, List<String> values) {}

    /** So many kinds can be compared by both servers as they are here. */
    private static final int PLAIN = 7;

    private static final List<Kind> KINDS = List.of(
            new Kind(
                    List.of("integer", "bigint", "smallint", "numeric(12)"),
                    List.of("integer", "bigint", "smallint"),
                    List.of("int", "bigint", "smallint"),
                    List.of("1", "2", "3", "4", "7", "-1", "0", "32000")),
            new Kind(
                    List.of("integer", "smallint"),
                    List.of("bigint"),
                    List.of("bigint"),
                    List.of("1", "2", "3", "32768", "-32769", "3000000000")),
            new Kind(
                    List.of("text", "varchar(3)", "varchar(6)"),
                    List.of("text", "varchar(6)"),
                    List.of("varchar(6)", "varchar(20) character set utf8mb3"),
                    List.of("a", "A", "a ", "b", "é", "É", "ab", "abcd", "", "ss", "ß")),
            new Kind(
                    List.of("char(3)"),
                    List.of("char(3)"),
                    List.of("char(3)"),
                    List.of("a", "A", "a  ", "bc", "é", "abc")),
            new Kind(
                    List.of("numeric(6,2)", "numeric(9,3)"),
                    List.of("numeric(6,2)"),
                    List.of("decimal(6,2)"),
                    List.of("1.50", "1.5", "2", "-0.01", "1000", "1000.00", "NaN")),
            new Kind(
                    List.of("date"),
                    List.of("date"),
                    List.of("date"),
                    List.of("2024-02-29", "2023-01-01", "1999-12-31", "infinity", "0044-03-15 BC")),
            new Kind(
                    List.of("timestamp"),
                    List.of("timestamp", "timestamp(3)"),
                    List.of("datetime(6)"),
                    List.of("2024-02-29 10:00:00", "2023-03-26 02:30:00", "2023-01-01 00:00:00.5", "-infinity")),
            new Kind(
                    List.of("timestamp with time zone"),
                    List.of("timestamptz"),
                    List.of("datetime"),
                    List.of("2024-02-29 10:00:00+00", "2024-02-29 12:00:00+02", "infinity")),
            new Kind(
                    List.of("uuid"),
                    List.of("uuid"),
                    List.of("char(36)"),
                    List.of("a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11", "A0EEBC99-9C0B-4EF8-BB6D-6BB9BD380A12")),
            new Kind(List.of("boolean"), List.of("boolean"), List.of("boolean"), List.of("1", "0")));

    @TempDir
    private Path folder;

    private final Map<String, Integer> seen = new TreeMap<>();

    /** One table as it is on the server and as the charter declares it. */
    private static final class Made {
        final String name;
        final List<Kind> kinds = new ArrayList<>();
        final List<String> types = new ArrayList<>();
        final List<String> columns = new ArrayList<>();
        final List<String> charter = new ArrayList<>();
        int rows;

        Made(String name) {
            this.name = name;
        }
    }

    @Test
    void postgresql_finds_by_itself_what_is_found_by_reading() throws Exception {
        try (EmbeddedPostgres server = EmbeddedPostgres.start();
                Connection connection = server.getPostgresDatabase().getConnection()) {
            String url = "jdbc:postgresql://localhost:" + server.getPort() + "/postgres?user=postgres";
            Program.allow(url);
            compare(connection, url, Kind::postgresql, "CREATE TABLE %s (%s)");
        }
        requireTelling();
    }

    @Test
    void mariadb_finds_by_itself_what_is_found_by_reading() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get();
                Connection connection = java.sql.DriverManager.getConnection(server.address())) {
            compare(
                    connection,
                    server.address(),
                    Kind::mariadb,
                    "CREATE TABLE %s (row_no int AUTO_INCREMENT PRIMARY KEY, %s) CHARACTER SET utf8mb4");
        }
        requireTelling();
    }

    @Test
    void columns_that_postgresql_numbers_are_numbers_like_others() throws Exception {
        try (EmbeddedPostgres server = EmbeddedPostgres.start();
                Connection connection = server.getPostgresDatabase().getConnection();
                Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE lot (id serial, of bigserial)");
            statement.execute("INSERT INTO lot VALUES (1, 1), (1, 7), (2, 2)");
            Program.allow("jdbc:postgresql://localhost:" + server.getPort() + "/postgres");
            Path charter = Files.writeString(folder.resolve("serial.yaml"), """
                    charter: 1
                    database: {url: "jdbc:postgresql://localhost:%d/postgres?user=postgres"}
                    tables:
                      lot:
                        rows: {table: lot}
                        columns: {id: integer, of: bigint}
                        primary_key: id
                        foreign_keys: {lot_of: {columns: of, references: lot}}
                    """.formatted(server.getPort()));
            JsonNode inside = check(charter, "--inside");
            assertThat(inside.toString()).contains("looked at inside");
            assertThat(comparable(inside)).isEqualTo(comparable(check(charter)));
        }
    }

    @Test
    void a_charter_of_files_has_nothing_to_look_inside_of() throws Exception {
        Files.writeString(folder.resolve("lot.csv"), "id\n1\n");
        Path charter = Files.writeString(
                folder.resolve("files.yaml"),
                "charter: 1\ntables: {lot: {rows: lot.csv, columns: {id: integer}, primary_key: id}}\n");
        Program program = Program.run("check", charter.toString(), "--inside");
        assertThat(program.status()).isEqualTo(2);
        assertThat(program.err()).contains("--inside goes with tables on a database server");
        assertThat(Program.run("check", charter.toString(), "--inside", "--load-order")
                        .err())
                .contains("leave one of them out");
    }

    private void requireTelling() {
        System.out.println("looked at inside: " + seen);
        for (String trait : List.of("looked at inside", "read as a whole", "orphan", "duplicate", "null in key")) {
            assertThat(seen.getOrDefault(trait, 0)).as(trait).isGreaterThan(CASES / 5);
        }
    }

    private interface TypesOf {
        List<String> of(Kind kind);
    }

    private void compare(Connection connection, String url, TypesOf types, String create) throws Exception {
        for (int seed = 0; seed < CASES; seed++) {
            Random random = new Random(20_261_130L + seed);
            List<Made> tables = draw(random, types);
            try (Statement statement = connection.createStatement()) {
                for (Made table : tables) {
                    fill(connection, statement, table, random, create);
                }
                Path charter = Files.writeString(folder.resolve("c" + seed + ".yaml"), charter(tables, url, random));
                JsonNode read = check(charter);
                JsonNode inside = check(charter, "--inside", "--threads", "3");
                note(inside);
                assertThat(comparable(inside)).as("seed %d: %s", seed, charter).isEqualTo(comparable(read));
                for (Made table : tables) {
                    statement.execute("DROP TABLE " + table.name);
                }
            }
        }
    }

    private static JsonNode check(Path charter, String... more) {
        List<String> words = new ArrayList<>(List.of("check", charter.toString(), "--json", "--examples", "100"));
        Collections.addAll(words, more);
        Program program = Program.run(words.toArray(new String[0]));
        assertThat(program.status()).as(program.err()).isLessThan(2);
        return program.json();
    }

    private void note(JsonNode result) {
        result.get("tables")
                .forEach(table -> table.get("remarks")
                        .forEach(remark -> seen.merge(remark.get("kind").asText(), 1, Integer::sum)));
        result.get("findings")
                .forEach(finding -> seen.merge(finding.get("finding").asText(), 1, Integer::sum));
    }

    /** Without what says how rows were come by, and in which order they were. */
    private static JsonNode comparable(JsonNode node) {
        if (node instanceof ObjectNode object) {
            object.remove(List.of("made", "remarks", "row"));
            object.elements().forEachRemaining(InsideConformanceTest::comparable);
        } else if (node instanceof ArrayNode array) {
            array.elements().forEachRemaining(InsideConformanceTest::comparable);
        }
        return node;
    }

    private static <T> T one(Random random, List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private static List<Made> draw(Random random, TypesOf types) {
        List<Made> tables = new ArrayList<>();
        int count = 2 + random.nextInt(2);
        // Of a table that is read its parents are too: many cases have nothing that has to be read.
        boolean isPlain = random.nextInt(4) > 0;
        for (int i = 0; i < count; i++) {
            Made table = new Made("t" + i);
            int width = 3 + random.nextInt(3);
            for (int column = 0; column < width; column++) {
                Kind kind = KINDS.get(random.nextInt(isPlain ? PLAIN : KINDS.size()));
                String more = random.nextInt(5) == 0 ? ", not_null: true" : "";
                if (kind.values.contains("é") && random.nextInt(4) == 0) {
                    more += random.nextBoolean() ? ", values: [a, b, \"é\"]" : ", length: 1..2";
                } else if (kind.values.contains("é") && !isPlain && random.nextInt(4) == 0) {
                    more += ", pattern: \"[a-z]*\"";
                }
                table.kinds.add(kind);
                table.types.add(one(random, types.of(kind)));
                table.columns.add("k" + column);
                table.charter.add("      k" + column + ": {type: \"" + one(random, kind.declared) + "\"" + more + "}");
            }
            table.rows = random.nextInt(40);
            tables.add(table);
        }
        return tables;
    }

    private static void fill(Connection connection, Statement statement, Made table, Random random, String create)
            throws SQLException {
        List<String> columns = new ArrayList<>();
        for (int i = 0; i < table.columns.size(); i++) {
            columns.add(table.columns.get(i) + " " + table.types.get(i));
        }
        statement.execute(create.formatted(table.name, String.join(", ", columns)));
        String marks = String.join(", ", Collections.nCopies(columns.size(), "?"));
        String insert =
                "INSERT INTO " + table.name + " (" + String.join(", ", table.columns) + ") VALUES (" + marks + ")";
        List<String> casts = new ArrayList<>();
        boolean isPostgres = connection.getMetaData().getDatabaseProductName().equals("PostgreSQL");
        for (String type : table.types) {
            casts.add(isPostgres ? "CAST(? AS " + type + ")" : "?");
        }
        insert = insert.replace(marks, String.join(", ", casts));
        try (PreparedStatement prepared = connection.prepareStatement(insert)) {
            for (int row = 0; row < table.rows; row++) {
                for (int i = 0; i < table.kinds.size(); i++) {
                    String value = random.nextInt(9) == 0 ? null : one(random, table.kinds.get(i).values);
                    boolean isTaken = value == null || !value.matches("(?i)nan|.*infinity|.*BC") || isPostgres;
                    prepared.setString(i + 1, isTaken ? value : null);
                }
                try {
                    prepared.executeUpdate();
                } catch (SQLException e) {
                    // A value that the server's type does not take.
                    assertThat(e.getSQLState()).startsWith("22");
                }
            }
        }
        if (random.nextInt(4) == 0 && table.rows > 0) {
            statement.execute("DELETE FROM " + table.name + " WHERE k0 IS NULL");
        }
    }

    private static String charter(List<Made> tables, String url, Random random) {
        Map<String, List<String>> unique = new TreeMap<>();
        Map<String, String> links = new TreeMap<>();
        tables.forEach(table -> links.put(table.name, links(table, tables, random, unique)));
        StringBuilder yaml = new StringBuilder("charter: 1\ndatabase: {url: \"" + url + "\"}\ntables:\n");
        for (Made table : tables) {
            String primary = random.nextInt(3) == 0 ? "[k0, k1]" : "[k0]";
            yaml.append("  %s:\n    rows: {table: %s}\n    columns:\n".formatted(table.name, table.name));
            table.charter.forEach(column -> yaml.append(column).append('\n'));
            yaml.append("    primary_key: ").append(primary).append('\n');
            List<String> keys = new ArrayList<>(unique.getOrDefault(table.name, List.of()));
            keys.remove(primary);
            yaml.append(keys.isEmpty() ? "" : "    unique:\n");
            for (String key : keys) {
                String nulls = random.nextInt(20) == 0 ? "equal" : "distinct";
                yaml.append("      u%d: {columns: %s%s}\n"
                        .formatted(keys.indexOf(key), key, nulls.equals("equal") ? ", nulls: equal" : ""));
            }
            yaml.append(links.get(table.name));
        }
        return yaml.toString();
    }

    private static String links(Made table, List<Made> tables, Random random, Map<String, List<String>> unique) {
        StringBuilder links = new StringBuilder();
        for (int number = 0; number < 3; number++) {
            Made parent = one(random, tables);
            List<Integer> own = new ArrayList<>();
            List<Integer> theirs = new ArrayList<>();
            int width = 1 + random.nextInt(2);
            for (int i = 0; i < table.kinds.size() && own.size() < width; i++) {
                int place = table.kinds.size() - 1 - i;
                for (int other = 0; other < parent.kinds.size(); other++) {
                    boolean isFree = !theirs.contains(other) && (parent != table || other != place);
                    if (isFree && parent.kinds.get(other).equals(table.kinds.get(place))) {
                        own.add(place);
                        theirs.add(other);
                        break;
                    }
                }
            }
            if (!own.isEmpty()) {
                List<String> keys = unique.computeIfAbsent(parent.name, name -> new ArrayList<>());
                keys.remove(names(theirs));
                keys.add(names(theirs));
                links.append("      l%d: {columns: %s, references: {%s: %s}"
                        .formatted(number, names(own), parent.name, names(theirs)));
                links.append(random.nextInt(4) == 0 ? ", match: full" : "");
                links.append(random.nextInt(30) == 0 ? ", children: 0..2" : "").append("}\n");
            }
        }
        return links.isEmpty() ? "" : "    foreign_keys:\n" + links;
    }

    private static String names(List<Integer> places) {
        return places.stream().map(place -> "k" + place).toList().toString();
    }
}
