package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntFunction;
import taxiomet.keys.KeyForm;

/**
 * Finds the rows of a table by the values of some columns, as they are now in the replay. It knows for which keys all rows have been
 * read; a key asked for before that is put down as wanted.
 */
public final class KeyLookup {
    private static final int MOST_LISTED = 8;

    final ReachedTable table;
    final int[] columns;
    final List<KeyForm> forms;
    private final KeyForm[] formOf;
    /** For each key one row, or a collection of rows. */
    private final Map<Object, Object> rows = new HashMap<>();

    private final Set<Object> read = new HashSet<>();
    /** Keys that rows had when they were read, and have lost since in some replay. */
    private final Set<Object> vacated = new HashSet<>();

    private Set<Object> wanted = new HashSet<>();
    /** Those of the keys wanted whose parents will be deleted. */
    private Set<Object> gone = new HashSet<>();

    private boolean keepsVacated;
    /** Whether no two rows have the same key, as a check of the rows has found. */
    private boolean isUniqueAsRead;

    KeyLookup(ReachedTable table, int[] columns, List<KeyForm> forms) {
        this.table = table;
        this.columns = columns.clone();
        this.forms = List.copyOf(forms);
        this.formOf = forms.toArray(new KeyForm[0]);
    }

    boolean isFor(int[] others, List<KeyForm> otherForms) {
        return Arrays.equals(columns, others) && forms.equals(otherForms);
    }

    /** The key in a row's values; null when one of its parts is null or equals nothing. */
    public Object keyOf(Object[] values) {
        return keyOf(place -> values[table.slotOf(columns[place])]);
    }

    /** The key of values given in the order of the columns; null when one of them is null or equals nothing. */
    public Object keyOfParts(Object[] valuesInOrder) {
        return keyOf(place -> valuesInOrder[place]);
    }

    private Object keyOf(IntFunction<Object> valueAt) {
        if (columns.length == 1) {
            return CellCodec.keyPart(valueAt.apply(0), formOf[0]);
        }
        Object[] parts = new Object[columns.length];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = CellCodec.keyPart(valueAt.apply(i), formOf[i]);
            if (parts[i] == null) {
                return null;
            }
        }
        return new CompositeKey(parts);
    }

    /** Keeps which keys are lost, for {@link #hasStill}; before any is. */
    void keepVacated() {
        keepsVacated = true;
    }

    /** A check has found each key once: others with it need not be looked for. */
    public void setUniqueAsRead() {
        isUniqueAsRead = true;
    }

    /**
     * Whether a row has a key now, of which it is known that one had it when the rows were read: only where such a row was seen to
     * lose it need the others be read.
     */
    boolean hasStill(Object key) {
        return rows.containsKey(key) || !vacated.contains(key) || !find(key).isEmpty();
    }

    /** All rows that have a key now. */
    Collection<ReachedRow> find(Object key) {
        Object found = rows.get(key);
        if (!isRead(key, found)) {
            wanted.add(key);
            table.miss();
        }
        return asRows(found);
    }

    /** Whether all rows of a key have been read: because it was asked for, or with a part of it, or since no other row can have it. */
    private boolean isRead(Object key, Object found) {
        if (read.contains(key)) {
            return true;
        }
        if (table.isReadByPart(this, key)) {
            read.add(key);
            return true;
        }
        return isUniqueAsRead && hasRowAsRead(found);
    }

    /** Whether the rows of a longer key have been read, since all of those that share these columns with it were. */
    boolean hasReadPartOf(KeyLookup longer, Object key) {
        Object[] parts = new Object[columns.length];
        for (int i = 0; i < parts.length; i++) {
            int place = longer.placeOf(columns[i], formOf[i]);
            if (place < 0) {
                return false;
            }
            parts[i] = longer.columns.length == 1 ? key : ((CompositeKey) key).part(place);
        }
        return read.contains(parts.length == 1 ? parts[0] : new CompositeKey(parts));
    }

    private int placeOf(int column, KeyForm form) {
        for (int i = 0; i < columns.length; i++) {
            if (columns[i] == column && forms.get(i).equals(form)) {
                return i;
            }
        }
        return -1;
    }

    /** Notes that all rows of some keys have been read. */
    void noteRead(Collection<Object> keys) {
        read.addAll(keys);
    }

    /** Of a key that one row had when it was read, no other row had it. */
    private boolean hasRowAsRead(Object found) {
        for (ReachedRow row : asRows(found)) {
            if (!row.isNew() && (row.values == row.original || keyOf(row.values).equals(keyOf(row.original)))) {
                return true;
            }
        }
        return false;
    }

    /** Wants the rows of a key, if they have not been read. */
    void want(Object key) {
        if (!isRead(key, rows.get(key))) {
            wanted.add(key);
        }
    }

    /** The same, for a parent that will be deleted: what cascades from it is read along. */
    void wantOfDeleted(Object key) {
        want(key);
        if (wanted.contains(key)) {
            gone.add(key);
        }
    }

    /** The keys wanted whose parents will be deleted. */
    Set<Object> takeGone() {
        Set<Object> taken = gone;
        gone = new HashSet<>();
        return taken;
    }

    boolean isWanting() {
        return !wanted.isEmpty();
    }

    /** The keys wanted, which count as read from now on. */
    Set<Object> takeWanted() {
        Set<Object> taken = wanted;
        wanted = new HashSet<>();
        read.addAll(taken);
        return taken;
    }

    @SuppressWarnings("unchecked")
    private static Collection<ReachedRow> asRows(Object found) {
        if (found == null) {
            return Collections.emptyList();
        }
        return found instanceof ReachedRow row ? Collections.singletonList(row) : (Collection<ReachedRow>) found;
    }

    @SuppressWarnings("unchecked")
    void add(ReachedRow row) {
        Object key = keyOf(row.values);
        if (key == null) {
            return;
        }
        Object before = rows.putIfAbsent(key, row);
        if (before instanceof ReachedRow other) {
            List<ReachedRow> both = new ArrayList<>(2);
            both.add(other);
            both.add(row);
            rows.put(key, both);
        } else if (before instanceof List<?> list && list.size() == MOST_LISTED) {
            // Rows go one after the other: in a list each would be looked for among all that are left.
            Set<ReachedRow> set = new LinkedHashSet<>((List<ReachedRow>) list);
            set.add(row);
            rows.put(key, set);
        } else if (before != null) {
            ((Collection<ReachedRow>) before).add(row);
        }
    }

    @SuppressWarnings("unchecked")
    void remove(ReachedRow row) {
        Object key = keyOf(row.values);
        if (key == null) {
            return;
        }
        if (keepsVacated) {
            vacated.add(key);
        }
        Object before = rows.get(key);
        if (before instanceof ReachedRow) {
            rows.remove(key);
        } else if (before != null) {
            Collection<ReachedRow> some = (Collection<ReachedRow>) before;
            some.remove(row);
            if (some.isEmpty()) {
                rows.remove(key);
            }
        }
    }
}
