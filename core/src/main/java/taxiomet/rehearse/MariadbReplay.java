package taxiomet.rehearse;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Key;
import taxiomet.check.KeyForm;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;

/** MariaDB's behaviour with InnoDB: row by row and depth first, with every link judged at once (M1). */
final class MariadbReplay extends Replay {
    /** How many tables deep actions may follow from one another. */
    private static final int DEEPEST = 15;

    private final List<ReachedLink> inOrder;
    /** What names the rows of the statement at hand; each row is asked when its turn comes. */
    private RowCondition condition;

    /** A row that has been changed, with the links whose children are still to be looked at. */
    private static final class Frame {
        private final ReachedRow row;
        private final Object[] before;
        private final Object[] after;
        private final Effect effect;
        private final List<ReachedLink> links;
        private int nextLink;
        private ReachedLink link;
        private List<ReachedRow> children = List.of();
        private int nextChild;

        Frame(ReachedRow row, Object[] before, Object[] after, Effect effect, List<ReachedLink> links) {
            this.row = row;
            this.before = before;
            this.after = after;
            this.effect = effect;
            this.links = links;
        }

        boolean isDelete() {
            return after == null;
        }
    }

    MariadbReplay(ReachedRows rows, Proposal proposal) {
        super(rows, proposal);
        inOrder = new ArrayList<>(rows.links());
        // Index after index, that of the primary key first; for each the links that point at it, by name.
        inOrder.sort(Comparator.comparingInt(MariadbReplay::keyPlace).thenComparing(link -> link.link.name()));
    }

    /** Which of the parent's keys a link points at: 0 for the primary key, then the unique keys as declared. */
    private static int keyPlace(ReachedLink link) {
        List<Key> keys = link.parent.table().keys();
        for (int i = 0; i < keys.size(); i++) {
            if (Set.copyOf(keys.get(i).columns()).equals(Set.copyOf(link.link.parentColumns()))) {
                return i;
            }
        }
        return keys.size();
    }

    @Override
    List<ReachedRow> named(Change change, ReachedTable table, List<ReachedRow> targets) {
        condition = condition(change);
        boolean movesRows = change instanceof Change.Update update
                        && setsKey(table, update.assignments().keySet())
                || change instanceof Change.UpdateListed listed && setsKey(table, listed.newColumns());
        if (movesRows || targets.isEmpty()) {
            // The server notes the rows first, and then changes them.
            condition = null;
            return ordered(table, targets);
        }
        return ordered(table, table.present());
    }

    private static boolean setsKey(ReachedTable table, Collection<String> columns) {
        return table.table().primaryKey().stream()
                .anyMatch(key -> key.columns().stream().anyMatch(columns::contains));
    }

    /** The condition of the statement at hand, once: a merge has statements without one. */
    private RowCondition takeCondition() {
        RowCondition taken = condition;
        condition = null;
        return taken;
    }

    private static boolean isNamed(ReachedRow row, RowCondition by) {
        return !row.isGone && (by == null || by.holds(row.values));
    }

    /** Rows stand in the order of their primary key. */
    @Override
    List<ReachedRow> ordered(ReachedTable table, List<ReachedRow> targets) {
        Optional<Key> key = table.table().primaryKey();
        if (key.isEmpty()) {
            return targets;
        }
        int[] columns = table.table().indexesOf(key.get().columns());
        List<ReachedRow> sorted = new ArrayList<>(targets);
        sorted.sort((one, other) -> compare(table, columns, one.values, other.values));
        return sorted;
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    private static int compare(ReachedTable table, int[] columns, Object[] one, Object[] other) {
        for (int column : columns) {
            KeyForm form = KeyForm.of(table.column(column));
            Object a = CellCodec.keyPart(one[table.slotOf(column)], form);
            Object b = CellCodec.keyPart(other[table.slotOf(column)], form);
            if (a instanceof Comparable x && b != null && a.getClass() == b.getClass()) {
                int order = x.compareTo(b);
                if (order != 0) {
                    return order;
                }
            }
        }
        return 0;
    }

    @Override
    Object defaultOfRow(ReachedTable table, int column) {
        return declaredDefault(table, column);
    }

    @Override
    boolean isNumberedAlone(ReachedTable table, int column) {
        return false;
    }

    @Override
    boolean fillsNull(ReachedTable table, int column) {
        return isGenerated(table, column);
    }

    @Override
    void noteNumber(ReachedTable table, int column, Object value) {
        if (value instanceof Long number) {
            raiseNumber(table, column, number);
        }
    }

    @Override
    void insert(ReachedTable table, List<Object[]> newRows) {
        for (Object[] values : newRows) {
            ReachedRow row = insertRow(table, values);
            judge(row, null);
            judgeParents(row, null, null, List.of());
        }
    }

    @Override
    void delete(ReachedTable table, List<ReachedRow> targets) {
        RowCondition by = takeCondition();
        for (ReachedRow row : targets) {
            if (isNamed(row, by)) {
                Object[] before = row.values;
                follow(frame(row, before, null, deleteRow(row, null, null)));
            }
        }
    }

    @Override
    void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        RowCondition by = takeCondition();
        for (ReachedRow row : targets) {
            if (!isNamed(row, by)) {
                continue;
            }
            Object[] before = row.values;
            Object[] after = assigner.values(row);
            if (Arrays.equals(before, after)) {
                continue;
            }
            Effect effect = writeRow(row, after, EffectKind.CHANGED, null, null);
            judge(row, before);
            judgeParents(row, before, null, List.of());
            follow(frame(row, before, after, effect));
        }
    }

