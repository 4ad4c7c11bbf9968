package taxiomet.rehearse.postgresql;

import java.math.BigDecimal;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Queue;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.Unread;
import taxiomet.rehearse.replay.ChangeReader;
import taxiomet.rehearse.replay.Replay;
import taxiomet.rehearse.replay.RowJudge;

/** PostgreSQL's behaviour: rows one after the other, and one queue for actions and checks (P1 to P5). */
public final class PostgresReplay extends Replay {
    private final Queue<Entry> queue = new ArrayDeque<>();
    private final List<Entry> deferred = new ArrayList<>();
    private final List<Entry> newDeferred = new ArrayList<>();
    private final List<ReachedLink> order;

    /**
     * What is still to be done or judged for one row and one link.
     *
     * @param isCheck whether the row's own link is to be checked; otherwise its children are to be acted on
     * @param before the parent's values before; null for a check
     * @param after the parent's values afterwards; null for a deleted one
     * @param version of the row when it was put in
     */
    @SuppressWarnings("ArrayRecordComponent")
    private record Entry(
            ReachedLink link,
            boolean isCheck,
            ReachedRow row,
            Object[] before,
            Object[] after,
            int version,
            Effect effect) {}

    /** @param order the links as they are declared, or as they might be */
    public PostgresReplay(ReachedRows rows, Proposal proposal, List<ReachedLink> order) {
        super(rows, proposal);
        this.order = order;
        if (order.stream().anyMatch(ReachedLink::isMatchPartial)) {
            ReachedLink partial = order.stream()
                    .filter(ReachedLink::isMatchPartial)
                    .findFirst()
                    .orElseThrow();
            throw new ProposalException(
                    partial.link.name(),
                    "PostgreSQL has no match partial",
                    "rehearse it as the standard has it, or make the link match simple or full");
        }
    }

    @Override
    protected void insert(ReachedTable table, List<Object[]> newRows) {
        for (Object[] values : newRows) {
            ReachedRow row = insertRow(table, values);
            judge(row, null);
            enqueue(row, null, values, row.lastEffect, false);
        }
        workOff();
    }

    @Override
    protected void delete(ReachedTable table, List<ReachedRow> targets) {
        for (ReachedRow row : targets) {
            remove(row, null, null);
        }
        workOff();
    }

