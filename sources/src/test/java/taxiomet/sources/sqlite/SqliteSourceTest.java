package taxiomet.sources.sqlite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.place.SqliteRows;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.TableSource;

class SqliteSourceTest {
    @TempDir
    private Path folder;

    private void execute(String... statements) throws SQLException {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("t.db"));
                Statement statement = connection.createStatement()) {
            for (String sql : statements) {
                statement.execute(sql);
            }
        }
    }

    private TableSource open(String table, String... columns) {
        return SqliteSource.open(new SqliteRows(folder, "t.db", table), List.of(columns));
    }

    private static List<String> words(RowBatch batch) {
        List<String> words = new ArrayList<>();
        for (int row = 0; row < batch.size(); row++) {
            List<String> cells = new ArrayList<>();
            for (int i = 0; i < batch.columnCount(); i++) {
                cells.add(batch.column(i).text(row));
            }
            words.add(RowRef.row(batch.ref(row)) + " " + cells);
        }
        return words;
    }

    private static List<String> read(TableSource source, int... columns) {
        List<String> rows = new ArrayList<>();
        source.read(columns, batch -> rows.addAll(words(batch)));
        return rows;
    }

    @Test
    void rows_come_in_the_order_of_rowid_whatever_they_hold() throws SQLException {
        execute(
                "CREATE TABLE t (a, b)",
                "INSERT INTO t (rowid, a, b) VALUES (9, 1, 'x'), (2, 2.5, NULL), (5, 'y', x'01ff'), (7, -3, '')",
                "INSERT INTO t (rowid, a, b) VALUES (11, 9223372036854775807, 1e300)");
        try (TableSource source = open("t", "a", "b")) {
            assertThat(read(source, 0, 1))
                    .containsExactly(
                            "1 [2.5, null]", "2 [y, 01ff]", "3 [-3, ]", "4 [1, x]", "5 [9223372036854775807, 1.0E300]");
            assertThat(read(source, 1)).hasSize(5).first().isEqualTo("1 [null]");
            assertThat(read(source)).hasSize(5);
        }
    }

    @Test
    void tables_without_rowid_and_views_are_read_too() throws SQLException {
        execute(
                "CREATE TABLE k (a TEXT, b INTEGER, PRIMARY KEY (b, a)) WITHOUT ROWID",
                "INSERT INTO k VALUES ('z', 1), ('a', 2), ('b', 1)",
                "CREATE VIEW v AS SELECT b, count(*) AS n FROM k GROUP BY b",
                "CREATE TABLE named (rowid TEXT, b INTEGER)",
                "INSERT INTO named VALUES ('q', 1)");
        try (TableSource source = open("k", "a")) {
            assertThat(read(source, 0)).containsExactly("1 [b]", "2 [z]", "3 [a]");
            assertThat(source.undeclared().text()).isEqualTo("column `b` is not declared, and not read");
        }
        try (TableSource source = open("v", "n", "b")) {
            assertThat(read(source, 0, 1)).containsExactly("1 [2, 1]", "2 [1, 2]");
        }
        try (TableSource source = open("named", "rowid")) {
            assertThat(read(source, 0)).containsExactly("1 [q]");
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"CREATE TABLE t (a INTEGER, b TEXT)", "CREATE TABLE t (a INTEGER PRIMARY KEY, b) WITHOUT ROWID"})
    void rows_can_be_fetched_by_number(String create) throws SQLException {
        execute(
                create,
                "WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 20000)"
                        + " INSERT INTO t SELECT i * 3, 'r' || i FROM n");
        try (TableSource source = open("t", "a", "b")) {
            assertThat(read(source, 0)).hasSize(20_000);
            long[] wanted = {1, 2, 7_000, 7_001, 19_999, 20_000};
            int[] at = {0};
            List<String> rows = new ArrayList<>();
            source.fetch(
                    () -> at[0] < wanted.length ? RowRef.of(0, wanted[at[0]++]) : RefCursor.END,
                    new int[] {1, 0},
                    batch -> rows.addAll(words(batch)));
            assertThat(rows)
                    .containsExactly(
                            "1 [r1, 3]",
                            "2 [r2, 6]",
                            "7000 [r7000, 21000]",
                            "7001 [r7001, 21003]",
                            "19999 [r19999, 59997]",
                            "20000 [r20000, 60000]");
        }
    }

    private static List<String> readSplits(SplittableSource source, long bytes) {
        List<String> rows = new ArrayList<>();
        for (Split split : source.splits(bytes)) {
            try (SplittableSource.SplitScan scan = source.scan(new int[] {0}, Split.parse(split.text()));
                    Scan.BatchReader reader = scan.reader()) {
                for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                    rows.addAll(words(batch));
                }
            }
        }
        return rows;
    }

    @Test
    void a_table_is_cut_between_rows_whatever_their_rowids() throws SQLException {
        execute(
                "CREATE TABLE t (a)",
                "INSERT INTO t (rowid, a) VALUES (0, 'n'), (2, 'p'), (3, 'q'), (900, 'r'), (9223372036854775807, 's')",
                "CREATE TABLE below (a)",
                "INSERT INTO below (rowid, a) VALUES (-4, 'x'), (7, 'y')",
                "CREATE TABLE none (a)");
        try (SplittableSource source = (SplittableSource) open("t", "a")) {
            assertThat(readSplits(source, 1)).containsExactly("1 [n]", "1 [p]", "1 [q]", "1 [r]", "2 [s]");
            assertThat(readSplits(source, 200)).containsExactly("1 [n]", "2 [p]", "1 [q]", "2 [r]", "3 [s]");
            assertThat(readSplits(source, 1 << 20)).hasSize(5).last().isEqualTo("5 [s]");
        }
        try (SplittableSource source = (SplittableSource) open("below", "a")) {
            assertThat(readSplits(source, 1)).containsExactly("1 [x]", "2 [y]");
        }
        try (SplittableSource source = (SplittableSource) open("none", "a")) {
            assertThat(source.splits(1)).hasSize(1);
            assertThat(readSplits(source, 1)).isEmpty();
        }
    }

    @Test
    void names_with_quotes_in_them_are_names() throws SQLException {
        execute(
                "CREATE TABLE \"a\"\"b'; DROP TABLE x\" (\"c\"\"d\" TEXT)",
                "INSERT INTO \"a\"\"b'; DROP TABLE x\" VALUES ('1')");
        try (TableSource source = open("a\"b'; DROP TABLE x", "c\"d")) {
            assertThat(read(source, 0)).containsExactly("1 [1]");
        }
    }

    @Test
    void what_is_not_there_is_named_with_what_is() throws Exception {
        execute("CREATE TABLE keeper (id INTEGER, name TEXT)");
        assertThatThrownBy(() -> open("keepr", "id"))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("there is no table `keepr` in it; did you mean `keeper`?");
        assertThatThrownBy(() -> open("keeper", "Name"))
                .hasMessageContaining("has no column `Name`; `name` looks like it")
                .hasMessageContaining("it has `id`, `name`");
        Files.writeString(
                folder.resolve("x.db"), "no database at all, but long enough to be looked at closely".repeat(30));
        assertThatThrownBy(() -> SqliteSource.open(new SqliteRows(folder, "x.db", "t"), List.of("a")))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("the database cannot be read");
        assertThatThrownBy(() -> SqliteSource.open(new SqliteRows(folder, "*.db", "t"), List.of("a")))
                .hasMessageContaining("2 files have such a name, and a table lives in one database");
        assertThat(SqliteCatalogue.tablesOf(folder.resolve("t.db"))).containsOnlyKeys("keeper");
    }

    @ParameterizedTest
    @ValueSource(strings = {"delete", "wal"})
    void the_database_is_not_touched_and_nothing_is_left_beside_it(String journal) throws Exception {
        execute("PRAGMA journal_mode = " + journal, "CREATE TABLE t (a INTEGER)", "INSERT INTO t VALUES (1)");
        byte[] before = Files.readAllBytes(folder.resolve("t.db"));
        try (TableSource source = open("t", "a")) {
            assertThat(read(source, 0)).containsExactly("1 [1]");
        }
        assertThat(Files.readAllBytes(folder.resolve("t.db"))).isEqualTo(before);
        try (var files = Files.list(folder)) {
            assertThat(files.map(file -> file.getFileName().toString())).containsExactly("t.db");
        }
    }

    @Test
    void a_database_that_changes_between_two_reads_ends_the_run() throws Exception {
        execute("PRAGMA journal_mode = wal", "CREATE TABLE t (a INTEGER)", "INSERT INTO t VALUES (1)");
        try (TableSource source = open("t", "a")) {
            read(source, 0);
            execute("INSERT INTO t VALUES (2)");
            assertThatThrownBy(() -> read(source, 0))
                    .isInstanceOf(SourceException.class)
                    .hasMessageContaining("changed while it was being read");
        }
    }

    @Test
    void a_name_may_hold_what_an_address_would_not() throws Exception {
        execute("CREATE TABLE t (a INTEGER)", "INSERT INTO t VALUES (1)");
        Files.move(folder.resolve("t.db"), folder.resolve("50% ?immutable=1&x #2.db"));
        try (TableSource source =
                SqliteSource.open(new SqliteRows(folder, "50% ?immutable=1&x #2.db", "t"), List.of("a"))) {
            assertThat(read(source, 0)).containsExactly("1 [1]");
        }
    }
}
