package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.apache.poi.ss.usermodel.Cell;
import org.apache.poi.ss.usermodel.CellType;
import org.apache.poi.ss.usermodel.DateUtil;
import org.apache.poi.ss.usermodel.Row;
import org.apache.poi.ss.usermodel.Sheet;
import org.apache.poi.ss.usermodel.Workbook;
import org.apache.poi.ss.usermodel.WorkbookFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Workbooks as another library than the one that writes them reads them. */
class WorkbookTest {
    @TempDir
    private Path folder;

    private Workbook checked(String charter, String... rows) throws IOException {
        Files.writeString(folder.resolve("charter.yaml"), charter);
        Files.writeString(folder.resolve("part.csv"), String.join("\n", rows) + "\n");
        Program program = Program.run(
                "check",
                folder.resolve("charter.yaml").toString(),
                "--report",
                folder.resolve("r.xlsx").toString());
        assertThat(program.status()).as(program.err()).isLessThan(2);
        return WorkbookFactory.create(folder.resolve("r.xlsx").toFile(), null, true);
    }

    private static int headOf(Sheet sheet) {
        return sheet.getPaneInformation().getHorizontalSplitPosition() - 1;
    }

    /** The cells of a row below the head, from the first of the table's own columns on. */
    private static List<Object> cells(Sheet sheet, int place, int from) {
        Row row = sheet.getRow(headOf(sheet) + 1 + place);
        List<Object> cells = new ArrayList<>();
        for (int i = from; i < sheet.getRow(headOf(sheet)).getLastCellNum(); i++) {
            cells.add(value(row.getCell(i)));
        }
        return cells;
    }

    private static Object value(Cell cell) {
        if (cell == null || cell.getCellType() == CellType.BLANK) {
            return null;
        } else if (cell.getCellType() == CellType.NUMERIC) {
            return DateUtil.isCellDateFormatted(cell)
                    ? cell.getLocalDateTimeCellValue().toString()
                    : (Object) cell.getNumericCellValue();
        }
        return cell.getStringCellValue();
    }

    private static Sheet sheetOf(Workbook workbook, String name) {
        for (Sheet sheet : workbook) {
            if (sheet.getSheetName().contains(name)) {
                return sheet;
            }
        }
        throw new AssertionError("no sheet " + name);
    }

    private static final String PARTS = """
            charter: 1
            tables:
              part:
                rows: part.csv
                columns:
                  part_no: varchar(8)
                  price: {type: "numeric(9,2)", decimal: ","}
                  made_on: {type: date, format: dd.MM.yyyy}
                  seen_at: timestamp
                  weight: integer
                  note: text
                primary_key: part_no
                rules:
                  cheap: price < 1
            """;

    @Test
    void numbers_and_dates_are_what_they_are_and_codes_and_formulas_stay_texts() throws IOException {
        try (Workbook workbook = checked(
                PARTS,
                "part_no,price,made_on,seen_at,weight,note",
                "007,\"12,50\",31.12.2024,2024-05-01 10:30:00,42,=1+1",
                "8,3,01.01.1800,2024-05-01 10:30:00.123456,007,\" ends with a blank \"",
                "9,4,,,-0,@SUM(A1)",
                "10,\"1234567890123456\",05.06.2025,2024-05-01,9007199254740993,a\u0001b\u202Ec")) {
            Sheet rows = sheetOf(workbook, "cheap");
            assertThat(cells(rows, 0, 5))
                    .containsExactly("007", 12.5, "2024-12-31T00:00", "2024-05-01T10:30", 42.0, "=1+1");
            assertThat(cells(rows, 1, 5))
                    .containsExactly(
                            "8", 3.0, "01.01.1800", "2024-05-01 10:30:00.123456", "007", " ends with a blank ");
            assertThat(cells(rows, 2, 5)).containsExactly("9", 4.0, null, null, "-0", "@SUM(A1)");
            assertThat(cells(sheetOf(workbook, "mismatch price"), 0, 5))
                    .containsExactly(
                            "10",
                            "1234567890123456",
                            "2025-06-05T00:00",
                            "2024-05-01T00:00",
                            "9007199254740993",
                            "a\\u{1}b\\u{202e}c");
            for (Sheet sheet : workbook) {
                sheet.forEach(row ->
                        row.forEach(cell -> assertThat(cell.getCellType()).isNotEqualTo(CellType.FORMULA)));
            }
        }
    }

    @Test
    void the_column_at_fault_is_marked_in_words_too_and_a_cell_of_a_million_characters_is_cut_and_says_so()
            throws IOException {
        try (Workbook workbook =
                checked(PARTS, "part_no,price,made_on,seen_at,weight,note", "1,9,,,heavy," + "x".repeat(1_000_000))) {
            Sheet rows = sheetOf(workbook, "weight");
            List<String> heads = new ArrayList<>();
            rows.getRow(headOf(rows)).forEach(cell -> heads.add(cell.getStringCellValue()));
            assertThat(heads).contains("weight (at fault)").contains("price");
            assertThat(cells(rows, 0, 10).get(0).toString()).hasSize(32_767).endsWith("xx ... (1000000 characters)");
        }
    }

    @Test
    void every_row_of_every_finding_of_the_demo_is_in_it() throws IOException {
        Path faults = folder.resolve("faults");
        Program.run(
                "check",
                "../demo/charter.yaml",
                "--report",
                folder.resolve("demo.xlsx").toString(),
                "--evidence",
                faults.toString());
        JsonNode result =
                new ObjectMapper().readTree(faults.resolve("result.json").toFile());
        try (Workbook workbook =
                WorkbookFactory.create(folder.resolve("demo.xlsx").toFile(), null, true)) {
            int place = 0;
            for (JsonNode finding : result.get("findings")) {
                place++;
                if (!finding.has("evidence") || finding.get("finding").asText().equals("gap in key")) {
                    continue;
                }
                Sheet sheet =
                        sheetOf(workbook, place + " " + finding.get("finding").asText());
                List<List<String>> told = new ArrayList<>();
                for (int i = headOf(sheet) + 1; i <= sheet.getLastRowNum(); i++) {
                    told.add(List.of(
                            String.valueOf((long) sheet.getRow(i).getCell(0).getNumericCellValue()),
                            sheet.getRow(i).getCell(2).getStringCellValue()));
                }
                assertThat(told)
                        .as(sheet.getSheetName())
                        .isEqualTo(rowsOf(faults.resolve(finding.get("evidence").asText())));
            }
            assertThat(sheetOf(workbook, "where to begin").getLastRowNum() - 2)
                    .isEqualTo(result.get("causes").size());
        }
    }

    private static List<List<String>> rowsOf(Path file) throws IOException {
        List<List<String>> rows = new ArrayList<>();
        try (var reader = CsvReader.builder().ofNamedCsvRecord(file, StandardCharsets.UTF_8)) {
            reader.forEach(record -> rows.add(List.of(record.getField("row"), record.getField("file"))));
        }
        return rows;
    }
}
