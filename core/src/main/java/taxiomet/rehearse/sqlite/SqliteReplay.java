package taxiomet.rehearse.sqlite;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Key;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.replay.ChangeReader;
import taxiomet.rehearse.replay.Replay;
import taxiomet.rehearse.replay.RowJudge;

/**
 * SQLite's behaviour: row by row and depth first, with a counter of links that lead nowhere which must be zero when a statement ends
 * (L1, L2). The counter is kept as the engine keeps it: it does not go down while it is zero, and can go below. A counter below zero,
 * which comes of faults that were there before, refused nothing in SQLite 3.40; 3.54 refuses it, and so does this. A behaviour stands in one
 * file, in the order in which the server works.
 */
public final class SqliteReplay extends Replay {
    /** How deep actions may follow from actions, unless the engine was built otherwise. */
    private static final int DEEPEST = 1_000;

    private final List<ReachedLink> lastDeclaredFirst;
    private long counter;
    private long deferredCounter;
    private long deferredBefore;
    /** Links and rows at which the counter went up: who is to blame is looked for among them. */
    private final List<Suspect> suspects = new ArrayList<>();

    private final List<Suspect> deferredSuspects = new ArrayList<>();

    private record Suspect(ReachedLink link, ReachedRow child) {}

    /** A statement under way, that of the change or one that an action runs. */
    private static final class Frame {
        private final List<ReachedRow> targets;
        private final ReachedLink link;
        private final Effect cause;
        private final RowChange change;
        private int next;
        // What the row just done calls for.
        private List<ReachedLink> calls = List.of();
        private int nextCall;
        private Object[] before;
        private Object[] after;
        private Effect effect;

        Frame(List<ReachedRow> targets, ReachedLink link, Effect cause, RowChange change) {
            this.targets = targets;
            this.link = link;
            this.cause = cause;
            this.change = change;
        }
    }

    /**
     * What a statement does to each of its rows.
     *
     * @param kind of effect; deleted, or how it is written
     * @param isSetNull whether it is the action set null of the frame's own link
     */
    @SuppressWarnings("ArrayRecordComponent")
    private record RowChange(EffectKind kind, ValuesOf values, int[] columnsSet, boolean isSetNull) {
        boolean isDelete() {
            return kind == EffectKind.DELETED;
        }
    }

    private interface ValuesOf {
        Object[] of(ReachedRow row);
    }

    /** @param order the links as they are declared */
    /** The statement whose rows are being numbered, and the greatest number among them. */
    private int givenIn = -1;

    private long greatestGiven;

    /** @param order in which links were declared */
    public SqliteReplay(ReachedRows rows, Proposal proposal, List<ReachedLink> order) {
        super(rows, proposal);
        this.lastDeclaredFirst = new ArrayList<>(order);
        Collections.reverse(lastDeclaredFirst);
    }

    /** The place of the column that names the row to the engine: the one column of an INTEGER primary key, so spelled; -1 without one. */
    private static int rowIdColumn(ReachedTable table) {
        List<String> key = table.table().primaryKey().map(Key::columns).orElse(List.of());
        if (key.size() != 1) {
            return -1;
        }
        int column = table.table().indexOf(key.get(0));
        return table.column(column).isWordInteger() ? column : -1;
    }

    @Override
    protected List<ReachedRow> ordered(ReachedTable table, List<ReachedRow> targets) {
        int column = rowIdColumn(table);
        List<ReachedRow> sorted = new ArrayList<>(targets);
        if (column < 0) {
            // An update leaves a row where it is.
            sorted.sort(Comparator.comparingLong(row -> row.ref));
        } else {
            sorted.sort(Comparator.comparing(row -> row.value(column) instanceof Long id ? id : Long.valueOf(row.ref)));
        }
        return sorted;
    }

    /** Of a primary key the engine asks for values only where it is the row's number. */
    @Override
    protected boolean isRequired(ReachedTable table, int column) {
        return table.column(column).isRequired() || column == rowIdColumn(table);
    }

    @Override
    protected boolean takesUnread(ReachedTable table, int column) {
        return column != rowIdColumn(table);
    }

