package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.LongStream;
import taxiomet.charter.Column;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.keys.KeyForm;
import taxiomet.rows.RowRef;

/**
 * The rows of one table that the proposal reaches, and what is known of the others; in one file, since what is read, wanted and looked up
 * must stay in step.
 */
public final class ReachedTable {
    /** New rows are named as if they stood in a part of their own behind all others. */
    static final int NEW_PART = 1 << 20;

    private static final long UNKNOWN = -1;

    private final Table table;
    /** Its place in the charter. */
    public final int place;

    private final ReachedRows all;
    private final CellCodec[] codecs;
    private int[] slots;
    private int[] columnsKept = new int[0];
    public final RowTable rows = new RowTable();
    private final List<ReachedRow> newRows = new ArrayList<>();
    private final List<KeyLookup> lookups = new ArrayList<>();
    /** Lookups that are in use: rows stand in them. */
    private final List<KeyLookup> keptLookups = new ArrayList<>();

    public final List<ReachedLink> linksOut = new ArrayList<>();
    public final List<ReachedLink> linksIn = new ArrayList<>();

    private final Set<RowCondition> read = new HashSet<>();
    private Set<RowCondition> wanted = new HashSet<>();
    /** Those of the wanted whose rows will be deleted: what points at them is read along. */
    private final Set<RowCondition> deleting = new HashSet<>();

    private long nextNewRow = 1;
    private final Set<Integer> greatestWanted = new TreeSet<>();
    private boolean isWalked;
    private long rowsAsRead = UNKNOWN;
    /** For each generated column, the greatest number in the rows that were not reached when it was looked for. */
    private final Map<Integer, Numbered> greatestOfOthers = new HashMap<>();

    /** What was found last of {@link #greatestNow}; forgotten with every row that goes, changes or comes back. */
    private final Map<Integer, Long> greatestOfPresent = new HashMap<>();

    /** A number in a generated column, and the row that it stands in; 0 for none. */
    private record Numbered(long number, long ref) {}

    private List<String> files = List.of();

    ReachedTable(Table table, int place, ReachedRows all) {
        this.table = table;
        this.place = place;
        this.all = all;
        this.codecs = table.columns().stream().map(CellCodec::new).toArray(CellCodec[]::new);
        this.slots = new int[codecs.length];
        keep(new int[0]);
    }

    /** What is declared. */
    public Table table() {
        return table;
    }

    /** Says what the files are called that the rows stand in, without their folders. */
    public void setFiles(List<String> names) {
        files = List.copyOf(names);
    }

    /** Whether a reference is that of a row that was read. */
    boolean isAsRead(long ref) {
        return RowRef.part(ref) < files.size() && RowRef.row(ref) > 0;
    }

    /** The name of the file that a row stands in. */
    String fileOf(long ref) {
        return files.get(RowRef.part(ref));
    }

    /** Names of its files, without their folders. */
    public List<String> files() {
        return files;
    }

    /** The links that lead from its rows to those of an ancestor, by their names. */
    public List<ReachedLink> way(List<String> names) {
        List<ReachedLink> way = new ArrayList<>();
        ReachedTable from = this;
        for (String name : names) {
            ReachedLink link = from.linksOut.stream()
                    .filter(out -> out.link.name().equals(name))
                    .findFirst()
                    .orElseThrow();
            way.add(link);
            from = link.parent;
        }
        return way;
    }

    /** How the cells of a column are read and written. */
    public CellCodec codec(int column) {
        return codecs[column];
    }

    /** The column at a place. */
    public Column column(int column) {
        return codecs[column].column();
    }

    /** How many columns it has. */
    public int width() {
        return codecs.length;
    }

    /** Says which columns of the rows are kept; before any row is. */
    public void keep(int[] columns) {
        columnsKept = columns.clone();
        slots = new int[codecs.length];
        Arrays.fill(slots, -1);
        for (int slot = 0; slot < columnsKept.length; slot++) {
            slots[columnsKept[slot]] = slot;
        }
    }

    /** Places of the columns whose values are kept, by their slots. */
    public int[] columnsKept() {
        return columnsKept.clone();
    }

    /** Where in a row's values a column stands; negative where it is not kept. */
    public int slotOf(int column) {
        return slots[column];
    }

    /** Whether the values of a column are kept. */
    public boolean keeps(int column) {
        return slots[column] >= 0;
    }

    /** The way to rows by some columns, compared in these forms. */
    public KeyLookup lookup(int[] columns, List<KeyForm> forms) {
        for (KeyLookup lookup : lookups) {
            if (lookup.isFor(columns, forms)) {
                return lookup;
            }
        }
        KeyLookup lookup = new KeyLookup(this, columns, forms);
        lookups.add(lookup);
        return lookup;
    }

