package taxiomet.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The work of a check, done by an embedded analytic SQL engine: every column converted to its type, nulls where there should be none,
 * repeated keys, rows without a parent. {@code AnalyticEngine WAY FOLDER MEMORY [text]}, where WAY is one of
 *
 * <ul>
 *   <li>{@code load}: tables are loaded with all columns first, then asked;
 *   <li>{@code keys}: only key columns are kept, while every column is converted in the same pass;
 *   <li>{@code views}: each question reads the files through views;
 *   <li>{@code constraints}: tables with primary and foreign keys are loaded, and the engine checks them.
 * </ul>
 */
public final class AnalyticEngine {
    private AnalyticEngine() {}

    public static void main(String[] args) throws SQLException, IOException {
        String way = args[0];
        Path folder = Path.of(args[1]);
        boolean isText = args.length > 3 && args[3].equals("text");
        Path temporary = Files.createTempDirectory("analytic");
        try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
                Statement sql = connection.createStatement()) {
            sql.execute("SET threads = 2");
            sql.execute("SET preserve_insertion_order = false");
            sql.execute("SET memory_limit = '" + args[2] + "'");
            sql.execute("SET temp_directory = '" + temporary + "'");
            for (DecisionTable table : DecisionTable.all(isText)) {
                prepare(sql, way, table, folder);
            }
            long faults = 0;
            if (!way.equals("constraints")) {
                for (DecisionTable table : DecisionTable.all(isText)) {
                    faults += ask(sql, way, table);
                }
            }
            System.out.println(faults + " faults");
        }
    }

    private static String from(DecisionTable table, Path folder) {
        String types = table.columns().stream()
                .map(c -> "'" + c.name() + "': '" + c.type() + "'")
                .collect(Collectors.joining(", "));
        return "read_csv('" + folder.resolve(table.name() + ".csv")
                + "', header = true, delim = ',', quote = '\"', escape = '\"', auto_detect = false, columns = {" + types
                + "})";
    }

    private static void prepare(Statement sql, String way, DecisionTable table, Path folder) throws SQLException {
        String name = table.name();
        switch (way) {
            case "load" -> {
                sql.execute("CREATE TABLE " + name + " (" + definitions(table, false) + ")");
                sql.execute("INSERT INTO " + name + " SELECT * FROM " + from(table, folder));
            }
            case "constraints" -> {
                sql.execute("CREATE TABLE " + name + " (" + definitions(table, true) + ")");
                sql.execute("INSERT INTO " + name + " SELECT * FROM " + from(table, folder));
            }
            case "keys" -> {
                // Reading a typed column that is only counted converts it all the same when its nulls are asked for.
                List<String> kept = new ArrayList<>(table.keyColumns());
                String others = table.columns().stream()
                        .map(DecisionTable.Column::name)
                        .filter(c -> !kept.contains(c))
                        .map(c -> "(" + c + " IS NULL)::INT")
                        .collect(Collectors.joining(" + "));
                sql.execute("CREATE TABLE " + name + " AS SELECT " + String.join(", ", kept) + ", ("
                        + (others.isEmpty() ? "0" : others) + ")::TINYINT AS nulls FROM " + from(table, folder));
            }
            case "views" -> sql.execute("CREATE VIEW " + name + " AS SELECT * FROM " + from(table, folder));
            default -> throw new IllegalArgumentException(way);
        }
    }

    private static String definitions(DecisionTable table, boolean hasConstraints) {
        String columns = table.columns().stream()
                .map(c -> c.name() + " " + c.type() + (c.isRequired() ? " NOT NULL" : ""))
                .collect(Collectors.joining(", "));
        if (!hasConstraints) {
            return columns;
        }
        StringBuilder all = new StringBuilder(columns)
                .append(", PRIMARY KEY (")
                .append(String.join(", ", table.key()))
                .append(')');
        table.links().forEach(link -> all.append(", FOREIGN KEY (")
                .append(String.join(", ", link.columns()))
                .append(") REFERENCES ")
                .append(link.parent())
                .append(" (")
                .append(String.join(", ", link.parentColumns()))
                .append(')'));
        return all.toString();
    }

    private static long ask(Statement sql, String way, DecisionTable table) throws SQLException {
        long faults = 0;
        if (way.equals("keys")) {
            faults += number(sql, "SELECT count(*) FROM " + table.name() + " WHERE nulls > 0");
        } else if (way.equals("views")) {
            String anyNull = table.columns().stream()
                    .map(c -> c.name() + " IS NULL")
                    .collect(Collectors.joining(" OR "));
            faults += number(sql, "SELECT count(*) FROM " + table.name() + " WHERE " + anyNull);
        }
        String key = String.join(", ", table.key());
        faults += number(
                sql,
                "SELECT count(*) FROM (SELECT " + key + " FROM " + table.name() + " GROUP BY " + key
                        + " HAVING count(*) > 1)");
        for (DecisionTable.Link link : table.links()) {
            StringBuilder equal = new StringBuilder();
            for (int i = 0; i < link.columns().size(); i++) {
                equal.append(i > 0 ? " AND " : "")
                        .append("c.")
                        .append(link.columns().get(i))
                        .append(" = p.")
                        .append(link.parentColumns().get(i));
            }
            faults += number(
                    sql,
                    "SELECT count(*) FROM " + table.name() + " c ANTI JOIN " + link.parent() + " p ON " + equal);
        }
        return faults;
    }

    private static long number(Statement sql, String query) throws SQLException {
        try (ResultSet result = sql.executeQuery(query)) {
            result.next();
            return result.getLong(1);
        }
    }
}
