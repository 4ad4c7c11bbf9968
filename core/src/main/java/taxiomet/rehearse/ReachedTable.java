package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.KeyForm;
import taxiomet.rows.RowRef;

/** The rows of one table that the proposal reaches, and what is known of the others. */
final class ReachedTable {
    /** New rows are named as if they stood in a part of their own behind all others. */
    static final int NEW_PART = 1 << 20;

    private static final long UNKNOWN = -1;

    private final Table table;
    /** Its place in the charter. */
    final int place;

    private final ReachedRows all;
    private final CellCodec[] codecs;
    private int[] slots;
    private int[] columnsKept = new int[0];
    final RowTable rows = new RowTable();
    private final List<ReachedRow> newRows = new ArrayList<>();
    private final List<KeyLookup> lookups = new ArrayList<>();
    /** Lookups that are in use: rows stand in them. */
    private final List<KeyLookup> keptLookups = new ArrayList<>();

    final List<ReachedLink> linksOut = new ArrayList<>();
    final List<ReachedLink> linksIn = new ArrayList<>();

    private final Set<RowCondition> read = new HashSet<>();
    private Set<RowCondition> wanted = new HashSet<>();
    /** Those of the wanted whose rows will be deleted: what points at them is read along. */
    private final Set<RowCondition> deleting = new HashSet<>();

    private long nextNewRow = 1;
    private boolean needsGreatest;
    private boolean isWalked;
    private long rowsAsRead = UNKNOWN;
    /** For each generated column, the greatest value of all rows as read. */
    private final Map<Integer, Long> greatest = new HashMap<>();

    ReachedTable(Table table, int place, ReachedRows all) {
        this.table = table;
        this.place = place;
        this.all = all;
        this.codecs = table.columns().stream().map(CellCodec::new).toArray(CellCodec[]::new);
        this.slots = new int[codecs.length];
        keep(new int[0]);
    }

    Table table() {
        return table;
    }

    CellCodec codec(int column) {
        return codecs[column];
    }

    Column column(int column) {
        return codecs[column].column();
    }

    int width() {
        return codecs.length;
    }

    /** Says which columns of the rows are kept; before any row is. */
    void keep(int[] columns) {
        columnsKept = columns.clone();
        slots = new int[codecs.length];
        Arrays.fill(slots, -1);
        for (int slot = 0; slot < columnsKept.length; slot++) {
            slots[columnsKept[slot]] = slot;
        }
    }

    int[] columnsKept() {
        return columnsKept.clone();
    }

    int slotOf(int column) {
        return slots[column];
    }

    boolean keeps(int column) {
        return slots[column] >= 0;
    }

    KeyLookup lookup(int[] columns, List<KeyForm> forms) {
        for (KeyLookup lookup : lookups) {
            if (lookup.isFor(columns, forms)) {
                return lookup;
            }
        }
        KeyLookup lookup = new KeyLookup(this, columns, forms);
        lookups.add(lookup);
        return lookup;
    }

    KeyLookup lookup(Key key) {
        return lookup(table.indexesOf(key.columns()), KeyForm.of(table, key));
    }

    /** Whether all rows of a key were read together with all those of a part of it. */
    boolean isReadByPart(KeyLookup lookup, Object key) {
        for (KeyLookup other : lookups) {
            if (other != lookup && other.columns.length <= lookup.columns.length && other.hasReadPartOf(lookup, key)) {
                return true;
            }
        }
        return false;
    }

    /** The rows with a key, by a lookup of this table, in the order in which they stand. */
    Collection<ReachedRow> find(KeyLookup lookup, Object key) {
        use(lookup);
        return lookup.find(key);
    }

    /** Has a lookup know the rows, from now on. */
    void use(KeyLookup lookup) {
        if (!keptLookups.contains(lookup)) {
            keptLookups.add(lookup);
            forEachPresent(lookup::add);
        }
    }

    void want(KeyLookup lookup, Object key) {
        use(lookup);
        lookup.want(key);
    }

    void wantOfDeleted(KeyLookup lookup, Object key) {
        use(lookup);
        lookup.wantOfDeleted(key);
    }

    void miss() {
        all.miss();
    }

    private void forEachPresent(java.util.function.Consumer<ReachedRow> consumer) {
        rows.forEach(row -> {
            if (!row.isGone) {
                consumer.accept(row);
            }
        });
        for (ReachedRow row : newRows) {
            if (!row.isGone) {
                consumer.accept(row);
            }
        }
    }

    /** Says that the rows of a condition are to be deleted. */
    void expectDeletes(RowCondition condition) {
        deleting.add(condition);
    }

    boolean deletes(RowCondition condition) {
        return deleting.contains(condition);
    }