    /** Lengths, digits and ranges are no limits (L2). */
    @Override
    protected Object assigned(CellCodec codec, Object value) {
        return codec.assignFreely(value);
    }

    @Override
    protected Object defaultOfRow(ReachedTable table, int column) {
        return declaredDefault(table, column);
    }

    /** The row's own number, generated or not. */
    @Override
    protected boolean isNumbered(ReachedTable table, int column) {
        return isGenerated(table, column) || column == rowIdColumn(table);
    }

    @Override
    protected boolean isNumberedAlone(ReachedTable table, int column) {
        return false;
    }

    @Override
    protected boolean isLeftToNumber(ReachedTable table, int column, Object value) {
        return value == null && column == rowIdColumn(table);
    }

    @Override
    protected void noteNumber(ReachedTable table, int column, Object value) {
        if (value instanceof Long number) {
            if (column == rowIdColumn(table)) {
                noteGiven(number);
            } else {
                raiseNumber(table, column, number);
            }
        }
    }

    /** A row's number is one more than the greatest that is there: the numbers of rows that went are given again. */
    @Override
    public Object nextNumber(ReachedTable table, int column) {
        if (column != rowIdColumn(table)) {
            return super.nextNumber(table, column);
        }
        long greatest = table.greatestNow(column).orElse(0);
        long next = Math.max(greatest, givenIn == statement() ? greatestGiven : greatest) + 1;
        noteGiven(next);
        return asNumber(table, column, next);
    }

    /** The rows of a statement are numbered before they are there. */
    private void noteGiven(long number) {
        greatestGiven = givenIn == statement() ? Math.max(greatestGiven, number) : number;
        givenIn = statement();
    }

    @Override
    protected void insert(ReachedTable table, List<Object[]> newRows) {
        start();
        for (Object[] values : newRows) {
            ReachedRow row = insertRow(table, values);
            judge(row, null, ChangeReader.allColumns(table));
            if (newRows.size() == 1) {
                // One row alone is judged at once: that it may be the parent of others counts only for links that wait.
                row.table.linksOut.stream()
                        .filter(SqliteReplay::isEnforced)
                        .forEach(link -> lookUpParentOfNew(link, row, row.values));
                row.table.linksIn.stream()
                        .filter(link -> isEnforced(link) && waits(link))
                        .forEach(link -> settleChildren(link, row, row.values));
            } else {
                checkLinks(row, null, row.values, null);
            }
        }
        judgeEnd();
    }

    @Override
    protected void delete(ReachedTable table, List<ReachedRow> targets) {
        run(targets, new RowChange(EffectKind.DELETED, row -> row.values, new int[0], false));
    }

