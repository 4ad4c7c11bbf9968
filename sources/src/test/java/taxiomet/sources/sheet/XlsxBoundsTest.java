package taxiomet.sources.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.rows.SourceException;

class XlsxBoundsTest {
    private static final String NAMESPACE = "http://schemas.openxmlformats.org/spreadsheetml/2006/main";
    private static final String OF_PACKAGE = "http://schemas.openxmlformats.org/package/2006/";
    private static final String OF_DOCUMENT = "http://schemas.openxmlformats.org/officeDocument/2006/relationships";

    @TempDir
    private Path folder;

    /** A workbook of one sheet, without formats of cells. */
    private Path workbook(String rows) throws IOException {
        Path file = folder.resolve("w.xlsx");
        Map<String, String> parts = Map.of(
                "[Content_Types].xml",
                "<Types xmlns=\"" + OF_PACKAGE
                        + "content-types\"><Default Extension=\"xml\" ContentType=\"application/xml\"/>"
                        + "<Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument"
                        + ".spreadsheetml.sheet.main+xml\"/></Types>",
                "_rels/.rels",
                "<Relationships xmlns=\"" + OF_PACKAGE + "relationships\"><Relationship Id=\"a\" Type=\"" + OF_DOCUMENT
                        + "/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>",
                "xl/workbook.xml",
                "<workbook xmlns=\"" + NAMESPACE + "\" xmlns:r=\"" + OF_DOCUMENT
                        + "\"><sheets><sheet name=\"S\" sheetId=\"1\" r:id=\"b\"/></sheets></workbook>",
                "xl/_rels/workbook.xml.rels",
                "<Relationships xmlns=\"" + OF_PACKAGE + "relationships\"><Relationship Id=\"b\" Type=\"" + OF_DOCUMENT
                        + "/worksheet\" Target=\"worksheets/sheet1.xml\"/></Relationships>",
                "xl/worksheets/sheet1.xml",
                "<worksheet xmlns=\"" + NAMESPACE
                        + "\"><sheetData><row r=\"1\"><c r=\"A1\" t=\"inlineStr\"><is><t>id</t></is></c></row>" + rows
                        + "</sheetData></worksheet>");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
            for (Map.Entry<String, String> part : parts.entrySet()) {
                zip.putNextEntry(new ZipEntry(part.getKey()));
                zip.write(part.getValue().getBytes(StandardCharsets.UTF_8));
            }
        }
        return file;
    }

    @Test
    void a_cell_that_unpacks_to_any_size_is_refused_before_it_stands_in_memory() throws IOException {
        Path bomb = workbook("<row r=\"2\"><c r=\"A2\"><v>" + "7".repeat(30_000_000) + "</v></c></row>");
        assertThat(Files.size(bomb)).isLessThan(100_000);
        assertThatThrownBy(() -> SheetSource.sheetsOf(bomb))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("a cell has more than 4 MB");
    }

    @ParameterizedTest
    @ValueSource(strings = {"r=\"ZZZZZZ2\"", "r='XFE2'", "r = \"zzzz2\"", "s=\">\" r=\"ZZZZ2\"", "\n\tr\n=\n\"AAAA2\""})
    void a_column_beyond_the_last_is_refused_however_it_is_written(String address) throws IOException {
        Path far = workbook("<!-- ' --><row r=\"2\"><c " + address + "><v>2</v></c></row>");
        assertThatThrownBy(() -> SheetSource.sheetsOf(far)).hasMessageContaining("beyond the last one, XFD");
    }

    @Test
    void an_address_in_entities_is_refused_and_a_text_that_looks_like_one_is_not() throws IOException {
        Path entities = workbook("<row r=\"2\"><c r=\"&#90;&#90;&#90;&#90;2\"><v>2</v></c></row>");
        assertThatThrownBy(() -> SheetSource.sheetsOf(entities)).hasMessageContaining("entities");
        Path text = workbook("<row r=\"2\"><c r=\"XFD2\" t=\"inlineStr\"><is><t> r=\"ZZZZZ\" it's</t></is></c></row>");
        assertThatCode(() -> SheetSource.sheetsOf(text)).doesNotThrowAnyException();
    }

    @Test
    void a_workbook_need_not_say_how_cells_are_shown() throws IOException {
        assertThat(SheetSource.sheetsOf(workbook("<row r=\"2\"><c r=\"A2\"><v>1</v></c></row>")))
                .containsKey("S");
    }
}
