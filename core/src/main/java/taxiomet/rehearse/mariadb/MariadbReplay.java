package taxiomet.rehearse.mariadb;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.Iterator;
import java.util.List;
import java.util.Objects;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.KeyLookup;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowCondition;
import taxiomet.rehearse.reach.Unread;
import taxiomet.rehearse.replay.ChangeReader;
import taxiomet.rehearse.replay.Replay;
import taxiomet.rehearse.replay.RowJudge;

/** MariaDB's behaviour with InnoDB: row by row and depth first, with every link judged at once (M1); in one file, in the order in
 * which the server works. */
public final class MariadbReplay extends Replay {
    /** How many tables deep actions may follow from one another. */
    private static final int DEEPEST = 15;

    /** By name. */
    private final List<ReachedLink> inOrder;

    private final MariadbIndexes indexes;
    /** What names the rows of the statement at hand; each row is asked when its turn comes. */
    private RowCondition condition;
    /** Where the statement at hand is in its table; null where its rows are noted first. */
    private MariadbScan scan;

    /** A row that is being changed: index after index, its children by each first, then its parents. */
    private static final class Frame {
        private final ReachedRow row;
        private final Object[] before;
        private final Object[] after;
        private final Effect effect;
        /** Whether it gets another primary key: then it is new to all indexes. */
        private final boolean isMoved;

        private final List<Step> steps;

        private int nextStep;
        private ReachedLink link;
        /** Which index is at hand; those behind it still hold the row as it was before. */
        private int index = -1;

        private List<ReachedRow> children = List.of();
        private int nextChild;

        Frame(ReachedRow row, Object[] before, Object[] after, Effect effect, boolean isMoved, List<Step> steps) {
            this.row = row;
            this.before = before;
            this.after = after;
            this.effect = effect;
            this.isMoved = isMoved;
            this.steps = steps;
        }

        boolean isDelete() {
            return after == null;
        }

        /** Whether an index whose turn has not come still holds the row as a link's parent, with the key that it had. */
        boolean isParentStill(ReachedLink by, Object key, int itsIndex) {
            boolean isHeld = !isDelete() && row.table == by.parent && index < itsIndex;
            return isHeld && key.equals(by.parents.keyOf(before));
        }

        /** Whether the row is to be found in an index as a link's parent with its new key: not while it is half done. */
        boolean isParentNow(ReachedLink by, int itsIndex) {
            boolean isSame = !isMoved && Objects.equals(by.parents.keyOf(before), by.parents.keyOf(after));
            return isSame || index > itsIndex;
        }
    }

    /**
     * What is done to a row in one of its indexes.
     *
     * @param looksUp whether the row's parent is looked up, and not its children
     */
    private record Step(int index, ReachedLink link, boolean looksUp) {}

    /** @param proposal what is to be carried out */
    public MariadbReplay(ReachedRows rows, Proposal proposal) {
        super(rows, proposal);
        inOrder = new ArrayList<>(rows.links());
        inOrder.sort(Comparator.comparing(link -> link.link.name()));
        indexes = new MariadbIndexes(rows);
    }

    @Override
    protected List<ReachedRow> named(Change change, ReachedTable table, List<ReachedRow> targets) {
        scan = null;
        condition = null;
        boolean movesRows = change instanceof Change.Update update
                        && setsKey(table, update.assignments().keySet())
                || change instanceof Change.UpdateListed listed && setsKey(table, listed.newColumns());
        int[] index = indexes.scanned(table, change);
        if (movesRows || targets.isEmpty()) {
            // The server notes the rows first, and then changes them.
            return MariadbIndexes.sorted(table, index, targets);
        }
        boolean isWritten = change instanceof Change.Update update
                && Arrays.stream(index)
                        .anyMatch(column -> update.assignments()
                                .containsKey(table.column(column).name()));
        condition = condition(change);
        if (isWritten) {
            return MariadbIndexes.sorted(table, index, targets);
        }
        scan = new MariadbScan(table, index, table.present());
        return targets;
    }

    private static boolean setsKey(ReachedTable table, Collection<String> columns) {
        return table.table().primaryKey().stream()
                .anyMatch(key -> key.columns().stream().anyMatch(columns::contains));
    }

    private interface RowWriter {
        void write(ReachedRow row);
    }

    /** Each row that the statement at hand means, as it stands when its turn comes. */
    private void forEach(List<ReachedRow> noted, RowWriter writer) {
        RowCondition by = condition;
        Iterator<ReachedRow> turn = noted.iterator();
        while (true) {
            ReachedRow row = scan != null ? scan.next() : turn.hasNext() ? turn.next() : null;
            if (row == null) {
                break;
            }
            if (!row.isGone && (by == null || by.holds(row))) {
                writer.write(row);
            }
        }
        // A merge has statements without a condition.
        scan = null;
        condition = null;
    }

