package taxiomet.sources.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.SheetRows;
import taxiomet.rows.SourceException;

class OdsWorkbookTest {
    private static final String HEAD = "<office:document-content"
            + " xmlns:office=\"urn:oasis:names:tc:opendocument:xmlns:office:1.0\""
            + " xmlns:table=\"urn:oasis:names:tc:opendocument:xmlns:table:1.0\""
            + " xmlns:text=\"urn:oasis:names:tc:opendocument:xmlns:text:1.0\"><office:body><office:spreadsheet>";
    private static final String TAIL = "</office:spreadsheet></office:body></office:document-content>";

    @TempDir
    private Path folder;

    private void write(String content) throws IOException {
        try (OutputStream out = Files.newOutputStream(folder.resolve("w.ods"));
                ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("content.xml"));
            zip.write(content.getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
        }
    }

    private static String table(String name, String... rows) {
        return "<table:table table:name=\"" + name + "\"><table:table-column/>" + String.join("", rows)
                + "</table:table>";
    }

    private static String row(String... cells) {
        return "<table:table-row>" + String.join("", cells) + "</table:table-row>";
    }

    private static String text(String text) {
        return "<table:table-cell office:value-type=\"string\"><text:p>" + text + "</text:p></table:table-cell>";
    }

    private static String cell(String type, String attribute, String value, String shown) {
        return "<table:table-cell office:value-type=\"" + type + "\" office:" + attribute + "=\"" + value
                + "\"><text:p>" + shown + "</text:p></table:table-cell>";
    }

    private SheetSource open(String sheet, String range, String... columns) {
        return SheetSource.open(
                new SheetRows(folder, "w.ods", Optional.ofNullable(sheet), Optional.ofNullable(range)),
                List.of(columns));
    }

