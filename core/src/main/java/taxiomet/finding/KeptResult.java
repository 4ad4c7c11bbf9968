package taxiomet.finding;

import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.stream.LongStream;
import taxiomet.charter.Severity;

/**
 * What is kept of a check, so that a later one can be compared with it: exact counts, and rows as numbers that stand for them under a key
 * that is kept elsewhere.
 *
 * @param keyMark tells whether two results were kept under the same key
 * @param parents the keys that links point at, as far as they were kept
 */
public record KeptResult(
        Instant made,
        String title,
        String keyMark,
        List<KeptTable> tables,
        List<KeptFinding> findings,
        List<KeptParents> parents) {
    public KeptResult {
        tables = List.copyOf(tables);
        findings = List.copyOf(findings);
        parents = List.copyOf(parents);
    }

    /** One table: all of its rows, and those at fault. */
    public record KeptTable(String name, long rows, long faultyRows) {}

    /**
     * One finding.
     *
     * @param rows how many rows it has, {@code accepted} how many of them are borne
     * @param kept all of its rows; none for a note, and where it has none
     */
    public record KeptFinding(
            FindingKind kind,
            Severity severity,
            String table,
            String at,
            long rows,
            long accepted,
            List<KeptRow> kept) {
        public KeptFinding {
            kept = List.copyOf(kept);
        }
    }

    /**
     * One row.
     *
     * @param identity stands for its primary key, or for all that it holds where that is at fault or not there
     * @param rest stands for all that it holds beside its primary key; 0 where it has none
     * @param pointsAt for an orphan, stands for the key that it points at, as {@link KeptParents} has it; otherwise 0
     * @param name what it is called: its key, or its number where it has none; personal values as pseudonyms
     */
    public record KeptRow(long identity, long rest, long pointsAt, String name, boolean isAccepted) {}

    /** The keys of the parents over one link, 48 bits for each. */
    public static final class KeptParents {
        /** How many bits stand for a key: of 3,000 orphans and a million parents two meet by chance once in 100,000 results. */
        public static final int BITS = 48;

        private final String child;
        private final String link;
        private final long[] keys;

        /** @param keys ascending, each once */
        public KeptParents(String child, String link, long[] keys) {
            this.child = child;
            this.link = link;
            this.keys = keys.clone();
        }

        /** The table whose link it is. */
        public String child() {
            return child;
        }

        /** The name of the link. */
        public String link() {
            return link;
        }

        /** All keys, ascending. */
        public LongStream keys() {
            return Arrays.stream(keys);
        }

        /** How many there are. */
        public int size() {
            return keys.length;
        }

        /** Whether a parent has a key. */
        public boolean contains(long key) {
            return Arrays.binarySearch(keys, key) >= 0;
        }
    }

    /** All rows of all tables. */
    public long rows() {
        return tables.stream().mapToLong(KeptTable::rows).sum();
    }

    /** Rows at fault, of all tables. */
    public long faultyRows() {
        return tables.stream().mapToLong(KeptTable::faultyRows).sum();
    }

    /** How many findings there are of a severity. */
    public long count(Severity severity) {
        return findings.stream().filter(f -> f.severity() == severity).count();
    }
}