    /** All rows that a condition names now, in the order in which they stand. */
    List<ReachedRow> matching(RowCondition condition) {
        if (!read.contains(condition)) {
            wanted.add(condition);
            miss();
        }
        List<ReachedRow> found = new ArrayList<>();
        forEachPresent(row -> {
            if (condition.holds(row.values)) {
                found.add(row);
            }
        });
        found.sort(java.util.Comparator.comparingLong(row -> row.position));
        return found;
    }

    /** All rows read or made that are there now. */
    List<ReachedRow> present() {
        List<ReachedRow> present = new ArrayList<>();
        forEachPresent(present::add);
        return present;
    }

    /** The greatest number in a generated column, as read; empty while it has not been read, or where there is none. */
    Optional<Long> greatest(int column) {
        if (!greatest.containsKey(column)) {
            needsGreatest = true;
            miss();
        }
        return Optional.ofNullable(greatest.get(column));
    }

    void setGreatest(int column, long value) {
        greatest.put(column, value);
    }

    /** How many rows the table has; only once all have been read, or counted. */
    long rowsAsRead() {
        if (rowsAsRead == UNKNOWN) {
            throw new IllegalStateException("the rows of " + table.name() + " have not been counted");
        }
        return rowsAsRead;
    }

    boolean isCounted() {
        return rowsAsRead != UNKNOWN;
    }

    void setRowsAsRead(long count) {
        rowsAsRead = count;
    }

    /** The rows read that are gone or have other values now, in their order. */
    ReachedRow[] changedRows() {
        return Arrays.stream(rows.inOrder()).filter(ReachedRow::isChanged).toArray(ReachedRow[]::new);
    }

    /** The new rows that are there now, in their order. */
    List<ReachedRow> madeRows() {
        return newRows.stream().filter(row -> !row.isGone).toList();
    }

    boolean isChanged() {
        return rows.any(ReachedRow::isChanged) || newRows.stream().anyMatch(row -> !row.isGone);
    }

    /** Whether rows are wanted that a walk over circles came to. */
    void wantWalked(boolean areWanted) {
        isWalked = areWanted;
    }

    boolean isWanting() {
        return isWalked
                || !wanted.isEmpty()
                || needsGreatest
                || lookups.stream().anyMatch(KeyLookup::isWanting);
    }

    List<KeyLookup> lookupsWanting() {
        return lookups.stream().filter(KeyLookup::isWanting).toList();
    }

    /** The conditions wanted, which count as read from now on. */
    Set<RowCondition> takeWanted() {
        Set<RowCondition> taken = wanted;
        wanted = new HashSet<>();
        read.addAll(taken);
        for (RowCondition condition : taken) {
            condition
                    .namedKeys()
                    .ifPresent(named -> lookup(named.columns(), named.forms()).noteRead(named.keys()));
        }
        return taken;
    }

    boolean takesGreatest() {
        boolean needs = needsGreatest;
        needsGreatest = false;
        return needs;
    }

    /** Takes a row that was read, unless it is there. */
    boolean addRead(long ref, Object[] values) {
        ReachedRow row = new ReachedRow(this, ref, values, false);
        if (!rows.add(row)) {
            return false;
        }
        keptLookups.forEach(lookup -> lookup.add(row));
        return true;
    }

    ReachedRow addNew(Object[] values) {
        ReachedRow row = new ReachedRow(this, RowRef.of(NEW_PART, nextNewRow++), values, true);
        newRows.add(row);
        keptLookups.forEach(lookup -> lookup.add(row));
        return row;
    }

    /** Takes a new row away again, as though it had never been. */
    void forget(ReachedRow row) {
        if (!row.isGone) {
            takeOut(row);
        }
        newRows.remove(newRows.size() - 1);
        nextNewRow--;
    }

    void takeOut(ReachedRow row) {
        keptLookups.forEach(lookup -> lookup.remove(row));
        row.isGone = true;
    }

    void putBack(ReachedRow row) {
        row.isGone = false;
        keptLookups.forEach(lookup -> lookup.add(row));
    }

    void replace(ReachedRow row, Object[] values) {
        for (KeyLookup lookup : keptLookups) {
            if (changes(lookup, row.values, values)) {
                lookup.remove(row);
            }
        }
        Object[] before = row.values;
        row.values = values;
        for (KeyLookup lookup : keptLookups) {
            if (changes(lookup, before, values)) {
                lookup.add(row);
            }
        }
    }

    private boolean changes(KeyLookup lookup, Object[] before, Object[] after) {
        for (int column : lookup.columns) {
            if (before[slots[column]] != after[slots[column]]) {
                return true;
            }
        }
        return false;
    }

    List<ReachedRow> newRows() {
        return newRows;
    }
}
