package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.example.data.simple.SimpleGroup;
import org.apache.parquet.hadoop.ParquetWriter;
import org.apache.parquet.hadoop.example.ExampleParquetWriter;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.apache.parquet.io.LocalOutputFile;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.PrimitiveType.PrimitiveTypeName;
import org.apache.parquet.schema.Types;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.FixedWidth.Positions;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.charter.place.ParquetRows;
import taxiomet.charter.place.RowsPlace;
import taxiomet.charter.place.SheetRows;
import taxiomet.charter.place.SqliteRows;
import taxiomet.charters.Charters;
import taxiomet.charters.input.ReadCharter;
import taxiomet.charters.yaml.CharterWriter;
import taxiomet.cli.rehearsal.MariadbServer;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;
import taxiomet.sources.RowSources;

/** The demo's rows give the same findings, row for row, whether they stand in delimited text, JSON lines, an SQLite database or on a server. */
class SameFindingsTest {
    private static final Path DEMO = Path.of("..", "demo");

    @TempDir
    private Path folder;

    private ReadCharter demo;
    /** The sound rows of each table, and where a row was malformed a list of no cells. */
    private final Map<String, List<List<String>>> rows = new LinkedHashMap<>();

    @BeforeEach
    void readDemo() throws Exception {
        demo = Charters.read(DEMO.resolve("charter.yaml"), Optional.empty());
        for (Table table : demo.charter().tables()) {
            rows.put(table.name(), cellsOf(table));
        }
        assertThat(rows.values().stream().flatMap(List::stream).filter(List::isEmpty))
                .as("malformed rows")
                .isNotEmpty();
    }

    private static List<List<String>> cellsOf(Table table) {
        Map<Long, List<String>> cells = new TreeMap<>();
        int[] all = new int[table.columns().size()];
        Arrays.setAll(all, i -> i);
        try (TableSource source = RowSources.open(table)) {
            source.read(all, batch -> {
                for (int row = 0; row < batch.size(); row++) {
                    List<String> own = new ArrayList<>();
                    for (int column = 0; column < all.length; column++) {
                        own.add(batch.column(column).text(row));
                    }
                    cells.put(batch.ref(row), own);
                }
                batch.malformed().forEach((RowBatch.MalformedRow row) -> cells.put(row.ref(), List.of()));
            });
        }
        return new ArrayList<>(cells.values());
    }

    private Path writeCharter(String name, Function<Table, RowsPlace> place) throws Exception {
        List<Table> moved = demo.charter().tables().stream()
                .map(table -> table.withRows(place.apply(table)))
                .toList();
        Path file = folder.resolve(name);
        Files.writeString(file, CharterWriter.write(demo.charter().with(moved), folder.toAbsolutePath(), Map.of()));
        return file;
    }

    private Path delimited(boolean withMalformed) throws Exception {
        for (Table table : demo.charter().tables()) {
            StringBuilder csv = new StringBuilder();
            csv.append(line(table.columns().stream().map(Column::name).toList()));
            for (List<String> row : rows.get(table.name())) {
                if (!row.isEmpty()) {
                    csv.append(line(row));
                } else if (withMalformed) {
                    csv.append(String.join(
                                    ",", Collections.nCopies(table.columns().size() + 1, "x")))
                            .append('\n');
                }
            }
            Files.writeString(folder.resolve(table.name() + ".csv"), csv);
        }
        return writeCharter(
                "delimited.yaml",
                table -> new DelimitedFiles(
                        folder.toAbsolutePath(),
                        table.name() + ".csv",
                        ',',
                        '"',
                        "UTF-8",
                        true,
                        Optional.empty(),
                        List.of()));
    }

    private static String line(List<String> cells) {
        return cells.stream()
                        .map(cell -> cell == null ? "" : '"' + cell.replace("\"", "\"\"") + '"')
                        .collect(Collectors.joining(","))
                + "\n";
    }

    private static boolean isPlainWhole(Column column, String cell) {
        return column.type().isInteger() && cell != null && cell.matches("-?[1-9][0-9]{0,17}|0");
    }

