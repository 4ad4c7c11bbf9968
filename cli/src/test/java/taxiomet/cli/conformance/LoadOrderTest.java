package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
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

    /** How many rows of each table get in, and the first that does not. */
    private static Map<String, String> loaded(LoadCase random, List<String> order, Statement sql) throws SQLException {
        random.declareTables(sql);
        random.declareLinks(sql);
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
                LoadCase random = LoadCase.random(new Random(seed));
                Path place = Files.createDirectory(folder.resolve("case" + seed));
                random.write(place, "");
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