    private static List<String> rows(SheetSource source) {
        List<String> rows = new ArrayList<>();
        int[] all = IntStream.range(0, source.columns().size()).toArray();
        source.read(all, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                int number = row;
                rows.add(batch.line(row) + ": "
                        + String.join(
                                "|",
                                Arrays.stream(all)
                                        .mapToObj(column -> String.valueOf(
                                                batch.column(column).text(number)))
                                        .toList()));
            }
        });
        return rows;
    }

    @Test
    void cells_come_as_they_are_stored_and_not_as_they_are_shown() throws IOException {
        write(HEAD
                + table(
                        "One",
                        "<table:table-header-rows>"
                                + row(Arrays.stream("n p d m t b s".split(" "))
                                        .map(OdsWorkbookTest::text)
                                        .toArray(String[]::new))
                                + "</table:table-header-rows>",
                        row(
                                cell("float", "value", "7", "7,00"),
                                cell("percentage", "value", "0.125", "13%"),
                                cell("date", "date-value", "2024-02-29", "29.02.24"),
                                cell("date", "date-value", "2024-02-29T13:05:09", "29.02.24 13:05"),
                                cell("time", "time-value", "PT09H05M00S", "9:05"),
                                cell("boolean", "boolean-value", "true", "TRUE"),
                                text("a<text:s text:c=\"2\"/>b</text:p><text:p>c &amp; <text:span>d</text:span>")),
                        row(
                                "<table:table-cell table:number-columns-repeated=\"6\"/>",
                                "<table:table-cell office:value-type=\"string\"><office:annotation><text:p>a note</text:p></office:annotation><text:p>007</text:p></table:table-cell>"))
                + TAIL);
        assertThat(rows(open(null, null, "n", "p", "d", "m", "t", "b", "s")))
                .containsExactly(
                        "2: 7|0.125|2024-02-29|2024-02-29 13:05:09|09:05:00|true|a  b\nc & d",
                        "3: null|null|null|null|null|null|007");
    }

    @Test
    void repeated_cells_and_rows_stand_as_often_as_they_say_and_empty_ones_cost_nothing() throws IOException {
        write(HEAD
                + table("Other", row(text("x")))
                + table(
                        "Many",
                        row(text("title")),
                        row("<table:table-cell/>", text("id"), text("no")),
                        "<table:table-row table:number-rows-repeated=\"3\"><table:table-cell/>"
                                + "<table:table-cell office:value-type=\"float\" office:value=\"1\" table:number-columns-repeated=\"2\"/>"
                                + "<table:table-cell table:number-columns-repeated=\"16381\"/></table:table-row>",
                        "<table:table-row table:number-rows-repeated=\"1000000\"><table:table-cell table:number-columns-repeated=\"16384\"/></table:table-row>",
                        row("<table:table-cell/>", text("last")),
                        "<table:table-row table:number-rows-repeated=\"999999999\"><table:table-cell/></table:table-row>")
                + TAIL);
        assertThat(rows(open("Many", "B2:C", "id", "no")))
                .containsExactly("3: 1|1", "4: 1|1", "5: 1|1", "1000006: last|null");
        assertThatThrownBy(() -> open("Mary", null, "id")).hasMessageContaining("did you mean `Many`?");
        assertThat(SheetSource.sheetsOf(folder.resolve("w.ods"))).containsOnlyKeys("Other", "Many");
    }

    @Test
    void entities_and_what_is_no_workbook_are_refused() throws IOException {
        write("<!DOCTYPE x [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY f SYSTEM \"file:///etc/hostname\">]>" + HEAD
                + table("One", row(text("id")), row(text("&f;"))) + TAIL);
        assertThatThrownBy(() -> rows(open(null, null, "id")))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("the workbook cannot be read");
        write(HEAD + table("One", row(text("id")), row(text("x".repeat(1_200_000)))) + TAIL);
        assertThatThrownBy(() -> rows(open(null, null, "id"))).hasMessageContaining("more than 1048576 characters");
        write(HEAD
                + table(
                        "One",
                        row(text("id")),
                        "<table:table-row table:number-rows-repeated=\"999999999\">" + text("1") + "</table:table-row>")
                + TAIL);
        assertThatThrownBy(() -> {
                    try (SheetSource source = open(null, null, "id")) {
                        source.read(new int[] {0}, batch -> {});
                    }
                })
                .hasMessageContaining("more than 16777216 rows");
        Files.writeString(folder.resolve("w.ods"), "no zip");
        assertThatThrownBy(() -> open(null, null, "id")).hasMessageContaining("the workbook cannot be read");
    }

    /** Seeds 1 to 300. */
    @Test
    void damaged_files_are_read_or_refused_in_words() throws IOException {
        write(HEAD + table("One", row(text("id")), row(cell("float", "value", "7", "7")), row(text("x"))) + TAIL);
        byte[] whole = Files.readAllBytes(folder.resolve("w.ods"));
        for (int seed = 1; seed <= 300; seed++) {
            Random random = new Random(seed);
            byte[] damaged =
                    random.nextInt(5) == 0 ? Arrays.copyOf(whole, random.nextInt(whole.length)) : whole.clone();
            for (int i = random.nextInt(4); i >= 0 && damaged.length > 0; i--) {
                damaged[random.nextInt(damaged.length)] = (byte) random.nextInt();
            }
            Files.write(folder.resolve("w.ods"), damaged);
            try {
                rows(open(null, null, "id"));
            } catch (SourceException e) {
                assertThat(e.getMessage()).contains("w.ods");
            } catch (RuntimeException | Error e) {
                throw new AssertionError("seed " + seed, e);
            }
        }
    }

    @Test
    void merged_cells_are_said_with_their_places() throws IOException {
        String spanning = "<table:table-cell table:number-rows-spanned=\"3\" office:value-type=\"string\">"
                + "<text:p>heath</text:p></table:table-cell>";
        write(HEAD
                + table(
                        "One",
                        row(text("lot"), text("kind")),
                        row(text("a"), spanning),
                        row(text("b"), "<table:covered-table-cell/>"),
                        row(text("c"), "<table:covered-table-cell/>"))
                + TAIL);
        SheetSource source = open(null, null, "lot", "kind");
        assertThat(rows(source)).containsExactly("2: a|heath", "3: b|null", "4: c|null");
        assertThat(source.mergedCells())
                .hasValueSatisfying(said -> assertThat(said).contains("in B2:B4:"));
    }
}
