package taxiomet.rehearse.replay;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.Expression;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.Key;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.KeyLookup;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowCondition;
import taxiomet.rehearse.reach.RowLeaves;
import taxiomet.rehearse.reach.Unread;

/**
 * Carries the changes of a proposal out on the rows reached, in the order of one behaviour. It never stops at a refusal: it goes on, so
 * that every rule is known that a change would break (R13), and takes the change back when it is through. What behaviours share stands
 * in one file, as methods that they call and override.
 */
public abstract class Replay {
    protected final ReachedRows rows;
    private final Proposal proposal;
    private final ChangeReader reader;
    private final Map<ReachedTable, RowJudge> judges = new HashMap<>();
    private final List<ChangeOutcome> outcomes = new ArrayList<>();
    private final Map<ReachedTable, Map<Integer, Long>> lastNumbers = new HashMap<>();

    private Refusals refusals = new Refusals();
    private List<Effect> effects = new ArrayList<>();
    private List<ReachedRow> keptByTwins = new ArrayList<>();
    private int statement;
    /** The first statement of the transaction at hand. */
    private int firstStatement;

    private Change changeAtHand;
    private Optional<StatementTrace> trace = Optional.empty();

    /** @param proposal what is to be carried out */
    public Replay(ReachedRows rows, Proposal proposal) {
        this.rows = rows;
        this.proposal = proposal;
        this.reader = new ChangeReader(rows, proposal.now(), this::assigned);
    }

    /** Carries all changes out; gives what became of each. Where rows were missing, the outcome is not to be relied on. */
    public final List<ChangeOutcome> run() {
        boolean isRefused = false;
        for (Change change : proposal.changes()) {
            ChangeOutcome outcome = run(change);
            outcomes.add(outcome);
            isRefused |= !outcome.isAccepted();
        }
        refusals = new Refusals();
        judgeDeferred();
        boolean isUndone = !refusals.isEmpty() || (isRefused && proposal.isAllOrNothing());
        if (isUndone) {
            rows.undoTo(0);
            trace.ifPresent(StatementTrace::forget);
        }
        outcomes.add(new ChangeOutcome(null, refusals, List.of(), List.of(), 0, isUndone));
        return outcomes;
    }

    private ChangeOutcome run(Change change) {
        refusals = new Refusals();
        effects = new ArrayList<>();
        keptByTwins = new ArrayList<>();
        int mark = rows.mark();
        boolean isOneForAll = trace.isPresent() || rows.links().stream().anyMatch(this::waits);
        firstStatement = isOneForAll ? 1 : statement + 1;
        changeAtHand = change;
        trace.ifPresent(StatementTrace::begin);
        int direct = carryOut(change);
        ChangeOutcome outcome = new ChangeOutcome(change, refusals, effects, keptByTwins, direct, !refusals.isEmpty());
        if (!refusals.isEmpty()) {
            rows.undoTo(mark);
            forgetDeferred();
        } else {
            keepDeferred();
            trace.ifPresent(StatementTrace::keep);
        }
        return outcome;
    }

    /** Carries one change out and gives how many rows it named. */
    private int carryOut(Change change) {
        ReachedTable table = rows.table(change.table());
        int direct;
        if (change instanceof Change.Merge merge) {
            return new RowMerge(this, rows).merge(merge);
        } else if (change instanceof Change.Renumber renumber) {
            return new RowMerge(this, rows).renumber(renumber);
        }
        if (change instanceof Change.Insert insert) {
            List<Object[]> values = new ArrayList<>();
            for (Change.InsertedRow row : insert.rows()) {
                values.add(newRow(table, insert, row));
            }
            if (refusals.isEmpty()) {
                runInsert(table, values);
            }
            direct = values.size();
        } else if (change instanceof Change.Delete || change instanceof Change.DeleteListed) {
            List<ReachedRow> targets = reader.targets(change);
            runDelete(table, named(change, table, targets));
            direct = targets.size();
        } else {
            List<ReachedRow> targets = reader.targets(change);
            ChangeReader.Assigner assigner = reader.assigner(change, assignsInTurn());
            if (readsConstantsFirst()) {
                reader.constants(change).forEach((column, value) -> {
                    if (value instanceof Unread) {
                        refusals.add(RefusalKind.TYPE_MISMATCH, table, column);
                    }
                });
            }
            for (ReachedRow row : targets) {
                requireTypes(row, row.values, assigner.values(row));
            }
            if (refusals.isEmpty()) {
                runUpdate(table, named(change, table, targets), assigner);
            }
            direct = targets.size();
        }
        return direct;
    }

