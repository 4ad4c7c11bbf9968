package taxiomet.check.link;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.RowsAtHand;
import taxiomet.finding.Hint;
import taxiomet.finding.Hint.FaultyParent;
import taxiomet.keys.KeyForm;
import taxiomet.rows.RowRef;
import taxiomet.spill.SortedSpool;
import taxiomet.values.SqlText;
import taxiomet.values.ValueReader;

/**
 * Rows of a parent table that stand there and are no parents: malformed ones, and those with a null, or a value that is not of its
 * type, in their key. A child that bears the key of such a row follows from its fault.
 */
final class FaultyParents {
    /** Beyond so many faulty parents the table as a whole is the matter, and no row is named. */
    private static final int MOST = 100_000;

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
    private FaultyParents(String table, boolean isInParts, List<Column> columns) {
        this.table = table;
        this.isInParts = isInParts;
        this.columns = columns;
        this.readers = columns.stream().map(ValueReader::of).toList();
    }

    /** None at all. */
    static FaultyParents none() {
        return new FaultyParents("", false, List.of());
    }

    /** The rows of a link's parent table that are no parents for a fault of their own. */
    static FaultyParents of(ForeignKey link, Plan plan, RowsAtHand rows) {
        Table parent = plan.charter().table(link.parent());
        FaultyParents faulty = new FaultyParents(
                parent.name(),
                rows.source(parent.name()).partCount() > 1,
                link.parentColumns().stream().map(parent::column).toList());
        Map<Long, FaultyParent.Fault> faults = new LinkedHashMap<>();
        for (FaultLog log : plan.logs()) {
            Optional<FaultyParent.Fault> fault = faultOfParents(log, link);
            if (fault.isPresent()) {
                if (faults.size() + log.size() > MOST) {
                    return faulty;
                }
                SortedSpool.Reader reader = log.read();
                while (reader.next()) {
                    faults.putIfAbsent(reader.first(), fault.get());
                }
            }
        }
        RowLookup lookup = rows.lookup(parent.name());
        int[] places = parent.indexesOf(link.parentColumns());
        lookup.find(new TreeSet<>(faults.keySet())).values().stream()
                .sorted(Comparator.comparingLong(FoundRow::ref))
                .forEach(row -> {
                    List<String> cells = lookup.cellsOf(row);
                    if (!cells.isEmpty()) {
                        List<String> key = new ArrayList<>();
                        for (int place : places) {
                            key.add(cells.get(place));
                        }
                        faulty.add(row, key, faults.get(row.ref()));
                    }
                });
        return faulty;
    }

    /** For which fault the rows of a log are no parents of a link; empty where they are some all the same. */
    private static Optional<FaultyParent.Fault> faultOfParents(FaultLog log, ForeignKey link) {
        if (!log.table().equals(link.parent()) || log.size() == 0) {
            return Optional.empty();
        }
        boolean isOfKey = link.parentColumns().contains(log.at());
        return switch (log.kind()) {
            case MALFORMED_ROW -> Optional.of(FaultyParent.Fault.MALFORMED);
            case TYPE_MISMATCH -> isOfKey ? Optional.of(FaultyParent.Fault.ILL_TYPED) : Optional.empty();
            case NULL_NOT_ALLOWED -> isOfKey ? Optional.of(FaultyParent.Fault.NULL_IN_KEY) : Optional.empty();
            case NULL_IN_KEY ->
                log.columns().containsAll(link.parentColumns())
                        ? Optional.of(FaultyParent.Fault.NULL_IN_KEY)
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    boolean isEmpty() {
        return byKey.isEmpty();
    }

    /**
     * Adds a row.
     *
     * @param key the cells of its key as written, null where null or, of a malformed row, where they cannot be told
     * @param why what is the matter with the row
     */
    private void add(FoundRow row, List<String> key, FaultyParent.Fault why) {
        List<Boolean> isNull = key.stream().map(cell -> cell == null).toList();
        if (!isNull.contains(false) || (isNull.contains(true) && why == FaultyParent.Fault.MALFORMED)) {
            return;
        }
        gaps.add(isNull);
        byKey.putIfAbsent(plain(key), new FaultyParent(table, row.part(), RowRef.row(row.ref()), isInParts, why));
    }

    /** The row that bears a key, of which no cell is null. */
    Optional<Hint> of(List<String> key) {
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
