package taxiomet.sources.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.SheetRows;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;
import taxiomet.rows.Undeclared;

class SheetSourceTest {
    @TempDir
    private Path folder;

    @BeforeEach
    void write() throws IOException {
        try (OutputStream out = Files.newOutputStream(folder.resolve("w.xlsx"));
                Workbook workbook = new Workbook(out, "test", "1.0")) {
            Worksheet plain = workbook.newWorksheet("Plain");
            String[] heads = {"id", "name", "day", "moment", "truth", "share"};
            IntStream.range(0, heads.length).forEach(i -> plain.value(0, i, heads[i]));
            plain.value(1, 0, 7);
            plain.value(1, 1, "007");
            plain.value(1, 2, LocalDate.of(2024, 2, 29));
            plain.style(1, 2).format("dd.mm.yyyy").set();
            plain.value(1, 3, LocalDateTime.of(2024, 2, 29, 13, 5, 9));
            plain.style(1, 3).format("yyyy-mm-dd hh:mm:ss").set();
            plain.value(1, 4, true);
            plain.value(1, 5, 0.125);
            plain.style(1, 5).format("0%").set();
            plain.value(3, 0, -2);
            plain.value(3, 1, "=1+1");
            Worksheet twice = workbook.newWorksheet("Twice");
            twice.value(0, 0, "id");
            twice.value(0, 1, "id");
            Worksheet inside = workbook.newWorksheet("Inside");
            inside.value(0, 0, "A title");
            inside.value(2, 1, "id");
            inside.value(2, 2, "name");
            inside.value(2, 3, "not meant");
            for (int i = 0; i < 5; i++) {
                inside.value(3 + i, 1, i);
                inside.value(3 + i, 2, "n" + i);
                inside.value(3 + i, 3, "x");
            }
        }
    }

    private SheetSource open(String sheet, String range, String... columns) {
        return SheetSource.open(
                new SheetRows(folder, "w.xlsx", Optional.ofNullable(sheet), Optional.ofNullable(range)),
                List.of(columns));
    }

    private static List<String> rows(SheetSource source) {
        int[] all = IntStream.range(0, source.columns().size()).toArray();
        List<String> rows = new ArrayList<>();
        source.read(all, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                StringBuilder line = new StringBuilder();
                for (int column : all) {
                    line.append(column == 0 ? "" : "|")
                            .append(batch.column(column).text(row));
                }
                rows.add(batch.line(row) + ": " + line);
            }
        });
        return rows;
    }

    @Test
    void cells_come_as_they_are_stored_and_dates_as_dates() {
        try (SheetSource source = open(null, null, "id", "name", "day", "moment", "truth", "share")) {
            assertThat(rows(source))
                    .containsExactly(
                            "2: 7|007|2024-02-29|2024-02-29 13:05:09|true|0.125", "4: -2|=1+1|null|null|null|null");
            assertThat(source.emptyLines()).as("the sheet's third row").isZero();
        }
    }

    @Test
    void a_range_says_where_the_names_stand_and_where_it_ends() {
        try (SheetSource source = open("Inside", "B3:C6", "name", "id")) {
            assertThat(rows(source)).containsExactly("4: n0|0", "5: n1|1", "6: n2|2");
            assertThat(source.undeclared()).isEqualTo(Undeclared.columns(List.of()));
        }
        try (SheetSource source = open("Inside", "B3:D", "id")) {
            assertThat(rows(source)).hasSize(5);
        }
    }

    @Test
    void single_rows_are_found_again_by_their_numbers() {
        try (SheetSource source = open("Inside", "B3:C", "id", "name")) {
            rows(source);
            long[] wanted = {RowRef.of(0, 2), RowRef.of(0, 5), RefCursor.END};
            int[] next = {0};
            List<String> found = new ArrayList<>();
            source.fetch(
                    () -> wanted[next[0]++],
                    new int[] {1},
                    batch -> IntStream.range(0, batch.size())
                            .forEach(row -> found.add(batch.column(0).text(row))));
            assertThat(found).containsExactly("n1", "n4");
        }
    }

    @Test
    void what_is_not_there_is_said_with_what_is() throws IOException {
        assertThatThrownBy(() -> open("Insid", null, "id"))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("did you mean `Inside`?");
        assertThatThrownBy(() -> open("Plain", null, "nam")).hasMessageContaining("`name`");
        assertThatThrownBy(() -> open("Twice", null, "id")).hasMessageContaining("two columns are named `id`");
        Files.writeString(folder.resolve("w.xlsx"), "no workbook");
        assertThatThrownBy(() -> open(null, null, "id"))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("the workbook cannot be read");
    }

    @Test
    void merged_cells_are_said_where_rows_stand_and_not_in_a_title() throws IOException {
        try (OutputStream out = Files.newOutputStream(folder.resolve("w.xlsx"));
                Workbook workbook = new Workbook(out, "test", "1.0")) {
            Worksheet other = workbook.newWorksheet("Other");
            other.value(0, 0, "id");
            other.value(1, 0, "not <mergeCell ref=\"A1:A2\"/>");
            Worksheet sheet = workbook.newWorksheet("Lots & more");
            sheet.value(0, 0, "All lots");
            sheet.range(0, 0, 0, 2).merge();
            sheet.value(1, 0, "lot");
            sheet.value(1, 1, "kind");
            for (int i = 0; i < 9; i++) {
                sheet.value(2 + i, 0, i);
            }
            sheet.value(2, 1, "heath");
            sheet.range(2, 1, 5, 1).merge();
            sheet.range(6, 0, 6, 1).merge();
            sheet.range(7, 5, 8, 5).merge();
        }
        SheetSource source = open("Lots & more", "A2:B", "lot", "kind");
        assertThat(source.mergedCells()).isEmpty();
        source.read(
                new int[] {0, 1}, batch -> assertThat(batch.column(1).isNull(1)).isTrue());
        assertThat(source.mergedCells())
                .hasValueSatisfying(said -> assertThat(said).contains("in B3:B6, A7:B7:"));
        SheetSource plain = open("Other", null, "id");
        plain.read(new int[] {0}, batch -> {});
        assertThat(plain.mergedCells()).isEmpty();
    }

    @Test
    void merged_cells_are_found_across_pieces_of_the_text() throws IOException {
        String filler = "<c/>".repeat(16_380);
        String text = filler + "<x:mergeCells count=\"2\"><x:mergeCell ref='C4:D5'/>" + filler + filler
                + "<mergeCell  extra=\"1\" ref=\"AA10:AB10\"/>";
        assertThat(XlsxMerges.mergedIn(
                        new java.io.ByteArrayInputStream(text.getBytes(java.nio.charset.StandardCharsets.UTF_8))))
                .containsExactly(new SheetRows.Area(4, 5, 2, 3), new SheetRows.Area(10, 10, 26, 27));
    }
}
