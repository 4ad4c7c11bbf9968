package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** What the program says of a load is what a real server does that is given the same rows, one by one, in the same order. */
class LoadOrderTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 100);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 16_400L);
    private static final String NULL = null;

    /** A link of a table: its columns' names, and the parent with the columns that it points at. */
    private record Link(String name, List<String> columns, int parent, List<String> parentColumns, boolean isFull) {}

    /** Every table has the columns id, a, b, up, x, y, note; (a, b) is a unique key, which id may be in place of. */
    private record Case(List<List<Link>> links, List<Boolean> nullsEqual, List<List<List<String>>> rows) {}

    private static final List<String> COLUMNS = List.of("id", "a", "b", "up", "x", "y", "note");

    private static Case random(Random random) {
        int tables = 2 + random.nextInt(3);
        boolean isCircle = random.nextInt(4) == 0;
        List<List<Link>> links = new ArrayList<>();
        List<Boolean> nullsEqual = new ArrayList<>();
        List<List<List<String>>> rows = new ArrayList<>();
        for (int t = 0; t < tables; t++) {
            List<Link> own = new ArrayList<>();
            int any = isCircle ? random.nextInt(tables) : random.nextInt(t + 1);
            if (random.nextBoolean()) {
                own.add(new Link("up" + t, List.of("up"), any, List.of("id"), false));
            }
            if (random.nextInt(3) > 0) {
                int parent = isCircle ? random.nextInt(tables) : random.nextInt(t + 1);
                own.add(new Link("pair" + t, List.of("x", "y"), parent, List.of("a", "b"), random.nextBoolean()));
            }
            links.add(own);
            nullsEqual.add(random.nextInt(3) == 0);
            List<List<String>> all = new ArrayList<>();
            int count = 10 + random.nextInt(30);
            for (int r = 1; r <= count; r++) {
                all.add(row(random, r, count));
            }
            rows.add(all);
        }
        return new Case(links, nullsEqual, rows);
    }

    private static List<String> row(Random random, int number, int count) {
        List<String> row = new ArrayList<>();
        row.add(
                switch (random.nextInt(20)) {
                    case 0 -> String.valueOf(1 + random.nextInt(count));
                    case 1 -> random.nextInt(3) == 0 ? NULL : "x" + number;
                    default -> String.valueOf(number);
                });
        row.add(random.nextInt(12) == 0 ? NULL : List.of("p", "q", "r", "P").get(random.nextInt(4)));
        row.add(random.nextInt(12) == 0 ? NULL : String.valueOf(random.nextInt(9)));
        row.add(random.nextInt(4) == 0 ? NULL : String.valueOf(1 + random.nextInt(count + 2)));
        row.add(random.nextInt(5) == 0 ? NULL : List.of("p", "q", "r").get(random.nextInt(3)));
        row.add(random.nextInt(5) == 0 ? NULL : String.valueOf(random.nextInt(9)));
        row.add(
                switch (random.nextInt(15)) {
                    case 0 -> NULL;
                    case 1 -> "much too long";
                    case 2 -> "zz";
                    default -> "ok" + random.nextInt(5);
                });
        return row;
    }

    private static String name(int table) {
        return "t" + table;
    }

    private static void write(Case random, Path folder) throws IOException {
        StringBuilder charter = new StringBuilder("charter: 1\ntables:\n");
        for (int t = 0; t < random.rows().size(); t++) {
            charter.append("  ").append(name(t)).append(":\n    rows: ").append(name(t));
            charter.append(".csv\n    columns:\n      id: integer\n      a: varchar(4)\n      b: smallint\n"
                    + "      up: integer\n      x: varchar(4)\n      y: smallint\n"
                    + "      note: {type: varchar(6), not_null: true}\n    primary_key: id\n    unique:\n"
                    + "      ab: {columns: [a, b]" + (random.nullsEqual().get(t) ? ", nulls: equal" : "") + "}\n"
                    + "    rules:\n      note_is_known: note <> 'zz'\n");
            if (!random.links().get(t).isEmpty()) {
                charter.append("    foreign_keys:\n");
            }
            for (Link link : random.links().get(t)) {
                charter.append("      " + link.name() + ": {columns: " + link.columns() + ", references: {"
                        + name(link.parent()) + ": " + link.parentColumns() + "}"
                        + (link.isFull() ? ", match: full" : "") + "}\n");
            }
            String lines = random.rows().get(t).stream()
                    .map(row ->
                            row.stream().map(cell -> cell == null ? "" : cell).collect(Collectors.joining(",")))
                    .collect(Collectors.joining("\n"));
            Files.writeString(folder.resolve(name(t) + ".csv"), String.join(",", COLUMNS) + "\n" + lines + "\n");
        }
        Files.writeString(folder.resolve("charter.yaml"), charter);
    }

    private static void declare(Case random, Statement sql) throws SQLException {
        sql.execute("drop schema if exists c cascade; create schema c; set search_path = c");
        for (int t = 0; t < random.rows().size(); t++) {
            sql.execute("create table " + name(t) + " (id integer primary key, a varchar(4), b smallint, up integer,"
                    + " x varchar(4), y smallint, note varchar(6) not null check (note <> 'zz'), unique "
                    + (random.nullsEqual().get(t) ? "nulls not distinct " : "") + "(a, b))");
        }
        for (int t = 0; t < random.rows().size(); t++) {
            for (Link link : random.links().get(t)) {
                sql.execute("alter table " + name(t) + " add foreign key (" + String.join(", ", link.columns())
                        + ") references " + name(link.parent()) + " (" + String.join(", ", link.parentColumns())
                        + ") match " + (link.isFull() ? "full" : "simple"));
            }
        }
    }

    /** How many rows of each table get in, and the first that does not. */
    private static Map<String, String> loaded(Case random, List<String> order, Statement sql) throws SQLException {
        declare(random, sql);
        Map<String, String> loaded = new LinkedHashMap<>();
        for (String table : order) {
            int in = 0;
            int firstRefused = 0;
            List<List<String>> rows = random.rows().get(Integer.parseInt(table.substring(1)));
            for (int r = 0; r < rows.size(); r++) {
                String values = rows.get(r).stream()
                        .map(cell -> cell == null ? "null" : "'" + cell + "'")
                        .collect(Collectors.joining(", "));
                try {
                    sql.execute("insert into " + table + " values (" + values + ")");
                    in++;
                } catch (SQLException e) {
                    firstRefused = firstRefused == 0 ? r + 1 : firstRefused;
                }
            }
            loaded.put(table, in + " in, the first refused " + firstRefused);
        }
        return loaded;
    }

    private static String told(JsonNode table) {
        long first = 0;
        long refused = 0;
        for (JsonNode refusal : table.get("refused")) {
            long row = refusal.get("first_row").asLong();
            first = first == 0 ? row : Math.min(first, row);
            refused += refusal.get("rows").asLong();
        }
        assertThat(table.get("loaded").asLong() + refused)
                .isEqualTo(table.get("rows").asLong());
        return table.get("loaded").asLong() + " in, the first refused " + first;
    }

    @Test
    void as_many_rows_get_in_as_a_server_takes_one_by_one(@TempDir Path folder) throws Exception {
        Map<String, Integer> seen = new TreeMap<>();
        try (EmbeddedPostgres server = EmbeddedPostgres.builder()
                        .setServerConfig("fsync", "off")
                        .start();
                Connection connection = server.getPostgresDatabase().getConnection();
                Statement sql = connection.createStatement()) {
            for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
                Case random = random(new Random(seed));
                Path place = Files.createDirectory(folder.resolve("case" + seed));
                write(random, place);
                Program program = Program.run(
                        "check", place.resolve("charter.yaml").toString(), "--load-order", "--json", "--chunk", "40");
                assertThat(program.status()).as(program.err()).isIn(0, 1);
                JsonNode load = program.json().get("load");
                Map<String, String> told = new LinkedHashMap<>();
                load.get("tables").forEach(table -> {
                    told.put(table.get("table").asText(), told(table));
                    table.get("refused")
                            .forEach(refusal -> seen.merge(refusal.get("why").asText(), 1, Integer::sum));
                });
                load.get("in_circle").forEach(link -> seen.merge("link in a circle", 1, Integer::sum));
                assertThat(told).as("seed %d", seed).isEqualTo(loaded(random, List.copyOf(told.keySet()), sql));
            }
        }
        System.out.println("load order: seeds " + FIRST_SEED + " to " + (FIRST_SEED + CASES - 1) + ", refused " + seen);
        assertThat(seen)
                .containsOnlyKeys(
                        "own fault", "duplicate", "no parent", "parent not in", "half null", "link in a circle");
        assertThat(seen.values()).allMatch(count -> count > 10);
    }
}
