package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.Database;
import taxiomet.charters.Charters;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.MariadbServer;
import taxiomet.cli.trust.AllowedDatabases;
import taxiomet.reports.sql.SchemaPlan;
import taxiomet.reports.sql.SchemaStep;
import taxiomet.sources.jdbc.CatalogueScript;

/** What a charter declares, put into a real server and read from its catalogue again, is the same charter; the way back leaves nothing. */
class RoundTripTest {
    private static final int DESIGNS = 40;
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 17_100L);

    @TempDir
    private Path folder;

    private int links;
    private int rules;

    @Test
    void postgresql() throws Exception {
        try (EmbeddedPostgres server = EmbeddedPostgres.start()) {
            String url = "jdbc:postgresql://localhost:" + server.getPort() + "/postgres?user=postgres";
            for (long seed = FIRST_SEED; seed < FIRST_SEED + DESIGNS; seed++) {
                try (Connection connection = DriverManager.getConnection(url)) {
                    run(connection, List.of("DROP SCHEMA public CASCADE", "CREATE SCHEMA public"));
                    compare(connection, url, Server.POSTGRESQL, seed);
                }
            }
        }
        report("postgresql");
    }

    @Test
    void sqlite() throws Exception {
        for (long seed = FIRST_SEED; seed < FIRST_SEED + DESIGNS; seed++) {
            String url = "jdbc:sqlite:" + folder.resolve("d" + seed + ".db");
            try (Connection connection = DriverManager.getConnection(url)) {
                compare(connection, url, Server.SQLITE, seed);
            }
        }
        report("sqlite");
    }

    @Test
    void mariadb() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get()) {
            for (long seed = FIRST_SEED; seed < FIRST_SEED + DESIGNS; seed++) {
                try (Connection connection = DriverManager.getConnection(server.address())) {
                    run(connection, List.of("DROP DATABASE IF EXISTS trip", "CREATE DATABASE trip", "USE trip"));
                    compare(connection, server.address().replace("/test", "/trip"), Server.MARIADB, seed);
                }
            }
        }
        report("mariadb");
    }

    private void report(String server) {
        System.out.println(server + ": seeds " + FIRST_SEED + " to " + (FIRST_SEED + DESIGNS - 1) + ", " + links
                + " links, " + rules + " rules");
        assertThat(links).isGreaterThan(DESIGNS / 2);
        assertThat(rules).isGreaterThan(DESIGNS / 2);
    }

    private static void run(Connection connection, List<String> statements) throws SQLException {
        try (Statement sql = connection.createStatement()) {
            for (String statement : statements) {
                try {
                    sql.execute(statement);
                } catch (SQLException e) {
                    throw new SQLException(statement, e);
                }
            }
        }
    }

    private void compare(Connection connection, String url, Server server, long seed) throws Exception {
        Path file = folder.resolve(server + "-" + seed + ".yaml");
        Files.writeString(file, new Design(new Random(seed), server).yaml());
        Charter declared = Charters.read(file, Optional.empty()).charter();
        String what = server + ", seed " + seed + "\n" + Files.readString(file);
        SchemaPlan whole = new SchemaPlan(declared, server, true, List.of());
        assertThat(whole.left()).as(what).isEmpty();
        run(
                connection,
                whole.steps().stream()
                        .flatMap(step -> step.statements().stream())
                        .toList());
        assertThat(told(there(url))).as(what).isEqualTo(told(declared));
        links += declared.links().size();
        rules += declared.tables().stream()
                .mapToInt(table -> table.rules().size())
                .sum();

        List<String> back = new ArrayList<>();
        whole.steps().forEach(step -> back.addAll(0, step.back()));
        run(connection, back);
        if (server != Server.SQLITE) {
            putOnBareTablesAndTakeAway(connection, url, server, declared, what);
        }
    }

    /** On tables that are there already: the rules alone, and back. */
    private void putOnBareTablesAndTakeAway(
            Connection connection, String url, Server server, Charter declared, String what) throws Exception {
        List<Table> bare = declared.tables().stream()
                .map(table -> new Table(
                        table.name(),
                        table.schema(),
                        table.rows(),
                        table.columns().stream().map(RoundTripTest::mayBeNull).toList(),
                        Optional.empty(),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(),
                        List.of(),
                        Optional.empty(),
                        Optional.empty()))
                .toList();
        run(
                connection,
                new SchemaPlan(declared.with(bare), server, true, List.of())
                        .steps().stream()
                                .flatMap(step -> step.statements().stream())
                                .toList());
        String before = script(url);
        SchemaPlan rulesAlone = new SchemaPlan(declared, server, false, List.of());
        run(
                connection,
                rulesAlone.steps().stream()
                        .flatMap(step -> step.statements().stream())
                        .toList());
        assertThat(told(there(url))).as(what).isEqualTo(told(declared));
        List<SchemaStep> steps = new ArrayList<>(rulesAlone.steps());
        Collections.reverse(steps);
        run(connection, steps.stream().flatMap(step -> step.back().stream()).toList());
        assertThat(withoutKeysLeft(script(url)))
                .as("after the way back: " + what)
                .isEqualTo(withoutKeysLeft(before));
    }

    private static Column mayBeNull(Column column) {
        return new Column(
                column.name(),
                column.type(),
                false,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                column.comparison(),
                Optional.empty(),
                false,
                column.defaultValue(),
                column.generated(),
                column.isWordInteger(),
                false,
                false,
                column.severity());
    }

    /** A primary key that is gone leaves its columns without nulls, and indexes of links stay until somebody drops them. */
    private static String withoutKeysLeft(String script) {
        return script.replace(" NOT NULL", "")
                .replace(" DEFAULT NULL", "")
                .replaceAll(",?\\s*KEY `[^`]*` \\([^)]*\\)", "");
    }

    private static String script(String url) throws Exception {
        return CatalogueScript.of(Database.at(url), Path.of(""), new AllowedDatabases(Program.terminal()), List.of())
                .sql();
    }

    private static Charter there(String url) throws Exception {
        CatalogueScript read =
                CatalogueScript.of(Database.at(url), Path.of(""), new AllowedDatabases(Program.terminal()), List.of());
        return Charters.ofCatalogue("there", read.sql(), read.server(), Table::rows)
                .charter();
    }

    /** All that is declared, line by line. */
    private static String told(Charter charter) {
        assertThat(charter.notRead()).isEmpty();
        TreeMap<String, String> lines = new TreeMap<>();
        for (Table table : charter.tables()) {
            for (Column column : table.columns()) {
                lines.put(
                        table.name() + "." + column.name(),
                        column.type() + (table.isRequired(column.name()) ? " required" : "")
                                + column.defaultValue()
                                        .map(value -> " default " + value.text())
                                        .orElse("")
                                + ";");
            }
            for (Key key : table.keys()) {
                lines.put(
                        table.name() + " key " + (key.isPrimary() ? "" : key.name()),
                        key.columns()
                                + (key.nullsAreEqual() ? " equal" : "")
                                + key.where()
                                        .map(where -> " where " + where.value())
                                        .orElse(""));
            }
            for (ForeignKey link : table.links()) {
                lines.put(
                        table.name() + " link " + link.name(),
                        link.columns() + " -> " + link.parent() + link.parentColumns() + " " + link.match() + " "
                                + link.onDelete() + " " + link.onUpdate() + " " + link.deferrable());
            }
            for (Rule rule : table.rules()) {
                lines.put(
                        table.name() + " rule " + rule.name(), rule.condition().toString());
            }
        }
        return lines.entrySet().stream()
                .map(line -> line.getKey() + ": " + line.getValue())
                .collect(Collectors.joining("\n"));
    }

    /** A random charter of what a server can hold. Names are such as nobody should have to quote. */
    private static final class Design {
        private static final List<String> NAMES =
                List.of("order", "Gift Card", "sélect", "t'able", "back`tick", "plain", "UPPER", "a.b");

        private final Random random;
        private final Server server;
        private final StringBuilder yaml = new StringBuilder("charter: 1\ntables:\n");

        Design(Random random, Server server) {
            this.random = random;
            this.server = server;
        }

        private static String quoted(String name) {
            return "\"" + name.replace("\"", "\\\"") + "\"";
        }

        private String typeOf(int column) {
            List<String> all = new ArrayList<>(List.of(
                    "smallint", "bigint", "numeric(9,2)", "double precision", "char(3)", "varchar(20)", "date"));
            if (server != Server.MARIADB) {
                all.addAll(List.of("boolean", "text", "uuid", "time", "timestamp(3)", "timestamp with time zone"));
            }
            return column == 0 ? "integer" : all.get(random.nextInt(all.size()));
        }

        String yaml() {
            int tables = 2 + random.nextInt(3);
            List<String> names = new ArrayList<>(NAMES);
            Collections.shuffle(names, random);
            for (int t = 0; t < tables; t++) {
                addTable(names, t);
            }
            return yaml.toString();
        }

        private void line(String text) {
            yaml.append(text).append('\n');
        }

        private void addTable(List<String> names, int t) {
            line("  " + quoted(names.get(t)) + ":");
            line("    rows: x.csv");
            line("    columns:");
            int columns = 4 + random.nextInt(3);
            List<String> types = new ArrayList<>();
            for (int c = 0; c < columns; c++) {
                types.add(typeOf(c));
                boolean hasDefault =
                        c > 0 && types.get(c).matches("smallint|bigint|varchar.*") && random.nextInt(3) == 0;
                line("      " + quoted("c " + c) + ": {type: \"" + types.get(c) + "\""
                        + (random.nextInt(3) == 0 ? ", not_null: yes" : "")
                        + (hasDefault ? ", default: " + (types.get(c).startsWith("v") ? "\"it's \\\\ so\"" : "-7") : "")
                        + "}");
            }
            line("      up: integer");
            line("      up2: integer");
            line("      side: integer");
            line("    primary_key: [\"c 0\"" + "]");
            line("    unique:");
            line("      " + quoted("two of " + t) + ": {columns: [up, side]"
                    + (server == Server.POSTGRESQL && random.nextBoolean() ? ", nulls: equal" : "") + "}");
            if (server == Server.POSTGRESQL) {
                line("      " + quoted("some of " + t) + ": {columns: [side], where: \"up2 > 3\"}");
            }
            line("    rules:");
            line("      " + quoted("rule " + t) + ": \"\\\"c 0\\\" >= 0\"");
            if (random.nextBoolean()) {
                line("      " + quoted("either " + t) + ": \"side is null or side > " + random.nextInt(9) + "\"");
            }
            line("    foreign_keys:");
            addLink(names.get(random.nextInt(t + 1)), "link one " + t, "up");
            if (random.nextBoolean()) {
                addLink(names.get(t), "link two " + t, "up2");
            }
        }

        private void addLink(String parent, String name, String column) {
            List<String> actions = new ArrayList<>(List.of("no action", "cascade", "set null"));
            if (server != Server.MARIADB) {
                // Its catalogue does not tell restrict from no action, which are one there.
                actions.add("restrict");
                actions.add("set default");
            }
            String onDelete = actions.get(random.nextInt(actions.size()));
            String onUpdate = actions.get(random.nextInt(actions.size()));
            String waits = server == Server.MARIADB || random.nextInt(3) > 0
                    ? ""
                    : ", deferrable: " + (random.nextBoolean() ? "deferred" : "immediate");
            line("      " + quoted(name) + ": {columns: " + column + ", references: " + quoted(parent) + ", on_delete: "
                    + onDelete + ", on_update: " + onUpdate + waits + "}");
        }
    }
}
