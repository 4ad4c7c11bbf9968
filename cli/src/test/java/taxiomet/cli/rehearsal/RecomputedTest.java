package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.cli.rehearsal.RandomProposal.LinkCase;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;

/**
 * What a result says beyond the rows is recomputed from what servers do to the same tables: why rows go, what is added up over them, and
 * that it would end differently elsewhere.
 */
final class RecomputedTest {
    @TempDir
    Path folder;

    private RandomCases cases;

    @BeforeEach
    void start() {
        cases = new RandomCases("recomputed", folder);
    }

    /** How a server ends. */
    private record End(boolean isAccepted, Map<String, List<String>> rows) {}

    @Test
    void warnings_that_it_ends_differently_elsewhere_are_true() throws Exception {
        List<RealServer> others = new ArrayList<>(List.of(new SqliteServer()));
        MariadbServer.started().ifPresent(others::add);
        try (RealServer postgres = new PostgresServer()) {
            cases.compare(RandomCases.USUAL, postgres::takes, drawn -> {
                RandomProposal proposal = drawn.proposal();
                Charter charter = charter(drawn);
                List<String> wrong = new ArrayList<>();
                for (String change : proposal.changes) {
                    End own = end(postgres, proposal, change);
                    List<Divergence> said;
                    try (Rehearsal rehearsal = rehearse(charter, change)) {
                        said = rehearsal.result().elsewhere();
                    }
                    Map<String, End> ends = new LinkedHashMap<>();
                    for (RealServer other : others) {
                        if (other.takes(proposal)) {
                            ends.put(other.name(), end(other, proposal, change));
                        }
                    }
                    Collections.reverse(proposal.declared);
                    ends.put("postgresql, were", end(postgres, proposal, change));
                    Collections.reverse(proposal.declared);
                    ends.forEach((where, there) -> {
                        boolean isDifferent = !own.equals(there);
                        cases.note(where + (isDifferent ? " ends differently" : " ends alike"));
                        boolean isSaid = said.stream()
                                .anyMatch(divergence -> divergence
                                        .where()
                                        .toLowerCase(Locale.ROOT)
                                        .startsWith(where));
                        if (isSaid != isDifferent) {
                            wrong.add(change + ": " + where + " " + own + "\n" + there + "\n" + said);
                        }
                    });
                }
                return wrong.isEmpty() ? Optional.empty() : Optional.of(String.join("\n", wrong));
            });
        } finally {
            for (RealServer other : others) {
                other.close();
            }
        }
        cases.requireSeen("sqlite ends differently", "sqlite ends alike");
    }

    @Test
    void sums_over_rows_and_the_ways_to_them_are_what_the_tables_say() throws Exception {
        try (RealServer postgres = new PostgresServer()) {
            cases.compare(RandomCases.USUAL, postgres::takes, drawn -> {
                RandomProposal proposal = drawn.proposal();
                Charter charter = charter(drawn);
                for (String change : proposal.changes) {
                    End end = end(postgres, proposal, change);
                    if (end.isAccepted() && change.startsWith("DELETE")) {
                        try (Rehearsal rehearsal = rehearse(charter, change)) {
                            for (TableCase table : proposal.tables) {
                                if (!writesKey(proposal, table)) {
                                    requireTotals(rehearsal, hasTotal(proposal, table), table, end, drawn.seed());
                                    requireWays(rehearsal, proposal, table, end, drawn.seed());
                                }
                            }
                        }
                    }
                }
                return Optional.empty();
            });
        }
        cases.requireSeen("sum", "way of 2 steps", "row without a way");
    }

    private static Charter charter(RandomCases.Drawn drawn) throws Exception {
        return drawn.charter(new CharterOfCase.More() {
            @Override
            public Optional<String> totalOf(TableCase table) {
                return Optional.of("v").filter(v -> hasTotal(drawn.proposal(), table));
            }
        });
    }

    private static boolean hasTotal(RandomProposal proposal, TableCase table) {
        int place = placeOfV(table);
        return place >= 0
                && proposal.links.stream()
                        .noneMatch(link -> proposal.tables.get(link.child()) == table
                                && link.columns().contains(place));
    }

    private static int placeOfV(TableCase table) {
        return table.columns.stream().map(column -> column.name()).toList().indexOf("v");
    }

    /** Whether an action on delete may give rows another primary key, by which they could not be told again. */
    private static boolean writesKey(RandomProposal proposal, TableCase table) {
        return proposal.links.stream()
                .anyMatch(link -> proposal.tables.get(link.child()) == table
                        && !link.onDelete().equals("cascade")
                        && !Collections.disjoint(link.columns(), table.primaryKey.columns()));
    }

    private static Rehearsal rehearse(Charter charter, String change) throws IOException {
        return Rehearsals.start(
                charter,
                List.of(change),
                Proposal.Deferral.DECLARED,
                new RehearsalOptions(Server.POSTGRESQL, 3, true, false, 0, false));
    }

    private static End end(RealServer server, RandomProposal proposal, String change) throws SQLException {
        server.load(proposal);
        boolean isAccepted = server.run(change).isAccepted();
        return new End(isAccepted, server.rows(proposal));
    }

    private static List<String> key(TableCase table, List<String> row) {
        return table.primaryKey.columns().stream().map(row::get).toList();
    }