    private Path jsonLines(boolean withMalformed) throws Exception {
        ObjectMapper json = new ObjectMapper();
        for (Table table : demo.charter().tables()) {
            StringBuilder lines = new StringBuilder();
            for (List<String> row : rows.get(table.name())) {
                if (row.isEmpty()) {
                    lines.append(withMalformed ? "{\"broken\": \n" : "");
                    continue;
                }
                ObjectNode object = json.createObjectNode();
                ObjectNode inside = object.putObject("data");
                for (int i = 0; i < row.size(); i++) {
                    Column column = table.columns().get(i);
                    ObjectNode target = i % 2 == 0 ? object : inside;
                    if (isPlainWhole(column, row.get(i))) {
                        target.put(column.name(), Long.parseLong(row.get(i)));
                    } else if (row.get(i) != null) {
                        target.put(column.name(), row.get(i));
                    }
                }
                lines.append(json.writeValueAsString(object)).append('\n');
            }
            Files.writeString(folder.resolve(table.name() + ".jsonl"), lines);
        }
        return writeCharter("lines.yaml", table -> {
            Map<String, String> fields = new LinkedHashMap<>();
            for (int i = 1; i < table.columns().size(); i += 2) {
                String name = table.columns().get(i).name();
                fields.put(name, "/data/" + name);
            }
            return new JsonLines(folder.toAbsolutePath(), table.name() + ".jsonl", fields);
        });
    }

    /** Lines in which each column of a table has as many characters as its longest value; null where a value would be lost. */
    private Path fixedWidth() throws Exception {
        Map<String, Map<String, Positions>> positions = new LinkedHashMap<>();
        for (Table table : demo.charter().tables()) {
            List<StringBuilder> lines = new ArrayList<>();
            List<List<String>> sound = rows.get(table.name()).stream()
                    .filter(row -> !row.isEmpty())
                    .toList();
            sound.forEach(row -> lines.add(new StringBuilder()));
            Map<String, Positions> own = new LinkedHashMap<>();
            int from = 1;
            for (int i = 0; i < table.columns().size(); i++) {
                int place = i;
                int width = Math.max(
                        1,
                        sound.stream()
                                .mapToInt(row -> lengthOf(row.get(place)))
                                .max()
                                .orElse(1));
                for (int row = 0; row < sound.size(); row++) {
                    String cell = sound.get(row).get(i);
                    lines.get(row).append(cell == null ? "" : cell).append(" ".repeat(width - lengthOf(cell)));
                }
                own.put(table.columns().get(i).name(), new Positions(from, from + width - 1));
                from += width;
            }
            positions.put(table.name(), own);
            Files.writeString(folder.resolve(table.name() + ".txt"), String.join("\n", lines));
        }
        return writeCharter(
                "fixed.yaml",
                table -> new FixedWidth(
                        folder.toAbsolutePath(),
                        table.name() + ".txt",
                        "UTF-8",
                        false,
                        List.of(),
                        positions.get(table.name())));
    }

    private static int lengthOf(String cell) {
        return cell == null ? 0 : cell.codePointCount(0, cell.length());
    }

    /** One document with a list for each table. */
    private Path document() throws Exception {
        ObjectMapper json = new ObjectMapper();
        ObjectNode document = json.createObjectNode();
        document.put("made", "by hand");
        for (Table table : demo.charter().tables()) {
            var list = document.putObject(table.name()).putArray("all");
            for (List<String> row : rows.get(table.name())) {
                ObjectNode object = row.isEmpty() ? json.createObjectNode() : list.addObject();
                for (int i = 0; i < row.size(); i++) {
                    Column column = table.columns().get(i);
                    if (isPlainWhole(column, row.get(i))) {
                        object.put(column.name(), Long.parseLong(row.get(i)));
                    } else if (row.get(i) != null) {
                        object.put(column.name(), row.get(i));
                    }
                }
            }
        }
        json.writerWithDefaultPrettyPrinter()
                .writeValue(folder.resolve("coop.json").toFile(), document);
        return writeCharter(
                "document.yaml",
                table -> new JsonItems(folder.toAbsolutePath(), "coop.json", "/" + table.name() + "/all", Map.of()));
    }

