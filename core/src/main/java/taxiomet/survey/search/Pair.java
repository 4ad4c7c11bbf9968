package taxiomet.survey.search;

import taxiomet.survey.profile.TableProfile;

/** Columns of a child, and the key of a parent that they may point at. */
@SuppressWarnings("ArrayRecordComponent") // places of columns, as everywhere; pairs are never compared
public record Pair(TableProfile child, int[] columns, TableProfile parent, int[] key) {
    /** Whether the child's columns hold nothing yet, so that names alone speak. */
    public boolean isEmpty() {
        for (int column : columns) {
            if (child.columns.get(column).values() > 0) {
                return false;
            }
        }
        return true;
    }

    public boolean isSingle() {
        return columns.length == 1;
    }

    public boolean isOfOneTable() {
        return child == parent;
    }
}