    /** Runs an INSERT, which may be one of several statements of a change. */
    protected final void runInsert(ReachedTable table, List<Object[]> newRows) {
        statement++;
        int before = effects.size();
        insert(table, newRows);
        trace(Kind.INSERT, table, new int[0], Map.of(), before);
    }

    /** Runs a DELETE. */
    protected final void runDelete(ReachedTable table, List<ReachedRow> targets) {
        statement++;
        int before = effects.size();
        delete(table, targets);
        trace(Kind.DELETE, table, new int[0], Map.of(), before);
    }

    /** Runs an UPDATE. */
    protected final void runUpdate(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        statement++;
        int before = effects.size();
        Map<ReachedRow, Object[]> written = new LinkedHashMap<>();
        if (trace.isPresent()) {
            targets.forEach(row -> written.put(row, assigner.values(row)));
        }
        update(table, targets, assigner);
        written.keySet().removeIf(row -> row.startedIn != statement);
        trace(Kind.UPDATE, table, assigner.columnsSet(), written, before);
    }

    private void trace(Kind kind, ReachedTable table, int[] set, Map<ReachedRow, Object[]> written, int before) {
        trace.ifPresent(kept ->
                kept.add(this, changeAtHand, kind, table, set, written, effects.subList(before, effects.size())));
    }

    /** Has what each statement does taken down. */
    public final Replay tracedBy(StatementTrace statementTrace) {
        trace = Optional.of(statementTrace);
        return this;
    }

    protected final int statement() {
        return statement;
    }

    /** Whether a row stands as a statement of the same transaction has written it: each change is one, unless links wait for the end, or
     * the whole is to be written as a script. */
    protected final boolean isWrittenByTransaction(ReachedRow row) {
        return row.statement >= firstStatement;
    }

    /** What names the rows of a change, to be asked again while it is carried out. */
    protected final RowCondition condition(Change change) {
        return reader.condition(change);
    }

    /** Rows whose turn comes while a statement runs are named as they stand then: a server may come to others than at first. */
    protected List<ReachedRow> named(Change change, ReachedTable table, List<ReachedRow> targets) {
        return ordered(table, targets);
    }

    /** The rows that a statement names, in the order in which the behaviour comes to them. */
    protected List<ReachedRow> ordered(ReachedTable table, List<ReachedRow> targets) {
        return targets;
    }

    protected abstract void insert(ReachedTable table, List<Object[]> newRows);

    protected abstract void delete(ReachedTable table, List<ReachedRow> targets);

