package taxiomet.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.stream.Collectors;

/** The work of a check, done by an embedded row SQL engine: import, then keys and links: {@code RowEngine FOLDER}. */
public final class RowEngine {
    private RowEngine() {}

    public static void main(String[] args) throws SQLException, IOException {
        Path folder = Path.of(args[0]).toAbsolutePath();
        Path place = Files.createTempDirectory("rows");
        try (Connection connection =
                        DriverManager.getConnection("jdbc:h2:" + place.resolve("db") + ";CACHE_SIZE=1048576");
                Statement sql = connection.createStatement()) {
            sql.execute("SET LOCK_MODE 0");
            for (DecisionTable table : DecisionTable.all(false)) {
                String columns = table.columns().stream()
                        .map(c -> c.name() + " " + c.type() + (c.isRequired() ? " NOT NULL" : ""))
                        .collect(Collectors.joining(", "));
                sql.execute("CREATE TABLE " + table.name() + " (" + columns + ") AS SELECT * FROM CSVREAD('"
                        + folder.resolve(table.name() + ".csv") + "')");
                sql.execute("ALTER TABLE " + table.name() + " ADD PRIMARY KEY (" + String.join(", ", table.key()) + ")");
                for (DecisionTable.Link link : table.links()) {
                    sql.execute("ALTER TABLE " + table.name() + " ADD FOREIGN KEY ("
                            + String.join(", ", link.columns()) + ") REFERENCES " + link.parent() + " ("
                            + String.join(", ", link.parentColumns()) + ")");
                }
            }
        }
    }
}
