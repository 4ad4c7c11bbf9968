package taxiomet.rehearse.standard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.PartialMatch;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.replay.ChangeReader;
import taxiomet.rehearse.replay.Replay;
import taxiomet.rehearse.replay.RowJudge;

/** The standard's behaviour: statements and actions change all their rows together, level by level (S1 to S6); in one file, in the
 * order of a statement. */
public final class StandardReplay extends Replay {
    /** Keys that went away, whose children are looked for when nothing is left to do (S3). */
    private final Set<GoneKey> goneKeys = new LinkedHashSet<>();

    private final Set<GoneKey> deferredKeys = new LinkedHashSet<>();
    private final Set<Written> deferredRows = new LinkedHashSet<>();
    private final Set<GoneKey> newDeferredKeys = new LinkedHashSet<>();
    private final Set<Written> newDeferredRows = new LinkedHashSet<>();

    /** Rows that actions have moved away from a parent in this statement, by the key they had. */
    private final Map<ReachedLink, Map<Object, List<ReachedRow>>> moved = new HashMap<>();
    /** For each row that was written in this statement by an action, which slots. */
    private final Map<ReachedRow, boolean[]> slotsWritten = new HashMap<>();

    private final Set<ReachedRow> rowsWritten = new LinkedHashSet<>();
    private final Map<ReachedRow, String> conflicts = new LinkedHashMap<>();

    /**
     * A key that went away.
     *
     * @param key null under match partial, where the parent's values before say which rows matched
     */
    @SuppressWarnings("ArrayRecordComponent")
    private record GoneKey(ReachedLink link, Object key, Object[] before) {
        static GoneKey of(ReachedLink link, Object key) {
            return new GoneKey(link, key, null);
        }

        static GoneKey partly(ReachedLink link, Object[] before) {
            return new GoneKey(link, null, before);
        }
    }

    private record Written(ReachedLink link, ReachedRow row) {}

    /** A row that a level has changed: what its key was, and why it changed. */
    @SuppressWarnings("ArrayRecordComponent")
    private record Changed(ReachedRow row, Object[] before, Effect effect) {}

    /** What the actions of a level are to do to one row. */
    private static final class Plan {
        private final ReachedRow row;
        private boolean isDeleted;
        private Object[] values;
        private EffectKind kind;
        private ReachedLink link;
        private Effect cause;

        Plan(ReachedRow row) {
            this.row = row;
        }

        /** The row goes, by the link that says so first. */
        void delete(ReachedLink by, Effect because) {
            if (!isDeleted) {
                isDeleted = true;
                link = by;
                cause = because;
            }
        }
    }

    /** @param proposal what is to be carried out */
    public StandardReplay(ReachedRows rows, Proposal proposal) {
        super(rows, proposal);
    }

    @Override
    protected void insert(ReachedTable table, List<Object[]> newRows) {
        start();
        List<ReachedRow> made = new ArrayList<>();
        for (Object[] values : newRows) {
            made.add(insertRow(table, values));
        }
        made.forEach(row -> judge(row, null));
        rowsWritten.addAll(made);
        judgeEnd();
    }

    @Override
    protected void delete(ReachedTable table, List<ReachedRow> targets) {
        start();
        List<Changed> level = new ArrayList<>();
        for (ReachedRow row : targets) {
            level.add(new Changed(row, row.values, deleteRow(row, null, null)));
        }
        judgeRestrict(level);
        act(level);
        judgeEnd();
    }

    @Override
    protected void update(ReachedTable table, List<ReachedRow> targets, ChangeReader.Assigner assigner) {
        start();
        List<Object[]> values = new ArrayList<>();
        targets.forEach(row -> values.add(assigner.values(row)));
        List<Changed> level = new ArrayList<>();
        for (int i = 0; i < values.size(); i++) {
            ReachedRow row = targets.get(i);
            level.add(new Changed(row, row.values, writeRow(row, values.get(i), EffectKind.CHANGED, null, null)));
        }
        level.forEach(changed -> judge(changed.row(), changed.before()));
        rowsWritten.addAll(targets);
        judgeRestrict(level);
        act(level);
        judgeEnd();
    }

    private void start() {
        goneKeys.clear();
        moved.clear();
        slotsWritten.clear();
        rowsWritten.clear();
        conflicts.clear();
        newDeferredKeys.clear();
        newDeferredRows.clear();
    }

    private void judge(ReachedRow row, Object[] before) {
        judgeOf(row.table, false).judge(row, before, new int[0], RowJudge.Scope.CHANGED, refusals());
        judgeKeys(row, before, RowJudge.keysOf(row.table));
    }

