package taxiomet.cli.conformance;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charters.Charters;
import taxiomet.cli.conformance.RandomCase.LinkCase;
import taxiomet.cli.conformance.RandomCase.RowCase;
import taxiomet.cli.conformance.RandomCase.TableCase;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.roster.Roster;
import taxiomet.roster.RosterOptions;
import taxiomet.roster.RosterOptions.Childless;
import taxiomet.sources.RowSources;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;

/** What a roster lists is what a plain join lists: the same children below the same headings, with the same totals, and none left out. */
class RosterConformanceTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 200);
    private static final long FIRST_SEED = Long.getLong("taxiomet.seed", 16_900L);

    private final Map<String, Integer> seen = new TreeMap<>();

    /** The children over one link as they were read: by heading, counted from 0, each with its cells; and their totals. */
    private static final class Listed implements RosterResult.Reader {
        private final Map<Integer, List<List<String>>> children = new TreeMap<>();
        private final Map<Integer, List<Sum>> sums = new TreeMap<>();
        private Section section;
        private int heading = -1;
        private long others;

        @Override
        public void section(Section which, String name, long count) {
            section = which;
            heading += which == Section.HEADING ? 1 : 0;
        }

        @Override
        public void group(Group group, List<String> columns) {
            assertThat(columns).containsAll(group.columns());
        }

        @Override
        public void row(List<String> cells) {
            if (section == Section.HEADING) {
                children.computeIfAbsent(heading, h -> new ArrayList<>()).add(new ArrayList<>(cells));
            } else {
                others++;
            }
        }

        @Override
        public void endGroup(Group group, long rows, List<Sum> subtotals) {
            if (section == Section.HEADING && !subtotals.isEmpty()) {
                sums.put(heading, subtotals);
            }
        }
    }

    private static List<Integer> sound(TableCase table) {
        return IntStream.range(0, table.rows.size())
                .filter(i -> table.rows.get(i).malformed() == null)
                .boxed()
                .toList();
    }

    @Test
    void children_and_totals_are_those_of_a_join(@TempDir Path folder) throws Exception {
        for (long seed = FIRST_SEED; seed < FIRST_SEED + CASES; seed++) {
            RandomCase random = new RandomCase(seed);
            Path place = Files.createDirectory(folder.resolve("case" + seed));
            CaseFiles.write(random, place);
            Charter charter = Charters.read(place.resolve("charter.json"), Optional.empty())
                    .charter();
            try (SqlOracle oracle = new SqlOracle(random)) {
                for (TableCase child : random.tables) {
                    for (LinkCase link : child.links) {
                        compare(charter, random, oracle, child, link, place, seed);
                    }
                }
            }
        }
        System.out.println("roster: seeds " + FIRST_SEED + " to " + (FIRST_SEED + CASES - 1) + ", seen " + seen);
        assertThat(seen).containsKeys("listed", "orphans", "without parent", "malformed", "a key twice", "products");
    }

    private void compare(
            Charter charter, RandomCase random, SqlOracle oracle, TableCase child, LinkCase link, Path place, long seed)
            throws Exception {
        TableCase parent = random.tables.get(link.parent());
        List<String> columns =
                child.columns.stream().map(column -> column.name()).toList();
        RosterOptions options = new RosterOptions(
                List.of(child.name + "." + link.name()),
                columns,
                List.of(),
                Optional.empty(),
                Optional.empty(),
                Childless.SHOW);
        RunContext context = new RunContext(place, new MemoryBudget(1 << 22), 1, 1);
        Listed listed = new Listed();
        Group group;
        try (Roster roster = Roster.of(charter, parent.name, options, table -> RowSources.open(table, 64), context)) {
            roster.read(listed);
            assertThat(roster.result().groups()).hasSize(1);
            group = roster.result().groups().get(0);
            if (!roster.result().remarks().isEmpty()) {
                seen.merge("a key twice", 1, Integer::sum);
            }
        }
        List<Integer> headings = sound(parent);
        Map<Integer, List<Long>> joined = new TreeMap<>();
        for (long[] pair : oracle.firstParents(child, link)) {
            joined.computeIfAbsent(headings.indexOf((int) pair[1] - 1), h -> new ArrayList<>())
                    .add(pair[0]);
        }
        String what = "seed " + seed + ", " + child.name + "." + link.name();
        Map<Integer, List<List<String>>> expected = new TreeMap<>();
        joined.forEach((heading, rows) -> expected.put(
                heading,
                rows.stream().map(row -> cells(child.rows.get((int) (row - 1)))).toList()));
        assertThat(listed.children).as(what).isEqualTo(expected);
        Optional<Integer> total = CaseFiles.total(child);
        Optional<LinkCase> totalLink = CaseFiles.totalLink(random, child);
        for (Map.Entry<Integer, List<Sum>> sums : listed.sums.entrySet()) {
            List<Long> below = joined.get(sums.getKey());
            String rows = below.stream().map(String::valueOf).collect(Collectors.joining(", "));
            int own = total.orElseThrow();
            assertThat(sums.getValue()).hasSize(totalLink.isPresent() ? 2 : 1);
            assertThat(sums.getValue().get(0).sum()).as(what).isEqualByComparingTo(oracle.sum(child, own, rows));
            if (totalLink.isPresent()) {
                int above = CaseFiles.total(random.tables.get(totalLink.get().parent()))
                        .orElseThrow();
                BigDecimal products = oracle.sumOfProducts(child, own, totalLink.get(), above, below);
                assertThat(sums.getValue().get(1).sum()).as(what).isEqualByComparingTo(products);
                seen.merge(products.signum() == 0 ? "products 0" : "products", 1, Integer::sum);
            }
        }
        assertThat(group.listed() + group.orphans() + group.withoutParent() + group.malformed())
                .as(what)
                .isEqualTo(group.rows())
                .isEqualTo(child.rows.size());
        assertThat(listed.others).as(what).isEqualTo(group.orphans() + group.withoutParent());
        seen.merge("listed", (int) group.listed(), Integer::sum);
        seen.merge("orphans", (int) group.orphans(), Integer::sum);
        seen.merge("without parent", (int) group.withoutParent(), Integer::sum);
        seen.merge("malformed", (int) group.malformed(), Integer::sum);
    }

    private static List<String> cells(RowCase row) {
        List<String> cells = new ArrayList<>();
        row.cells().forEach(cell -> cells.add(cell.text()));
        return cells;
    }
}
