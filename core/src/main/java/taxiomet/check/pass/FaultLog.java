package taxiomet.check.pass;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import taxiomet.charter.Severity;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.FindingKind;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/**
 * The rows of one finding as they are found. For a duplicate a record is (first row of its group, row), for everything
 * else (row, remark), where the remark is the number of a reason, or a count.
 */
public final class FaultLog implements AutoCloseable {
    /** Different reasons beyond this many are counted as one: a hostile file could give each row its own. */
    private static final int MAX_REASONS = 1_000;

    private final FindingKind kind;
    private final Severity severity;
    private final String table;
    private final String at;
    private final List<String> columns;
    private final SortedSpool rows;
    private final Map<String, Integer> reasonNumbers = new HashMap<>();
    private final List<String> reasons = new ArrayList<>();
    private long[] reasonRows = new long[4];
    private Telling telling = new Reasoned(this, "");

    /** @param declared the severity that the charter gives to the place */
    public FaultLog(
            SpillFolder spill, FindingKind kind, Severity declared, String table, String at, List<String> columns) {
        this.kind = kind;
        this.severity = kind.severity(declared);
        this.table = table;
        this.at = at;
        this.columns = List.copyOf(columns);
        this.rows = new SortedSpool(spill);
    }

    /** Says how its rows are told, if not by their reasons alone. */
    public void tellAs(Telling how) {
        telling = how;
    }

    /** How its rows are told. */
    public Telling telling() {
        return telling;
    }

    /** Adds a row without more to say than the finding says. */
    public void add(long ref) {
        rows.add(ref, 0);
    }

    /** Adds a row with a number to go with it: a count of children. */
    public void add(long ref, long count) {
        rows.add(ref, count);
    }

    /** Adds a row with the reason why it is at fault. */
    public void add(long ref, String reason) {
        Integer number = reasonNumbers.get(reason);
        if (number == null) {
            String kept = reasons.size() < MAX_REASONS ? reason : "another reason";
            number = reasonNumbers.computeIfAbsent(kept, words -> {
                reasons.add(words);
                return reasons.size() - 1;
            });
            if (reasonRows.length <= number) {
                reasonRows = Arrays.copyOf(reasonRows, reasonRows.length * 2);
            }
        }
        reasonRows[number]++;
        rows.add(ref, number);
    }

    /** Adds a row of a group of duplicates. */
    public void addDuplicate(long firstOfGroup, long ref) {
        rows.add(firstOfGroup, ref);
    }

    /** How many rows it has. */
    public long size() {
        return rows.size();
    }

    /** The kind of its finding. */
    public FindingKind kind() {
        return kind;
    }

    /** How grave its finding is. */
    public Severity severity() {
        return severity;
    }

    /** The table whose rows these are. */
    public String table() {
        return table;
    }

    /** The column, key, link or rule; the table itself for malformed rows. */
    public String at() {
        return at;
    }

    /** Whether it is the log of one kind of fault at one place. */
    public boolean isOf(FindingKind ofKind, String ofTable, String place) {
        return kind == ofKind && table.equals(ofTable) && at.equals(place);
    }

    /** Whether it has rows, and they are more than a note. */
    public boolean hasFaults() {
        return size() > 0 && severity != Severity.NOTE;
    }

    /** The columns in which the fault stands. */
    public List<String> columns() {
        return columns;
    }

    /** The reason of a number that was logged with a row; empty where no reasons are given. */
    public String reason(long number) {
        return reasons.isEmpty() ? "" : reasons.get((int) number);
    }

    /** The references of all its rows, each as often as it was logged. */
    public void forEachRow(LongConsumer refs) {
        SortedSpool.Reader reader = rows.read();
        while (reader.next()) {
            refs.accept(isGrouped() ? reader.second() : reader.first());
        }
    }

    /** The pairs of row and remark. */
    SortedSpool rows() {
        return rows;
    }

    /** The reasons given, by their numbers. */
    List<String> reasonsAsNumbered() {
        return reasons;
    }

    /** The reasons given, the commonest first. */
    public List<Reason> reasons() {
        List<Reason> all = new ArrayList<>();
        for (int i = 0; i < reasons.size(); i++) {
            all.add(new Reason(reasons.get(i), reasonRows[i]));
        }
        all.sort(Comparator.comparingLong(Reason::rows).reversed().thenComparing(Reason::words));
        return all;
    }

    /** Whether records start with the first row of a group, and not with the row itself. */
    public boolean isGrouped() {
        return kind.isGrouped();
    }

    /** Its rows with what was logged with each, ascending: by row, or by group and row. */
    public SortedSpool.Reader read() {
        return rows.read();
    }

    @Override
    public void close() {
        rows.close();
    }
}