    protected abstract void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner);

    /** Makes the checks that waited for the end of the proposal (R14). */
    protected abstract void judgeDeferred();

    /** The change is refused: what it left to be checked at the end goes with it. */
    protected abstract void forgetDeferred();

    protected abstract void keepDeferred();

    /** Whether a column may not be null. */
    protected boolean isRequired(ReachedTable table, int column) {
        return table.table().isRequired(table.column(column).name());
    }

    /** Whether a value that is not of its column's type is taken all the same (L2). */
    protected boolean takesUnread(ReachedTable table, int column) {
        return false;
    }

    /** Refuses what is written where it is not of its column's type: that comes before everything else (R3, R9). */
    protected final void requireTypes(ReachedRow row, Object[] before, Object[] after) {
        ReachedTable table = row.table;
        for (int column : table.columnsKept()) {
            int slot = table.slotOf(column);
            if (after[slot] instanceof Unread && after[slot] != before[slot] && !takesUnread(table, column)) {
                refuse(RefusalKind.TYPE_MISMATCH, table, table.column(column).name(), row);
            }
        }
    }

    /** The values of a new row, with defaults and numbers filled in (R3). */
    private Object[] newRow(ReachedTable table, Change.Insert insert, Change.InsertedRow given) {
        Object[] values = new Object[table.columnsKept().length];
        for (int column = 0; column < table.width(); column++) {
            String name = table.column(column).name();
            int place = insert.columns().indexOf(name);
            Input input = place < 0 ? new Input.Default() : given.values().get(place);
            Object value;
            if (input instanceof Input.Default) {
                value = filledIn(table, column);
            } else {
                value = reader.value(table, column, input, values);
                if (isNumberedAlone(table, column)) {
                    refuse(RefusalKind.GENERATED_ALWAYS, table, name, rowOf(table, values));
                }
                if (isLeftToNumber(table, column, value)) {
                    value = filledIn(table, column);
                } else if (isNumbered(table, column)) {
                    noteNumber(table, column, value);
                }
            }
            values[table.slotOf(column)] = value;
            if (value instanceof Unread && !takesUnread(table, column)) {
                refuse(RefusalKind.TYPE_MISMATCH, table, name, rowOf(table, values));
            }
        }
        return values;
    }

    /** A row that is not there yet, to say at which a rule refuses. */
    private static ReachedRow rowOf(ReachedTable table, Object[] values) {
        return new ReachedRow(table, -1, values, true);
    }

    protected static boolean isGenerated(ReachedTable table, int column) {
        return table.column(column).generated() != Generated.NEVER;
    }

    /** Whether a column gets a number where none is given. */
    protected boolean isNumbered(ReachedTable table, int column) {
        return isGenerated(table, column);
    }

    protected boolean isNumberedAlone(ReachedTable table, int column) {
        return table.column(column).generated() == Generated.ALWAYS;
    }

    /** Whether a value given for a column stands for the next number, as though the column had been left out. */
    protected boolean isLeftToNumber(ReachedTable table, int column, Object value) {
        return false;
    }

    /** Whether a constant that is not of its column's type refuses a change though it meets no row (P6). */
    protected boolean readsConstantsFirst() {
        return false;
    }

    /** Whether each assignment of an UPDATE sees what those before it have given. */
    protected boolean assignsInTurn() {
        return false;
    }

    /** A number was given for a generated column: whether the next generated one is greater is up to the server. */
    protected void noteNumber(ReachedTable table, int column, Object value) {
        // The standard's sequences do not look at what is given.
    }

    protected final void raiseNumber(ReachedTable table, int column, long given) {
        long last = lastNumber(table, column);
        lastNumbers.get(table).put(column, Math.max(last, given));
    }

    private Object filledIn(ReachedTable table, int column) {
        return isNumbered(table, column) ? nextNumber(table, column) : reader.defaultOf(table, column);
    }

    /** The number that a generated column gets next; numbers are used up by refused changes, too. */
    public Object nextNumber(ReachedTable table, int column) {
        long next = lastNumber(table, column) + 1;
        lastNumbers.get(table).put(column, next);
        return asNumber(table, column, next);
    }

    protected final Object asNumber(ReachedTable table, int column, long number) {
        return table.codec(column).assign(BigDecimal.valueOf(number));
    }

    private long lastNumber(ReachedTable table, int column) {
        return lastNumbers
                .computeIfAbsent(table, t -> new HashMap<>())
                .computeIfAbsent(
                        column, c -> Math.max(0, table.greatestAsRead(c).orElse(0)));
    }

    protected final void refuse(RefusalKind kind, ReachedTable table, String name, ReachedRow row) {
        refusals.add(kind, table, name, row);
    }

    protected final Refusals refusals() {
        return refusals;
    }

    protected final RowJudge judgeOf(ReachedTable table, boolean rulesByName) {
        return judges.computeIfAbsent(table, t -> new RowJudge(t, rulesByName, column -> isRequired(t, column)));
    }

    /** Judges whether other rows have the keys of a row that was written (R4). */
    protected final void judgeKeys(ReachedRow row, Object[] before, List<Key> keys) {
        for (Key key : keys) {
            KeyLookup lookup = row.table.lookup(key);
            Object now = lookup.keyOf(row.values);
            boolean isAsBefore =
                    before != null && now != null && now.equals(lookup.keyOf(before)) && isFor(key, row.table, before);
            if (now == null || isAsBefore || !isFor(key, row.table, row.values)) {
                continue;
            }
            for (ReachedRow other : row.table.find(lookup, now)) {
                if (other != row && isFor(key, row.table, other.values)) {
                    refuse(RefusalKind.KEY_TAKEN, row.table, key.name(), row);
                    break;
                }
            }
        }
    }

    /** Whether a key is declared for a row with some values. */
    private static boolean isFor(Key key, ReachedTable table, Object[] values) {
        if (key.where().isEmpty()) {
            return true;
        }
        Expression condition = key.where().get().value();
        for (int column : condition.columnsRead()) {
            if (values[table.slotOf(column)] instanceof Unread) {
                return false;
            }
        }
        try {
            return Boolean.TRUE.equals(new Evaluator().evaluate(condition, new RowLeaves(table, values)));
        } catch (DivisionByZero e) {
            return false;
        }
    }

    // What statements and actions do to rows.

    protected final Effect deleteRow(ReachedRow row, ReachedLink link, Effect cause) {
        noteBefore(row);
        rows.delete(row);
        return emit(row, EffectKind.DELETED, link, cause, row.values, null);
    }

    protected final Effect writeRow(ReachedRow row, Object[] values, EffectKind kind, ReachedLink link, Effect cause) {
        noteBefore(row);
        Object[] before = row.values;
        rows.write(row, values, statement);
        return emit(row, kind, link, cause, before, values);
    }

    protected final ReachedRow insertRow(ReachedTable table, Object[] values) {
        ReachedRow row = rows.insert(table, values, statement);
        emit(row, EffectKind.INSERTED, null, null, null, values);
        return row;
    }

    private void noteBefore(ReachedRow row) {
        if (row.startedIn != statement) {
            row.startedIn = statement;
            row.atStart = row.values;
        }
    }

    /** The values of a row when the statement began. */
    protected final Object[] valuesAtStart(ReachedRow row) {
        return row.startedIn == statement ? row.atStart : row.values;
    }

    private Effect emit(
            ReachedRow row, EffectKind kind, ReachedLink link, Effect cause, Object[] before, Object[] after) {
        int steps = cause == null ? 0 : cause.steps() + 1;
        Effect effect = new Effect(row, kind, link, steps, cause, before, after);
        effects.add(effect);
        row.lastEffect = effect;
        return effect;
    }

    protected final void keptByTwin(ReachedRow row) {
        keptByTwins.add(row);
    }

    // What links ask for.

    /** Whether another row had a key before the statement, and has it still: the key is not gone (R6). */
    protected final boolean hasTwin(ReachedLink link, Object key, ReachedRow gone) {
        for (ReachedRow other : link.parent.find(link.parents, key)) {
            if (other != gone && !other.isNew() && key.equals(link.parents.keyOf(valuesAtStart(other)))) {
                return true;
            }
        }
        return false;
    }

    /** A child's values as an action leaves them. */
    protected final Object[] actedOn(ReachedRow child, ReachedLink link, Action action, Object[] parentNow) {
        Object[] values = child.values.clone();
        if (action.name() == ActionName.CASCADE) {
            for (int i = 0; i < link.childColumns.length; i++) {
                Object key = parentNow[link.parent.slotOf(link.parentColumns[i])];
                values[link.child.slotOf(link.childColumns[i])] = cascaded(link, i, key);
            }
            return values;
        }
        for (int column : link.columnsSet(action)) {
            values[link.child.slotOf(column)] =
                    action.name() == ActionName.SET_NULL ? null : defaultOfRow(link.child, column);
        }
        return values;
    }

    /** What a part of a parent's key becomes in its child's column; {@link Unread} where that cannot hold it (R9). */
    protected final Object cascaded(ReachedLink link, int place, Object part) {
        if (part instanceof Unread) {
            return part;
        }
        return assigned(
                link.child.codec(link.childColumns[place]),
                link.parent.codec(link.parentColumns[place]).operand(part));
    }

    /** A value turned into a column's type; {@link Unread} where it cannot be. */
    protected Object assigned(CellCodec codec, Object value) {
        return codec.assign(value);
    }

    /** What DEFAULT gives a row that is there: a generated column its next number. */
    protected Object defaultOfRow(ReachedTable table, int column) {
        return filledIn(table, column);
    }

    /** The default that was declared, whether the column is generated or not. */
    protected final Object declaredDefault(ReachedTable table, int column) {
        return reader.defaultOf(table, column);
    }

    protected static EffectKind effectOf(ActionName action) {
        return switch (action) {
            case CASCADE -> EffectKind.REPOINTED;
            case SET_NULL -> EffectKind.EMPTIED;
            case SET_DEFAULT -> EffectKind.DEFAULTED;
            default -> throw new IllegalStateException("no effect of " + action);
        };
    }

    /** Whether all links were asked to wait, whatever they declare. */
    protected final boolean waitForAll() {
        return proposal.deferral() == Proposal.Deferral.ALL;
    }

    /** Whether the checks of a link wait for the end of the proposal (R14). */
    protected final boolean waits(ReachedLink link) {
        Deferrable declared = link.link.deferrable();
        return switch (proposal.deferral()) {
            case ALL -> true;
            case DEFERRABLE -> declared != Deferrable.NO;
            case DECLARED -> declared == Deferrable.DEFERRED;
        };
    }
}