    /** The key that a changed row had and has no longer, for a link that points at it; null when it has it still. */
    private static Object goneKey(ReachedLink link, Object[] before, ReachedRow row) {
        Object key = link.parents.keyOf(before);
        if (key == null || !link.link.isEnforced()) {
            return null;
        }
        return !row.isGone && key.equals(link.parents.keyOf(row.values)) ? null : key;
    }

    /** Restrict is judged when the parent row goes or its key changes (S2). */
    private void judgeRestrict(List<Changed> level) {
        for (Changed changed : level) {
            ReachedRow row = changed.row();
            for (ReachedLink link : row.table.linksIn) {
                if (link.partial != null) {
                    judgePartialRestrict(changed, link);
                } else if (link.action(row.isGone).name() == ActionName.RESTRICT) {
                    Object key = goneKey(link, changed.before(), row);
                    if (key != null && !hasTwin(link, key, row)) {
                        refuseChildren(link, key, row);
                    }
                }
            }
        }
    }

    private void judgePartialRestrict(Changed changed, ReachedLink link) {
        ReachedRow parent = changed.row();
        if (link.link.isEnforced() && link.action(parent.isGone).name() == ActionName.RESTRICT) {
            for (ReachedRow child : lostBy(link.partial, parent, changed.before())) {
                if (child != parent) {
                    refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
                }
            }
        }
    }

    private void refuseChildren(ReachedLink link, Object key, ReachedRow parent) {
        for (ReachedRow child : link.childrenOf(key)) {
            if (child != parent) {
                refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
            }
        }
    }

    /** Runs the actions, level by level, until nothing is left to do (S1). */
    private void act(List<Changed> first) {
        List<Changed> level = first;
        while (!level.isEmpty()) {
            List<Plan> plans = new ArrayList<>();
            for (Changed changed : level) {
                plan(changed, plans);
            }
            plans.forEach(plan -> plan.row.plan = null);
            judgeRestrictOf(plans);
            level = carryOut(plans);
            for (Changed changed : level) {
                changed.row().table.linksIn.stream()
                        .filter(link -> link.partial != null)
                        .forEach(link -> judgePartialRestrict(changed, link));
            }
        }
        conflicts.forEach((row, column) -> {
            if (!row.isGone) {
                refuse(RefusalKind.TWO_VALUES, row.table, column, row);
            }
        });
    }

    private void plan(Changed changed, List<Plan> plans) {
        ReachedRow row = changed.row();
        for (ReachedLink link : row.table.linksIn) {
            if (link.partial != null) {
                planPartial(changed, link, plans);
                continue;
            }
            Object key = goneKey(link, changed.before(), row);
            if (key == null) {
                continue;
            }
            if (hasTwin(link, key, row)) {
                keptByTwin(row);
                continue;
            }
            Action action = link.action(row.isGone);
            if (!ReachedLink.acts(action.name())) {
                if (action.name() == ActionName.NO_ACTION) {
                    goneKeys.add(GoneKey.of(link, key));
                }
                continue;
            }
            if (action.name() == ActionName.SET_DEFAULT) {
                goneKeys.add(GoneKey.of(link, key));
            }
            for (ReachedRow child : childrenAtStart(link, key)) {
                Plan plan = planOf(child, plans);
                if (row.isGone && action.name() == ActionName.CASCADE) {
                    plan.delete(link, changed.effect());
                } else {
                    Object[] wanted = actedOn(child, link, action, row.values);
                    addWrite(plan, link, link.columnsSet(action), wanted, action, changed);
                }
            }
        }
    }

    /** Match partial: the action takes the child rows of which the parent row was the only match (S5). */
    private void planPartial(Changed changed, ReachedLink link, List<Plan> plans) {
        ReachedRow row = changed.row();
        Action action = link.action(row.isGone);
        if (!link.link.isEnforced()) {
            return;
        }
        if (action.name() == ActionName.NO_ACTION || action.name() == ActionName.SET_DEFAULT) {
            goneKeys.add(GoneKey.partly(link, changed.before()));
        }
        if (!ReachedLink.acts(action.name())) {
            return;
        }
        for (ReachedRow child : lostBy(link.partial, row, changed.before())) {
            Plan plan = planOf(child, plans);
            if (row.isGone && action.name() == ActionName.CASCADE) {
                plan.delete(link, changed.effect());
                continue;
            }
            Object[] after = row.isGone ? null : row.values;
            int[] places = link.partial.columnsWritten(child, action, changed.before(), after);
            Object[] wanted = child.values.clone();
            int[] columns = new int[places.length];
            for (int i = 0; i < places.length; i++) {
                columns[i] = link.childColumns[places[i]];
                wanted[link.child.slotOf(columns[i])] = switch (action.name()) {
                    case CASCADE ->
                        cascaded(link, places[i], row.values[link.parent.slotOf(link.parentColumns[places[i]])]);
                    case SET_DEFAULT -> defaultOfRow(link.child, columns[i]);
                    default -> null;
                };
            }
            addWrite(plan, link, columns, wanted, action, changed);
        }
    }

