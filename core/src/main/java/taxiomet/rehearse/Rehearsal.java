package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Charter.Behaviour;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.CheckOptions;
import taxiomet.check.CheckProgress;
import taxiomet.check.CheckRun;
import taxiomet.check.Resources;
import taxiomet.finding.FindingKind;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rows.RowEdits;
import taxiomet.rows.TableSource;

/** A rehearsal of a proposal. The result can be read, and all its effects, until it is closed. */
public final class Rehearsal implements AutoCloseable {
    /** How many other orders of the changes are tried at most. */
    private static final int MOST_ORDERS = 40;

    private final Charter charter;
    private final Proposal proposal;
    private final RehearsalOptions options;
    private final Resources resources;
    private final CheckProgress progress;
    private final Map<String, TableSource> sources = new LinkedHashMap<>();
    private final ReachedRows rows;
    private final RowNames names;
    private RowGatherer gatherer;
    private List<ChangeOutcome> outcomes = List.of();
    private StatementTrace statements = new StatementTrace();
    private RehearsalResult result;

    private Rehearsal(
            Charter charter, Proposal proposal, RehearsalOptions options, Resources resources, CheckProgress progress) {
        this.charter = charter;
        this.proposal = proposal;
        this.options = options;
        this.resources = resources;
        this.progress = progress;
        this.rows = new ReachedRows(charter);
        this.names = new RowNames(sources);
    }

    /**
     * Rehearses a proposal.
     *
     * @param open opens the rows of a table with all its declared columns
     * @throws ProposalException when the proposal does not fit the rows
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static Rehearsal start(
            Charter charter,
            Proposal proposal,
            RehearsalOptions options,
            Function<Table, TableSource> open,
            Resources resources,
            CheckProgress progress) {
        Rehearsal rehearsal = new Rehearsal(charter, proposal, options, resources, progress);
        try {
            rehearsal.run(open);
            return rehearsal;
        } catch (RuntimeException | Error e) {
            rehearsal.close();
            throw e;
        }
    }

    private void run(Function<Table, TableSource> open) {
        for (Table table : charter.tables()) {
            sources.put(table.name(), open.apply(table));
        }
        gatherer = new RowGatherer(rows, sources, resources, progress::reading);
        ColumnsKept.decide(rows, proposal, options.plansStatements());
        CheckOptions checking = new CheckOptions(Set.of(), 0, 0);
        FindingRowsSeen before;
        Map<String, Long> rowsBefore = new LinkedHashMap<>();
        try (CheckRun check =
                CheckRun.start(charter, checking, table -> sources.get(table.name()), resources, progress)) {
            before = new FindingRowsSeen(check.result(), sources);
            check.result().tables().forEach(table -> rowsBefore.put(table.name(), table.rows()));
            noteUniqueKeys(check);
            noteSoundLinks(check);
        }
        gatherTargets();
        outcomes = replay(options.behaviour(), rows.links(), proposal);
        ResultBuilder builder = new ResultBuilder(charter, proposal, options, rows, names);
        lookForBetterOrder(builder);
        if (options.looksElsewhere()) {
            new Elsewhere(this, options, proposal, rows, names).look(outcomes, builder);
            outcomes = replay(options.behaviour(), rows.links(), proposal);
        }
        if (options.comparesFindings()) {
            compareFindings(before, checking, builder);
        }
        result = builder.build(rowsBefore, outcomes);
    }

    /** For each refused change, whether a later one would let it pass if it came first (R13). */
    private void lookForBetterOrder(ResultBuilder builder) {
        int tries = 0;
        List<ChangeOutcome> own = outcomes;
        for (int i = 0; i < proposal.changes().size(); i++) {
            for (int later = i + 1;
                    later < proposal.changes().size() && !own.get(i).isAccepted();
                    later++) {
                if (!own.get(later).isAccepted() || ++tries > MOST_ORDERS) {
                    continue;
                }
                List<Change> reordered = new ArrayList<>(proposal.changes().subList(0, i));
                reordered.add(proposal.changes().get(later));
                reordered.add(proposal.changes().get(i));
                Proposal tried = new Proposal(reordered, false, proposal.deferral(), proposal.now());
                List<ChangeOutcome> came = replay(options.behaviour(), rows.links(), tried);
                if (came.get(i + 1).isAccepted() && came.get(i).isAccepted()) {
                    builder.setPassesAfter(i, later);
                    break;
                }
            }
        }
        if (tries > 0) {
            outcomes = replay(options.behaviour(), rows.links(), proposal);
        }
    }

    /** Where no duplicates were found, a key has one row alone: others need not be looked for. */
    private void noteUniqueKeys(CheckRun check) {
        for (ReachedTable table : rows.tables()) {
            for (Key key : table.table().keys()) {
                boolean hasDuplicates = check.result().findings().stream()
                        .anyMatch(finding -> finding.kind() == FindingKind.DUPLICATE
                                && finding.table().equals(table.table().name())
                                && finding.at().equals(key.name()));
                if (!hasDuplicates) {
                    table.lookup(key).setUniqueAsRead();
                }
            }
        }
    }

    private void noteSoundLinks(CheckRun check) {
        for (ReachedLink link : rows.links()) {
            boolean hasOrphans = check.result().links().stream()
                    .anyMatch(found -> found.child().equals(link.link.child())
                            && found.name().equals(link.link.name())
                            && found.orphans() > 0);
            if (!hasOrphans) {
                link.setSoundAsRead();
            }
        }
    }

