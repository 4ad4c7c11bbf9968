package taxiomet.survey.count;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.survey.profile.FoundTable;
import taxiomet.survey.profile.SampleSizes;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.TableProfiler;
import taxiomet.survey.search.NameLikeness;
import taxiomet.survey.search.Pair;
import taxiomet.testing.MemorySource;
import taxiomet.work.RunContext;

/** What is counted over a candidate link is the same from the rows of the child and from its values, where these are all known. */
class CountingTest {
    private static final int HIVES = 40;
    private static final int VISITS = 5_000;

    @TempDir
    private Path folder;

    private final int[] hiveKey = {0};
    private final List<String> hives = new ArrayList<>();
    private final List<String> visits = new ArrayList<>();

    private TableSource open(String table) {
        return table.equals("hive")
                ? new MemorySource(List.of("hive_id", "label"), hives, 50)
                : new MemorySource(List.of("visit_id", "hive_id"), visits, 50);
    }

    private TableProfile profile(String table, List<String> columns) {
        FoundTable found = new FoundTable(
                table,
                new DelimitedFiles(Path.of("."), table, ',', '"', "UTF-8", true, Optional.empty(), List.of()),
                columns,
                List.of());
        return TableProfiler.profile(found, open(table), SampleSizes.of(List.of(found)), 2);
    }

    private CountedLink count(boolean areValuesKept) {
        TableProfile hive = profile("hive", List.of("hive_id", "label"));
        TableProfile visit = profile("visit", List.of("visit_id", "hive_id"));
        if (areValuesKept) {
            visit.keepKnown(1);
            assertThat(visit.known(1)).isPresent();
        }
        Pair pair = new Pair(visit, new int[] {1}, hive, hiveKey);
        Function<Table, TableSource> open = table -> open(table.name());
        return Counting.of(
                        List.of(hive, visit),
                        Map.of(hive, List.of(hiveKey)),
                        List.of(pair),
                        0,
                        new NameLikeness(),
                        open,
                        new RunContext(folder, new MemoryBudget(16 << 20), 2, 1))
                .link(pair)
                .orElseThrow();
    }

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void rows_orphans_and_children_are_those_of_the_rows(boolean areValuesKept) {
        IntStream.rangeClosed(1, HIVES).forEach(hive -> hives.add(hive + "|Hive " + hive));
        Random random = new Random(3);
        List<String> pointers = new ArrayList<>();
        for (int visit = 0; visit < VISITS; visit++) {
            int any = random.nextInt(1_000);
            String pointer = any < 3 ? "gone" : any < 20 ? "NULL" : "" + (1 + random.nextInt(HIVES + 5));
            pointers.add(pointer);
            visits.add(visit + "|" + pointer);
        }
        Map<String, Long> rowsOf = pointers.stream().collect(Collectors.groupingBy(p -> p, Collectors.counting()));
        List<MissingValue> missing = rowsOf.entrySet().stream()
                .filter(e -> e.getKey().equals("gone")
                        || (!e.getKey().equals("NULL") && Integer.parseInt(e.getKey()) > HIVES))
                .map(e -> new MissingValue(List.of(e.getKey()), e.getValue(), Optional.empty()))
                .toList();

        CountedLink counted = count(areValuesKept);

        LinkResult link = counted.result();
        assertThat(link.rows()).isEqualTo(VISITS);
        assertThat(link.nulls()).isEqualTo(rowsOf.get("NULL"));
        assertThat(link.illTyped()).isEqualTo(rowsOf.get("gone"));
        assertThat(link.orphans())
                .isEqualTo(missing.stream().mapToLong(MissingValue::rows).sum());
        assertThat(counted.missing()).isSubsetOf(missing).hasSize(5);
        assertThat(link.children().orElseThrow().parents()).isEqualTo(HIVES);
        assertThat(link.children().orElseThrow().most())
                .isEqualTo(IntStream.rangeClosed(1, HIVES)
                        .mapToLong(hive -> rowsOf.getOrDefault("" + hive, 0L))
                        .max()
                        .orElseThrow());
    }
}
