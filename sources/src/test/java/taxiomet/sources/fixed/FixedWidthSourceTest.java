package taxiomet.sources.fixed;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.place.FixedWidth;
import taxiomet.charter.place.FixedWidth.Positions;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;

class FixedWidthSourceTest {
    @TempDir
    private Path folder;

    private FixedWidthSource open(String file, String encoding, boolean hasHeader, String... columns) {
        Map<String, Positions> positions = new LinkedHashMap<>();
        positions.put("id", new Positions(1, 4));
        positions.put("name", new Positions(5, 10));
        positions.put("rest", new Positions(11, Positions.END));
        return FixedWidthSource.open(
                new FixedWidth(folder, file, encoding, hasHeader, List.of("N/A"), positions), List.of(columns));
    }

    private static List<String> rows(FixedWidthSource source) {
        List<String> rows = new ArrayList<>();
        int[] all = IntStream.range(0, source.columns().size()).toArray();
        source.read(all, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                StringBuilder line = new StringBuilder();
                for (int column : all) {
                    line.append('|').append(batch.column(column).text(row));
                }
                rows.add(batch.line(row) + line.toString());
            }
        });
        return rows;
    }

    @Test
    void columns_are_cut_by_their_positions_and_blanks_fill_up() throws IOException {
        Files.writeString(
                folder.resolve("h.txt"),
                "\uFEFFID  NAME  REST\r\n   1Änne  a b \r\n\r\n0002  🐝🐝🐝🐝\n3\n4   N/A   \n5   abcdefgh ij");
        FixedWidthSource source = open("h.txt", "UTF-8", true, "id", "name", "rest");
        assertThat(rows(source))
                .containsExactly(
                        "2|1|Änne|a b", "4|0002|🐝🐝🐝🐝|null", "5|3|null|null", "6|4|null|null", "7|5|abcdef|gh ij");
        assertThat(source.emptyLines()).isEqualTo(1);
        long[] wanted = {RowRef.of(0, 2), RowRef.of(0, 5), RefCursor.END};
        int[] next = {0};
        List<String> fetched = new ArrayList<>();
        source.fetch(
                () -> wanted[next[0]++],
                new int[] {0},
                batch -> IntStream.range(0, batch.size())
                        .forEach(row -> fetched.add(batch.column(0).text(row))));
        assertThat(fetched).containsExactly("0002", "5");
    }

    @Test
    void what_cannot_be_read_is_said_with_its_place() throws IOException {
        Files.write(folder.resolve("h.txt"), "1   Änne\n".getBytes(Charset.forName("windows-1252")));
        assertThat(rows(open("h.txt", "windows-1252", false, "name"))).containsExactly("1|Änne");
        assertThatThrownBy(() -> rows(open("h.txt", "UTF-8", false, "name")))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("bytes that are no characters in UTF-8");
        assertThatThrownBy(() -> open("h.txt", "UTF-8", false, "nam"))
                .hasMessageContaining("column `nam` has no `positions`");
        Files.write(folder.resolve("h.txt"), "x".repeat(2 << 20).getBytes(StandardCharsets.US_ASCII));
        assertThatThrownBy(() -> rows(open("h.txt", "UTF-8", false, "name"))).hasMessageContaining("longer than");
    }
}