    private static Plan planOf(ReachedRow row, List<Plan> plans) {
        if (row.plan == null) {
            Plan plan = new Plan(row);
            row.plan = plan;
            plans.add(plan);
        }
        return (Plan) row.plan;
    }

    /** Rows that pointed at a key when the statement began, and that it has not pointed elsewhere itself. */
    private List<ReachedRow> childrenAtStart(ReachedLink link, Object key) {
        List<ReachedRow> children = new ArrayList<>();
        for (ReachedRow child : link.childrenOf(key)) {
            if (!child.isNew() || child.statement != statement()) {
                if (key.equals(link.children.keyOf(valuesAtStart(child)))) {
                    children.add(child);
                }
            }
        }
        for (ReachedRow child : moved.getOrDefault(link, Map.of()).getOrDefault(key, List.of())) {
            if (!child.isGone) {
                children.add(child);
            }
        }
        return children;
    }

    private void addWrite(Plan plan, ReachedLink link, int[] columns, Object[] wanted, Action action, Changed parent) {
        ReachedRow child = plan.row;
        boolean isFirst = plan.values == null;
        if (isFirst) {
            plan.values = child.values.clone();
        }
        boolean[] written = slotsWritten.computeIfAbsent(child, row -> new boolean[row.values.length]);
        boolean changes = false;
        for (int column : columns) {
            int slot = link.child.slotOf(column);
            if (written[slot] && !CellCodec.isSame(plan.values[slot], wanted[slot])) {
                conflicts.putIfAbsent(child, link.child.column(column).name());
            }
            written[slot] = true;
            changes |= !CellCodec.isSame(child.values[slot], wanted[slot]);
            plan.values[slot] = wanted[slot];
        }
        if (!plan.isDeleted && (plan.kind == null || (isFirst && changes))) {
            plan.kind = effectOf(action.name());
            plan.link = link;
            plan.cause = parent.effect();
        }
    }

    /** Restrict, for the parents that this level is about to delete or write: their children of the moment before count. */
    private void judgeRestrictOf(List<Plan> plans) {
        for (Plan plan : plans) {
            ReachedRow row = plan.row;
            for (ReachedLink link : row.table.linksIn) {
                Object key = link.parents.keyOf(row.values);
                if (row.isGone || key == null || link.partial != null || !link.link.isEnforced()) {
                    continue;
                }
                boolean isGoing = plan.isDeleted || !key.equals(link.parents.keyOf(plan.values));
                if (isGoing && link.action(plan.isDeleted).name() == ActionName.RESTRICT && !hasTwin(link, key, row)) {
                    refuseChildren(link, key, row);
                }
            }
        }
    }

    private List<Changed> carryOut(List<Plan> plans) {
        List<Changed> level = new ArrayList<>();
        for (Plan plan : plans) {
            ReachedRow row = plan.row;
            if (row.isGone) {
                continue;
            }
            if (plan.isDeleted) {
                level.add(new Changed(row, row.values, deleteRow(row, plan.link, plan.cause)));
            } else if (!Arrays.equals(row.values, plan.values)) {
                noteMoves(row, plan.values);
                Object[] before = row.values;
                level.add(new Changed(row, before, writeRow(row, plan.values, plan.kind, plan.link, plan.cause)));
                rowsWritten.add(row);
            }
        }
        for (Changed changed : level) {
            if (!changed.row().isGone) {
                requireTypes(changed.row(), changed.before(), changed.row().values);
                judge(changed.row(), changed.before());
            }
        }
        return level;
    }

    private void noteMoves(ReachedRow row, Object[] after) {
        Object[] atStart = valuesAtStart(row);
        for (ReachedLink link : row.table.linksOut) {
            Object key = link.children.keyOf(atStart);
            boolean isStillThere = key != null && key.equals(link.children.keyOf(row.values));
            if (isStillThere && !key.equals(link.children.keyOf(after))) {
                moved.computeIfAbsent(link, l -> new HashMap<>())
                        .computeIfAbsent(key, k -> new ArrayList<>())
                        .add(row);
            }
        }
    }

