package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.TimeZone;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.MariadbServer;
import taxiomet.cli.trust.AllowedDatabases;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;
import taxiomet.sources.jdbc.DatabaseSessions;

/** Values of a real MariaDB come as they are, also those that other servers do not know; and rows come page by page, each once. */
class MariadbValuesTest {
    private static final int ROWS = 25_000;

    @TempDir
    private Path folder;

    private List<String> rows(String address, String table, String columns, int first) throws Exception {
        Path file = folder.resolve(table + ".yaml");
        Files.writeString(file, """
                charter: 1
                database: "%s"
                tables: {t: {rows: {table: %s}, columns: {%s}}}
                """.formatted(address, table, columns));
        Table declared = Charters.read(file, Optional.empty()).charter().table("t");
        List<String> rows = new ArrayList<>();
        try (DatabaseSessions sessions = new DatabaseSessions(new AllowedDatabases(Program.terminal()));
                TableSource source = RowSources.open(declared, 1 << 16, sessions)) {
            int[] all = IntStream.range(0, declared.columns().size()).toArray();
            source.read(all, batch -> {
                for (int row = 0; row < batch.size() && rows.size() < first; row++) {
                    StringBuilder line = new StringBuilder();
                    for (int column : all) {
                        line.append(column == 0 ? "" : "|")
                                .append(batch.column(column).text(row));
                    }
                    rows.add(line.toString());
                }
            });
        }
        return rows;
    }

    @Test
    void values_and_pages() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get();
                Connection connection = DriverManager.getConnection(server.address());
                Statement sql = connection.createStatement()) {
            sql.execute("SET sql_mode = ''");
            sql.execute("CREATE TABLE odd (no int primary key, zero date, big bigint unsigned, truth tinyint(1),"
                    + " share decimal(9,4), moment datetime(6), clock time, half double, word varchar(9))");
            sql.execute(
                    "INSERT INTO odd VALUES (1, '0000-00-00', 18446744073709551615, 2, 1.5, '2024-02-29 13:05:09.25',"
                            + " '23:59:58', 0.1, ''), (2, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL),"
                            + " (3, '2024-02-29', 7, 1, -0.0001, '1999-12-31', '00:00:00', -1e300, 'a\\tb')");
            assertThat(rows(
                            server.address(),
                            "odd",
                            "\"no\": integer, zero: date, big: numeric, truth: boolean, share: numeric, moment: timestamp,"
                                    + " clock: time, half: double precision, word: text",
                            9))
                    .containsExactly(
                            "1|0000-00-00|18446744073709551615|2|1.5000|2024-02-29 13:05:09.250000|23:59:58|0.1|",
                            "2|null|null|null|null|null|null|null|null",
                            "3|2024-02-29|7|1|-0.0001|1999-12-31 00:00:00.000000|00:00:00|-1.0E300|a\tb");

            sql.execute("CREATE TABLE moments (at datetime(6) primary key)");
            sql.execute("INSERT INTO moments SELECT '2024-03-31 00:00:00' + INTERVAL seq SECOND FROM seq_1_to_" + ROWS);
            TimeZone own = TimeZone.getDefault();
            try {
                // Two hours of these have no such name there.
                TimeZone.setDefault(TimeZone.getTimeZone("Europe/Berlin"));
                assertThat(rows(server.address(), "moments", "at: timestamp", Integer.MAX_VALUE))
                        .hasSize(ROWS)
                        .doesNotHaveDuplicates()
                        .contains("2024-03-31 02:30:00.000000");
            } finally {
                TimeZone.setDefault(own);
            }

            sql.execute("CREATE TABLE paged (a varchar(5) collate utf8mb4_general_ci, b int, primary key (a, b))");
            sql.execute("INSERT INTO paged SELECT elt(1 + seq % 3, 'x', 'Y', 'z'), seq FROM seq_1_to_" + ROWS);
            List<String> paged = rows(server.address(), "paged", "a: text, b: integer", Integer.MAX_VALUE);
            assertThat(paged).hasSize(ROWS).doesNotHaveDuplicates().startsWith("x|3", "x|6");
        }
    }
}
