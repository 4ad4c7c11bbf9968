package taxiomet.reports.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.reports.text.Grid.Cell;
import taxiomet.reports.text.Grid.Kind;
import taxiomet.reports.words.CellText;

/** Cells in columns that line up, at any width of the window. */
class GridTest {
    private static Grid grid() {
        Grid grid = new Grid();
        grid.addColumn("rows", Kind.NUMBER);
        grid.addColumn("key", Kind.KEPT);
        grid.addColumn("what it says", Kind.TEXT);
        grid.addRow(
                List.of(Cell.of("12"), Cell.of("hive_id"), Cell.of("some words that go on for a while and then stop")));
        grid.addRow(List.of(Cell.of("3456"), Cell.of("id"), Cell.of("few words")));
        return grid;
    }

    @Test
    void numbers_stand_to_the_right_and_texts_to_the_left() {
        assertThat(grid().lines(2, 140, false))
                .containsExactly(
                        "  rows  key      what it says",
                        "    12  hive_id  some words that go on for a while and then stop",
                        "  3456  id       few words");
    }

    @Test
    void the_last_column_goes_on_in_the_next_line() {
        assertThat(grid().lines(2, 44, false))
                .containsExactly(
                        "  rows  key      what it says",
                        "    12  hive_id  some words that go on for a",
                        "                 while and then stop",
                        "  3456  id       few words");
    }

    @ParameterizedTest
    @ValueSource(ints = {40, 60, 80, 100, 140, 200})
    void no_line_is_wider_than_the_window(int width) {
        assertThat(grid().lines(2, width, false))
                .allSatisfy(line -> assertThat(CellText.width(line)).isLessThanOrEqualTo(width));
    }

    @ParameterizedTest
    @ValueSource(ints = {20, 40, 80, 140})
    void every_word_of_the_last_column_is_shown_and_no_number_is_cut(int width) {
        String all = String.join(" ", grid().lines(0, width, false));
        assertThat(all).contains("12", "3456");
        for (String word : "some words that go on for a while and then stop few words".split(" ")) {
            assertThat(all).contains(word);
        }
    }

    private static Grid evidence(String key) {
        Grid grid = new Grid();
        grid.addColumn("row", Kind.NUMBER);
        grid.addColumn("hive_id", Kind.KEPT);
        grid.addColumn("name", Kind.TEXT);
        grid.addColumn("", Kind.TEXT);
        grid.addRow(
                List.of(Cell.of("7"), Cell.of(key), Cell.of("Foxglove"), Cell.of("perhaps another, in another case")));
        return grid;
    }

    @Test
    void remarks_go_below_their_row_before_a_key_is_broken() {
        assertThat(evidence("cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27").lines(4, 64, false))
                .containsExactly(
                        "    row  hive_id                               name",
                        "      7  cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27  Foxglove",
                        "         perhaps another, in another case");
    }

    @Test
    void columns_stand_under_one_another_where_they_do_not_fit_side_by_side() {
        assertThat(evidence("cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27").lines(0, 40, false))
                .containsExactly(
                        "row 7",
                        "    hive_id cc2ff992-7e0b-4e3c-9a51-0d8a",
                        "            4d3f1b27",
                        "    name Foxglove",
                        "    perhaps another, in another case");
    }

    @ParameterizedTest
    @ValueSource(ints = {20, 40, 80, 140})
    void no_key_of_two_hundred_characters_is_cut(int width) {
        String key = IntStream.range(0, 200).mapToObj(i -> "" + i % 10).collect(Collectors.joining());
        String all = String.join("", evidence(CellText.of(key)).lines(4, width, false));
        assertThat(all.replaceAll("[^0-9]", "")).contains(key);
        assertThat(CellText.of(key + "x")).startsWith(key.substring(0, 100)).endsWith("x (201 characters)");
    }

