package taxiomet.settle.sift;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.expression.Evaluator;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.SiftResult.Reason;
import taxiomet.finding.settled.SiftResult.Why;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.Unread;
import taxiomet.rows.TableSource;
import taxiomet.settle.sift.Keeping.Choice;
import taxiomet.spill.SortedSpool;

/**
 * Which row stays of several that share a key: key after key as they are declared, among the rows that are not set aside by then. Rows that
 * are the same in every column need no choice: the first stays.
 */
final class Doubles {
    /** Groups stand all over the file: rows of so many are fetched in one go. */
    private static final int ROWS_AT_ONCE = 50_000;

    private final Table table;
    private final Choice choice;
    private final AsideRows aside;
    private final RowLookup lookup;
    private final Map<Long, List<Long>> groups = new HashMap<>();

    /** @param source of the table's rows, which have been read once */
    Doubles(Table table, TableSource source, Choice choice, AsideRows aside) {
        this.table = table;
        this.choice = choice;
        this.aside = aside;
        this.lookup = new RowLookup(table, source);
    }

    /** Sets aside the rows that do not stay. */
    void settle(List<FaultLog> logs) {
        for (Key key : table.keys()) {
            logs.stream()
                    .filter(log -> log.isOf(FindingKind.DUPLICATE, table.name(), key.name()))
                    .forEach(this::settle);
        }
    }

    private void settle(FaultLog log) {
        SortedSpool.Reader reader = log.read();
        long group = -1;
        int rows = 0;
        while (reader.next()) {
            if (reader.first() != group && rows >= ROWS_AT_ONCE) {
                settleGroups(log.at());
                rows = 0;
            }
            group = reader.first();
            if (!aside.contains(reader.second())) {
                groups.computeIfAbsent(group, first -> new ArrayList<>()).add(reader.second());
                rows++;
            }
        }
        settleGroups(log.at());
    }

    private void settleGroups(String key) {
        groups.values().removeIf(rows -> rows.size() < 2);
        TreeSet<Long> wanted = new TreeSet<>();
        groups.values().forEach(wanted::addAll);
        Map<Long, FoundRow> found = wanted.isEmpty() ? Map.of() : lookup.find(wanted);
        for (List<Long> rows : groups.values()) {
            Optional<Long> stays = staying(rows.stream().map(found::get).toList());
            for (long ref : rows) {
                if (stays.isEmpty()) {
                    long cause = ref == rows.get(0) ? rows.get(1) : rows.get(0);
                    aside.add(ref, reason(Why.NONE_CHOSEN, key), cause);
                } else if (ref != stays.get()) {
                    aside.add(ref, reason(Why.ANOTHER_STAYS, key), stays.get());
                }
            }
        }
        groups.clear();
    }

    private Reason reason(Why why, String key) {
        return new Reason(why, Optional.of(FindingKind.DUPLICATE), key, Optional.of(table.name()));
    }

    /** @param rows as they stand */
    private Optional<Long> staying(List<FoundRow> rows) {
        FoundRow first = rows.get(0);
        if (rows.stream().allMatch(row -> row.values().equals(first.values())) || choice instanceof Choice.First) {
            return Optional.of(first.ref());
        } else if (choice instanceof Choice.Last) {
            return Optional.of(rows.get(rows.size() - 1).ref());
        } else if (choice instanceof Choice.MostComplete) {
            return Optional.of(best(rows, (row, other) -> filled(row) > filled(other)));
        } else if (choice instanceof Choice.ByColumn by) {
            int column = table.indexOf(by.column());
            CellCodec codec = new CellCodec(table.columns().get(column));
            return Optional.of(best(rows, (row, other) -> {
                Object one = codec.parse(orEmpty(row, column));
                Object two = codec.parse(orEmpty(other, column));
                if (isNothing(row, column, one) || isNothing(other, column, two)) {
                    return !isNothing(row, column, one) && isNothing(other, column, two);
                }
                int order = Evaluator.compare(one, two);
                return by.isGreatest() ? order > 0 : order < 0;
            }));
        }
        return Optional.empty();
    }

    private static String orEmpty(FoundRow row, int column) {
        return row.values().get(column) == null ? "" : row.values().get(column);
    }

    private static boolean isNothing(FoundRow row, int column, Object value) {
        return row.values().get(column) == null || value instanceof Unread;
    }

    private static long filled(FoundRow row) {
        return row.values().stream()
                .filter(cell -> cell != null && !cell.isBlank())
                .count();
    }

    /** Whether a row is to be preferred to another that stands before it. */
    private interface Preference {
        boolean isFor(FoundRow row, FoundRow before);
    }

    private static long best(List<FoundRow> rows, Preference preference) {
        FoundRow best = rows.get(0);
        for (FoundRow row : rows) {
            if (preference.isFor(row, best)) {
                best = row;
            }
        }
        return best.ref();
    }
}