    /** The rows as they stand on the server, by their keys. */
    private static Map<List<String>, List<String>> byKey(TableCase table, End end) {
        Map<List<String>, List<String>> rows = new HashMap<>();
        for (String text : end.rows().get(table.name)) {
            List<String> row = new ArrayList<>();
            for (String cell : text.substring(1, text.length() - 1).split(", ")) {
                row.add(cell.equals("null") ? null : cell);
            }
            rows.put(key(table, row), row);
        }
        return rows;
    }

    private void requireTotals(Rehearsal rehearsal, boolean hasTotal, TableCase table, End end, long seed) {
        Map<String, TotalSum> said = new LinkedHashMap<>();
        for (TotalSum sum : rehearsal.result().changes().get(0).totals()) {
            if (sum.table().equals(table.name)) {
                said.put(sum.rowsAre(), sum);
            }
        }
        Map<List<String>, List<String>> after = byKey(table, end);
        int place = placeOfV(table);
        long deleted = 0;
        long changed = 0;
        BigDecimal sumOfDeleted = BigDecimal.ZERO;
        BigDecimal sumOfChanged = BigDecimal.ZERO;
        for (List<String> row : table.rows) {
            List<String> now = after.get(key(table, row));
            String cell = place < 0 ? null : row.get(place);
            BigDecimal value = cell == null ? BigDecimal.ZERO : new BigDecimal(cell);
            if (now == null) {
                deleted++;
                sumOfDeleted = sumOfDeleted.add(value);
            } else if (!now.equals(normal(table, row))) {
                changed++;
                sumOfChanged = sumOfChanged.add(value);
            }
        }
        TotalSum gone = said.remove("deleted");
        if (gone != null) {
            assertThat(gone.rows()).as("seed %d %s", seed, table.name).isEqualTo(deleted);
            assertThat(gone.sum()).as("seed %d %s", seed, table.name).isEqualByComparingTo(sumOfDeleted);
            cases.note("sum");
        } else if (hasTotal) {
            assertThat(deleted).as("seed %d %s", seed, table.name).isZero();
        }
        if (said.size() == 1) {
            TotalSum left = said.values().iterator().next();
            // A row may be written without a change: by set default, where it holds the default already.
            assertThat(left.rows()).as("seed %d %s", seed, table.name).isGreaterThanOrEqualTo(changed);
            if (left.rows() == changed) {
                assertThat(left.sum()).as("seed %d %s", seed, table.name).isEqualByComparingTo(sumOfChanged);
                cases.note("sum over rows that are left");
            }
        }
    }

    private static List<String> normal(TableCase table, List<String> row) {
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < row.size(); i++) {
            cells.add(RealServer.cell(table.columns.get(i), row.get(i)));
        }
        return cells;
    }

    private void requireWays(Rehearsal rehearsal, RandomProposal proposal, TableCase table, End end, long seed) {
        Map<List<String>, List<String>> after = byKey(table, end);
        for (List<String> row : table.rows) {
            List<List<EffectRow>> ways =
                    rehearsal.why(table.name, key(table, row)).ways();
            List<String> now = after.get(key(table, row));
            if (now == null) {
                assertThat(ways).as("seed %d %s %s", seed, table.name, row).isNotEmpty();
                List<EffectRow> way = ways.get(ways.size() - 1);
                requireWay(way, proposal, "seed " + seed + " " + table.name + " " + row);
                assertThat(new ArrayList<>(way.get(way.size() - 1).row().key().values()))
                        .isEqualTo(key(table, row));
                cases.note("way of " + (way.size() - 1) + " steps");
            } else if (!now.equals(normal(table, row))) {
                assertThat(ways).as("seed %d %s %s", seed, table.name, row).isNotEmpty();
                cases.note("way to a row that is left");
            } else {
                assertThat(ways.stream()
                                .flatMap(List::stream)
                                .anyMatch(effect -> effect.kind() == EffectKind.DELETED
                                        && new ArrayList<>(effect.row().key().values()).equals(key(table, row))
                                        && effect.row().table().equals(table.name)))
                        .as("seed %d %s %s", seed, table.name, row)
                        .isFalse();
                cases.note("row without a way");
            }
        }
    }

    /** Each step of a way to a row that goes is a link that cascades, from a row to another that pointed at it. */
    private static void requireWay(List<EffectRow> way, RandomProposal proposal, String what) {
        assertThat(way.get(0).link()).as(what).isEmpty();
        for (int i = 0; i < way.size(); i++) {
            EffectRow step = way.get(i);
            assertThat(step.steps()).as(what).isEqualTo(i);
            assertThat(step.kind()).as(what).isEqualTo(EffectKind.DELETED);
            if (i > 0) {
                LinkCase link = proposal.links.stream()
                        .filter(l -> l.name().equals(step.link().orElseThrow()))
                        .findFirst()
                        .orElseThrow();
                RowName parent = way.get(i - 1).row();
                assertThat(step.by()).as(what).contains(parent);
                assertThat(link.onDelete()).as(what).isEqualTo("cascade");
                assertThat(proposal.tables.get(link.parent()).name).as(what).isEqualTo(parent.table());
                assertThat(picked(rowOf(proposal, step.row()), link.columns()))
                        .as(what)
                        .isEqualTo(picked(rowOf(proposal, parent), link.parentColumns()));
            }
        }
    }

    private static List<String> rowOf(RandomProposal proposal, RowName name) {
        return proposal.tables.stream()
                .filter(table -> table.name.equals(name.table()))
                .findFirst()
                .orElseThrow()
                .rows
                .get((int) name.row() - 1);
    }

    private static List<String> picked(List<String> row, List<Integer> columns) {
        return columns.stream().map(row::get).toList();
    }
}