    @Override
    protected void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        run(targets, new RowChange(EffectKind.CHANGED, assigner::values, assigner.columnsSet(), false));
    }

    private void start() {
        counter = 0;
        deferredBefore = deferredCounter;
        suspects.clear();
    }

    private void run(List<ReachedRow> targets, RowChange change) {
        start();
        Deque<Frame> frames = new ArrayDeque<>();
        frames.push(new Frame(targets, null, null, change));
        while (!frames.isEmpty()) {
            Frame frame = frames.peek();
            if (frame.nextCall < frame.calls.size()) {
                ReachedLink link = frame.calls.get(frame.nextCall++);
                if (frames.size() > DEEPEST) {
                    refuse(RefusalKind.TOO_DEEP, link.child, link.link.name(), frame.effect.row());
                    break;
                }
                call(frame, link, frames);
            } else if (frame.next < frame.targets.size()) {
                ReachedRow row = frame.targets.get(frame.next++);
                if (!row.isGone) {
                    doRow(frame, row);
                }
            } else {
                frames.pop();
            }
        }
        judgeEnd();
    }

    private void doRow(Frame frame, ReachedRow row) {
        RowChange change = frame.change;
        Object[] before = row.values;
        int[] set = change.isDelete() ? null : change.columnsSet();
        if (change.isDelete()) {
            checkLinks(row, before, null, null);
            frame.effect = deleteRow(row, frame.link, frame.cause);
            frame.after = null;
        } else {
            Object[] after = change.values().of(row);
            boolean touchesLinks = touchesLinks(row.table, set);
            ReachedLink own = change.isSetNull() ? frame.link : null;
            if (touchesLinks) {
                checkLinks(row, before, null, set);
            }
            frame.effect = writeRow(row, after, change.kind(), frame.link, frame.cause);
            judge(row, before, set);
            if (touchesLinks) {
                checkLinksOfNew(row, after, set, own);
            }
            frame.after = after;
        }
        frame.before = before;
        frame.calls = calls(row.table, set);
        frame.nextCall = 0;
    }

    /** Not null and rules that read a column set, then the row's own number, then unique keys, the last declared first. */
    private void judge(ReachedRow row, Object[] before, int[] set) {
        judgeOf(row.table, false).judge(row, before, set, RowJudge.Scope.SET, refusals());
        List<Key> keys = new ArrayList<>(RowJudge.keysOf(row.table));
        Collections.reverse(keys);
        if (rowIdColumn(row.table) >= 0) {
            keys.stream().filter(Key::isPrimary).findFirst().ifPresent(primary -> {
                keys.remove(primary);
                keys.add(0, primary);
            });
        }
        judgeKeys(row, before, keys);
    }

    /** Whether a statement that sets some columns sets one of a key or of a link. */
    private static boolean touchesLinks(ReachedTable table, int[] set) {
        return table.linksOut.stream().anyMatch(link -> isEnforced(link) && ReachedLink.meet(link.childColumns, set))
                || table.linksIn.stream()
                        .anyMatch(link -> isEnforced(link) && ReachedLink.meet(link.parentColumns, set));
    }

    private static boolean isEnforced(ReachedLink link) {
        return link.link.isEnforced();
    }

    /** The links whose actions run after a row of a table was changed. */
    private List<ReachedLink> calls(ReachedTable table, int[] set) {
        List<ReachedLink> calls = new ArrayList<>();
        for (ReachedLink link : lastDeclaredFirst) {
            ActionName action = link.action(set == null).name();
            if (link.parent == table
                    && isEnforced(link)
                    && action != ActionName.NO_ACTION
                    && !(action == ActionName.RESTRICT && waitForAll())
                    && (set == null || ReachedLink.meet(link.parentColumns, set))) {
                calls.add(link);
            }
        }
        return calls;
    }

    private void call(Frame frame, ReachedLink link, Deque<Frame> frames) {
        Object key = link.parents.keyOf(frame.before);
        if (key == null || (frame.after != null && key.equals(link.parents.keyOf(frame.after)))) {
            return;
        }
        ReachedRow parent = frame.effect.row();
        if (hasTwin(link, key, parent)) {
            keptByTwin(parent);
            return;
        }
        Action action = link.action(frame.after == null);
        List<ReachedRow> children = ordered(link.child, link.childrenOf(key));
        if (action.name() == ActionName.RESTRICT) {
            children.forEach(child -> refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child));
            return;
        }
        RowChange change;
        if (action.name() == ActionName.CASCADE && frame.after == null) {
            change = new RowChange(EffectKind.DELETED, row -> row.values, new int[0], false);
        } else {
            Object[] parentNow = frame.after;
            change = new RowChange(
                    effectOf(action.name()),
                    child -> actedOn(child, link, action, parentNow),
                    link.columnsSet(action),
                    action.name() == ActionName.SET_NULL);
        }
        // Even without children the engine goes a level deeper.
        frames.push(new Frame(children, link, frame.effect, change));
    }

    // The counter.

    private void raise(ReachedLink link, ReachedRow child, int by) {
        if (waits(link)) {
            deferredCounter += by;
        } else {
            counter += by;
        }
        if (by > 0) {
            (waits(link) ? deferredSuspects : suspects).add(new Suspect(link, child));
        }
    }

    private boolean isZero(ReachedLink link) {
        return (waits(link) ? deferredCounter : counter) == 0;
    }

    /** What an old row, about to go, or a new one, just put in, means for the counter. */
    private void checkLinks(ReachedRow row, Object[] old, Object[] made, int[] set) {
        for (ReachedLink link : row.table.linksOut) {
            if (!isEnforced(link) || (set != null && !link.isSelf() && !ReachedLink.meet(link.childColumns, set))) {
                continue;
            }
            if (old != null) {
                lookUpParentOfOld(link, row, old);
            }
            if (made != null) {
                lookUpParentOfNew(link, row, made);
            }
        }
        for (ReachedLink link : row.table.linksIn) {
            if (!isEnforced(link) || (set != null && !ReachedLink.meet(link.parentColumns, set))) {
                continue;
            }
            if (made != null) {
                settleChildren(link, row, made);
            }
            if (old != null) {
                orphanChildren(link, row, old);
            }
        }
    }

    private void checkLinksOfNew(ReachedRow row, Object[] made, int[] set, ReachedLink setNullOf) {
        for (ReachedLink link : row.table.linksOut) {
            if (isEnforced(link) && link != setNullOf && (link.isSelf() || ReachedLink.meet(link.childColumns, set))) {
                lookUpParentOfNew(link, row, made);
            }
        }
        for (ReachedLink link : row.table.linksIn) {
            if (isEnforced(link) && ReachedLink.meet(link.parentColumns, set)) {
                settleChildren(link, row, made);
            }
        }
    }

    private void lookUpParentOfOld(ReachedLink link, ReachedRow row, Object[] old) {
        Object key = link.children.keyOf(old);
        if (!isZero(link) && key != null && !link.hasParentOf(key, row)) {
            raise(link, row, -1);
        }
    }

    /** The new row itself is a parent only of itself: it is not in its table yet. */
    private void lookUpParentOfNew(ReachedLink link, ReachedRow row, Object[] made) {
        Object key = link.children.keyOf(made);
        if (key == null) {
            if (link.nullsIn(made) == 0) {
                raise(link, row, 1);
            }
            return;
        }
        if (link.isSelf() && key.equals(link.parents.keyOf(made))) {
            return;
        }
        for (ReachedRow parent : link.parent.find(link.parents, key)) {
            if (parent != row) {
                return;
            }
        }
        raise(link, row, 1);
    }

    private void orphanChildren(ReachedLink link, ReachedRow row, Object[] old) {
        Object key = link.parents.keyOf(old);
        if (key != null && !hasTwin(link, key, row)) {
            for (ReachedRow child : link.childrenOf(key)) {
                if (child != row) {
                    raise(link, child, 1);
                }
            }
        }
    }

    private void settleChildren(ReachedLink link, ReachedRow row, Object[] made) {
        Object key = link.parents.keyOf(made);
        if (key != null && !isZero(link)) {
            for (ReachedRow child : link.childrenOf(key)) {
                if (child != row) {
                    raise(link, child, -1);
                }
            }
        }
    }

    private void judgeEnd() {
        if (counter != 0) {
            blame(suspects);
        }
    }

    /** Names the rows that point nowhere; all that were suspected when none does, since the counter decides. */
    private void blame(List<Suspect> among) {
        int before = refusals().all().size();
        for (Suspect suspect : among) {
            Object key = suspect.link().children.keyOf(suspect.child().values);
            if (!suspect.child().isGone && key != null && !suspect.link().hasParent(key)) {
                blame(suspect);
            }
        }
        if (refusals().all().size() == before) {
            among.forEach(this::blame);
        }
    }

    private void blame(Suspect suspect) {
        ReachedLink link = suspect.link();
        boolean isWritten = suspect.child().statement == statement();
        refuse(
                isWritten ? RefusalKind.NO_PARENT : RefusalKind.STILL_REFERENCED,
                link.child,
                link.link.name(),
                suspect.child());
    }

    @Override
    protected void keepDeferred() {
        // The counter goes on from here.
    }

    @Override
    protected void forgetDeferred() {
        deferredCounter = deferredBefore;
    }

    @Override
    protected void judgeDeferred() {
        if (deferredCounter != 0) {
            blame(deferredSuspects);
        }
    }
}