    @Test
    void colours_take_no_room() {
        Grid grid = new Grid();
        grid.addColumn("", Kind.TEXT);
        grid.addColumn("", Kind.TEXT);
        grid.addRow(List.of(new Cell("bad", Style.STRONG), Cell.of("x")));
        grid.addRow(List.of(Cell.of("worse"), Cell.of("y")));
        List<String> plain = grid.lines(0, 80, false);
        List<String> coloured = grid.lines(0, 80, true);
        assertThat(plain).containsExactly("bad    x", "worse  y");
        assertThat(coloured.get(0)).isNotEqualTo(plain.get(0));
        assertThat(coloured.get(0).replaceAll("\u001b\\[[0-9;]*m", "")).isEqualTo(plain.get(0));
    }

    @Test
    void without_heads_there_is_no_line_of_heads() {
        Grid grid = Grid.withoutHeads(2);
        grid.addRow(List.of(Cell.of("a"), Cell.of("b")));
        assertThat(grid.lines(0, 80, false)).containsExactly("a  b");
    }

    @Test
    void wide_characters_take_two_places() {
        Grid grid = Grid.withoutHeads(2);
        grid.addRow(List.of(Cell.of("蜂"), Cell.of("x")));
        grid.addRow(List.of(Cell.of("abc"), Cell.of("y")));
        assertThat(grid.lines(0, 80, false)).containsExactly("蜂   x", "abc  y");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', ignoreLeadingAndTrailingWhitespace = false, quoteCharacter = '`', textBlock = """
                    a|a
                    null|"null"
                    ``|""
                     a|" a"
                    a |"a "
                    a b|a b
                    """)
    void a_cell_shows_what_it_is(String cell, String shown) {
        assertThat(CellText.of(cell)).isEqualTo(shown);
    }

    @Test
    void null_is_told_from_the_text() {
        assertThat(CellText.of(null)).isEqualTo("null");
        assertThat(CellText.of("\u00a0x")).isEqualTo("\"\\u{a0}x\"");
    }

    @Test
    void nothing_in_a_cell_moves_the_cursor_hides_or_turns_the_line() {
        assertThat(CellText.escaped("a\u001b[2Jb")).isEqualTo("a\\u{1b}[2Jb");
        assertThat(CellText.escaped("a\nb\rc\td")).isEqualTo("a\\nb\\rc\\td");
        assertThat(CellText.escaped("a\u202eb")).isEqualTo("a\\u{202e}b");
        assertThat(CellText.escaped("a\u200bb\ufeff")).isEqualTo("a\\u{200b}b\\u{feff}");
        assertThat(CellText.escaped("\u0000\u0085\u2028")).isEqualTo("\\u{0}\\u{85}\\u{2028}");
        assertThat(CellText.escaped("\ud83d")).isEqualTo("\\u{d83d}");
        assertThat(CellText.escaped("Zoë 蜂 🐝")).isEqualTo("Zoë 蜂 🐝");
    }

    @ParameterizedTest
    @CsvSource({"heather, 7, heather", "heather, 6, heath…", "heather, 1, …", "蜂蜂蜂, 4, 蜂…", "蜂蜂蜂, 6, 蜂蜂蜂"})
    void what_is_too_wide_is_cut_and_that_is_seen(String text, int width, String cut) {
        assertThat(CellText.cut(text, width)).isEqualTo(cut);
    }

    /** Texts are measured before they are escaped, too: what is no code of a colour must not be taken for one. */
    @ParameterizedTest
    @CsvSource({"a^b, 3", "^, 1", "^[1, 3", "^[2Jx, 5", "^[1;31mbad^[0m, 3", "^[1m, 0"})
    void codes_of_colours_are_told_from_other_escapes(String written, int width) {
        String text = written.replace('^', '\u001b');
        Duration most = Duration.ofSeconds(5);
        assertThat(assertTimeoutPreemptively(most, () -> CellText.width(text))).isEqualTo(width);
        assertThat(assertTimeoutPreemptively(most, () -> String.join("", Paragraph.lines(text, 0, 1))))
                .isEqualTo(text);
    }

    @Test
    void marks_on_letters_take_no_room() {
        assertThat(CellText.width("e\u0301")).isEqualTo(1);
        assertThat(CellText.width("🐝")).isEqualTo(2);
        assertThat(CellText.width("")).isZero();
    }
}
