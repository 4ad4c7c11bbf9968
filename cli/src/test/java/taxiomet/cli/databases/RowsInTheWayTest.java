package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charters.Charters;
import taxiomet.charters.yaml.CharterWriter;
import taxiomet.cli.Program;
import taxiomet.reports.sql.SchemaPlan;
import taxiomet.reports.sql.SchemaStep;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;

/** The queries that list the rows in the way of a rule list the rows that a check finds, cell by cell; without these rows the server takes the rule. */
class RowsInTheWayTest {
    private static final Set<String> OF_LINKS = Set.of("orphan", "half-null link");

    @TempDir
    private Path folder;

    @Test
    void of_the_demo_they_are_those_that_a_check_finds() throws Exception {
        Charter demo = Charters.read(Path.of("..", "demo", "charter.yaml"), Optional.empty())
                .charter();
        try (EmbeddedPostgres server = EmbeddedPostgres.start();
                Connection connection = server.getPostgresDatabase().getConnection()) {
            Database database =
                    Database.at("jdbc:postgresql://localhost:" + server.getPort() + "/postgres?user=postgres");
            Program.allow(database.shown());
            Charter there = demo.with(demo.tables().stream()
                    .map(table -> table.withRows(new DatabaseRows(
                            folder,
                            database,
                            table.name(),
                            false,
                            List.of(table.columns().get(0).name()))))
                    .toList());
            SchemaPlan withTables = new SchemaPlan(there, Server.POSTGRESQL, true, List.of());
            for (SchemaStep step : withTables.steps()) {
                if (step.path().size() == 2) {
                    // Nulls in keys, too, are to be found, not refused.
                    run(connection, step.statements().get(0).replace(" NOT NULL", ""));
                }
            }
            for (Table table : demo.tables()) {
                fill(connection, table);
            }
            SchemaPlan plan = new SchemaPlan(there, Server.POSTGRESQL, false, List.of());
            Map<String, List<Map<String, String>>> listed = new TreeMap<>();
            for (SchemaStep step : plan.steps()) {
                if (step.query().isPresent()) {
                    List<Map<String, String>> rows =
                            rows(connection, step.query().get());
                    if (!rows.isEmpty()) {
                        listed.computeIfAbsent(nameOf(step.path()), name -> new ArrayList<>())
                                .addAll(rows);
                    }
                }
            }
            Map<String, List<Map<String, String>>> found = found(there, plan);
            // Of a column that is compared without case the server would need a collation: it is said to be left out.
            assertThat(plan.left()).anyMatch(left -> left.what().contains("comparison of keeper.email"));
            found.remove("keeper keeper_email");
            assertThat(listed).hasSizeGreaterThan(12).containsOnlyKeys(found.keySet());
            found.forEach((name, rows) -> {
                Set<String> shown = rows.get(0).keySet();
                assertThat(shown).isNotEmpty();
                listed.get(name).forEach(row -> row.keySet().retainAll(shown));
                assertThat(listed.get(name)).as(name).containsExactlyInAnyOrderElementsOf(rows);
            });
            for (SchemaStep step : plan.steps()) {
                if (step.query().isEmpty()
                        || rows(connection, step.query().get()).isEmpty()) {
                    put(connection, step);
                }
            }
        }
    }

    /** A link can be put in place only once the key is that it points at; some of the demo have duplicates. */
    private static void put(Connection connection, SchemaStep step) throws SQLException {
        try {
            for (String statement : step.statements()) {
                run(connection, statement);
            }
        } catch (SQLException e) {
            assertThat(e.getSQLState()).as(step + ": " + e.getMessage()).isEqualTo("42830");
        }
    }

    private static String nameOf(List<String> path) {
        return path.get(1) + " " + (path.size() > 3 ? path.get(3) : path.get(2));
    }

    private static void run(Connection connection, String statement) throws SQLException {
        try (Statement sql = connection.createStatement()) {
            sql.execute(statement);
        }
    }

    /** The cells of all rows that a query lists, as texts. */
    private static List<Map<String, String>> rows(Connection connection, String query) throws SQLException {
        List<Map<String, String>> rows = new ArrayList<>();
        try (Statement sql = connection.createStatement();
                ResultSet result = sql.executeQuery(query)) {
            while (result.next()) {
                Map<String, String> cells = new TreeMap<>();
                for (int i = 1; i <= result.getMetaData().getColumnCount(); i++) {
                    cells.put(result.getMetaData().getColumnName(i), result.getString(i));
                }
                rows.add(cells);
            }
        }
        return rows;
    }

    /** Rows that are of their types, as the server reads them. */
    private static void fill(Connection connection, Table table) throws SQLException {
        int[] all = new int[table.columns().size()];
        Arrays.setAll(all, i -> i);
        String marks = table.columns().stream()
                .map(column -> "CAST(? AS " + column.type().sql() + ")")
                .collect(Collectors.joining(", "));
        try (TableSource source = RowSources.open(table);
                PreparedStatement insert = connection.prepareStatement(
                        "INSERT INTO \"" + table.name() + "\" OVERRIDING SYSTEM VALUE VALUES (" + marks + ")")) {
            source.read(all, batch -> {
                for (int row = 0; row < batch.size(); row++) {
                    try {
                        for (int i = 0; i < all.length; i++) {
                            Column column = table.columns().get(i);
                            String text = batch.column(i).text(row);
                            insert.setString(i + 1, text == null ? null : plain(column, text));
                        }
                        insert.execute();
                    } catch (SQLException e) {
                        // Not of its type: a server does not hold such a row.
                        assertThat(e.getSQLState()).startsWith("22");
                    }
                }
            });
        }
    }

    private static String plain(Column column, String text) {
        String plain = column.decimalComma() ? text.replace(',', '.') : text;
        return column.format().isPresent() ? plain.replaceFirst("(..)\\.(..)\\.(....)", "$3-$2-$1") : plain;
    }

    /** The rows that a check finds at each declaration that is put in place. */
    private Map<String, List<Map<String, String>>> found(Charter charter, SchemaPlan plan) throws Exception {
        Path file = folder.resolve("charter.yaml");
        java.nio.file.Files.writeString(file, CharterWriter.write(charter, folder.toAbsolutePath(), Map.of()));
        Program check = Program.run("check", file.toString(), "--json", "--reveal", "--examples", "1000");
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        Set<String> put = plan.steps().stream().map(step -> nameOf(step.path())).collect(Collectors.toSet());
        Map<String, List<Map<String, String>>> found = new TreeMap<>();
        StreamSupport.stream(check.json().get("findings").spliterator(), false).forEach(finding -> {
            String kind = finding.get("finding").asText();
            String name =
                    finding.get("table").asText() + " " + finding.get("at").asText();
            boolean isDeclared = OF_LINKS.contains(kind)
                    || Set.of(
                                    "duplicate",
                                    "null in key",
                                    "broken rule",
                                    "null not allowed",
                                    "value not allowed",
                                    "wrong length")
                            .contains(kind);
            if (isDeclared && put.contains(name)) {
                List<Map<String, String>> rows = found.computeIfAbsent(name, at -> new ArrayList<>());
                for (JsonNode example : finding.get("examples")) {
                    Map<String, String> cells = new TreeMap<>();
                    for (String part : List.of("key", "values")) {
                        example.get(part)
                                .properties()
                                .forEach(cell -> cells.put(
                                        cell.getKey(),
                                        cell.getValue().isNull()
                                                ? null
                                                : cell.getValue().asText()));
                    }
                    rows.add(cells);
                }
            }
        });
        assertThat(found.values()).anyMatch(rows -> rows.size() > 3);
        return found;
    }
}
