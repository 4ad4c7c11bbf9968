package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import taxiomet.keys.KeyForm;

/** Names the rows whose columns hold what some line of a table of keys says; null in a line names null. */
public final class ListedCondition implements LineCondition {
    private static final Object NULL_MARK = new NullMark();

    private final ReachedTable table;
    private final int[] columns;
    private final KeyForm[] forms;
    /** For each key, the number of its line among the lines. */
    private final Map<Object, Integer> lines;

    /** @param lines the keys named, each with the line that names it */
    public ListedCondition(ReachedTable table, int[] columns, Map<Object, Integer> lines) {
        this.table = table;
        this.columns = columns.clone();
        this.forms = forms(table, columns);
        this.lines = lines;
    }

    private static KeyForm[] forms(ReachedTable table, int[] columns) {
        return Arrays.stream(columns)
                .mapToObj(column -> KeyForm.of(table.column(column)))
                .toArray(KeyForm[]::new);
    }

    /** The key of some values in the order of the columns, as lines and rows are compared by it. */
    /** The key that some cells make, as the columns' own cells are read; null for null. */
    public static Object keyOfCells(ReachedTable table, int[] columns, List<String> cells) {
        Object[] values = new Object[columns.length];
        for (int i = 0; i < values.length; i++) {
            values[i] = cells.get(i) == null ? null : table.codec(columns[i]).parse(cells.get(i));
        }
        return keyOf(table, columns, values);
    }

    /** The key of some values as {@code lines} has it; null when one of them is null or not of its type. */
    public static Object keyOf(ReachedTable table, int[] columns, Object[] values) {
        return keyOf(forms(table, columns), values);
    }

    private static Object keyOf(KeyForm[] forms, Object[] values) {
        Object[] parts = new Object[values.length];
        for (int i = 0; i < parts.length; i++) {
            KeyForm form = forms[i];
            if (values[i] == null) {
                parts[i] = NULL_MARK;
            } else if (values[i] instanceof Unread) {
                parts[i] = values[i];
            } else {
                parts[i] = CellCodec.keyPart(values[i], form);
            }
        }
        return new CompositeKey(parts);
    }

    /** Stands for null: a line without a value names the rows without one. */
    private record NullMark() {}

    @Override
    public int lineOf(long ref, Object[] values) {
        Object[] parts = new Object[columns.length];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = values[table.slotOf(columns[i])];
        }
        return lines.getOrDefault(keyOf(forms, parts), -1);
    }

    @Override
    public int[] columns() {
        return columns.clone();
    }

    @Override
    public Optional<NamedKeys> namedKeys() {
        List<Object> keys = new ArrayList<>();
        for (Object key : lines.keySet()) {
            Object named = columns.length == 1 ? ((CompositeKey) key).part(0) : key;
            if (!NULL_MARK.equals(named)) {
                keys.add(named);
            }
        }
        return Optional.of(new NamedKeys(columns, List.of(forms), keys));
    }

    @Override
    public Optional<NamedKeys> onlyKeys() {
        boolean areValues = lines.keySet().stream().allMatch(key -> {
            for (int i = 0; i < columns.length; i++) {
                Object part = ((CompositeKey) key).part(i);
                if (NULL_MARK.equals(part) || part instanceof Unread) {
                    return false;
                }
            }
            return true;
        });
        return areValues ? namedKeys() : Optional.empty();
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ListedCondition condition
                && table.equals(condition.table)
                && Arrays.equals(columns, condition.columns)
                && lines.equals(condition.lines);
    }

    @Override
    public int hashCode() {
        return Objects.hash(table, lines.size());
    }
}
