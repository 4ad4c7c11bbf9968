package taxiomet.rehearse.mariadb;

import java.util.List;
import java.util.PriorityQueue;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;

/**
 * Goes through the rows of a table in the order of an index while a statement changes them. What an action moves is met where it stands
 * then: ahead, or, where the server has gone by that place already, not at all.
 */
final class MariadbScan {
    private final ReachedTable table;
    private final int[] index;
    private final List<Place> places;
    private final PriorityQueue<Place> moved;
    private int at;
    private Object[] cursor;

    /** A row and the values by which it stands in the index. */
    private static final class Place {
        final ReachedRow row;
        final Object[] values;

        Place(ReachedRow row) {
            this.row = row;
            this.values = row.values;
        }
    }

    /** @param index its columns; none for the primary key's */
    MariadbScan(ReachedTable table, int[] index, List<ReachedRow> rows) {
        this.table = table;
        this.index = MariadbIndexes.withPrimaryKey(table, index);
        this.places = MariadbIndexes.sorted(table, index, rows).stream()
                .map(Place::new)
                .toList();
        this.moved = new PriorityQueue<>((one, other) -> compare(one.values, other.values));
    }

    private int compare(Object[] one, Object[] other) {
        return MariadbIndexes.compare(table, index, one, other);
    }

    /** An action has written a row. */
    void written(ReachedRow row, Object[] before) {
        if (row.table == table && compare(before, row.values) != 0) {
            moved.add(new Place(row));
        }
    }

    /** The row that is met next; null when there is none. */
    ReachedRow next() {
        while (true) {
            Place next = at < places.size() ? places.get(at) : null;
            Place first = moved.peek();
            if (next == null && first == null) {
                return null;
            }
            if (next == null || (first != null && compare(first.values, next.values) < 0)) {
                next = moved.remove();
            } else {
                at++;
            }
            boolean isThere = !next.row.isGone && compare(next.values, next.row.values) == 0;
            boolean isAhead = cursor == null || compare(cursor, next.values) < 0;
            if (isThere && isAhead) {
                cursor = next.values;
                return next.row;
            }
        }
    }
}
