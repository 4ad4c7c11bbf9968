package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.CheckProgress;
import taxiomet.check.Resources;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.rows.RowEdits;
import taxiomet.rows.TableSource;

/** A rehearsal of a proposal. The result can be read, and all its effects, until it is closed. */
public final class Rehearsal implements AutoCloseable {
    private final RehearsalRun run;
    private final RehearsalResult result;

    private Rehearsal(RehearsalRun run, RehearsalResult result) {
        this.run = run;
        this.result = result;
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
        RehearsalRun run = new RehearsalRun(charter, proposal, options, resources, progress);
        try {
            return new Rehearsal(run, run.run(open));
        } catch (RuntimeException | Error e) {
            run.close();
            throw e;
        }
    }

    /** The rows of a table as they would be; usable until the rehearsal is closed. */
    public TableSource after(String table) {
        return new OverlaySource(run.source(table), run.rows().table(table));
    }

    /** How the rows of a table would differ from what was read. */
    public RowEdits edits(String table) {
        return new OverlaySource(run.source(table), run.rows().table(table)).edits();
    }

    /** The rows of a table as they were read; usable until the rehearsal is closed. */
    public TableSource source(String table) {
        return run.source(table);
    }

    /** What the proposal would do. */
    public RehearsalResult result() {
        return result;
    }

    /** The statements of the accepted changes, in their order; only where the options ask for them. */
    public List<PlannedStatement> statements() {
        return run.statements();
    }

    /** All effects of all changes, change by change. */
    public RehearsalResult.EffectRows effects() {
        return reader -> {
            for (int i = 0; i < run.outcomes().size(); i++) {
                ChangeOutcome outcome = run.outcomes().get(i);
                for (Effect effect : outcome.effects()) {
                    reader.accept(new EffectRow(
                            i + 1,
                            outcome.isAccepted(),
                            run.names().of(effect.row()),
                            effect.kind(),
                            Optional.ofNullable(effect.link()).map(link -> link.link.name()),
                            effect.distance(),
                            Optional.ofNullable(effect.cause())
                                    .map(cause -> run.names().of(cause.row()))));
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
        ReachedTable reached = run.rows().table(table);
        int[] columns = reached.table().indexesOf(reached.table().namingKey());
        Object[] wanted = new Object[columns.length];
        for (int i = 0; i < wanted.length; i++) {
            wanted[i] = reached.codec(columns[i]).parse(key.get(i));
        }
        Object wantedKey = ListedCondition.keyOf(reached, columns, wanted);
        List<List<EffectRow>> ways = new ArrayList<>();
        for (int i = 0; i < run.outcomes().size(); i++) {
            for (Effect effect : run.outcomes().get(i).effects()) {
                if (effect.row().table == reached && isNamed(effect.row(), columns, wantedKey)) {
                    ways.add(way(i, run.outcomes().get(i), effect));
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
            Optional<RowName> by =
                    Optional.ofNullable(effect.cause()).map(cause -> run.names().of(cause.row()));
            way.add(new EffectRow(
                    change + 1,
                    outcome.isAccepted(),
                    run.names().of(effect.row()),
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
        run.close();
    }
}
