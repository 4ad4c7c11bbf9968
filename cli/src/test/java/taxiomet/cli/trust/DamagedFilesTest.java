package taxiomet.cli.trust;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import io.airlift.compress.zstd.ZstdOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
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
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.cli.Program;

/**
 * Good files of every kind that is read, damaged at random: each run ends with a status and words, in bounded time. More of them with {@code
 * -Dtaxiomet.damages=2000}, others with {@code -Dtaxiomet.seed}.
 */
class DamagedFilesTest {
    private static final int DAMAGES = Integer.getInteger("taxiomet.damages", 15);
    private static final long SEED = Long.getLong("taxiomet.seed", 32L);
    private static final Duration PATIENCE = Duration.ofSeconds(30);
    private static final List<String> TOKENS = List.of(
            "\0",
            "'",
            "\"",
            "{",
            "[[[[[[[[[[[[[[",
            "]",
            ":",
            "-",
            "99999999999999999999",
            "-1",
            "1e999",
            "NaN",
            "${X_USER}",
            "\uFEFF",
            "&x;",
            "<",
            "/>",
            "\n",
            "\r",
            "\t",
            ",",
            "*a",
            "&a",
            "!!x",
            "%",
            "charter",
            "null",
            "\u202E",
            "a:b",
            "../..",
            "(",
            ")",
            ";");

    @TempDir
    private Path folder;

    private final List<String> columns = List.of("id", "name", "built");
    private final List<List<String>> boats = List.of(
            List.of("1", "Tern", "1999-02-03"),
            List.of("2", "Gull", "2001-12-31"),
            List.of("2", "Auk", "no day"),
            List.of("4", "", ""));

    private Path write(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        return Files.writeString(file, text);
    }

    private static String charter(String rows) {
        return """
                charter: 1
                title: Harbour
                tables:
                  boat:
                    rows: %s
                    columns:
                      id: integer
                      name: {type: varchar(20), not_null: yes, pattern: "[A-Z].*", length: 1..20}
                      built: {type: date, default: {sql: current_date}}
                    primary_key: id
                    unique: {named: [name]}
                    rules: {late: built > '1900-01-01', some: count(trip.trip_boat) >= 1}
                    label: name
                    owner: name
                  trip:
                    rows: trip.csv
                    columns: {no: integer, boat: integer, fare: "numeric(9,2)"}
                    primary_key: no
                    foreign_keys: {trip_boat: {columns: boat, references: boat, on_delete: cascade, children: 0..3}}
                    totals: [fare]
                """.formatted(rows);
    }

