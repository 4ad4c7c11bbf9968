package taxiomet.survey;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Finding;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.survey.profile.FoundTable;
import taxiomet.testing.MemorySource;
import taxiomet.work.RunContext;

/** A key or a link tried by hand, before anything is declared. */
class TrialTest {
    private static final Map<String, List<String>> ROWS = Map.of(
            "keeper", List.of("1|Ada", "2|Bo", "3|Bo"),
            "hive", List.of("10|1|x", "11|2|y", "12|7|z", "12|NULL|z"));

    private static final List<FoundTable> FOUND =
            List.of(found("keeper", "id", "name"), found("hive", "id", "keeper", "mark"));

    private static TableSource open(Table table) {
        return new MemorySource(table.columns().stream().map(c -> c.name()).toList(), ROWS.get(table.name()), 2);
    }

    @TempDir
    private Path folder;

    private static FoundTable found(String name, String... columns) {
        DelimitedFiles rows =
                new DelimitedFiles(Path.of("."), name, ',', '"', "UTF-8", true, Optional.empty(), List.of());
        return new FoundTable(name, rows, List.of(columns), List.of());
    }

    private List<String> faults(Trial trial) {
        RunContext context = new RunContext(folder, new MemoryBudget(1 << 20), 1, 1);
        try (CheckRun run =
                CheckRun.start(trial.charter(), new CheckOptions(Set.of(), 3, 0), TrialTest::open, context)) {
            CheckResult result = run.result();
            return Trial.faults(result).stream().map(TrialTest::words).toList();
        }
    }

    private static String words(Finding finding) {
        return finding.kind().words() + " " + finding.columns() + " " + finding.rows();
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    keeper=id;          none
                    keeper=name;        duplicate [name] 2
                    keeper=id,name;     none
                    hive=id,mark;       duplicate [id, mark] 2
                    hive=id,keeper;     broken rule [id, keeper] 1
                    """)
    void a_key_holds_or_is_at_fault(String words, String fault) {
        assertThat(faults(Trial.ofKey(FOUND, words, TrialTest::open)))
                .containsExactlyElementsOf(fault.equals("none") ? List.of() : List.of(fault));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    hive.keeper=keeper.id;   orphan [keeper] 1
                    keeper.id=keeper.id;     none
                    hive.id=keeper.id;       orphan [id] 4
                    """)
    void a_link_holds_or_has_orphans(String words, String fault) {
        Trial trial = Trial.ofLink(FOUND, words, TrialTest::open);
        assertThat(faults(trial)).containsExactlyElementsOf(fault.equals("none") ? List.of() : List.of(fault));
        assertThat(trial.link()).isPresent();
        assertThat(trial.words()).isEqualTo(words);
    }

    @ParameterizedTest
    @ValueSource(strings = {"keeper", "keeper=", "=id", "keeprs=id", "keeper=no_such", "keeper=id,"})
    void a_key_that_cannot_be_tried_is_an_error_in_words(String words) {
        assertThatThrownBy(() -> Trial.ofKey(FOUND, words, TrialTest::open))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageMatching("(?s).{10,}");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    hive.keeper;                 write TABLE.COLUMN=OTHER.COLUMN
                    hive.keeper=keeper;          write TABLE.COLUMN=OTHER.COLUMN
                    hive.keeper,id=keeper.id;    both ends need as many columns
                    hive.mark=keeper.id;         which can never be equal
                    hive.keper=keeper.id;        keper
                    hvie.keeper=keeper.id;       hvie
                    """)
    void a_link_that_cannot_be_tried_is_an_error_in_words(String words, String problem) {
        assertThatThrownBy(() -> Trial.ofLink(FOUND, words, TrialTest::open))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(problem);
    }
}