    /** The way to rows by a key. */
    public KeyLookup lookup(Key key) {
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
    public Collection<ReachedRow> find(KeyLookup lookup, Object key) {
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

    /** Has the rows with a key read, unless they have been. */
    public void want(KeyLookup lookup, Object key) {
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
    public void expectDeletes(RowCondition condition) {
        deleting.add(condition);
    }

    boolean deletes(RowCondition condition) {
        return deleting.contains(condition);
    }

    /** All rows that a condition names now, in the order in which they stand. */
    public List<ReachedRow> matching(RowCondition condition) {
        if (!read.contains(condition)) {
            wanted.add(condition);
            miss();
        }
        List<ReachedRow> found = new ArrayList<>();
        forEachPresent(row -> {
            if (condition.holds(row)) {
                found.add(row);
            }
        });
        found.sort(java.util.Comparator.comparingLong(row -> row.position));
        return found;
    }

    /** All rows read or made that are there now. */
    public List<ReachedRow> present() {
        List<ReachedRow> present = new ArrayList<>();
        forEachPresent(present::add);
        return present;
    }

    /** The greatest number in a generated column, as read; none while that is not known, or where there is none. */
    public OptionalLong greatestAsRead(int column) {
        LongStream.Builder numbers = LongStream.builder();
        Numbered others = greatestOfOthers(column);
        if (others != null && others.ref() != 0) {
            numbers.add(others.number());
        }
        rows.forEach(row -> addNumber(row.original[slots[column]], numbers));
        return numbers.build().max();
    }

    /** The greatest number in a generated column now; none while that is not known, or where there is none. */
    public OptionalLong greatestNow(int column) {
        if (!greatestOfPresent.containsKey(column)) {
            OptionalLong greatest = findGreatestNow(column);
            if (greatest.isEmpty() || !greatestOfOthers.containsKey(column)) {
                return greatest;
            }
            greatestOfPresent.put(column, greatest.getAsLong());
        }
        return OptionalLong.of(greatestOfPresent.get(column));
    }

    private OptionalLong findGreatestNow(int column) {
        LongStream.Builder numbers = LongStream.builder();
        Numbered others = greatestOfOthers(column);
        if (others != null && others.ref() != 0) {
            ReachedRow holder = rows.get(others.ref());
            if (holder == null) {
                numbers.add(others.number());
            } else if (holder.isChanged()) {
                // Its number has gone with it: the next greatest has to be looked for.
                greatestOfOthers.remove(column);
                greatestOfOthers(column);
            }
        }
        forEachPresent(row -> addNumber(row.values[slots[column]], numbers));
        return numbers.build().max();
    }

    private static void addNumber(Object value, LongStream.Builder numbers) {
        if (value instanceof Long number) {
            numbers.add(number);
        }
    }

    private Numbered greatestOfOthers(int column) {
        Numbered others = greatestOfOthers.get(column);
        if (others == null) {
            greatestWanted.add(column);
            miss();
        }
        return others;
    }

    /** @param ref the row that holds the number; 0 where no row has one */
    void setGreatestOfOthers(int column, long number, long ref) {
        greatestOfOthers.put(column, new Numbered(number, ref));
    }

    /** How many rows the table has; only once all have been read, or counted. */
    public long rowsAsRead() {
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
    public ReachedRow[] changedRows() {
        return Arrays.stream(rows.inOrder()).filter(ReachedRow::isChanged).toArray(ReachedRow[]::new);
    }

    /** The new rows that are there now, in their order. */
    public List<ReachedRow> madeRows() {
        return newRows.stream().filter(row -> !row.isGone).toList();
    }

    /** Whether any row is changed, gone or new. */
    public boolean isChanged() {
        return rows.any(ReachedRow::isChanged) || newRows.stream().anyMatch(row -> !row.isGone);
    }

    /** Whether rows are wanted that a walk over circles came to. */
    void wantWalked(boolean areWanted) {
        isWalked = areWanted;
    }

    boolean isWanting() {
        return isWalked
                || !wanted.isEmpty()
                || !greatestWanted.isEmpty()
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

    /** The columns whose greatest number is to be looked for; they are not wanted any more. */
    int[] takeGreatestWanted() {
        int[] columns = greatestWanted.stream().mapToInt(Integer::intValue).toArray();
        greatestWanted.clear();
        return columns;
    }

    /** Takes a row that was read, unless it is there. */
    boolean addRead(long ref, Object[] values) {
        ReachedRow row = new ReachedRow(this, ref, values, false);
        greatestOfPresent.clear();
        if (!rows.add(row)) {
            return false;
        }
        keptLookups.forEach(lookup -> lookup.add(row));
        return true;
    }

    ReachedRow addNew(Object[] values) {
        ReachedRow row = new ReachedRow(this, RowRef.of(NEW_PART, nextNewRow++), values, true);
        newRows.add(row);
        greatestOfPresent.replaceAll((column, greatest) ->
                values[slots[column]] instanceof Long number ? Math.max(greatest, number) : greatest);
        keptLookups.forEach(lookup -> lookup.add(row));
        return row;
    }

    /** Has a new row again that was taken away; rows come back in the order in which they were made. */
    void addBack(ReachedRow row) {
        nextNewRow++;
        newRows.add(row);
        putBack(row);
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
        greatestOfPresent.clear();
        keptLookups.forEach(lookup -> lookup.remove(row));
        row.isGone = true;
    }

    void putBack(ReachedRow row) {
        greatestOfPresent.clear();
        row.isGone = false;
        keptLookups.forEach(lookup -> lookup.add(row));
    }

    void replace(ReachedRow row, Object[] values) {
        greatestOfPresent.clear();
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

    /** The rows that the proposal made, those gone again among them, in their order. */
    public List<ReachedRow> newRows() {
        return newRows;
    }
}
