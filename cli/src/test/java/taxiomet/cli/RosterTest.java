package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.NamedCsvRecord;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.usermodel.WorkbookFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Rosters of the demo, as users ask for them. */
class RosterTest {
    private static final String CHARTER = "../demo/charter.yaml";

    @TempDir
    private Path folder;

    private static Program roster(String... arguments) {
        String[] all = new String[arguments.length + 2];
        all[0] = "roster";
        all[1] = CHARTER;
        System.arraycopy(arguments, 0, all, 2, arguments.length);
        return Program.run(all);
    }

    private List<NamedCsvRecord> csv(String... arguments) throws IOException {
        Path file = folder.resolve("r" + System.nanoTime() + ".csv");
        String[] all = new String[arguments.length + 2];
        System.arraycopy(arguments, 0, all, 0, arguments.length);
        all[arguments.length] = "--report";
        all[arguments.length + 1] = file.toString();
        Program program = roster(all);
        assertThat(program.status()).as(program.err()).isZero();
        try (CsvReader<NamedCsvRecord> reader = CsvReader.builder().ofNamedCsvRecord(file, StandardCharsets.UTF_8)) {
            return reader.stream().toList();
        }
    }

    @Test
    void every_row_of_the_children_is_listed_once() throws IOException {
        List<NamedCsvRecord> lines = csv("apiary", "--through", "hive_apiary", "--childless", "hide");

        assertThat(lines).hasSize(210);
        assertThat(lines.stream().filter(line -> line.getField("section").equals("parent missing")))
                .hasSize(9)
                .anySatisfy(line -> assertThat(line.getField("apiary_id")).isEqualTo("77"));
        assertThat(lines.get(0).getField("apiary")).isEqualTo("1  Bramble 1");
        assertThat(roster("apiary", "--through", "hive_apiary").out().replaceAll("\\s+", " "))
                .contains("hive over hive_apiary: 210 rows, of them 201 below a heading, 9 whose parent is missing");
    }

    @Test
    void a_file_for_each_heading_holds_its_children_and_all_files_together_all() throws IOException {
        Path into = folder.resolve("apiaries");
        Program program = roster(
                "apiary", "--through", "hive_apiary", "--per-heading", "csv", "--into", into.toString(), "--quiet");
        assertThat(program.status()).as(program.err()).isZero();

        long children = 0;
        try (CsvReader<NamedCsvRecord> list =
                CsvReader.builder().ofNamedCsvRecord(into.resolve("headings.csv"), StandardCharsets.UTF_8)) {
            for (NamedCsvRecord line : list) {
                List<String> rows = Files.readAllLines(into.resolve(line.getField("file"))).stream()
                        .skip(1)
                        .filter(row -> row.contains("hive_apiary"))
                        .toList();
                assertThat(rows).as(line.toString()).hasSize(Integer.parseInt(line.getField("children")));
                children += rows.size();
            }
        }
        assertThat(children).isEqualTo(210);
        assertThat(into.resolve("parent_missing.csv")).content().contains("77");
    }

    @Test
    void a_folder_of_files_is_replaced_only_when_it_is_meant() throws IOException {
        Path into = folder.resolve("by keeper");
        String[] call = {"keeper", "--per-heading", "md", "--into", into.toString(), "--quiet"};
        assertThat(roster(call).status()).isZero();
        assertThat(roster(call).err()).contains("holds files of a roster already");

        String[] again = {"keeper", "--per-heading", "md", "--into", into.toString(), "--force"};
        assertThat(roster(again).status()).isZero();
        Files.writeString(into.resolve("mine.txt"), "kept");
        assertThat(roster(again).err()).contains("did not write", "`mine.txt`");
        assertThat(into.resolve("mine.txt")).hasContent("kept");

        assertThat(roster("keeper", "--into", into.toString()).err()).contains("--into goes with --per-heading");
        assertThat(roster("keeper", "--per-heading", "md").err()).contains("--into DIR");
        assertThat(roster("keeper", "--per-heading", "pdf", "--into", "x").err())
                .contains("there are csv, xlsx, html, md");
    }

