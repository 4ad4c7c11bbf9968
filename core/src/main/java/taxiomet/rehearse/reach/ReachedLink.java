package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.keys.KeyForm;

/** A link between two tables, with the ways to look up its children and its parents. */
public final class ReachedLink {
    public final ForeignKey link;
    public final ReachedTable child;
    public final ReachedTable parent;
    public final int[] childColumns;
    public final int[] parentColumns;
    final List<KeyForm> forms;
    public final KeyLookup children;
    public final KeyLookup parents;
    /** How rows match under match partial; null for other links, and for those of one column, where all are alike. */
    public final PartialMatch partial;

    private boolean isSoundAsRead;
    /** How many rows of the child had been read when the parents of those going were asked for last. */
    private int rowsWithParents;

    ReachedLink(ForeignKey link, ReachedTable child, ReachedTable parent) {
        this.link = link;
        this.child = child;
        this.parent = parent;
        this.childColumns = child.table().indexesOf(link.columns());
        this.parentColumns = parent.table().indexesOf(link.parentColumns());
        this.forms = KeyForm.of(child.table(), parent.table(), link);
        this.children = child.lookup(childColumns, forms);
        this.parents = parent.lookup(parentColumns, forms);
        this.partial = isMatchPartial() && childColumns.length > 1 ? new PartialMatch(this) : null;
    }

    /** A check of the rows has found that every child has its parent. */
    public void setSoundAsRead() {
        isSoundAsRead = true;
        parents.keepVacated();
    }

    boolean isSoundAsRead() {
        return isSoundAsRead;
    }

    /** Where the parent of one row has to be read, those of all rows that will be deleted are read with it. */
    void wantParentsOfThoseGoing() {
        if (!parents.isWanting() || rowsWithParents == child.rows.size()) {
            return;
        }
        rowsWithParents = child.rows.size();
        child.rows.forEach(row -> {
            Object key = row.isExpectedToGo ? children.keyOf(row.original) : null;
            if (key != null) {
                parent.want(parents, key);
            }
        });
    }

    /** Whether it leads from a table to itself. */
    public boolean isSelf() {
        return Objects.equals(link.child(), link.parent());
    }

    /** Whether some nulls in its columns are a fault. */
    public boolean isMatchFull() {
        return link.match() == Match.FULL;
    }

    /** Whether some nulls in its columns leave the others to be matched. */
    public boolean isMatchPartial() {
        return link.match() == Match.PARTIAL;
    }

    /** What it does when a parent goes, or when its key changes. */
    public Action action(boolean isDelete) {
        return isDelete ? link.onDelete() : link.onUpdate();
    }

    /** The columns, by their places in the child, that set null and set default write. */
    public int[] columnsSet(Action action) {
        return action.columns().isEmpty() ? childColumns : child.table().indexesOf(action.columns());
    }

    /** Whether an action changes children, and does not only refuse. */
    public static boolean acts(ActionName action) {
        return action == ActionName.CASCADE || action == ActionName.SET_NULL || action == ActionName.SET_DEFAULT;
    }

    /** The rows whose keys in its columns are equal to a parent's, in the order in which they stand. */
    public List<ReachedRow> childrenOf(Object key) {
        return inOrder(child.find(children, key));
    }

    private static List<ReachedRow> inOrder(Collection<ReachedRow> found) {
        if (found.size() < 2) {
            return List.copyOf(found);
        }
        List<ReachedRow> sorted = new ArrayList<>(found);
        sorted.sort(Comparator.comparingLong(row -> row.position));
        return sorted;
    }

    /** Whether a row now has a key that children point at. */
    public boolean hasParent(Object key) {
        return !parent.find(parents, key).isEmpty();
    }

    /** The same, for a child that was read: where all had their parents then, they need not be read for it. */
    public boolean hasParentOf(Object key, ReachedRow row) {
        boolean isAsRead = isSoundAsRead && !row.isNew() && key.equals(children.keyOf(row.original));
        if (!isAsRead) {
            boolean has = hasParent(key);
            wantParentsOfThoseGoing();
            return has;
        }
        parent.use(parents);
        return parents.hasStill(key);
    }

    /** How many of its columns are null in a row. */
    public int nullsIn(Object[] values) {
        int nulls = 0;
        for (int column : childColumns) {
            if (values[child.slotOf(column)] == null) {
                nulls++;
            }
        }
        return nulls;
    }

    /** Whether one of a list of columns is in another. */
    public static boolean meet(int[] some, int[] others) {
        return Arrays.stream(some).anyMatch(one -> Arrays.stream(others).anyMatch(other -> other == one));
    }

    @Override
    public String toString() {
        return link.name();
    }
}
