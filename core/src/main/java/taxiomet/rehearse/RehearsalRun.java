package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Key;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.RehearsalResult;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.mariadb.MariadbReplay;
import taxiomet.rehearse.postgresql.PostgresReplay;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.KeyLookup;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.RowGatherer;
import taxiomet.rehearse.replay.ChangeOutcome;
import taxiomet.rehearse.replay.ChangeReader;
import taxiomet.rehearse.replay.Replay;
import taxiomet.rehearse.replay.StatementTrace;
import taxiomet.rehearse.result.FindingComparison;
import taxiomet.rehearse.result.ResultBuilder;
import taxiomet.rehearse.result.RowNames;
import taxiomet.rehearse.sqlite.SqliteReplay;
import taxiomet.rehearse.standard.StandardReplay;
import taxiomet.rows.SoughtRows;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;

/** The work of a rehearsal: reads what the proposal reaches, replays it, and compares what comes of it. */
final class RehearsalRun implements AutoCloseable {
    /** How many other orders of the changes are tried at most. */
    private static final int MOST_ORDERS = 40;

    private final Charter charter;
    private final Proposal proposal;
    private final RehearsalOptions options;
    private final Map<String, TableSource> sources = new LinkedHashMap<>();
    private final ReachedRows rows;
    private final RowNames names;
    private final RowGatherer gatherer;
    private final FindingComparison comparison;
    private List<ChangeOutcome> outcomes = List.of();
    private StatementTrace statements = new StatementTrace();

    RehearsalRun(Charter charter, Proposal proposal, RehearsalOptions options, RunContext context) {
        this.charter = charter;
        this.proposal = proposal;
        this.options = options;
        this.rows = new ReachedRows(charter);
        this.names = new RowNames(sources);
        this.gatherer = new RowGatherer(rows, sources, context, context.progress()::reading);
        this.comparison = new FindingComparison(rows, sources, gatherer, context);
    }

    /** @param open opens the rows of a table with all its declared columns */
    RehearsalResult run(Function<Table, TableSource> open) {
        for (Table table : charter.tables()) {
            TableSource source = open.apply(table);
            sources.put(
                    table.name(),
                    source.inside(table, charter, sources)
                            .map(place -> (TableSource) new SoughtRows(source, place))
                            .orElse(source));
            rows.table(table.name())
                    .setFiles(IntStream.range(0, source.partCount())
                            .mapToObj(part -> withoutFolders(source.partName(part)))
                            .toList());
        }
        ColumnsKept.decide(rows, proposal, options.plansStatements());
        gatherTargets();
        if (options.comparesFindings() && rows.countRead() > options.mostNear()) {
            comparison.checkAllBefore();
        }
        outcomes = replay(options.behaviour(), rows.links(), proposal);
        ResultBuilder builder = new ResultBuilder(
                charter,
                proposal,
                options.behaviour().name().toLowerCase(java.util.Locale.ROOT),
                options.examples(),
                rows,
                names,
                gatherer);
        ReachedRows.Standing own = rows.standing();
        StatementTrace ownStatements = statements;
        if (lookForBetterOrder(builder)) {
            rows.restore(own);
        }
        if (options.looksElsewhere()) {
            new Elsewhere(this, options, proposal, rows, names).look(outcomes, builder);
            rows.restore(own);
        }
        statements = ownStatements;
        if (options.comparesFindings()) {
            comparison.compare(options.examples(), builder);
        }
        gatherer.countRows();
        return builder.build(outcomes);
    }

    private static String withoutFolders(String path) {
        return path.substring(path.replace('\\', '/').lastIndexOf('/') + 1);
    }

    /** Whether another row had the same key when it was read, by which a row is called. */
    boolean hasCopy(ReachedRow row) {
        List<Key> keys = row.table.table().keys();
        if (row.isNew() || keys.isEmpty()) {
            return false;
        }
        KeyLookup lookup = row.table.lookup(keys.get(0));
        Object key = lookup.keyOf(row.original);
        if (key == null) {
            return false;
        }
        row.table.want(lookup, key);
        gatherer.gather();
        int[] copies = {0};
        row.table.rows.forEach(other -> copies[0] += key.equals(lookup.keyOf(other.original)) ? 1 : 0);
        return copies[0] > 1;
    }

    /** For each refused change, whether a later one would let it pass if it came first (R13). Whether anything was tried. */
    private boolean lookForBetterOrder(ResultBuilder builder) {
        int tries = 0;
        for (int i = 0; i < proposal.changes().size(); i++) {
            for (int later = i + 1;
                    later < proposal.changes().size() && !outcomes.get(i).isAccepted();
                    later++) {
                if (!outcomes.get(later).isAccepted() || ++tries > MOST_ORDERS) {
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
        return tries > 0;
    }

    /** Reads the rows that changes name, with all that would follow them, before the first replay. */
    private void gatherTargets() {
        ChangeReader reader = new ChangeReader(rows, proposal.now(), CellCodec::assign);
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
    List<ChangeOutcome> replay(Server behaviour, List<ReachedLink> order, Proposal toReplay) {
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

    private Replay replayOf(Server behaviour, List<ReachedLink> order, Proposal toReplay) {
        return switch (behaviour) {
            case STANDARD -> new StandardReplay(rows, toReplay);
            case POSTGRESQL -> new PostgresReplay(rows, toReplay, order);
            case SQLITE -> new SqliteReplay(rows, toReplay, order);
            case MARIADB -> new MariadbReplay(rows, toReplay);
            case SQLSERVER, ORACLE -> throw new IllegalArgumentException(behaviour.title() + " is not rehearsed");
        };
    }

    ReachedRows rows() {
        return rows;
    }

    RowNames names() {
        return names;
    }

    /** The rows of a table as they were read. */
    TableSource source(String table) {
        return sources.get(table);
    }

    /** What became of each change, and of the whole behind them. */
    List<ChangeOutcome> outcomes() {
        return outcomes;
    }

    List<PlannedStatement> statements() {
        return statements.statements();
    }

    @Override
    public void close() {
        comparison.close();
        sources.values().forEach(TableSource::close);
    }
}
