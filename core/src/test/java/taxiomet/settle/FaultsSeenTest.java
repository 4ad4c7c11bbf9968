package taxiomet.settle;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.testing.TestTables;

class FaultsSeenTest {
    @TempDir
    private Path folder;

    private FaultsSeen seen(String... rows) {
        TestTables tables = TestTables.of(
                folder,
                table("mooring", "no integer", "boat varchar(9) not null", "fee integer")
                        .key("no")
                        .rows(rows));
        try (CheckRun run = CheckRun.start(
                tables.charter(),
                new CheckOptions(Set.of(), 1, 0),
                each -> tables.table(each.name()).source(),
                tables.context())) {
            return FaultsSeen.of(run.result());
        }
    }

    private static List<String> told(FaultsSeen before, FaultsSeen now) {
        return before.until(now).stream()
                .map(shift -> shift.kind().words() + " at " + shift.at() + ": " + shift.before() + " to " + shift.now()
                        + ", new " + shift.newRows() + ", gone " + shift.goneRows())
                .toList();
    }

    @Test
    void rows_are_known_again_by_their_key_wherever_they_stand() {
        assertThat(told(seen("1|NULL|5", "2|Auk|x", "3|NULL|7"), seen("9|Tern|1", "3|NULL|8", "2|Auk|y", "4|NULL|1")))
                .containsExactly("null not allowed at boat: 2 to 2, new [4], gone [1]");
    }

    @Test
    void rows_whose_key_is_at_fault_are_known_again_by_all_they_hold() {
        assertThat(told(seen("1|Auk|1", "1|Auk|1", "1|Gull|2"), seen("1|Auk|1", "1|Gull|2")))
                .containsExactly("duplicate at primary_key: 3 to 2, new [], gone [1]");
        assertThat(told(seen("NULL|Auk|1"), seen("NULL|Tern|1")))
                .containsExactly("null in key at primary_key: 1 to 1, new [null], gone [null]");
    }

    @Test
    void findings_come_and_go() {
        assertThat(told(seen("1|Auk|1"), seen("1|Auk|one")))
                .containsExactly("type mismatch at fee: 0 to 1, new [1], gone []");
        assertThat(told(seen("1|Auk|one"), seen("1|Auk|1")))
                .containsExactly("type mismatch at fee: 1 to 0, new [], gone [1]");
        assertThat(told(seen("1|Auk|one"), seen("1|Auk|one"))).isEmpty();
    }
}
