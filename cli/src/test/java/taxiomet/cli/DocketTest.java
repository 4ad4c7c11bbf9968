package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Dockets as people fill them in: what is decided is carried out, and all else is said and left alone. */
class DocketTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void copy_the_demo() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("..", "demo"))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Files.copy(file, folder.resolve(file.getFileName()));
            }
        }
    }

    private Program run(String... arguments) {
        List<String> all = new ArrayList<>(List.of(arguments));
        all.addAll(1, List.of(folder.resolve("charter.yaml").toString()));
        all.addAll(List.of("--key-file", folder.resolve("key").toString()));
        return Program.run(all.toArray(new String[0]));
    }

    private Path docket() {
        Path file = folder.resolve("docket.csv");
        Program docket = run("docket", "--report", file.toString(), "--reveal");
        assertThat(docket.status()).as(docket.err()).isZero();
        return file;
    }

    /** A docket as its lines; the first names the columns. */
    private static List<List<String>> read(Path file) throws IOException {
        List<List<String>> lines = new ArrayList<>();
        try (CsvReader<CsvRecord> reader = CsvReader.builder().ofCsvRecord(file)) {
            reader.forEach(line -> lines.add(new ArrayList<>(line.getFields())));
        }
        return lines;
    }

    private static void write(List<List<String>> lines, Path file) throws IOException {
        try (CsvWriter writer = CsvWriter.builder().build(file)) {
            lines.forEach(writer::writeRecord);
        }
    }

    private static String cell(List<List<String>> docket, List<String> line, String column) {
        return line.get(docket.get(0).indexOf(column));
    }

    private static void fill(List<List<String>> docket, List<String> line, String column, String text) {
        line.set(docket.get(0).indexOf(column), text);
    }

    private static List<String> lineOf(List<List<String>> docket, String finding, String row) {
        return docket.stream()
                .filter(line -> cell(docket, line, "finding").equals(finding)
                        && cell(docket, line, "row").startsWith(row))
                .findFirst()
                .orElseThrow();
    }

    private static List<String> choices(List<List<String>> docket, List<String> line) {
        return List.of(cell(docket, line, "choices").split(" \\| "));
    }

    private JsonNode rehearsed(Path file, String... more) {
        List<String> arguments = new ArrayList<>(List.of("rehearse", file.toString(), "--reveal", "--json"));
        arguments.addAll(List.of(more));
        Program rehearse = run(arguments.toArray(new String[0]));
        assertThat(rehearse.status()).as(rehearse.err()).isIn(0, 1);
        return rehearse.json();
    }

    /** All faults of a check: {@code finding at table.place: row by file and number}. */
    private static Set<String> faults(String charter) {
        Set<String> faults = new TreeSet<>();
        Program check = Program.run("check", charter, "--json", "--examples", "5000", "--reveal");
        assertThat(check.status()).as(check.err()).isEqualTo(1);
        for (JsonNode finding : check.json().get("findings")) {
            String place = finding.get("finding").asText() + " at "
                    + finding.get("table").asText() + "." + finding.get("at").asText() + ": ";
            for (JsonNode row : finding.get("examples")) {
                boolean counts = !finding.get("severity").asText().equals("note") && !row.has("accepted");
                JsonNode called = row.has("key") ? row.get("key") : row.get("row");
                if (counts) {
                    faults.add(place + called);
                }
            }
        }
        return faults;
    }

    private static Set<String> leftOut(JsonNode rehearsal) {
        Set<String> why = new TreeSet<>();
        rehearsal
                .get("docket")
                .get("left_out")
                .forEach(remark -> why.add(remark.get("why").asText() + ", "
                        + remark.get("place").asText().replaceAll("^.*, ", "")));
        return why;
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void what_is_decided_is_mended_and_what_is_left_open_stays(long seed) throws IOException {
        Random random = new Random(seed);
        List<List<String>> docket = read(docket());
        Set<String> decided = new TreeSet<>();
        int contradicted = 0;
        for (List<String> line : docket.subList(1, docket.size())) {
            List<String> choices = choices(docket, line);
            boolean isSafe = cell(docket, line, "finding").startsWith("orphan")
                    || cell(docket, line, "finding").startsWith("value not allowed")
                    || cell(docket, line, "finding").startsWith("broken rule at fee");
            List<String> usable = choices.stream()
                    .filter(choice -> choice.startsWith("point it")
                            || choice.startsWith("change district to N")
                            || choice.startsWith("bear it")
                            || choice.equals("change fee_due to the new value"))
                    .toList();
            if (isSafe && !usable.isEmpty() && random.nextBoolean()) {
                String choice = usable.get(random.nextInt(usable.size()));
                fill(docket, line, "decision", choice);
                fill(docket, line, "new value", choice.contains("new value") ? "3.50" : "");
                fill(docket, line, "until", choice.startsWith("bear") ? "2999-12-31" : "");
                fill(docket, line, "reason", choice.startsWith("bear") ? "seed " + seed : "");
                decided.add(cell(docket, line, "finding") + ", " + cell(docket, line, "row"));
            }
        }
        for (List<String> line : docket) {
            if (cell(docket, line, "finding").equals("duplicate at primary_key")
                    && cell(docket, line, "table").equals("hive")) {
                fill(docket, line, "decision", "delete this copy");
                contradicted++;
            }
        }
        List<List<String>> shuffled = new ArrayList<>(docket.subList(1, docket.size()));
        Collections.shuffle(shuffled, random);
        shuffled.add(0, docket.get(0));
        Path filled = folder.resolve("filled.csv");
        write(shuffled, filled);
        Path into = folder.resolve("decided");
        JsonNode rehearsal = rehearsed(filled, "--into", into.toString());
        assertThat(rehearsal.get("docket").get("decided").asInt())
                .as("seed %d", seed)
                .isEqualTo(decided.size());
        assertThat(rehearsal.get("docket").get("open"))
                .as("seed %d", seed)
                .hasSize(docket.size() - 1 - decided.size() - contradicted);
        assertThat(leftOut(rehearsal))
                .as("seed %d", seed)
                .allMatch(why -> why.startsWith("contradiction"))
                .hasSize(1);
        Set<String> before = faults(folder.resolve("charter.yaml").toString());
        Set<String> after = faults(into.resolve("charter.yaml").toString());
        assertThat(before).as("seed %d", seed).containsAll(after);
        assertThat(before.size() - after.size()).as("seed %d", seed).isEqualTo(decided.size());
    }

    @Test
    void a_docket_that_was_edited_or_is_older_than_the_rows_is_said_and_nothing_is_guessed() throws IOException {
        List<List<String>> docket = read(docket());
        List<String> edited = lineOf(docket, "orphan at apiary_keeper", "13");
        fill(docket, edited, "decision", choices(docket, edited).get(0));
        fill(docket, edited, "holds", "k-007");
        List<String> changed = lineOf(docket, "orphan at apiary_keeper", "31");
        fill(docket, changed, "decision", choices(docket, changed).get(0));
        List<String> mended = lineOf(docket, "value not allowed at district", "18");
        fill(docket, mended, "decision", choices(docket, mended).get(0));
        List<String> unknown = lineOf(docket, "broken rule at fee_not_negative", "51");
        fill(docket, unknown, "decision", "do what is right");
        List<String> lacking = lineOf(docket, "broken rule at opened_after_joining", "40");
        fill(docket, lacking, "decision", "bear it until the day given");
        List<String> half = lineOf(docket, "wrong length at name", "45");
        fill(docket, half, "new value", "Nameless");
        docket.add(new ArrayList<>(lineOf(docket, "pattern not met at grid_ref", "26")));
        fill(docket, lineOf(docket, "pattern not met at grid_ref", "26"), "decision", "delete this row");
        fill(docket, docket.get(docket.size() - 1), "decision", "it is mended where it comes from");
        Path filled = folder.resolve("filled.csv");
        write(docket, filled);
        Path apiaries = folder.resolve("apiaries.csv");
        Files.writeString(
                apiaries,
                Files.readString(apiaries)
                        .replace("31,Chestnut 2,", "31,Chestnut II,")
                        .replaceFirst("(?m)^(18,.*),W9,", "$1,N1,"));
        Program rehearse = run("rehearse", filled.toString(), "--reveal");
        assertThat(rehearse.status()).isEqualTo(1);
        assertThat(rehearse.out().replaceAll("\\s+", " "))
                .contains("docket: 0 decisions of " + (docket.size() - 1) + " rows")
                .contains("edited ", "`holds` was changed to k-007")
                .contains("row has changed ", "apiary 31: Chestnut II is no longer as the docket shows it")
                .contains("no such fault ", "the fault is there no more")
                .contains("`do what is right` is none of its choices")
                .contains("a fault that is borne needs a reason")
                .contains("something is filled in, and no decision chosen")
                .contains("the same fault stands in the docket twice, decided otherwise")
                .contains("no decision changes a row");
    }

    @Test
    void a_workbook_has_a_list_for_each_line_and_is_read_back_as_a_spreadsheet_saves_it() throws IOException {
        Path workbook = folder.resolve("docket.xlsx");
        assertThat(run("docket", "--report", workbook.toString()).status()).isZero();
        List<List<String>> docket = new ArrayList<>();
        try (InputStream in = Files.newInputStream(workbook);
                ReadableWorkbook read = new ReadableWorkbook(in)) {
            for (Row row : read.findSheet("decisions").orElseThrow().read()) {
                List<String> cells = new ArrayList<>();
                for (int i = 0; i < 14; i++) {
                    cells.add(row.getCellText(i));
                }
                docket.add(cells);
            }
            assertThat(read.findSheet("choices")).isPresent();
        }
        List<String> line = lineOf(docket, "orphan at apiary_keeper", "13");
        fill(docket, line, "decision", "point it at K-008 (Mabon Inglebrook)");
        Path saved = folder.resolve("saved.xlsx");
        try (OutputStream out = Files.newOutputStream(saved);
                Workbook written = new Workbook(out, "another", "1.0")) {
            Worksheet sheet = written.newWorksheet("decisions");
            for (int i = 0; i < docket.size(); i++) {
                for (int j = 0; j < 14; j++) {
                    sheet.value(
                            i,
                            j,
                            docket.get(i).get(j).isEmpty()
                                    ? null
                                    : docket.get(i).get(j));
                }
            }
        }
        JsonNode rehearsal = rehearsed(saved);
        assertThat(rehearsal.get("docket").get("decided").asInt()).isEqualTo(1);
        assertThat(rehearsal.get("docket").get("left_out")).isEmpty();
        assertThat(rehearsal.get("docket").get("not_in_docket").asInt()).isZero();
    }

    @Test
    void personal_values_are_hidden_from_the_owner_unless_they_are_revealed() throws IOException {
        Path veiled = folder.resolve("veiled.csv");
        run("docket", "--only", "keeper", "--report", veiled.toString());
        assertThat(Files.readString(veiled)).contains("veiled-").doesNotContain("@merrowvale.example");
        assertThat(Files.readString(docket())).contains("@merrowvale.example");
        Path dockets = folder.resolve("dockets");
        assertThat(run("docket", "--into", dockets.toString(), "--per-owner").status())
                .isZero();
        assertThat(Files.readString(dockets.resolve("treasurer.docket.csv")))
                .contains("payout")
                .doesNotContain("apiary_keeper");
        assertThat(Files.readString(dockets.resolve("K-015.docket.csv")))
                .contains("grid_ref")
                .doesNotContain("payout");
    }
}