    /** A workbook with a sheet for each table, which stands below a title and beside something else. */
    private Path workbook() throws Exception {
        try (OutputStream out = Files.newOutputStream(folder.resolve("coop.xlsx"));
                Workbook workbook = new Workbook(out, "test", "1.0")) {
            for (Table table : demo.charter().tables()) {
                Worksheet sheet = workbook.newWorksheet(table.name());
                sheet.value(0, 0, "Kept by the office");
                int at = 2;
                for (int i = 0; i < table.columns().size(); i++) {
                    sheet.value(at, i + 1, table.columns().get(i).name());
                }
                for (List<String> row : rows.get(table.name())) {
                    at += row.isEmpty() ? 0 : 1;
                    for (int i = 0; i < row.size(); i++) {
                        if (isPlainWhole(table.columns().get(i), row.get(i))) {
                            sheet.value(at, i + 1, Long.parseLong(row.get(i)));
                        } else if (row.get(i) != null) {
                            sheet.value(at, i + 1, row.get(i));
                        }
                    }
                    sheet.value(at, 60, "not a column");
                }
            }
        }
        return writeCharter(
                "workbook.yaml",
                table -> new SheetRows(
                        folder.toAbsolutePath(), "coop.xlsx", Optional.of(table.name()), Optional.of("B3:BA")));
    }

