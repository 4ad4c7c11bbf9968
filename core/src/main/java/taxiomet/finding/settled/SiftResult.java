package taxiomet.finding.settled;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.finding.FindingKind;

/**
 * Which rows obey the charter together, and which are set aside.
 *
 * @param title what the charter is called
 * @param tables in the order in which the charter declares them
 * @param unread how many declarations could not be read: nobody can say that the sound rows keep those
 * @param mended how many values were mended before rows were sifted
 */
public record SiftResult(String title, List<SiftedTable> tables, int unread, long mended) {
    public SiftResult {
        tables = List.copyOf(tables);
    }

    /** Why a row is set aside. */
    public enum Why {
        /** The row is at fault: see the finding. */
        FAULT("fault"),
        /** It shares a key with a row that stays. */
        ANOTHER_STAYS("another stays"),
        /** It shares a key, and none of the rows that do was chosen. */
        NONE_CHOSEN("none chosen"),
        /** Its parent is set aside. */
        PARENT_ASIDE("parent set aside");

        private final String word;

        Why(String word) {
            this.word = word;
        }

        /** The word that results use. */
        public String word() {
            return word;
        }
    }

    /**
     * One reason.
     *
     * @param finding which fault, for {@link Why#FAULT}
     * @param at the column, key, link or rule
     * @param causeTable the table of the row that caused it; empty where it is the row itself
     */
    public record Reason(Why why, Optional<FindingKind> finding, String at, Optional<String> causeTable) {}

    /** Rows that are set aside for one reason; a row that has several is counted at the first. */
    public record Aside(Reason reason, long rows) {}

    /**
     * One table.
     *
     * @param rows all of its rows, malformed ones too
     * @param reasons in the order in which rows are judged
     */
    public record SiftedTable(String name, long rows, long aside, List<Aside> reasons) {
        public SiftedTable {
            reasons = List.copyOf(reasons);
        }

        /** How many rows are sound. */
        public long sound() {
            return rows - aside;
        }
    }

    /**
     * One row that is set aside.
     *
     * @param part the file that it stands in
     * @param row its number there, 1 for the first data row
     * @param line the line it begins in; 0 where there are no lines
     * @param key the columns that name it, with what they hold, null for null; none where it has no key, or cannot be taken apart
     * @param cause the row that caused it; empty where it is the row itself
     */
    public record AsideRow(
            String table,
            String part,
            long row,
            long line,
            Map<String, String> key,
            Reason reason,
            Optional<CauseRow> cause) {
        public AsideRow {
            key = Collections.unmodifiableMap(new LinkedHashMap<>(key));
        }
    }

    /** The row that caused another to be set aside; its parts as in {@link AsideRow}. */
    public record CauseRow(String table, String part, long row, Map<String, String> key) {
        public CauseRow {
            key = Collections.unmodifiableMap(new LinkedHashMap<>(key));
        }
    }

    /**
     * One value that was mended.
     *
     * @param before as it was read; {@code after} as the sound rows have it
     * @param finding what was found there, {@code at} where in the charter
     */
    public record Mend(
            String table,
            String part,
            long row,
            String column,
            String before,
            String after,
            FindingKind finding,
            String at) {}

    /** All rows of all tables. */
    public long rows() {
        return tables.stream().mapToLong(SiftedTable::rows).sum();
    }

    /** All rows that are set aside. */
    public long aside() {
        return tables.stream().mapToLong(SiftedTable::aside).sum();
    }
}