    /** Reads the rows that changes name, with all that would follow them, before the first replay. */
    private void gatherTargets() {
        ChangeReader reader = new ChangeReader(rows, proposal.now());
        for (Change change : proposal.changes()) {
            boolean namesByCondition = !(change instanceof Change.Insert)
                    && !(change instanceof Change.Merge)
                    && !(change instanceof Change.Renumber);
            if (namesByCondition) {
                reader.targets(change);
            }
        }
        gatherer.gather();
    }

    /** Replays a proposal until nothing is missing; afterwards the rows stand as it leaves them. */
    List<ChangeOutcome> replay(Behaviour behaviour, List<ReachedLink> order, Proposal toReplay) {
        while (true) {
            rows.reset();
            statements = new StatementTrace();
            Replay replay = replayOf(behaviour, order, toReplay);
            List<ChangeOutcome> came =
                    options.plansStatements() ? replay.tracedBy(statements).run() : replay.run();
            if (rows.misses() == 0) {
                return came;
            }
            gatherer.gather();
        }
    }

    private Replay replayOf(Behaviour behaviour, List<ReachedLink> order, Proposal toReplay) {
        return switch (behaviour) {
            case STANDARD -> new StandardReplay(rows, toReplay);
            case POSTGRESQL -> new PostgresReplay(rows, toReplay, order);
            case SQLITE -> new SqliteReplay(rows, toReplay, order);
            case MARIADB -> new MariadbReplay(rows, toReplay);
        };
    }

    private void compareFindings(FindingRowsSeen before, CheckOptions checking, ResultBuilder builder) {
        Map<String, OverlaySource> overlays = new LinkedHashMap<>();
        for (ReachedTable table : rows.tables()) {
            overlays.put(
                    table.table().name(),
                    new OverlaySource(sources.get(table.table().name()), table));
        }
        if (overlays.values().stream().noneMatch(OverlaySource::isChanged)) {
            return;
        }
        boolean hasNewRows = overlays.values().stream().anyMatch(OverlaySource::hasNewRows);
        Resources after = hasNewRows
                ? new Resources(resources.temporary(), resources.budget(), 1, resources.bytesForThread())
                : resources;
        try (CheckRun check = CheckRun.start(charter, checking, table -> overlays.get(table.name()), after, progress)) {
            FindingRowsSeen then = new FindingRowsSeen(check.result(), overlays);
            builder.setFindings(then.without(before, options.examples()), before.without(then, options.examples()));
        }
    }

    /** The rows of a table as they would be; usable until the rehearsal is closed. */
    public TableSource after(String table) {
        return new OverlaySource(sources.get(table), rows.table(table));
    }

    /** How the rows of a table would differ from what was read. */
    public RowEdits edits(String table) {
        return new OverlaySource(sources.get(table), rows.table(table)).edits();
    }

    /** The rows of a table as they were read; usable until the rehearsal is closed. */
    public TableSource source(String table) {
        return sources.get(table);
    }

    /** What the proposal would do. */
    public RehearsalResult result() {
        return result;
    }

    /** The statements of the accepted changes, in their order; only where the options ask for them. */
    public List<PlannedStatement> statements() {
        return statements.statements();
    }

    /** All effects of all changes, change by change. */
    public RehearsalResult.EffectRows effects() {
        return reader -> {
            for (int i = 0; i < outcomes.size(); i++) {
                ChangeOutcome outcome = outcomes.get(i);
                for (Effect effect : outcome.effects()) {
                    reader.accept(new EffectRow(
                            i + 1,
                            outcome.isAccepted(),
                            names.of(effect.row()),
                            effect.kind(),
                            Optional.ofNullable(effect.link()).map(link -> link.link.name()),
                            effect.distance(),
                            Optional.ofNullable(effect.cause()).map(cause -> names.of(cause.row()))));
                }
            }
        };
    }

    /**
     * Why a row is touched: the effects that lead to it, that on a row which a change names first.
     *
     * @param key the values of the row's key, as texts
     * @return for each change that touches the row, the way to it
     * @throws ProposalException when no row has the key
     */
    public List<List<EffectRow>> why(String table, List<String> key) {
        ReachedTable reached = rows.table(table);
        int[] columns = reached.table().indexesOf(reached.table().namingKey());
        Object[] wanted = new Object[columns.length];
        for (int i = 0; i < wanted.length; i++) {
            wanted[i] = reached.codec(columns[i]).parse(key.get(i));
        }
        Object wantedKey = ListedCondition.keyOf(reached, columns, wanted);
        List<List<EffectRow>> ways = new ArrayList<>();
        for (int i = 0; i < outcomes.size(); i++) {
            for (Effect effect : outcomes.get(i).effects()) {
                if (effect.row().table == reached && isNamed(effect.row(), columns, wantedKey)) {
                    ways.add(way(i, outcomes.get(i), effect));
                }
            }
        }
        return ways;
    }

    private static boolean isNamed(ReachedRow row, int[] columns, Object key) {
        Object[] values = Arrays.stream(columns)
                .mapToObj(column -> (row.isNew() ? row.values : row.original)[row.table.slotOf(column)])
                .toArray();
        return key.equals(ListedCondition.keyOf(row.table, columns, values));
    }

    private List<EffectRow> way(int change, ChangeOutcome outcome, Effect last) {
        List<EffectRow> way = new ArrayList<>();
        for (Effect effect = last; effect != null; effect = effect.cause()) {
            Optional<RowName> by = Optional.ofNullable(effect.cause()).map(cause -> names.of(cause.row()));
            way.add(new EffectRow(
                    change + 1,
                    outcome.isAccepted(),
                    names.of(effect.row()),
                    effect.kind(),
                    Optional.ofNullable(effect.link()).map(link -> link.link.name()),
                    effect.distance(),
                    by));
        }
        Collections.reverse(way);
        return way;
    }

    @Override
    public void close() {
        sources.values().forEach(TableSource::close);
    }
}