    /** The same as OpenDocument, without a title above. */
    private Path openDocument() throws Exception {
        StringBuilder content = new StringBuilder("""
                <office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"
                 xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0"
                 xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet>
                """);
        for (Table table : demo.charter().tables()) {
            content.append("<table:table table:name=\"").append(table.name()).append("\"><table:table-row>");
            table.columns().forEach(column -> content.append(openCell(column, column.name())));
            for (List<String> row : rows.get(table.name())) {
                content.append(row.isEmpty() ? "" : "</table:table-row><table:table-row>");
                for (int i = 0; i < row.size(); i++) {
                    content.append(openCell(table.columns().get(i), row.get(i)));
                }
            }
            content.append("</table:table-row></table:table>");
        }
        content.append("</office:spreadsheet></office:body></office:document-content>");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(folder.resolve("coop.ods")))) {
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(content.toString().getBytes(StandardCharsets.UTF_8));
        }
        return writeCharter(
                "open.yaml",
                table -> new SheetRows(
                        folder.toAbsolutePath(), "coop.ods", Optional.of(table.name()), Optional.empty()));
    }

    private static String openCell(Column column, String text) {
        if (text == null) {
            return "<table:table-cell/>";
        } else if (isPlainWhole(column, text)) {
            return "<table:table-cell office:value-type=\"float\" office:value=\"" + text + "\"/>";
        }
        // A blank counts as one only where it is said to.
        String escaped = text.replace("&", "&amp;").replace("<", "&lt;").replace(" ", "<text:s/>");
        return "<table:table-cell office:value-type=\"string\"><text:p>" + escaped + "</text:p></table:table-cell>";
    }

    /** Parquet files in which columns of whole numbers alone are such, and all others texts. */
    private Path parquet() throws Exception {
        for (Table table : demo.charter().tables()) {
            List<List<String>> sound = rows.get(table.name()).stream()
                    .filter(row -> !row.isEmpty())
                    .toList();
            Types.MessageTypeBuilder type = Types.buildMessage();
            boolean[] areWhole = new boolean[table.columns().size()];
            for (int i = 0; i < areWhole.length; i++) {
                int place = i;
                Column column = table.columns().get(i);
                areWhole[i] =
                        sound.stream().allMatch(row -> row.get(place) == null || isPlainWhole(column, row.get(place)));
                if (areWhole[i]) {
                    type.optional(PrimitiveTypeName.INT64).named(column.name());
                } else {
                    type.optional(PrimitiveTypeName.BINARY)
                            .as(LogicalTypeAnnotation.stringType())
                            .named(column.name());
                }
            }
            MessageType message = type.named(table.name());
            try (ParquetWriter<Group> writer = ExampleParquetWriter.builder(
                            new LocalOutputFile(folder.resolve(table.name() + ".parquet")))
                    .withType(message)
                    .withConf(new PlainParquetConfiguration())
                    .withRowGroupRowCountLimit(100)
                    .withCompressionCodec(CompressionCodecName.UNCOMPRESSED)
                    .build()) {
                for (List<String> row : sound) {
                    Group group = new SimpleGroup(message);
                    for (int i = 0; i < row.size(); i++) {
                        if (row.get(i) != null && areWhole[i]) {
                            group.add(i, Long.parseLong(row.get(i)));
                        } else if (row.get(i) != null) {
                            group.add(i, row.get(i));
                        }
                    }
                    writer.write(group);
                }
            }
        }
        return writeCharter(
                "parquet.yaml", table -> new ParquetRows(folder.toAbsolutePath(), table.name() + ".parquet", Map.of()));
    }

    private Path database() throws Exception {
        Path file = folder.resolve("coop.sqlite");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            connection.setAutoCommit(false);
            for (Table table : demo.charter().tables()) {
                fill(connection, table);
            }
            connection.commit();
        }
        return writeCharter(
                "database.yaml", table -> new SqliteRows(folder.toAbsolutePath(), "coop.sqlite", table.name()));
    }

    /** The demo in a server, each value as the text that it is, with a number before it by which rows keep their order. */
    private Path server(String url, String user, String quote, String text) throws Exception {
        try (Connection connection = DriverManager.getConnection(url)) {
            for (Table table : demo.charter().tables()) {
                String name = quote + table.name() + quote;
                String columns = table.columns().stream()
                        .map(c -> quote + c.name() + quote + " " + text)
                        .collect(Collectors.joining(", "));
                connection.createStatement().execute("DROP TABLE IF EXISTS " + name);
                connection
                        .createStatement()
                        .execute("CREATE TABLE " + name + " (place integer PRIMARY KEY, " + columns + ")");
                insert(connection, table, name);
            }
        }
        Program.allow(url);
        Database database = new Database(
                DatabaseAddress.of(url), Optional.of(user), Optional.empty(), Optional.empty(), false, false);
        return writeCharter(
                "server.yaml",
                table -> new DatabaseRows(folder.toAbsolutePath(), database, table.name(), false, List.of()));
    }

    private void insert(Connection connection, Table table, String name) throws SQLException {
        String marks = String.join(", ", Collections.nCopies(table.columns().size() + 1, "?"));
        connection.setAutoCommit(false);
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO " + name + " VALUES (" + marks + ")")) {
            int place = 0;
            for (List<String> row : rows.get(table.name())) {
                if (!row.isEmpty()) {
                    insert.setInt(1, ++place);
                    for (int i = 0; i < row.size(); i++) {
                        insert.setString(i + 2, row.get(i));
                    }
                    insert.execute();
                }
            }
        }
        connection.commit();
        connection.setAutoCommit(true);
    }

    private void fill(Connection connection, Table table) throws SQLException {
        String columns = table.columns().stream().map(c -> '"' + c.name() + '"').collect(Collectors.joining(", "));
        connection.createStatement().execute("CREATE TABLE \"" + table.name() + "\" (" + columns + ")");
        String marks = String.join(", ", Collections.nCopies(table.columns().size(), "?"));
        try (PreparedStatement insert =
                connection.prepareStatement("INSERT INTO \"" + table.name() + "\" VALUES (" + marks + ")")) {
            for (List<String> row : rows.get(table.name())) {
                if (row.isEmpty()) {
                    continue;
                }
                for (int i = 0; i < row.size(); i++) {
                    if (isPlainWhole(table.columns().get(i), row.get(i))) {
                        insert.setLong(i + 1, Long.parseLong(row.get(i)));
                    } else {
                        insert.setString(i + 1, row.get(i));
                    }
                }
                insert.execute();
            }
        }
    }

    /** What a check says, without where rows stand. */
    private JsonNode findings(Path charter, String... more) throws IOException {
        Path evidence = folder.resolve("evidence of " + charter.getFileName());
        List<String> words = new ArrayList<>(List.of(
                "check",
                charter.toString(),
                "--json",
                "--reveal",
                "--examples",
                "100",
                "--evidence",
                evidence.toString()));
        words.addAll(List.of(more));
        Program check = Program.run(words.toArray(new String[0]));
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        ObjectNode json = (ObjectNode) check.json();
        json.remove(List.of("made", "charter", "tables"));
        json.findParents("file").forEach(node -> ((ObjectNode) node).remove(List.of("file", "line")));
        json.findParents("next").forEach(node -> ((ObjectNode) node).remove(List.of("next", "words")));
        json.findParents("raw").forEach(node -> ((ObjectNode) node).remove(List.of("raw", "problem")));
        json.findParents("reasons").forEach(node -> {
            if (node.path("finding").asText().equals("malformed row")) {
                ((ObjectNode) node).remove("reasons");
            }
        });
        return json;
    }

    @Test
    void json_lines_give_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(true));
        assertThat(text.get("findings").size()).isGreaterThan(30);
        assertThat(findings(jsonLines(true))).isEqualTo(text);
        assertThat(findings(
                        folder.resolve("lines.yaml"), "--force", "--chunk", "100", "--memory", "4k", "--threads", "3"))
                .isEqualTo(text);
    }

    @Test
    void a_workbook_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        assertThat(findings(workbook())).isEqualTo(text);
        assertThat(findings(folder.resolve("workbook.yaml"), "--memory", "4k", "--threads", "3", "--force"))
                .isEqualTo(text);
    }

    @Test
    void an_open_document_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        assertThat(findings(openDocument())).isEqualTo(text);
    }

    @Test
    void a_document_of_json_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        assertThat(findings(document())).isEqualTo(text);
    }

    /** Blanks at the ends of values, line breaks in them and empty texts are lost in such files: the rows without any are compared. */
    @Test
    void text_of_fixed_width_gives_the_findings_of_delimited_text() throws Exception {
        rows.values()
                .forEach(all -> all.replaceAll(row -> row.stream()
                        .map(cell -> cell == null || cell.isBlank()
                                ? null
                                : cell.strip().replace('\n', ' '))
                        .toList()));
        JsonNode text = findings(delimited(false));
        assertThat(findings(fixedWidth())).isEqualTo(text);
    }

    @Test
    void parquet_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        assertThat(findings(parquet())).isEqualTo(text);
        assertThat(findings(
                        folder.resolve("parquet.yaml"),
                        "--memory",
                        "4k",
                        "--threads",
                        "3",
                        "--chunk",
                        "100",
                        "--force"))
                .isEqualTo(text);
    }

    @Test
    void a_database_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        assertThat(findings(database())).isEqualTo(text);
        assertThat(findings(folder.resolve("database.yaml"), "--memory", "4k", "--threads", "3", "--force"))
                .isEqualTo(text);
    }

    @Test
    void postgresql_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        try (EmbeddedPostgres server = EmbeddedPostgres.start()) {
            Path charter = server(server.getJdbcUrl("postgres", "postgres"), "postgres", "\"", "text");
            assertThat(findings(charter)).isEqualTo(text);
            assertThat(findings(charter, "--memory", "4k", "--threads", "3", "--force"))
                    .isEqualTo(text);
        }
    }

    @Test
    void mariadb_gives_the_findings_of_delimited_text() throws Exception {
        JsonNode text = findings(delimited(false));
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isPresent()) {
            try (MariadbServer server = started.get()) {
                Path charter = server(server.address(), "root", "`", "longtext character set utf8mb4");
                assertThat(findings(charter)).isEqualTo(text);
                assertThat(findings(charter, "--memory", "4k", "--threads", "3", "--force"))
                        .isEqualTo(text);
            }
        }
    }

    @Test
    void a_rehearsal_over_a_database_writes_sql_and_refuses_to_write_tables() throws Exception {
        Path charter = database();
        Program script = Program.run(
                "rehearse",
                charter.toString(),
                "-e",
                "DELETE FROM payout WHERE \"Nr\" = 3",
                "--write-sql",
                "sqlite:" + folder.resolve("change.sql"));
        assertThat(script.err()).contains("change.sql");
        assertThat(Files.readString(folder.resolve("change.sql"))).contains("DELETE FROM");
        Program tables = Program.run(
                "rehearse",
                charter.toString(),
                "-e",
                "DELETE FROM payout WHERE \"Nr\" = 3",
                "--into",
                folder.resolve("new").toString());
        assertThat(tables.status()).isEqualTo(2);
        assertThat(tables.err()).contains("rows of table payout would change", "--write-sql");
        assertThat(folder.resolve("new")).doesNotExist();
    }

    @Test
    void rows_in_a_database_can_be_checked_as_a_whole_before_and_after_a_change() throws Exception {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("t.db"))) {
            connection.createStatement().execute("CREATE TABLE t (id INTEGER, p INTEGER)");
            connection.createStatement().execute("INSERT INTO t VALUES (1, NULL), (2, 1), (3, 1)");
        }
        Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  t:
                    rows: {file: t.db, table: t}
                    columns: {id: integer, p: integer}
                    primary_key: id
                    foreign_keys: {up: {columns: p, references: t}}
                    rules: {two: "count(t.up) in (0, 2)"}
                """);
        Program rehearsal = Program.run(
                "rehearse", folder.resolve("charter.yaml").toString(), "-e", "DELETE FROM t WHERE id = 3", "--json");
        assertThat(rehearsal.status()).as(rehearsal.err()).isEqualTo(1);
        assertThat(rehearsal.json().get("findings_added").get(0).get("at").asText())
                .isEqualTo("two");
    }
}