    @Test
    void a_total_of_the_charter_may_ask_for_what_a_parent_says() throws IOException {
        Path charter = folder.resolve("charter.yaml");
        Files.writeString(charter, """
                charter: 1
                tables:
                  stall:
                    rows: stall.csv
                    columns: {no: integer}
                    primary_key: no
                  sort: {rows: sort.csv, columns: {code: varchar(3), price: "numeric(6,2)"}, primary_key: code}
                  crate:
                    rows: crate.csv
                    columns: {no: integer, stall: integer, sort: varchar(3), weight: integer}
                    primary_key: no
                    foreign_keys:
                      crate_stall: {columns: stall, references: stall}
                      crate_sort: {columns: sort, references: sort}
                    totals: [weight * crate_sort.price]
                """);
        Files.writeString(folder.resolve("stall.csv"), "no\n1\n2\n");
        Files.writeString(folder.resolve("sort.csv"), "code,price\nA,2.50\nB,4\n");
        Files.writeString(folder.resolve("crate.csv"), "no,stall,sort,weight\n1,1,A,3\n2,1,B,2\n3,1,Z,9\n4,2,A,1\n");

        assertThat(Program.run("roster", charter.toString(), "stall").out().replaceAll("\\s+", " "))
                .contains("3 rows of crate; weight * crate_sort.price = 15.5")
                .contains("1 row of crate; weight * crate_sort.price = 2.5")
                .contains("weight * crate_sort.price = 18.0");
        assertThat(Program.run("trace", charter.toString(), "stall", "1").out())
                .contains("weight * crate_sort.price = 15.5");
        assertThat(Program.run("vet", charter.toString()).status()).isZero();
    }

    @Test
    void codes_are_names_and_columns_of_parents_can_be_had() throws IOException {
        List<NamedCsvRecord> visits = csv("hive", "--through", "visit_hive", "--where", "hive_id = 44");
        assertThat(visits.get(0).getHeader()).contains("keeper").doesNotContain("hive_id", "keeper_id");

        List<NamedCsvRecord> doses =
                csv("visit", "--through", "treated_at", "--columns", "treated_with.name,dose", "--childless", "hide");
        assertThat(doses.get(0).getHeader()).endsWith("treated_with.name", "dose");
        assertThat(doses.stream()
                        .map(line -> line.getField("treated_with.name"))
                        .collect(Collectors.toSet()))
                .hasSizeGreaterThan(3);
    }

    @Test
    void a_roster_that_the_charter_keeps_is_asked_for_by_its_name() throws IOException {
        List<NamedCsvRecord> kept = csv("hives_by_apiary");
        List<String> headings = kept.stream()
                .filter(line -> line.getField("section").equals("heading"))
                .map(line -> line.getField("apiary").replaceFirst("^[0-9]+ *", ""))
                .distinct()
                .toList();
        assertThat(headings).hasSize(60).isSorted();
        assertThat(csv("hives_by_apiary", "--where", "apiary_id = 1", "--columns", "label"))
                .filteredOn(line -> line.getField("section").equals("heading"))
                .extracting(line -> line.getField("label"))
                .containsExactly("Bramble 1 / A", "Bramble 1 / C", "Bramble 1 / D");
        Files.writeString(
                folder.resolve("c.yaml"),
                Files.readString(Path.of(CHARTER)).replace("table: treatment", "table: tretment"));
        assertThat(Program.run("vet", folder.resolve("c.yaml").toString()).err())
                .contains("did you mean `treatment`?");
        Program written = Program.run(
                "vet", CHARTER, "--write-charter", folder.resolve("again.yaml").toString());
        assertThat(written.status()).isZero();
        assertThat(Files.readString(folder.resolve("again.yaml"))).contains("hives_by_apiary:", "childless: hide");
    }

    @Test
    void numbers_are_numbers_in_a_workbook() throws IOException {
        Path file = folder.resolve("r.xlsx");
        roster("hive", "--through", "harvest_hive", "--where", "hive_id = 1", "--report", file.toString());
        try (Workbook workbook = WorkbookFactory.create(file.toFile(), null, true)) {
            var row = workbook.getSheetAt(0).getRow(4);
            assertThat(row.getCell(0).getStringCellValue()).isEqualTo("1  Bramble 1 / A");
            assertThat(row.getCell(1).getNumericCellValue()).isEqualTo(40);
            assertThat(row.getCell(2).getLocalDateTimeCellValue().toString()).isEqualTo("2023-07-04T00:00");
        }
    }

    @Test
    void what_cannot_be_honoured_is_refused_with_what_there_is() {
        assertThat(roster("apiary", "--through", "hive_apiry").err()).contains("did you mean hive_apiary?");
        assertThat(roster("apiary", "--columns", "lable").err()).contains("did you mean label?");
        assertThat(roster("apiary", "--sort", "nme").err()).contains("did you mean name?");
        assertThat(roster("apiary", "--where-child", "1 = 1").err()).contains("--through");
        assertThat(roster("payout").err()).contains("has no children to list");
        assertThat(roster("apiary", "7").err()).contains("one word too many");
        assertThat(roster("apiary", "--bom").status()).isEqualTo(2);
    }
}
