package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
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
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** What a sift leaves passes the check, and a real server takes it with all constraints on; no row is lost. */
class SiftConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 500);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 18_000L);

    @Test
    void the_sound_part_is_sound_and_a_server_takes_all_of_it(@TempDir Path folder) throws Exception {
        Map<String, Integer> seen = new TreeMap<>();
        long[] rows = new long[2];
        try (EmbeddedPostgres server = EmbeddedPostgres.builder()
                        .setServerConfig("fsync", "off")
                        .start();
                Connection connection = server.getPostgresDatabase().getConnection();
                Statement sql = connection.createStatement()) {
            for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
                Random random = new Random(seed);
                LoadCase tables = LoadCase.random(random);
                Path place = Files.createDirectory(folder.resolve("case" + seed));
                tables.write(place, random.nextInt(3) == 0 ? ", children: 0..2" : "");
                Path into = place.resolve("sifted");
                List<String> command = new ArrayList<>(List.of(
                        "sift",
                        place.resolve("charter.yaml").toString(),
                        "--into",
                        into.toString(),
                        "--json",
                        "--chunk",
                        "60",
                        "--keep",
                        List.of("none", "first", "last", "most-complete").get(random.nextInt(4)),
                        "--keep",
                        "t1=note " + (random.nextBoolean() ? "asc" : "desc")));
                Program sift = Program.run(command.toArray(new String[0]));
                assertThat(sift.status()).as("seed %d: %s", seed, sift.err()).isIn(0, 1);
                Program check =
                        Program.run("check", into.resolve("sound/charter.yaml").toString(), "--fail-on", "warning");
                assertThat(check.status()).as("seed %d: %s", seed, check.out()).isZero();
                load(tables, into.resolve("sound"), connection, sql, seed);
                requireAllRows(tables, place, into, sift.json(), seed);
                count(sift.json(), seen, rows);
            }
        }
        System.out.println("sift: seeds " + FIRST_SEED + " to " + (FIRST_SEED + CASES - 1) + ", " + rows[0]
                + " rows sound, " + rows[1] + " aside, tables with " + seen);
        assertThat(seen).containsOnlyKeys("fault", "another stays", "none chosen", "parent set aside");
        assertThat(rows[0]).isGreaterThan(CASES * 5L);
    }

    private static void count(JsonNode sift, Map<String, Integer> seen, long[] rows) {
        rows[0] += sift.get("sound").asLong();
        rows[1] += sift.get("aside").asLong();
        sift.get("tables")
                .forEach(table -> table.get("reasons")
                        .forEach(reason -> seen.merge(reason.get("why").asText(), 1, Integer::sum)));
    }

    private static List<String> lines(Path file) throws IOException {
        List<String> lines =
                Files.exists(file) ? new ArrayList<>(Files.readAllLines(file)) : new ArrayList<>(List.of(""));
        lines.remove(0);
        return lines;
    }

    /** Every row with its links checked at the end: rows may stand before their parents. */
    private static void load(LoadCase tables, Path sound, Connection connection, Statement sql, long seed)
            throws IOException, SQLException {
        tables.declareTables(sql);
        for (int t = 0; t < tables.rows().size(); t++) {
            try (PreparedStatement insert = connection.prepareStatement("insert into " + LoadCase.name(t)
                    + " values (?::integer, ?, ?::smallint, ?::integer, ?, ?::smallint, ?)")) {
                for (String line : lines(sound.resolve(LoadCase.name(t) + ".csv"))) {
                    String[] cells = line.split(",", -1);
                    for (int i = 0; i < cells.length; i++) {
                        insert.setString(i + 1, cells[i].isEmpty() ? null : cells[i]);
                    }
                    insert.addBatch();
                }
                insert.executeBatch();
            } catch (SQLException e) {
                throw new AssertionError("seed " + seed, e);
            }
        }
        tables.declareLinks(sql);
    }

    private static void requireAllRows(LoadCase tables, Path place, Path into, JsonNode sift, long seed)
            throws IOException {
        int aside = 0;
        for (int t = 0; t < tables.rows().size(); t++) {
            String file = LoadCase.name(t) + ".csv";
            List<String> parts = lines(into.resolve("sound").resolve(file));
            List<String> left = lines(into.resolve("aside").resolve(file));
            aside += left.size();
            parts.addAll(left);
            List<String> all = lines(place.resolve(file));
            Collections.sort(parts);
            Collections.sort(all);
            assertThat(parts).as("seed %d, %s", seed, file).isEqualTo(all);
        }
        assertThat(sift.get("aside").asInt()).as("seed %d", seed).isEqualTo(aside);
        assertThat(lines(into.resolve("reasons.csv"))).as("seed %d", seed).hasSize(aside);
    }
}