    /** Rows stand in the order of their primary key. */
    @Override
    protected List<ReachedRow> ordered(ReachedTable table, List<ReachedRow> targets) {
        return MariadbIndexes.sorted(table, new int[0], targets);
    }

    @Override
    protected Object defaultOfRow(ReachedTable table, int column) {
        return declaredDefault(table, column);
    }

    @Override
    protected boolean isNumberedAlone(ReachedTable table, int column) {
        return false;
    }

    @Override
    protected boolean isLeftToNumber(ReachedTable table, int column, Object value) {
        boolean isZero = value instanceof Long number && number == 0;
        return isGenerated(table, column) && (value == null || isZero);
    }

    @Override
    protected boolean assignsInTurn() {
        return true;
    }

    @Override
    protected void noteNumber(ReachedTable table, int column, Object value) {
        if (value instanceof Long number) {
            raiseNumber(table, column, number);
        }
    }

    @Override
    protected void insert(ReachedTable table, List<Object[]> newRows) {
        for (Object[] values : newRows) {
            ReachedRow row = insertRow(table, values);
            judge(row, null);
            judgeParents(row);
        }
    }

    @Override
    protected void delete(ReachedTable table, List<ReachedRow> targets) {
        forEach(targets, row -> follow(frame(row, row.values, null, deleteRow(row, null, null), null)));
    }

