package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charters.Charters;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rows.TableSource;

/**
 * Match partial, which no server has, against queries written from the standard: the rows that match a parent by all their parts that are
 * not null, and no other parent, follow it.
 */
final class PartialConformanceTest {
    private static final int CASES = RandomCases.USUAL * 3;
    private static final String MATCHES =
            "(c.x IS NULL OR c.x = p.a) AND (c.y IS NULL OR c.y = p.b) AND (c.z IS NULL OR"
                    + " c.z = p.c) AND coalesce(c.x, c.y, c.z) IS NOT NULL";

    @TempDir
    Path folder;

    private final Set<String> seen = new TreeSet<>();

    /** The rows of a case, and one change to them. */
    private static final class Case {
        final Random random;
        final String action;
        final Set<List<String>> parents = new LinkedHashSet<>();
        final List<List<String>> children = new ArrayList<>();

        Case(long seed) {
            random = new Random(seed * 0x9E3779B97F4A7C15L);
            action = List.of("cascade", "set null", "no action", "restrict").get(random.nextInt(4));
            for (int i = 2 + random.nextInt(7); i > 0; i--) {
                parents.add(List.of(value(), value(), value()));
            }
            for (int id = 0; id < 12; id++) {
                List<String> child = new ArrayList<>(List.of("" + id));
                List<String> parent = new ArrayList<>(parents).get(random.nextInt(parents.size()));
                boolean isOrphan = random.nextInt(5) == 0;
                for (int i = 0; i < 3; i++) {
                    child.add(random.nextInt(2) == 0 ? null : isOrphan ? value() : parent.get(i));
                }
                children.add(child);
            }
        }

        String value() {
            return "" + random.nextInt(3);
        }

        String valueOrNull() {
            return random.nextInt(2) == 0 ? "NULL" : value();
        }
    }

