package taxiomet.load;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static taxiomet.charter.ForeignKey.ActionName.NO_ACTION;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.rows.SourceException;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;

class LoadingTest {
    @TempDir
    private Path folder;

    private static TestTable quay(String... rows) {
        return table("quay", "harbour integer", "berth varchar(3)")
                .key("harbour", "berth")
                .rows(rows);
    }

    private static TestTable boat(Match match, String... rows) {
        return table("boat", "boat_no integer", "harbour integer", "berth varchar(3)")
                .key("boat_no")
                .link("boat_quay", "harbour, berth -> quay(harbour, berth)", match, NO_ACTION, NO_ACTION)
                .rows(rows);
    }

    @Test
    void a_row_whose_parent_is_refused_is_refused_with_it_and_children_are_loaded_last() {
        assertThat(TestTables.of(
                                folder,
                                boat(Match.SIMPLE, "1|7|A", "2|7|B", "3|9|Z", "4|NULL|A"),
                                quay("7|A", "7|A", "7|BBBB", "7|B"))
                        .load())
                .containsExactly(
                        "quay: 2 of 4, 1 OWN_FAULT at berth from 3, 1 DUPLICATE at primary_key from 2",
                        "boat: 3 of 4, 1 NO_PARENT at boat_quay from 3");
    }

    @Test
    void a_parent_that_stands_later_in_the_same_table_is_not_in_yet_and_a_row_may_point_at_itself() {
        assertThat(TestTables.of(
                                folder,
                                table("post", "post_no integer", "above integer")
                                        .key("post_no")
                                        .link("post_above", "above -> post(post_no)")
                                        .rows("1|1", "2|3", "3|1", "4|2"))
                        .load())
                .containsExactly("post: 2 of 4, 2 PARENT_NOT_IN at post_above from 2");
    }

    @Test
    void a_partial_match_asks_for_a_row_that_is_in_and_agrees_in_what_is_not_null() {
        assertThat(TestTables.of(
                                folder,
                                quay("7|A", "8|BBBB"),
                                boat(
                                        Match.PARTIAL,
                                        "1|7|NULL",
                                        "2|NULL|A",
                                        "3|NULL|C",
                                        "4|8|NULL",
                                        "5|NULL|NULL",
                                        "6|7|A"))
                        .load())
                .containsExactly(
                        "quay: 1 of 2, 1 OWN_FAULT at berth from 2",
                        "boat: 4 of 6, 1 NO_PARENT at boat_quay from 3, 1 PARENT_NOT_IN at boat_quay from 4");
    }

    @Test
    void keys_that_do_not_fit_into_memory_are_said_and_not_guessed_at() {
        String[] rows = IntStream.range(0, 4_000)
                .mapToObj(i -> i * 7_919L % 100_003 + "|B" + i % 9)
                .toArray(String[]::new);
        TestTables tables = TestTables.of(folder, quay(rows)).withMemory(1 << 10);

        assertThatThrownBy(tables::load).isInstanceOf(SourceException.class).hasMessageContaining("--memory");
    }
}
