package taxiomet.rehearse;

import java.util.List;
import java.util.Objects;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.keys.KeyForm;

/** A link between two tables, with the ways to look up its children and its parents. */
final class ReachedLink {
    final ForeignKey link;
    final ReachedTable child;
    final ReachedTable parent;
    final int[] childColumns;
    final int[] parentColumns;
    final List<KeyForm> forms;
    final KeyLookup children;
    final KeyLookup parents;
    /** How rows match under match partial; null for other links, and for those of one column, where all are alike. */
    final PartialMatch partial;

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
    void setSoundAsRead() {
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

    boolean isSelf() {
        return Objects.equals(link.child(), link.parent());
    }

    boolean isMatchFull() {
        return link.match() == Match.FULL;
    }

    boolean isMatchPartial() {
        return link.match() == Match.PARTIAL;
    }

    Action action(boolean isDelete) {
        return isDelete ? link.onDelete() : link.onUpdate();
    }

    /** The columns, by their places in the child, that set null and set default write. */
    int[] columnsSet(Action action) {
        return action.columns().isEmpty() ? childColumns : child.table().indexesOf(action.columns());
    }

    /** Whether an action changes children, and does not only refuse. */
    static boolean acts(ActionName action) {
        return action == ActionName.CASCADE || action == ActionName.SET_NULL || action == ActionName.SET_DEFAULT;
    }

    @Override
    public String toString() {
        return link.name();
    }
}
