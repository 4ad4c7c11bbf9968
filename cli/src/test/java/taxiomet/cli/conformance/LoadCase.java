package taxiomet.cli.conformance;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;

/**
 * Random tables with faults of every kind that a server refuses. Every table has the columns id, a, b, up, x, y, note; (a, b) is a unique
 * key, which id may be in place of.
 */
record LoadCase(List<List<Link>> links, List<Boolean> nullsEqual, List<List<List<String>>> rows) {
    private static final String NULL = null;

    /** A link of a table: its columns' names, and the parent with the columns that it points at. */
    record Link(String name, List<String> columns, int parent, List<String> parentColumns, boolean isFull) {}

    static final List<String> COLUMNS = List.of("id", "a", "b", "up", "x", "y", "note");

    static LoadCase random(Random random) {
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
        return new LoadCase(links, nullsEqual, rows);
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

    static String name(int table) {
        return "t" + table;
    }

    /** Writes the tables and a charter for them.
     *
     * @param asks what the charter says of the links named up beside their ends, such as {@code , children: 0..3}
     */
    void write(Path folder, String asks) throws IOException {
        StringBuilder charter = new StringBuilder("charter: 1\ntables:\n");
        for (int t = 0; t < rows.size(); t++) {
            charter.append("  ").append(name(t)).append(":\n    rows: ").append(name(t));
            charter.append(".csv\n    columns:\n      id: integer\n      a: varchar(4)\n      b: smallint\n"
                    + "      up: integer\n      x: varchar(4)\n      y: smallint\n"
                    + "      note: {type: varchar(6), not_null: true}\n    primary_key: id\n    unique:\n"
                    + "      ab: {columns: [a, b]" + (nullsEqual.get(t) ? ", nulls: equal" : "") + "}\n"
                    + "    rules:\n      note_is_known: note <> 'zz'\n");
            if (!links.get(t).isEmpty()) {
                charter.append("    foreign_keys:\n");
            }
            for (Link link : links.get(t)) {
                charter.append("      " + link.name() + ": {columns: " + link.columns() + ", references: {"
                        + name(link.parent()) + ": " + link.parentColumns() + "}"
                        + (link.isFull() ? ", match: full" : "")
                        + (link.name().startsWith("up") ? asks : "") + "}\n");
            }
            String lines = rows.get(t).stream()
                    .map(row ->
                            row.stream().map(cell -> cell == null ? "" : cell).collect(Collectors.joining(",")))
                    .collect(Collectors.joining("\n"));
            Files.writeString(folder.resolve(name(t) + ".csv"), String.join(",", COLUMNS) + "\n" + lines + "\n");
        }
        Files.writeString(folder.resolve("charter.yaml"), charter);
    }

    /** The tables with their keys and rules, in a schema of their own. */
    void declareTables(Statement sql) throws SQLException {
        sql.execute("drop schema if exists c cascade; create schema c; set search_path = c");
        for (int t = 0; t < rows.size(); t++) {
            sql.execute("create table " + name(t) + " (id integer primary key, a varchar(4), b smallint, up integer,"
                    + " x varchar(4), y smallint, note varchar(6) not null check (note <> 'zz'), unique "
                    + (nullsEqual.get(t) ? "nulls not distinct " : "") + "(a, b))");
        }
    }

    /** The links between them. */
    void declareLinks(Statement sql) throws SQLException {
        for (int t = 0; t < rows.size(); t++) {
            for (Link link : links.get(t)) {
                sql.execute("alter table " + name(t) + " add foreign key (" + String.join(", ", link.columns())
                        + ") references " + name(link.parent()) + " (" + String.join(", ", link.parentColumns())
                        + ") match " + (link.isFull() ? "full" : "simple"));
            }
        }
    }
}
