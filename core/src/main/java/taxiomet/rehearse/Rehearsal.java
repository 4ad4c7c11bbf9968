package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.Ways;
import taxiomet.personal.PersonalFlow;
import taxiomet.personal.Pseudonyms;
import taxiomet.personal.VeiledRehearsal;
import taxiomet.personal.VeiledWords;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ListedCondition;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.replay.ChangeOutcome;
import taxiomet.rehearse.replay.Refusals;
import taxiomet.rehearse.result.CellsOf;
import taxiomet.rehearse.result.OverlaySource;
import taxiomet.rows.RowEdits;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;

/** A rehearsal of a proposal. The result can be read, and all its effects, until it is closed. */
public final class Rehearsal implements AutoCloseable {
    private final RehearsalRun run;
    private final RehearsalResult result;
    private final Pseudonyms pseudonyms;
    private final VeiledRehearsal veiled;

    private Rehearsal(RehearsalRun run, RehearsalResult result, Pseudonyms pseudonyms) {
        this.run = run;
        this.pseudonyms = pseudonyms;
        this.veiled = new VeiledRehearsal(pseudonyms);
        this.result = pseudonyms.isAny() ? veiled.of(result, words(result)) : result;
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
            RunContext context) {
        Pseudonyms pseudonyms = new Pseudonyms(PersonalFlow.through(charter, proposal.changes()), context.secret());
        RehearsalRun run = new RehearsalRun(pseudonyms.charter(), proposal, options, context);
        try {
            return new Rehearsal(run, run.run(open), pseudonyms);
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

    /**
     * A row that changes name by its number, and that has a copy with the same key: SQL cannot name one of the two.
     *
     * @return empty where there is none
     */
    public Optional<RowName> oneOfTwoCopies() {
        for (ChangeOutcome outcome : run.outcomes()) {
            if (outcome.change() != null && outcome.isAccepted() && Change.namesByNumber(outcome.change())) {
                for (Effect effect : outcome.effects()) {
                    if (effect.steps() == 0 && run.hasCopy(effect.row())) {
                        return Optional.of(veiled.of(run.names().of(effect.row())));
                    }
                }
            }
        }
        return Optional.empty();
    }

    /** The changes as they were written, but for personal values of the rows that they touch. */
    private List<String> words(RehearsalResult whole) {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < whole.changes().size(); i++) {
            ChangeResult change = whole.changes().get(i);
            VeiledWords words = new VeiledWords(change.words(), pseudonyms);
            for (Effect effect : run.outcomes().get(i).effects()) {
                addPersonal(effect, words, change.place());
            }
            all.add(words.veiled());
        }
        return all;
    }

    /** @throws ProposalException when what stands in evidence for a value is written in its place */
    private static void addPersonal(Effect effect, VeiledWords words, String place) {
        ReachedTable table = effect.row().table;
        for (int at : table.columnsKept()) {
            Column column = table.column(at);
            if (!column.isPersonal()) {
                continue;
            }
            String before = written(table, at, effect.before());
            String after = written(table, at, effect.after());
            if (Pseudonyms.isOne(after)) {
                throw new ProposalException(
                        place,
                        "`" + after + "` is a pseudonym, and no value of "
                                + table.table().name() + "." + column.name(),
                        "write the value itself, or leave the column out");
            }
            words.add(table.table().name(), column.name(), before);
            words.add(table.table().name(), column.name(), after);
        }
    }

    private static String written(ReachedTable table, int column, Object[] cells) {
        return cells == null ? null : table.codec(column).write(cells[table.slotOf(column)]);
    }

    /** What the proposal would do. */
    public RehearsalResult result() {
        return result;
    }

    /** The statements of the accepted changes, in their order; only where the options ask for them. */
    public List<PlannedStatement> statements() {
        return run.statements();
    }

    /** All effects of all changes, change by change; behind those of a blocked one the rows in its way. */
    public RehearsalResult.EffectRows effects() {
        return reader -> {
            for (int i = 0; i < run.outcomes().size(); i++) {
                ChangeOutcome outcome = run.outcomes().get(i);
                for (Effect effect : outcome.effects()) {
                    reader.accept(veiled.of(effectRow(i, outcome, effect)));
                }
                int change = i;
                outcome.refusals()
                        .all()
                        .forEach((rule, refused) ->
                                refused.forEach(row -> reader.accept(veiled.of(inTheWay(change, rule, row)))));
            }
        };
    }

    private EffectRow effectRow(int change, ChangeOutcome outcome, Effect effect) {
        return new EffectRow(
                change + 1,
                outcome.isAccepted(),
                run.names().of(effect.row()),
                effect.kind(),
                Optional.ofNullable(effect.link()).map(link -> link.link.name()),
                effect.steps(),
                Optional.ofNullable(effect.cause()).map(cause -> run.names().of(cause.row())),
                CellsOf.effect(effect),
                Optional.empty());
    }

    private EffectRow inTheWay(int change, Refusals.Rule rule, ReachedRow row) {
        boolean isLink = rule.table().table().link(rule.name()).isPresent();
        return new EffectRow(
                change + 1,
                false,
                run.names().of(row),
                EffectKind.IN_THE_WAY,
                isLink ? Optional.of(rule.name()) : Optional.empty(),
                0,
                Optional.empty(),
                CellsOf.NONE,
                Optional.of(rule.kind().words() + " (" + rule.name() + ")"));
    }

    /**
     * Why a row is touched, or stands in the way.
     *
     * @param key the values of the row's key, as texts
     * @throws ProposalException when no row has the key, and no change makes one
     */
    public Ways why(String table, List<String> key) {
        ReachedTable reached = run.rows().table(table);
        int[] columns = reached.table().indexesOf(reached.table().namingKey());
        Object wanted = ListedCondition.keyOfCells(reached, columns, key);
        List<List<EffectRow>> ways = new ArrayList<>();
        List<EffectRow> inTheWay = new ArrayList<>();
        for (int i = 0; i < run.outcomes().size(); i++) {
            ChangeOutcome outcome = run.outcomes().get(i);
            for (Effect effect : outcome.effects()) {
                if (effect.row().table == reached && isNamed(effect.row(), columns, wanted)) {
                    ways.add(way(i, outcome, effect));
                }
            }
            int change = i;
            outcome.refusals()
                    .all()
                    .forEach((rule, refused) -> refused.stream()
                            .filter(row -> row.table == reached && isNamed(row, columns, wanted))
                            .forEach(row -> inTheWay.add(inTheWay(change, rule, row))));
        }
        if (ways.isEmpty() && inTheWay.isEmpty()) {
            new KeySearch(run.source(table), reached).require(columns, wanted, key);
        }
        return veiled.of(new Ways(ways, inTheWay));
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
            way.add(effectRow(change, outcome, effect));
        }
        Collections.reverse(way);
        return way;
    }

    @Override
    public void close() {
        run.close();
    }
}