    private static Charter charter(Case drawn, Path folder) throws Exception {
        Files.writeString(folder.resolve("p.csv"), "a,b,c\n" + lines(drawn.parents));
        Files.writeString(folder.resolve("c.csv"), "id,x,y,z\n" + lines(drawn.children));
        Path written = Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  p:
                    rows: p.csv
                    columns: {a: integer, b: integer, c: integer}
                    primary_key: [a, b, c]
                  c:
                    rows: c.csv
                    columns: {id: integer, x: integer, y: integer, z: integer}
                    primary_key: id
                    foreign_keys:
                      cp: {columns: [x, y, z], references: p, match: partial, on_delete: %1$s, on_update: %1$s}
                """.formatted(drawn.action));
        return Charters.read(written, Optional.empty()).charter();
    }

    private static String lines(Iterable<List<String>> rows) {
        StringBuilder lines = new StringBuilder();
        rows.forEach(row -> lines.append(String.join(
                        ",", row.stream().map(v -> v == null ? "" : v).toList()))
                .append('\n'));
        return lines.toString();
    }

    private static long count(Statement sql, String from) throws SQLException {
        try (ResultSet found = sql.executeQuery("SELECT count(*) FROM " + from)) {
            return found.getLong(1);
        }
    }

    private static String rows(Statement sql, String table) throws SQLException {
        List<String> rows = new ArrayList<>();
        try (ResultSet found = sql.executeQuery("SELECT * FROM " + table)) {
            while (found.next()) {
                List<String> cells = new ArrayList<>();
                for (int i = 1; i <= found.getMetaData().getColumnCount(); i++) {
                    cells.add(found.getString(i));
                }
                rows.add(cells.toString());
            }
        }
        rows.sort(null);
        return rows.toString();
    }

    /** Makes the change by queries alone; whether it is accepted. */
    private boolean isAccepted(Statement sql, Case drawn, String change, List<String> more) throws SQLException {
        if (more.isEmpty()) {
            // A child is written: it may match nothing only if it was not written.
            sql.executeUpdate("CREATE TABLE earlier AS SELECT * FROM c");
            sql.executeUpdate(change);
            return count(
                            sql,
                            "c WHERE coalesce(x, y, z) IS NOT NULL AND NOT EXISTS (SELECT 1 FROM p WHERE " + MATCHES
                                    + ") AND NOT EXISTS (SELECT 1 FROM earlier e WHERE e.id = c.id AND e.x IS c.x AND"
                                    + " e.y IS c.y AND e.z IS c.z)")
                    == 0;
        }
        String goes = more.get(0);
        // A parent that gets another b stays a match for children without one.
        boolean isUpdate = more.size() > 1;
        String touched = isUpdate ? "y IS NOT NULL AND " : "";
        sql.executeUpdate("CREATE TABLE hit AS SELECT id FROM c WHERE " + touched + "EXISTS (SELECT 1 FROM p WHERE "
                + MATCHES + " AND " + goes + ") AND NOT EXISTS (SELECT 1 FROM p WHERE " + MATCHES + " AND NOT (" + goes
                + "))");
        boolean isHit = count(sql, "hit") > 0;
        seen.add(drawn.action + (isHit ? " acts" : " rests") + (isUpdate ? " on update" : " on delete"));
        if (isHit && drawn.action.equals("cascade") && !isUpdate) {
            sql.executeUpdate("DELETE FROM c WHERE id IN (SELECT id FROM hit)");
        } else if (isHit && drawn.action.equals("cascade")) {
            sql.executeUpdate(
                    "UPDATE c SET y = " + more.get(1) + " WHERE y IS NOT NULL AND id IN (SELECT id FROM hit)");
        } else if (isHit && drawn.action.equals("set null")) {
            sql.executeUpdate("UPDATE c SET " + (isUpdate ? "y = NULL" : "x = NULL, y = NULL, z = NULL")
                    + " WHERE id IN (SELECT id FROM hit)");
        } else if (isHit) {
            return false;
        }
        sql.executeUpdate(change);
        return true;
    }

    @Test
    void children_follow_the_last_parent_that_matches_them() throws Exception {
        for (long seed = 1; seed <= CASES; seed++) {
            Case drawn = new Case(seed);
            Path caseFolder = Files.createTempDirectory(folder, "case");
            Charter charter = charter(drawn, caseFolder);
            List<String> more = new ArrayList<>();
            String change = change(drawn, more);
            try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:");
                    Statement sql = connection.createStatement()) {
                sql.executeUpdate("CREATE TABLE p (a, b, c); CREATE TABLE c (id, x, y, z)");
                for (List<String> row : drawn.parents) {
                    sql.executeUpdate("INSERT INTO p VALUES (" + String.join(", ", row) + ")");
                }
                for (List<String> row : drawn.children) {
                    sql.executeUpdate("INSERT INTO c VALUES ("
                            + String.join(
                                    ", ", row.stream().map(String::valueOf).toList()) + ")");
                }
                String before = rows(sql, "p") + rows(sql, "c");
                boolean isAccepted = isAccepted(sql, drawn, change, more);
                String wanted = isAccepted ? rows(sql, "p") + rows(sql, "c") : before;
                try (Rehearsal rehearsal = Rehearsals.start(charter, List.of(change), Server.STANDARD)) {
                    String got = rows(rehearsal.after("p")) + rows(rehearsal.after("c"));
                    assertThat(rehearsal.result().isAccepted() + " " + got)
                            .as("seed %d, on %s: %s of %s", seed, drawn.action, change, before)
                            .isEqualTo(isAccepted + " " + wanted);
                }
            }
        }
        assertThat(seen)
                .contains("cascade acts on delete", "set null acts on delete", "restrict acts on delete")
                .contains("cascade acts on update", "set null acts on update", "no action acts on update")
                .contains("cascade rests on delete", "cascade rests on update");
    }

    /**
     * A change, and for one to a parent which parents go, and then, for an update, the new value.
     *
     * @param more is filled
     */
    private static String change(Case drawn, List<String> more) {
        Random random = drawn.random;
        switch (random.nextInt(4)) {
            case 0 -> {
                String goes = "p.a = " + drawn.value() + (random.nextBoolean() ? "" : " AND p.b = " + drawn.value());
                more.add(goes);
                return "DELETE FROM p WHERE " + goes.replace("p.", "");
            }
            case 1 -> {
                List<String> parent = new ArrayList<>(drawn.parents).get(random.nextInt(drawn.parents.size()));
                String goes = "p.a = " + parent.get(0) + " AND p.b = " + parent.get(1) + " AND p.c = " + parent.get(2);
                more.addAll(List.of(goes, "7"));
                return "UPDATE p SET b = 7 WHERE " + goes.replace("p.", "");
            }
            case 2 -> {
                return "INSERT INTO c VALUES (50, " + drawn.valueOrNull() + ", " + drawn.valueOrNull() + ", "
                        + drawn.valueOrNull() + ")";
            }
            default -> {
                return "UPDATE c SET x = " + drawn.valueOrNull() + " WHERE id < " + random.nextInt(6);
            }
        }
    }

    private static String rows(TableSource source) {
        List<String> rows = new ArrayList<>();
        int[] columns = new int[source.columns().size()];
        java.util.Arrays.setAll(columns, i -> i);
        source.read(columns, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < columns.length; i++) {
                    cells.add(batch.column(i).text(row));
                }
                rows.add(cells.toString());
            }
        });
        rows.sort(null);
        return rows.toString();
    }
}