    private void judge(ReachedRow row, Object[] before) {
        judgeOf(row.table, false).judge(row, before, new int[0], RowJudge.Scope.ALL, refusals());
        judgeKeys(row, before, RowJudge.keysOf(row.table));
    }

    /** The row's own links, but for the one by which an action came: those that changed, and all where the row gets another primary key. */
    private void judgeParents(ReachedRow row, Object[] old, ReachedLink cameBy, Collection<Frame> underWay) {
        Object[] before = old == null || isMoved(row, old) ? null : old;
        for (ReachedLink link : inOrder) {
            if (link.child != row.table || !link.link.isEnforced() || link == cameBy) {
                continue;
            }
            Object key = link.children.keyOf(row.values);
            if (key == null || (before != null && key.equals(link.children.keyOf(before)))) {
                continue;
            }
            if (!hasParent(link, key, underWay)) {
                refuse(RefusalKind.NO_PARENT, link.child, link.link.name(), row);
            }
        }
    }

    /** The update of a row is half done while its actions run: with its new key it is no parent yet. */
    private static boolean hasParent(ReachedLink link, Object key, Collection<Frame> underWay) {
        for (ReachedRow parent : link.parent.find(link.parents, key)) {
            if (underWay.stream().noneMatch(frame -> frame.row.equals(parent) && !frame.isDelete())) {
                return true;
            }
        }
        return false;
    }

    private static boolean isMoved(ReachedRow row, Object[] before) {
        return row.table.table().primaryKey().stream().anyMatch(key -> {
            KeyLookup lookup = row.table.lookup(key);
            return !Objects.equals(lookup.keyOf(before), lookup.keyOf(row.values));
        });
    }

    private Frame frame(ReachedRow row, Object[] before, Object[] after, Effect effect) {
        List<ReachedLink> links = new ArrayList<>();
        for (ReachedLink link : inOrder) {
            if (link.parent == row.table && link.link.isEnforced()) {
                Object key = link.parents.keyOf(before);
                if (key != null && (after == null || !key.equals(link.parents.keyOf(after)))) {
                    links.add(link);
                }
            }
        }
        return new Frame(row, before, after, effect, links);
    }

    private void follow(Frame first) {
        Deque<Frame> frames = new ArrayDeque<>();
        frames.push(first);
        while (!frames.isEmpty()) {
            Frame frame = frames.peek();
            if (frame.nextChild < frame.children.size()) {
                ReachedRow child = frame.children.get(frame.nextChild++);
                if (!child.isGone) {
                    actOn(child, frame, frames);
                }
            } else if (frame.nextLink < frame.links.size()) {
                frame.link = frame.links.get(frame.nextLink++);
                look(frame, frames);
            } else {
                frames.pop();
            }
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
        List<ReachedRow> children = new ArrayList<>(ordered(link.child, childrenOf(link, key)));
        addUnderWay(link, key, frames, children);
        ActionName action = link.action(frame.isDelete()).name();
        if (action == ActionName.CASCADE || action == ActionName.SET_NULL) {
            frame.children = children;
        } else {
            children.forEach(child -> refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child));
        }
    }

    /**
     * Rows that are being changed right now are still found by an index of their own for the link, as they were before; where the
     * link's columns begin the primary key there is no such index.
     */
    private static void addUnderWay(ReachedLink link, Object key, Deque<Frame> frames, List<ReachedRow> children) {
        int[] primary = link.child
                .table()
                .primaryKey()
                .map(own -> link.child.table().indexesOf(own.columns()))
                .orElse(new int[0]);
        boolean isInRow = primary.length >= link.childColumns.length
                && Arrays.equals(Arrays.copyOf(primary, link.childColumns.length), link.childColumns);
        for (Frame frame : frames) {
            if (!isInRow
                    && frame.row.table == link.child
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
            frames.push(frame(child, before, null, deleteRow(child, link, frame.effect)));
            return;
        }
        if (!frame.isDelete() && comesBack(link.child, frames)) {
            refuse(RefusalKind.CIRCULAR, link.child, link.link.name(), child);
            return;
        }
        Object[] after = actedOn(child, link, action, frame.after);
        Effect effect = writeRow(child, after, effectOf(action.name()), link, frame.effect);
        for (int column : columnsSet(link, action)) {
            boolean isNull = child.value(column) == null;
            if (isNull
                    && link.child.table().isRequired(link.child.column(column).name())) {
                // The server names the link, not the column.
                refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
            }
        }
        // The server's rules (CHECK) are not judged for what an action writes.
        judgeKeys(child, before, RowJudge.keysOf(child.table));
        judgeParents(child, before, link, frames);
        frames.push(frame(child, before, after, effect));
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
    void judgeDeferred() {
        // Nothing waits.
    }

    @Override
    void forgetDeferred() {
        // Nothing waits.
    }

    @Override
    void keepDeferred() {
        // Nothing waits.
    }
}