    @Override
    protected void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        List<Object[]> values = new ArrayList<>();
        targets.forEach(row -> values.add(assigner.values(row)));
        for (int i = 0; i < values.size(); i++) {
            requireNotNumberedAlone(targets.get(i), assigner.columnsSet());
            change(targets.get(i), values.get(i), EffectKind.CHANGED, null, null);
        }
        workOff();
    }

    @Override
    protected boolean readsConstantsFirst() {
        return true;
    }

    private void requireNotNumberedAlone(ReachedRow row, int[] columnsSet) {
        for (int column : columnsSet) {
            if (isNumberedAlone(row.table, column)) {
                refuse(
                        RefusalKind.GENERATED_ALWAYS,
                        row.table,
                        row.table.column(column).name(),
                        row);
            }
        }
    }

    private void remove(ReachedRow row, ReachedLink link, Effect cause) {
        Object[] before = row.values;
        Effect effect = deleteRow(row, link, cause);
        enqueue(row, before, null, effect, false);
    }

    private void change(ReachedRow row, Object[] values, EffectKind kind, ReachedLink link, Effect cause) {
        Object[] before = row.values;
        boolean isOwnVersion = isWrittenByTransaction(row);
        Effect effect = writeRow(row, values, kind, link, cause);
        if (link != null) {
            requireTypes(row, before, row.values);
        }
        judge(row, before);
        enqueue(row, before, values, effect, isOwnVersion);
    }

    /** All not-null columns and rules are judged, changed or not (P1); rules in the order of their names. */
    private void judge(ReachedRow row, Object[] before) {
        judgeOf(row.table, true).judge(row, before, new int[0], RowJudge.Scope.ALL, refusals());
        judgeKeys(row, before, RowJudge.keysOf(row.table));
    }

    /** Puts in what a changed row calls for: actions and checks of its children first, then checks of its own links (P2). */
    private void enqueue(ReachedRow row, Object[] before, Object[] after, Effect effect, boolean isOwnVersion) {
        for (ReachedLink link : order) {
            if (before != null
                    && link.parent == row.table
                    && link.link.isEnforced()
                    && link.parents.keyOf(before) != null
                    && (after == null || !isSameKey(link, before, after))) {
                queue.add(new Entry(link, false, row, before, after, row.version, effect));
            }
        }
        for (ReachedLink link : order) {
            if (after != null
                    && link.child == row.table
                    && link.link.isEnforced()
                    && isToBeChecked(link, before, after, isOwnVersion)) {
                queue.add(new Entry(link, true, row, null, after, row.version, effect));
            }
        }
    }

    /** Whether the referenced columns look the same, spelling of numbers included (P5). */
    private static boolean isSameKey(ReachedLink link, Object[] before, Object[] after) {
        for (int column : link.parentColumns) {
            int slot = link.parent.slotOf(column);
            if (before[slot] instanceof BigDecimal
                    ? !before[slot].equals(after[slot])
                    : !Objects.equals(before[slot], after[slot])) {
                return false;
            }
        }
        return true;
    }

    private boolean isToBeChecked(ReachedLink link, Object[] before, Object[] after, boolean isOwnVersion) {
        int nulls = link.nullsIn(after);
        if (nulls == link.childColumns.length) {
            return false;
        }
        if (nulls > 0) {
            return link.isMatchFull();
        }
        if (before == null || isOwnVersion) {
            return true;
        }
        Object key = link.children.keyOf(after);
        return key == null || !key.equals(link.children.keyOf(before));
    }

    private void workOff() {
        for (Entry entry = queue.poll(); entry != null; entry = queue.poll()) {
            if (entry.isCheck()) {
                if (waits(entry.link())) {
                    newDeferred.add(entry);
                } else {
                    check(entry);
                }
            } else {
                act(entry);
            }
        }
    }

    /** The check of a child row, unless it went or changed again (P4). */
    private void check(Entry entry) {
        ReachedRow row = entry.row();
        ReachedLink link = entry.link();
        if (row.isGone || row.version != entry.version()) {
            return;
        }
        int nulls = link.nullsIn(row.values);
        if (nulls > 0) {
            if (link.isMatchFull() && nulls < link.childColumns.length) {
                refuse(RefusalKind.HALF_NULL_LINK, link.child, link.link.name(), row);
            }
            return;
        }
        Object key = link.children.keyOf(row.values);
        if (key == null || !link.hasParent(key)) {
            refuse(RefusalKind.NO_PARENT, link.child, link.link.name(), row);
        }
    }

    private void act(Entry entry) {
        ReachedLink link = entry.link();
        Object key = link.parents.keyOf(entry.before());
        boolean isDelete = entry.after() == null;
        Action action = link.action(isDelete);
        if (hasTwin(link, key, entry.row())) {
            keptByTwin(entry.row());
            return;
        }
        switch (action.name()) {
            case NO_ACTION -> {
                if (waits(link)) {
                    newDeferred.add(entry);
                } else {
                    refuseChildren(link, key, true);
                }
            }
            case RESTRICT -> refuseChildren(link, key, false);
            case CASCADE -> {
                List<ReachedRow> children = link.childrenOf(key);
                if (!isDelete && children.isEmpty()) {
                    requireFit(link, entry.after());
                }
                for (ReachedRow child : children) {
                    if (isDelete) {
                        remove(child, link, entry.effect());
                    } else {
                        change(
                                child,
                                actedOn(child, link, action, entry.after()),
                                EffectKind.REPOINTED,
                                link,
                                entry.effect());
                    }
                }
            }
            case SET_NULL, SET_DEFAULT -> {
                for (ReachedRow child : link.childrenOf(key)) {
                    change(child, actedOn(child, link, action, null), effectOf(action.name()), link, entry.effect());
                }
                if (action.name() == ActionName.SET_DEFAULT) {
                    // R10: children may have been on the default already.
                    refuseChildren(link, key, true);
                }
            }
        }
    }

    /** A new key must fit into the child's columns even where there is no child: the server turns it into their types first (P7). */
    private void requireFit(ReachedLink link, Object[] parentNow) {
        for (int i = 0; i < link.childColumns.length; i++) {
            Object part = parentNow[link.parent.slotOf(link.parentColumns[i])];
            if (!(part instanceof Unread) && cascaded(link, i, part) instanceof Unread) {
                refusals()
                        .add(
                                RefusalKind.TYPE_MISMATCH,
                                link.child,
                                link.child.column(link.childColumns[i]).name());
            }
        }
    }

    /** @param canBeTakenOver whether another row that has the key now saves the children (P3) */
    private void refuseChildren(ReachedLink link, Object key, boolean canBeTakenOver) {
        if (canBeTakenOver && link.hasParent(key)) {
            return;
        }
        for (ReachedRow child : link.childrenOf(key)) {
            refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
        }
    }

    @Override
    protected void keepDeferred() {
        deferred.addAll(newDeferred);
        newDeferred.clear();
    }

    @Override
    protected void forgetDeferred() {
        newDeferred.clear();
    }

    @Override
    protected void judgeDeferred() {
        for (Entry entry : deferred) {
            if (entry.isCheck()) {
                check(entry);
            } else {
                refuseChildren(entry.link(), entry.link().parents.keyOf(entry.before()), true);
            }
        }
    }
}
