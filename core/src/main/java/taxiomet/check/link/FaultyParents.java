package taxiomet.check.link;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.Hint;
import taxiomet.finding.Hint.FaultyParent;
import taxiomet.keys.KeyForm;
import taxiomet.rows.RowRef;
import taxiomet.values.SqlText;
import taxiomet.values.ValueReader;

/**
 * Rows of a parent table that stand there and are no parents: malformed ones, and those with a null, or a value that is not of its
 * type, in their key. A child that bears the key of such a row follows from its fault.
 */
public final class FaultyParents {
    /** Beyond so many faulty parents the table as a whole is the matter, and no row is named. */
    public static final int MOST = 100_000;

    private static final String UNKNOWN = "?";

    private final String table;
    private final boolean isInParts;
    private final List<Column> columns;
    private final List<ValueReader> readers;
    private final Map<List<String>, FaultyParent> byKey = new HashMap<>();
    /** Which columns of a key are null, for each way in which they are in some row; never all of them. */
    private final Set<List<Boolean>> gaps = new LinkedHashSet<>();

    /**
     * @param isInParts whether the table has several files
     * @param columns of the key, in their order
     */
    public FaultyParents(String table, boolean isInParts, List<Column> columns) {
        this.table = table;
        this.isInParts = isInParts;
        this.columns = columns;
        this.readers = columns.stream().map(ValueReader::of).toList();
    }

    public boolean isEmpty() {
        return byKey.isEmpty();
    }

    /**
     * Adds a row.
     *
     * @param key the cells of its key as written, null where null or, of a malformed row, where they cannot be told
     * @param why what is the matter with the row
     */
    public void add(FoundRow row, List<String> key, FaultyParent.Fault why) {
        List<Boolean> isNull = key.stream().map(cell -> cell == null).toList();
        if (!isNull.contains(false) || (isNull.contains(true) && why == FaultyParent.Fault.MALFORMED)) {
            return;
        }
        gaps.add(isNull);
        byKey.putIfAbsent(plain(key), new FaultyParent(table, row.part(), RowRef.row(row.ref()), isInParts, why));
    }

    /** The row that bears a key, of which no cell is null. */
    public Optional<Hint> of(List<String> key) {
        if (byKey.isEmpty() || key.contains(null)) {
            return Optional.empty();
        }
        List<String> whole = plain(key);
        for (List<Boolean> gap : gaps) {
            List<String> rest = new ArrayList<>(whole);
            for (int i = 0; i < rest.size(); i++) {
                if (gap.get(i)) {
                    rest.set(i, UNKNOWN);
                }
            }
            FaultyParent found = byKey.get(rest);
            if (found != null) {
                return Optional.of(Hint.of(found));
            }
        }
        return Optional.empty();
    }

    /** A key such that equal ones are equal texts: values by what they are, other texts as they are written. */
    private List<String> plain(List<String> key) {
        List<String> plain = new ArrayList<>();
        for (int i = 0; i < key.size(); i++) {
            String cell = key.get(i);
            if (cell == null) {
                plain.add(UNKNOWN);
            } else if (columns.get(i).type().isText()) {
                plain.add("'" + plainText(columns.get(i), cell));
            } else if (readers.get(i).accepts(cell)) {
                plain.add("=" + readers.get(i).high() + ":" + readers.get(i).low());
            } else {
                plain.add("'" + cell.strip());
            }
        }
        return plain;
    }

    private static String plainText(Column column, String text) {
        String own = column.type().name() == ColumnType.Name.CHAR ? SqlText.withoutTrailingBlanks(text) : text;
        return KeyForm.of(column).folded(own);
    }
}
