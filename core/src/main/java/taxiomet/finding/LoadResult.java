package taxiomet.finding;

import java.util.List;
import java.util.Optional;

/**
 * What a load of all rows would come to, with all constraints of the charter on.
 *
 * @param tables in the order of the load: parents before their children where circles allow it
 * @param notHeld links that play no part, since nothing in the database holds them
 * @param inCircle links whose parents come after their children, in a circle of tables: no parent is there yet
 */
public record LoadResult(List<LoadedTable> tables, List<String> notHeld, List<String> inCircle) {
    public LoadResult {
        tables = List.copyOf(tables);
        notHeld = List.copyOf(notHeld);
        inCircle = List.copyOf(inCircle);
    }

    /** All rows of all tables, malformed ones too. */
    public long rows() {
        return tables.stream().mapToLong(LoadedTable::rows).sum();
    }

    /** All rows that would get in. */
    public long loaded() {
        return tables.stream().mapToLong(LoadedTable::loaded).sum();
    }

    /**
     * One table.
     *
     * @param rows all of its rows, malformed ones too
     * @param loaded those that would get in
     * @param refusals why the others would not, in the order in which a row is judged
     */
    public record LoadedTable(String name, long rows, long loaded, List<LoadRefusal> refusals) {
        public LoadedTable {
            refusals = List.copyOf(refusals);
        }
    }

    /** Why a row is refused. */
    public enum Why {
        /** The row is at fault by itself: see the finding. */
        OWN_FAULT,
        /** A row with its key is in already. */
        DUPLICATE,
        /** No row of the parent's table has its key. */
        NO_PARENT,
        /** Its parent was refused, or comes later. */
        PARENT_NOT_IN,
        /** Some of the link's columns are null, and its match is full. */
        HALF_NULL
    }

    /**
     * Rows refused for one reason; a row that has several is counted at the first.
     *
     * @param finding which fault, for {@link Why#OWN_FAULT}
     * @param at the column, key, link or rule
     * @param rows how many
     * @param part the file of the first of them
     * @param first its number in that file, 1 for the first data row
     */
    public record LoadRefusal(Why why, Optional<FindingKind> finding, String at, long rows, String part, long first) {}
}