    @Override
    protected void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        forEach(targets, row -> {
            Object[] before = row.values;
            Object[] after = assigner.values(row);
            if (Arrays.equals(before, after)) {
                return;
            }
            Effect effect = writeRow(row, after, EffectKind.CHANGED, null, null);
            judge(row, before);
            follow(frame(row, before, after, effect, null));
            if (refusals().isEmpty()) {
                noteNumbers(row, before);
            }
        });
    }

    private void judge(ReachedRow row, Object[] before) {
        judgeOf(row.table, false).judge(row, before, new int[0], RowJudge.Scope.ALL, refusals());
        judgeKeys(row, before, RowJudge.keysOf(row.table));
    }

    /** A statement that writes the column of the next number moves it on. */
    private void noteNumbers(ReachedRow row, Object[] before) {
        for (int column = 0; column < row.table.width(); column++) {
            int slot = row.table.slotOf(column);
            if (isGenerated(row.table, column) && !CellCodec.isSame(before[slot], row.values[slot])) {
                noteNumber(row.table, column, row.values[slot]);
            }
        }
    }

    private void judgeParents(ReachedRow row) {
        for (ReachedLink link : row.table.linksOut) {
            Object key = link.children.keyOf(row.values);
            if (link.link.isEnforced() && key != null && !link.hasParent(key)) {
                refuse(RefusalKind.NO_PARENT, link.child, link.link.name(), row);
            }
        }
    }

    private boolean hasParent(ReachedLink link, Object key, Collection<Frame> underWay) {
        int index = indexes.of(link.parent, link.parentColumns);
        for (ReachedRow parent : link.parent.find(link.parents, key)) {
            if (underWay.stream()
                    .noneMatch(frame ->
                            frame.row.equals(parent) && !frame.isDelete() && !frame.isParentNow(link, index))) {
                return true;
            }
        }
        return underWay.stream().anyMatch(frame -> frame.isParentStill(link, key, index));
    }

    private static boolean isMoved(ReachedRow row, Object[] before) {
        return row.table.table().primaryKey().stream().anyMatch(key -> {
            KeyLookup lookup = row.table.lookup(key);
            return !Objects.equals(lookup.keyOf(before), lookup.keyOf(row.values));
        });
    }

    /** @param cameBy the link by which an action came: it is not judged again */
    private Frame frame(ReachedRow row, Object[] before, Object[] after, Effect effect, ReachedLink cameBy) {
        boolean isMoved = after != null && isMoved(row, before);
        List<Step> steps = new ArrayList<>();
        for (ReachedLink link : inOrder) {
            if (!link.link.isEnforced()) {
                continue;
            }
            Object parentKey = link.parent == row.table ? link.parents.keyOf(before) : null;
            if (parentKey != null && (after == null || !parentKey.equals(link.parents.keyOf(after)))) {
                steps.add(new Step(indexes.of(link.parent, link.parentColumns), link, false));
            }
            boolean isOwn = link.child == row.table && after != null && link != cameBy;
            Object key = isOwn ? link.children.keyOf(after) : null;
            int index = key == null ? 0 : indexes.of(link.child, link.childColumns);
            if (key != null && (isMoved || indexes.changes(row.table, index, before, after))) {
                steps.add(new Step(index, link, true));
            }
        }
        steps.sort(Comparator.comparingInt(Step::index).thenComparing(Step::looksUp));
        return new Frame(row, before, after, effect, isMoved, steps);
    }

    private void follow(Frame first) {
        Deque<Frame> frames = new ArrayDeque<>();
        frames.push(first);
        while (!frames.isEmpty()) {
            Frame frame = frames.peek();
            if (frame.nextChild < frame.children.size()) {
                ReachedRow child = frame.children.get(frame.nextChild++);
                if (isStillChild(child, frame, frames)) {
                    actOn(child, frame, frames);
                } else if (frames.size() >= DEEPEST && isUnderWay(child, frames)) {
                    // There is nothing left to do to it, but the step counts.
                    refuse(RefusalKind.TOO_DEEP, frame.link.child, frame.link.link.name(), child);
                }
            } else if (frame.nextStep < frame.steps.size()) {
                Step step = frame.steps.get(frame.nextStep++);
                frame.index = step.index();
                frame.link = step.link();
                if (step.looksUp()) {
                    lookUp(frame, frames);
                } else {
                    look(frame, frames);
                }
            } else {
                frames.pop();
            }
        }
    }

    /** Children are met one by one: what was done for one before may have moved another. */
    private static boolean isStillChild(ReachedRow child, Frame frame, Deque<Frame> frames) {
        ReachedLink link = frame.link;
        Object key = link.parents.keyOf(frame.before);
        return !child.isGone && (key.equals(link.children.keyOf(child.values)) || isUnderWay(child, frames));
    }

    private static boolean isUnderWay(ReachedRow row, Deque<Frame> frames) {
        return frames.stream().anyMatch(frame -> frame.row.equals(row));
    }

    private void lookUp(Frame frame, Deque<Frame> frames) {
        if (!hasParent(frame.link, frame.link.children.keyOf(frame.after), frames)) {
            refuse(RefusalKind.NO_PARENT, frame.link.child, frame.link.link.name(), frame.row);
        }
    }

    private void look(Frame frame, Deque<Frame> frames) {
        ReachedLink link = frame.link;
        Object key = link.parents.keyOf(frame.before);
        frame.children = List.of();
        frame.nextChild = 0;
        if (hasTwin(link, key, frame.row)) {
            keptByTwin(frame.row);
            return;
        }
        List<ReachedRow> children = new ArrayList<>(ordered(link.child, link.childrenOf(key)));
        addUnderWay(link, key, frames, children);
        ActionName action = link.action(frame.isDelete()).name();
        if (action == ActionName.CASCADE || action == ActionName.SET_NULL) {
            frame.children = children;
        } else {
            children.forEach(child -> refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child));
        }
    }

    /** Rows that are being changed right now are still found as they were before, by the indexes whose turn has not come. */
    private void addUnderWay(ReachedLink link, Object key, Deque<Frame> frames, List<ReachedRow> children) {
        int index = indexes.of(link.child, link.childColumns);
        for (Frame frame : frames) {
            if (frame.row.table == link.child
                    && frame.index < index
                    && !children.contains(frame.row)
                    && key.equals(link.children.keyOf(frame.before))) {
                children.add(frame.row);
            }
        }
    }

    private void actOn(ReachedRow child, Frame frame, Deque<Frame> frames) {
        ReachedLink link = frame.link;
        Action action = link.action(frame.isDelete());
        if (frames.size() >= DEEPEST) {
            refuse(RefusalKind.TOO_DEEP, link.child, link.link.name(), child);
            return;
        }
        Object[] before = child.values;
        if (frame.isDelete() && action.name() == ActionName.CASCADE) {
            frames.push(frame(child, before, null, deleteRow(child, link, frame.effect), link));
            return;
        }
        if (!frame.isDelete() && comesBack(link.child, frames)) {
            refuse(RefusalKind.CIRCULAR, link.child, link.link.name(), child);
            return;
        }
        Object[] after = actedOn(child, link, action, frame.after);
        Effect effect = writeRow(child, after, effectOf(action.name()), link, frame.effect);
        if (scan != null) {
            scan.written(child, before);
        }
        for (int column : link.columnsSet(action)) {
            Object value = child.value(column);
            boolean isNullInVain = value == null
                    && link.child.table().isRequired(link.child.column(column).name());
            if (isNullInVain || value instanceof Unread) {
                // The server names the link, not the column, also where the column cannot hold the new key.
                refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
            }
        }
        // The server's rules (CHECK) are not judged for what an action writes.
        judgeKeys(child, before, RowJudge.keysOf(child.table));
        frames.push(frame(child, before, after, effect, link));
    }

    /** Whether a table is among those that the key change on its way has written already. */
    private static boolean comesBack(ReachedTable table, Deque<Frame> frames) {
        for (Frame frame : frames) {
            if (frame.row.table == table && !frame.isDelete()) {
                return true;
            }
        }
        return false;
    }

    @Override
    protected void judgeDeferred() {
        // Nothing waits.
    }

    @Override
    protected void forgetDeferred() {
        // Nothing waits.
    }

    @Override
    protected void keepDeferred() {
        // Nothing waits.
    }
}
