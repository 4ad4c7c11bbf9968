package taxiomet.finding;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Severity;

/**
 * A row among its relatives.
 *
 * @param title what the charter is called
 * @param table whose rows were asked for
 * @param found how many rows have the key asked for, or meet the condition
 * @param rows some of them, as they stand
 * @param near where none was found, keys that are like the one asked for
 */
public record TraceResult(String title, String table, long found, List<TracedRow> rows, Optional<Hint> near) {
    public TraceResult {
        rows = List.copyOf(rows);
    }

    /**
     * One row.
     *
     * @param part the file that it stands in; empty for one that a proposal makes
     * @param row its number there, 1 for the first data row
     * @param line the line that it begins in; 0 where there are no lines
     * @param columns the declared columns of its table
     * @param values its cells, null where null; none for a malformed row
     * @param key the columns of them by which it is called; none where the table has no key
     * @param label what names it to a person; empty without one
     * @param raw the line of a malformed row; otherwise empty
     * @param faults what is wrong with it; none where it is a relative, of which only what is shown was read
     * @param notJudged what could not be said about its faults, as a clause; empty where all was judged
     * @param twins rows that share a key with it
     * @param parents by link; none where they were not asked for
     * @param children by link; none where they were not asked for
     */
    public record TracedRow(
            String table,
            String part,
            long row,
            long line,
            List<String> columns,
            List<String> values,
            List<String> key,
            String label,
            String raw,
            List<RowFault> faults,
            String notJudged,
            List<Twin> twins,
            List<Parent> parents,
            List<Children> children) {
        public TracedRow {
            columns = List.copyOf(columns);
            values = Collections.unmodifiableList(new ArrayList<>(values));
            key = List.copyOf(key);
            faults = List.copyOf(faults);
            twins = List.copyOf(twins);
            parents = List.copyOf(parents);
            children = List.copyOf(children);
        }

        /** The cell of a declared column; null where it is null. */
        public String value(String column) {
            return values.isEmpty() ? null : values.get(columns.indexOf(column));
        }

        /** The cells of the key. */
        public List<String> keyValues() {
            List<String> cells = new ArrayList<>();
            key.forEach(column -> cells.add(value(column)));
            return cells;
        }
    }

    /**
     * What is wrong with a row.
     *
     * @param at the column, key, link or rule
     * @param problem as a clause; empty where the kind says it all
     */
    public record RowFault(FindingKind kind, Severity severity, String at, List<String> columns, String problem) {
        public RowFault {
            columns = List.copyOf(columns);
        }
    }

    /**
     * A row that shares a key.
     *
     * @param at the key
     * @param columns of the key
     * @param others how many rows share it, the row itself not counted
     * @param first some of them, without relatives
     */
    public record Twin(String at, List<String> columns, long others, List<TracedRow> first) {
        public Twin {
            columns = List.copyOf(columns);
            first = List.copyOf(first);
        }
    }

    /** How it stands with a link. */
    public enum LinkState {
        /** The parent is there. */
        THERE,
        /** All columns are null. */
        NULL,
        /** Some columns are null, and the match does not judge the row. */
        HALF_NULL,
        /** Some columns are null, and the match asks for all or none. */
        HALF_NULL_REFUSED,
        /** A value is not of its type: it equals nothing. */
        ILL_TYPED,
        /** No row has the key. */
        MISSING,
        /** The link is not declared for this row. */
        NOT_FOR_THIS_ROW
    }

    /**
     * The parent that a link leads to.
     *
     * @param columns the link's, in the child
     * @param parents how many rows have the key: more than one where it is no key in fact
     * @param parent the first of them
     * @param hint which parent may have been meant
     */
    public record Parent(
            String link,
            List<String> columns,
            String table,
            List<String> parentColumns,
            LinkState state,
            long parents,
            Optional<TracedRow> parent,
            Optional<Hint> hint) {
        public Parent {
            columns = List.copyOf(columns);
            parentColumns = List.copyOf(parentColumns);
        }
    }

    /** A total over rows, as it is declared, and what it comes to. */
    public record Sum(String text, BigDecimal sum) {}

    /**
     * The children over one link.
     *
     * @param rows how many they are
     * @param totals what their totals come to
     * @param first some of them, as they stand
     * @param below what hangs below all of them, those that are not shown too; none where it was not asked for
     */
    public record Children(
            String link,
            String table,
            List<String> columns,
            long rows,
            List<Sum> totals,
            List<TracedRow> first,
            List<Below> below) {
        public Children {
            columns = List.copyOf(columns);
            totals = List.copyOf(totals);
            first = List.copyOf(first);
            below = List.copyOf(below);
        }
    }

    /**
     * Rows that hang below some rows, over one way.
     *
     * @param links the links of the way, the highest first, with their tables before
     */
    public record Below(List<String> links, String table, long rows, List<Sum> totals) {
        public Below {
            links = List.copyOf(links);
            totals = List.copyOf(totals);
        }
    }
}