    @BeforeEach
    void files() throws Exception {
        StringBuilder csv = new StringBuilder(String.join(",", columns) + "\n");
        StringBuilder lines = new StringBuilder();
        for (List<String> row : boats) {
            csv.append(String.join(",", row)).append('\n');
            lines.append("{\"id\": " + row.get(0) + ", \"name\": \"" + row.get(1) + "\", \"built\": \"" + row.get(2)
                    + "\"}\n");
        }
        write("boat.csv", csv.toString());
        write("trip.csv", "no,boat,fare\n1,1,2.50\n2,2,3.00\n3,7,1.25\n4,2,x\n");
        write("boat.jsonl", lines.toString());
        write("boat.json", "{\"boats\": [" + lines.toString().strip().replace("}\n", "},\n") + "]}");
        byte[] bytes = csv.toString().getBytes(StandardCharsets.UTF_8);
        try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(folder.resolve("boat.csv.gz")))) {
            out.write(bytes);
        }
        try (OutputStream out = new ZstdOutputStream(Files.newOutputStream(folder.resolve("boat.csv.zst")))) {
            out.write(bytes);
        }
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(folder.resolve("boat.csv.zip")))) {
            zip.putNextEntry(new ZipEntry("boat.csv"));
            zip.write(bytes);
        }
        workbooks();
        parquet();
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("boat.sqlite"))) {
            connection.createStatement().execute("CREATE TABLE boat (id integer, name text NOT NULL, built date)");
            connection
                    .createStatement()
                    .execute("INSERT INTO boat VALUES (1, 'Tern', '1999-02-03'), (2, 'Gull', 7), (2, 'Auk', x'00ff')");
            connection.createStatement().execute("CREATE VIEW seen AS SELECT upper(name) AS name FROM boat");
        }
        for (String rows : List.of(
                "boat.csv",
                "boat.jsonl",
                "{file: boat.json, items: /boats}",
                "boat.csv.gz",
                "boat.csv.zst",
                "boat.csv.zip",
                "boat.xlsx",
                "boat.ods",
                "boat.parquet",
                "{file: boat.sqlite, table: boat}")) {
            write("of " + rows.replaceAll("[^a-z.]", " ").strip().replaceAll(" .*|file ", "") + ".yaml", charter(rows));
        }
        write("of boat.json.yaml", charter("{file: boat.json, items: /boats}"));
        write("of boat.sqlite.yaml", charter("{file: boat.sqlite, table: boat}"));
        write("charter.yaml", charter("boat.csv"));
        write("charter.json", """
                {"charter": 1, "tables": {"boat": {"rows": "boat.csv", "columns": {"id": "integer", "name": {"type": "text"}},
                "primary_key": "id", "unique": {"named": ["name"]}, "rules": {"own": "id > 0 and name like 'T%'"}}}}
                """);
        write("schema.sql", """
                CREATE TABLE boat (id integer PRIMARY KEY, name varchar(20) NOT NULL UNIQUE, built date DEFAULT CURRENT_DATE, CHECK (id > 0));
                CREATE TABLE trip (no integer, boat integer REFERENCES boat (id) ON DELETE SET NULL, fare numeric(9,2));
                ALTER TABLE trip ADD CONSTRAINT numbered PRIMARY KEY (no);
                """);
        write("boat-metadata.json", """
                {"@context": "http://www.w3.org/ns/csvw", "url": "boat.csv", "dialect": {"delimiter": ","}, "tableSchema": {"columns": [
                {"name": "id", "titles": "id", "datatype": "integer"}, {"name": "name", "titles": "name", "datatype": {"base": "string",
                "format": "[A-Z].*", "maxLength": 20}}, {"name": "built", "titles": "built", "datatype": {"base": "date", "format": "yyyy-MM-dd"}}],
                "primaryKey": "id"}}
                """);
        write(
                "change.sql",
                "UPDATE boat SET name = 'Skua' WHERE id = 1;\nDELETE FROM trip WHERE no IN (2, 3);\n"
                        + "INSERT INTO boat (id, name) VALUES (9, 'Ibis');\n");
        write(
                "change.yaml",
                "proposal: 1\nproposed:\n  - {do: merge, table: boat, goes: 1, stays: 4}\n  - {do: renumber, table: boat, from: 4, to: 5}\n");
        String charter = folder.resolve("charter.yaml").toString();
        run(
                "docket",
                charter,
                "--report",
                folder.resolve("docket.csv").toString(),
                "--report",
                folder.resolve("docket.xlsx").toString());
        run("check", charter, "--evidence", folder.resolve("evidence").toString());
        run("check", charter, "--keep-history", folder.resolve("history").toString());
        Files.move(only(folder.resolve("history")), folder.resolve("history/2020.kept.json.gz"));
        run(
                "rehearse",
                charter,
                "-e",
                "DELETE FROM trip WHERE no = 2",
                "--into",
                folder.resolve("after").toString());
        Files.copy(folder.resolve("evidence/result.json"), folder.resolve("result.json"));
        Files.copy(only(folder.resolve("evidence"), "orphan"), folder.resolve("orphan.csv"));
        Files.copy(folder.resolve("home/.config/taxiomet/history.key"), folder.resolve("own.key"));
    }

    private static Path only(Path in, String... holds) throws IOException {
        try (var files = Files.list(in)) {
            return files.filter(file -> Arrays.stream(holds).allMatch(file.toString()::contains))
                    .findFirst()
                    .orElseThrow();
        }
    }

    private void workbooks() throws IOException {
        try (OutputStream out = Files.newOutputStream(folder.resolve("boat.xlsx"));
                Workbook workbook = new Workbook(out, "test", "1.0")) {
            Worksheet sheet = workbook.newWorksheet("boat");
            for (int i = 0; i < 3; i++) {
                sheet.value(0, i, columns.get(i));
                for (int row = 0; row < boats.size(); row++) {
                    if (i == 0) {
                        sheet.value(row + 1, i, Integer.parseInt(boats.get(row).get(i)));
                    } else {
                        sheet.value(row + 1, i, boats.get(row).get(i));
                    }
                }
            }
        }
        StringBuilder content = new StringBuilder(
                "<office:document-content xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
                        + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\" xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\">"
                        + "<office:body><office:spreadsheet><table:table table:name=\"boat\">");
        List<List<String>> all = new ArrayList<>(List.of(columns));
        all.addAll(boats);
        for (List<String> row : all) {
            content.append("<table:table-row table:number-rows-repeated=\"1\">");
            row.forEach(cell -> content.append(
                            "<table:table-cell table:number-columns-repeated=\"1\" office:value-type=\"string\"><text:p>")
                    .append(cell)
                    .append("</text:p></table:table-cell>"));
            content.append("</table:table-row>");
        }
        content.append("</table:table></office:spreadsheet></office:body></office:document-content>");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(folder.resolve("boat.ods")))) {
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(content.toString().getBytes(StandardCharsets.UTF_8));
        }
    }

    private void parquet() throws IOException {
        MessageType type = Types.buildMessage()
                .optional(PrimitiveTypeName.INT64)
                .named("id")
                .optional(PrimitiveTypeName.BINARY)
                .as(LogicalTypeAnnotation.stringType())
                .named("name")
                .optional(PrimitiveTypeName.BINARY)
                .as(LogicalTypeAnnotation.stringType())
                .named("built")
                .named("boat");
        try (ParquetWriter<Group> writer = ExampleParquetWriter.builder(
                        new LocalOutputFile(folder.resolve("boat.parquet")))
                .withType(type)
                .withConf(new PlainParquetConfiguration())
                .withCompressionCodec(CompressionCodecName.UNCOMPRESSED)
                .build()) {
            for (List<String> row : boats) {
                Group group = new SimpleGroup(type);
                group.add("id", Long.parseLong(row.get(0)));
                group.add("name", row.get(1));
                group.add("built", row.get(2));
                writer.write(group);
            }
        }
    }

    private Program run(String... words) {
        return Program.run(Map.of("HOME", folder.resolve("home").toString()), words);
    }

    private static byte[] damaged(byte[] good, Random random) {
        List<Byte> bytes = new ArrayList<>();
        for (byte b : good) {
            bytes.add(b);
        }
        int times = 1 + random.nextInt(3);
        for (int i = 0; i < times && !bytes.isEmpty(); i++) {
            int at = random.nextInt(bytes.size());
            int end = Math.min(bytes.size(), at + 1 + random.nextInt(random.nextBoolean() ? 4 : 200));
            switch (random.nextInt(7)) {
                case 0 -> bytes.set(at, (byte) random.nextInt(256));
                case 1 -> bytes.set(at, (byte) (bytes.get(at) ^ 1 << random.nextInt(8)));
                case 2 -> bytes.subList(at, end).clear();
                case 3 -> bytes.addAll(random.nextInt(bytes.size()), new ArrayList<>(bytes.subList(at, end)));
                case 4 -> bytes.subList(at, bytes.size()).clear();
                default -> {
                    byte[] token = TOKENS.get(random.nextInt(TOKENS.size())).getBytes(StandardCharsets.UTF_8);
                    for (int t = 0; t < token.length; t++) {
                        bytes.add(at + t, token[t]);
                    }
                }
            }
        }
        byte[] all = new byte[bytes.size()];
        for (int i = 0; i < all.length; i++) {
            all[i] = bytes.get(i);
        }
        return all;
    }

    /** Of an archive sometimes what is in it. */
    private static byte[] damagedInside(Path good, Random random) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipFile zip = new ZipFile(good.toFile());
                ZipOutputStream again = new ZipOutputStream(out)) {
            List<? extends ZipEntry> entries = Collections.list(zip.entries());
            ZipEntry chosen = entries.get(random.nextInt(entries.size()));
            for (ZipEntry entry : entries) {
                if (entry == chosen && random.nextInt(8) == 0) {
                    continue;
                }
                byte[] content = zip.getInputStream(entry).readAllBytes();
                again.putNextEntry(new ZipEntry(entry.getName()));
                again.write(entry == chosen ? damaged(content, random) : content);
            }
        }
        return out.toByteArray();
    }

    private Map<String, String[]> commands() {
        Map<String, String[]> all = new LinkedHashMap<>();
        for (String data : List.of(
                "boat.csv",
                "boat.jsonl",
                "boat.json",
                "boat.csv.gz",
                "boat.csv.zst",
                "boat.csv.zip",
                "boat.xlsx",
                "boat.ods",
                "boat.parquet",
                "boat.sqlite")) {
            all.put(data, new String[] {"check", "of " + data + ".yaml"});
        }
        all.put("charter.yaml", new String[] {"check", "charter.yaml"});
        all.put("charter.json", new String[] {"check", "charter.json"});
        all.put("schema.sql", new String[] {"check", "schema.sql"});
        all.put("boat-metadata.json", new String[] {"check", "boat-metadata.json"});
        all.put("change.sql", new String[] {"rehearse", "charter.yaml", "change.sql"});
        all.put("change.yaml", new String[] {"rehearse", "charter.yaml", "change.yaml"});
        all.put("docket.csv", new String[] {"rehearse", "charter.yaml", "docket.csv"});
        all.put("docket.xlsx", new String[] {"rehearse", "charter.yaml", "docket.xlsx"});
        all.put("history/2020.kept.json.gz", new String[] {"check", "charter.yaml", "--since", "history"});
        all.put("result.json", new String[] {"map", "charter.yaml", "--check", "result.json"});
        all.put("orphan.csv", new String[] {"rehearse", "charter.yaml", "--delete", "trip=orphan.csv"});
        all.put("after/undo.json", new String[] {"rehearse", "--undo", "after/undo.json", "--into", "back", "--force"});
        all.put("own.key", new String[] {"check", "charter.yaml", "--since", "history", "--key-file", "own.key"});
        return all;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "boat.csv",
                "boat.jsonl",
                "boat.json",
                "boat.csv.gz",
                "boat.csv.zst",
                "boat.csv.zip",
                "boat.xlsx",
                "boat.ods",
                "boat.parquet",
                "boat.sqlite",
                "charter.yaml",
                "charter.json",
                "schema.sql",
                "boat-metadata.json",
                "change.sql",
                "change.yaml",
                "docket.csv",
                "docket.xlsx",
                "history/2020.kept.json.gz",
                "result.json",
                "orphan.csv",
                "after/undo.json",
                "own.key"
            })
    void a_damaged_file_ends_a_run_with_a_status_and_words(String name) throws Exception {
        Path file = folder.resolve(name);
        byte[] good = Files.readAllBytes(file);
        Path kept = Files.write(folder.resolve("good"), good);
        String[] words = commands().get(name).clone();
        for (int i = 0; i < words.length; i++) {
            int equals = words[i].indexOf('=') + 1;
            boolean isFile = words[i].matches(".*[./].*|history|back");
            words[i] = isFile ? words[i].substring(0, equals) + folder.resolve(words[i].substring(equals)) : words[i];
        }
        assertThat(run(words).status()).as("undamaged " + name).isBetween(0, 1);
        boolean isArchive = name.endsWith(".xlsx") || name.endsWith(".ods") || name.endsWith(".zip");
        List<String> bad = new ArrayList<>();
        int otherwise = 0;
        for (int i = 0; i < DAMAGES; i++) {
            Random random = new Random(SEED * 1_000_003 + i);
            Files.write(file, isArchive && random.nextInt(3) > 0 ? damagedInside(kept, random) : damaged(good, random));
            long start = System.nanoTime();
            String[] command =
                    i % 5 == 4 && name.startsWith("boat.") ? new String[] {"survey", file.toString()} : words;
            Program run = assertTimeoutPreemptively(PATIENCE, () -> run(command), name + " damage " + i);
            String said = run.err() + run.out();
            otherwise += run.status() > 0 ? 1 : 0;
            boolean isBad = run.status() < 0
                    || run.status() > 3
                    || said.contains("should not have happened")
                    || said.contains("(null)")
                    || said.contains("enough memory")
                    || said.contains("\tat ")
                    || said.matches("(?s).*\\b[a-z]+\\.[a-z.]+\\.[A-Z]\\w*(Exception|Error)\\b.*");
            if (isBad) {
                bad.add(i + " (" + (System.nanoTime() - start) / 1_000_000 + " ms): "
                        + run.err().strip());
            }
        }
        assertThat(bad).as(name + ", seed " + SEED).isEmpty();
        assertThat(otherwise).isPositive();
    }
}
