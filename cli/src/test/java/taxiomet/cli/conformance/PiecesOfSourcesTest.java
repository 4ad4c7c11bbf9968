package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charters.Charters;
import taxiomet.check.CheckRun;
import taxiomet.sources.RowSources;

/** Rows that are no delimited text can be cut into pieces, too. */
class PiecesOfSourcesTest {
    private static final int ROWS = 700;

    @TempDir
    private Path folder;

    private Charter charter(String parents, String children) throws Exception {
        Path file = folder.resolve("charter.yaml");
        Files.writeString(file, """
                charter: 1
                tables:
                  vessel:
                    rows: %s
                    columns: {id: integer, name: varchar(8)}
                    primary_key: id
                  load:
                    rows: %s
                    columns: {no: integer, vessel_id: integer, tons: "numeric(6,2)"}
                    primary_key: no
                    foreign_keys: {load_vessel: {columns: vessel_id, references: vessel}}
                    rules: {positive: tons > 0}
                """.formatted(parents, children));
        return Charters.read(file, Optional.empty()).charter();
    }

    private static int parentOf(int row) {
        return row % 97 == 0 ? 900 + row : row % 40;
    }

    private static int numberOf(int row) {
        return row % 150 == 149 ? row - 100 : row;
    }

    private void requireSame(Charter charter, int leastPieces) throws Exception {
        int pieces = Pieces.write(charter, folder, new Random(4), 20_000);
        assertThat(pieces).isGreaterThanOrEqualTo(leastPieces);
        List<Path> states = Pieces.statesIn(folder);
        Collections.shuffle(states, new Random(5));
        try (CheckRun whole =
                        CheckRun.start(charter, Pieces.OPTIONS, RowSources::open, Pieces.context(folder, 1 << 24, 2));
                CheckRun merged = Pieces.merge(charter, states, Pieces.context(folder, 1 << 24, 2))) {
            Pieces.writeResult(whole.result(), folder.resolve("whole"));
            Pieces.writeResult(merged.result(), folder.resolve("merged"));
            assertThat(whole.result().findings()).hasSizeGreaterThan(2);
        }
        assertThat(Pieces.contents(folder.resolve("merged"))).isEqualTo(Pieces.contents(folder.resolve("whole")));
    }

    @Test
    void json_lines_in_pieces_say_what_the_whole_says_fields_that_nobody_declared_too() throws Exception {
        StringBuilder vessels = new StringBuilder();
        for (int i = 0; i < 40; i++) {
            vessels.append("{\"id\":")
                    .append(i)
                    .append(",\"name\":\"v")
                    .append(i)
                    .append("\"}\n");
        }
        StringBuilder loads = new StringBuilder();
        for (int i = 0; i < ROWS; i++) {
            loads.append("{\"no\":")
                    .append(numberOf(i))
                    .append(",\"vessel_id\":")
                    .append(parentOf(i));
            loads.append(",\"tons\":")
                    .append(i % 60 - 1)
                    .append(i % 300 == 299 ? ",\"seal" + i + "\":1" : "")
                    .append("}\n");
        }
        Files.writeString(folder.resolve("vessels.jsonl"), vessels);
        Files.writeString(folder.resolve("loads.jsonl"), loads);
        requireSame(charter("vessels.jsonl", "loads.jsonl"), 4);
        assertThat(Pieces.contents(folder.resolve("merged")).toString()).contains("fields `seal299`, `seal599` are");
    }

    @Test
    void a_table_of_a_database_in_pieces_says_what_the_whole_says() throws Exception {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("port.db"))) {
            connection.setAutoCommit(false);
            connection
                    .createStatement()
                    .execute("CREATE TABLE vessel (id INTEGER, name TEXT, PRIMARY KEY (id, name)) WITHOUT ROWID");
            connection.createStatement().execute("CREATE TABLE load (no INTEGER, vessel_id INTEGER, tons, seal)");
            for (int i = 0; i < 40; i++) {
                connection.createStatement().execute("INSERT INTO vessel VALUES (" + i + ", 'v" + i + "')");
            }
            for (int i = 0; i < ROWS; i++) {
                connection
                        .createStatement()
                        .execute("INSERT INTO load (rowid, no, vessel_id, tons) VALUES (" + i * 3 + ", " + numberOf(i)
                                + ", " + parentOf(i) + ", " + (i % 60 - 1) + ".5)");
            }
            connection.commit();
        }
        requireSame(charter("{file: port.db, table: vessel}", "{file: port.db, table: load}"), 4);
        assertThat(Pieces.contents(folder.resolve("merged")).toString()).contains("column `seal` is");
    }

    @Test
    void more_reasons_than_are_named_are_the_same_ones_in_pieces() throws Exception {
        Path file = folder.resolve("charter.yaml");
        Files.writeString(file, """
                charter: 1
                tables:
                  note:
                    rows: notes.csv
                    columns: {no: integer, words: {type: text, length: 0..3}}
                    primary_key: no
                """);
        StringBuilder notes = new StringBuilder("no,words\n");
        for (int i = 0; i < 2_600; i++) {
            notes.append(i).append(',').append("x".repeat(4 + i * 7 % 1_301)).append('\n');
        }
        notes.append("1,x\n1,xx\nx,\n");
        Files.writeString(folder.resolve("notes.csv"), notes);
        requireSame(Charters.read(file, Optional.empty()).charter(), 2);
        assertThat(Pieces.contents(folder.resolve("merged")).toString()).contains("another reason");
    }
}
