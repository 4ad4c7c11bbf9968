package taxiomet.rehearse.mariadb;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Table;
import taxiomet.keys.KeyForm;
import taxiomet.proposal.Change;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;

/** The indexes that MariaDB keeps of each table, as far as they decide what it comes to first. */
final class MariadbIndexes {
    private final Map<ReachedTable, List<int[]>> indexes = new HashMap<>();

    MariadbIndexes(ReachedRows rows) {
        rows.tables().forEach(table -> indexes.put(table, indexesOf(table)));
    }

    /** The columns of each index: the primary key's, the unique keys', those without nulls first, then those that links need. */
    private static List<int[]> indexesOf(ReachedTable reached) {
        Table table = reached.table();
        List<int[]> all = new ArrayList<>();
        table.primaryKey().ifPresent(key -> all.add(table.indexesOf(key.columns())));
        for (boolean isRequired : new boolean[] {true, false}) {
            table.uniqueKeys().stream()
                    .filter(key -> key.columns().stream().allMatch(table::isRequired) == isRequired)
                    .forEach(key -> all.add(table.indexesOf(key.columns())));
        }
        for (ReachedLink link : reached.linksOut) {
            boolean isCovered = all.stream().anyMatch(index -> beginsWith(index, link.childColumns))
                    || reached.linksOut.stream()
                            .anyMatch(other -> other.childColumns.length > link.childColumns.length
                                    && beginsWith(other.childColumns, link.childColumns));
            if (!isCovered) {
                all.add(link.childColumns);
            }
        }
        return all;
    }

    private static boolean beginsWith(int[] index, int[] columns) {
        return index.length >= columns.length && Arrays.equals(Arrays.copyOf(index, columns.length), columns);
    }

    /** The place of the first index that begins with some columns; behind all others where none does. */
    int of(ReachedTable table, int[] columns) {
        List<int[]> all = indexes.get(table);
        for (int i = 0; i < all.size(); i++) {
            if (beginsWith(all.get(i), columns)) {
                return i;
            }
        }
        return all.size();
    }

    /** The columns of the index that the server reads to find rows by a condition on one column; none for the primary key's. */
    int[] scanned(ReachedTable table, Change change) {
        Optional<Expression> where = change instanceof Change.Delete delete
                ? delete.where()
                : change instanceof Change.Update update ? update.where() : Optional.empty();
        if (where.isEmpty() || where.get().columnsRead().length != 1 || !isRange(where.get())) {
            return new int[0];
        }
        int column = where.get().columnsRead()[0];
        return indexes.get(table).stream()
                .filter(index -> index[0] == column)
                .findFirst()
                .orElse(new int[0]);
    }

    /** Whether a condition asks for runs of values of its column. */
    private static boolean isRange(Expression condition) {
        if (condition instanceof Or or) {
            return or.any().stream().allMatch(MariadbIndexes::isRange);
        } else if (condition instanceof And and) {
            return and.all().stream().allMatch(MariadbIndexes::isRange);
        } else if (condition instanceof Compared compared) {
            return compared.left() instanceof ColumnValue && compared.right() instanceof Literal;
        }
        return condition instanceof IsNull || condition instanceof In || condition instanceof Between;
    }

    /** Rows in the order of an index, and of the primary key where that is equal. */
    static List<ReachedRow> sorted(ReachedTable table, int[] index, List<ReachedRow> rows) {
        int[] columns = withPrimaryKey(table, index);
        if (columns.length == 0) {
            return rows;
        }
        List<ReachedRow> sorted = new ArrayList<>(rows);
        sorted.sort((one, other) -> compare(table, columns, one.values, other.values));
        return sorted;
    }

    /** The columns by which rows stand in an index: its own, and then the primary key's. */
    static int[] withPrimaryKey(ReachedTable table, int[] index) {
        int[] primary = table.table()
                .primaryKey()
                .map(key -> table.table().indexesOf(key.columns()))
                .orElse(new int[0]);
        return IntStream.concat(IntStream.of(index), IntStream.of(primary)).toArray();
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    static int compare(ReachedTable table, int[] columns, Object[] one, Object[] other) {
        for (int column : columns) {
            KeyForm form = KeyForm.of(table.column(column));
            Object a = CellCodec.keyPart(one[table.slotOf(column)], form);
            Object b = CellCodec.keyPart(other[table.slotOf(column)], form);
            if (a == null || b == null) {
                int order = Boolean.compare(a != null, b != null);
                if (order != 0) {
                    return order;
                }
            } else if (a instanceof Comparable x && a.getClass() == b.getClass()) {
                int order = x.compareTo(b);
                if (order != 0) {
                    return order;
                }
            }
        }
        return 0;
    }

    /** Whether a row gets another entry in an index, though perhaps for a column that the link at hand does not have. */
    boolean changes(ReachedTable table, int index, Object[] before, Object[] after) {
        for (int column : indexes.get(table).get(index)) {
            int slot = table.slotOf(column);
            if (!CellCodec.isSame(before[slot], after[slot])) {
                return true;
            }
        }
        return false;
    }
}