    private void judgeEnd() {
        for (ReachedRow row : rowsWritten) {
            for (ReachedLink link : row.table.linksOut) {
                if (!row.isGone && link.link.isEnforced() && isPointedElsewhere(link, row)) {
                    if (waits(link)) {
                        newDeferredRows.add(new Written(link, row));
                    } else {
                        judgeParent(link, row);
                    }
                }
            }
        }
        for (GoneKey gone : goneKeys) {
            if (waits(gone.link())) {
                newDeferredKeys.add(gone);
            } else {
                judgeChildren(gone);
            }
        }
    }

    /** Whether the statement made a row, or gave it another key in a link's columns. */
    private boolean isPointedElsewhere(ReachedLink link, ReachedRow row) {
        Object[] before = valuesAtStart(row);
        if (before == row.values) {
            return true;
        }
        for (int column : link.childColumns) {
            int slot = link.child.slotOf(column);
            if (!CellCodec.isSame(before[slot], row.values[slot])) {
                return true;
            }
        }
        return false;
    }

    private void judgeParent(ReachedLink link, ReachedRow row) {
        if (link.partial != null) {
            if (!link.partial.isEmpty(row.values)
                    && link.partial.parentsOf(row.values).isEmpty()) {
                refuse(RefusalKind.NO_PARENT, link.child, link.link.name(), row);
            }
            return;
        }
        int nulls = link.nullsIn(row.values);
        if (nulls == link.childColumns.length || (nulls > 0 && !link.isMatchFull())) {
            return;
        }
        if (nulls > 0 && link.isMatchFull()) {
            refuse(RefusalKind.HALF_NULL_LINK, link.child, link.link.name(), row);
            return;
        }
        Object key = link.children.keyOf(row.values);
        if (key != null && !link.hasParent(key)) {
            refuse(RefusalKind.NO_PARENT, link.child, link.link.name(), row);
        }
    }

    /** No action is judged when nothing is left to do: another row with the key is a parent, too (S3). */
    private void judgeChildren(GoneKey gone) {
        if (gone.before() != null) {
            judgePartialChildren(gone);
        } else if (!gone.link().hasParent(gone.key())) {
            for (ReachedRow child : gone.link().childrenOf(gone.key())) {
                if (rowsWritten.contains(child) && isPointedElsewhere(gone.link(), child)) {
                    // It has no parent, and has been refused for that.
                    continue;
                }
                refuse(
                        RefusalKind.STILL_REFERENCED,
                        gone.link().child,
                        gone.link().link.name(),
                        child);
            }
        }
    }

    private void judgePartialChildren(GoneKey gone) {
        ReachedLink link = gone.link();
        for (ReachedRow child : link.partial.childrenOf(gone.before())) {
            boolean isJudged = rowsWritten.contains(child) && isPointedElsewhere(link, child);
            if (!isJudged && link.partial.parentsOf(child.values).isEmpty()) {
                refuse(RefusalKind.STILL_REFERENCED, link.child, link.link.name(), child);
            }
        }
    }

    @Override
    protected void keepDeferred() {
        deferredKeys.addAll(newDeferredKeys);
        deferredRows.addAll(newDeferredRows);
    }

    @Override
    protected void forgetDeferred() {
        newDeferredKeys.clear();
        newDeferredRows.clear();
    }

    @Override
    protected void judgeDeferred() {
        for (Written written : deferredRows) {
            if (!written.row().isGone) {
                judgeParent(written.link(), written.row());
            }
        }
        deferredKeys.forEach(this::judgeChildren);
    }

    /**
     * The standard's unique matching rows of a parent that went, or got other values: child rows that matched it when the statement
     * began, that do not match it now, and that no other parent row has matched all the time.
     *
     * @param before the parent's values before
     */
    private List<ReachedRow> lostBy(PartialMatch link, ReachedRow parent, Object[] before) {
        List<ReachedRow> lost = new ArrayList<>();
        for (ReachedRow child : link.childrenOf(before)) {
            boolean isMade = child.isNew() && child.statement == statement();
            boolean matchesStill = !parent.isGone && link.matches(child.values, parent.values);
            if (!isMade
                    && !matchesStill
                    && link.matches(valuesAtStart(child), before)
                    && !hasOther(link, child, parent)) {
                lost.add(child);
            }
        }
        return lost;
    }

    private boolean hasOther(PartialMatch link, ReachedRow child, ReachedRow parent) {
        return link.parentsOf(child.values).stream()
                .anyMatch(
                        other -> other != parent && !other.isNew() && link.matches(child.values, valuesAtStart(other)));
    }
}
