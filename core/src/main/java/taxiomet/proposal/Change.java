package taxiomet.proposal;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Expression;

/**
 * One change of a proposal: it succeeds whole or leaves nothing behind (R1). Names in it are those of the charter, and were
 * found there.
 */
public sealed interface Change {
    Origin origin();

    String table();

    /**
     * New rows.
     *
     * @param columns the columns given; all others get their defaults
     */
    record Insert(Origin origin, String table, List<String> columns, List<InsertedRow> rows) implements Change {
        public Insert {
            columns = List.copyOf(columns);
            rows = List.copyOf(rows);
        }
    }

    /**
     * A new row.
     *
     * @param place the file and line that give it
     * @param values as many as there are columns
     */
    record InsertedRow(String place, List<Input> values) {
        public InsertedRow {
            values = List.copyOf(values);
        }
    }

    /** New values for the rows that meet a condition; for all rows without one. */
    record Update(Origin origin, String table, Map<String, Input> assignments, Optional<Expression> where)
            implements Change {
        public Update {
            assignments = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(assignments));
        }
    }

    /** The end of the rows that meet a condition; of all rows without one. */
    record Delete(Origin origin, String table, Optional<Expression> where) implements Change {}

    /** A change whose rows a table of keys names, line by line. */
    sealed interface Listed extends Change {
        /** The columns by which rows are found. */
        List<String> columns();

        List<ListedRow> rows();
    }

    /**
     * The end of the rows that a table of keys names.
     *
     * @param columns the columns by which rows are found
     */
    record DeleteListed(Origin origin, String table, List<String> columns, List<ListedRow> rows) implements Listed {
        public DeleteListed {
            columns = List.copyOf(columns);
            rows = List.copyOf(rows);
        }
    }

    /**
     * New values for the rows that a table of keys names, each line its own; keys may be shifted over one another.
     *
     * @param columns the columns by which rows are found
     * @param newColumns the columns that get new values
     */
    record UpdateListed(
            Origin origin, String table, List<String> columns, List<String> newColumns, List<ListedRow> rows)
            implements Listed {
        public UpdateListed {
            columns = List.copyOf(columns);
            newColumns = List.copyOf(newColumns);
            rows = List.copyOf(rows);
        }
    }

    /**
     * Where a row stands, as evidence says it.
     *
     * @param file its name, without folders
     * @param row its number in the file, 1 for the first
     */
    record RowPlace(String file, long row) {}

    /** Whether a change gives rows another key, and takes none away. */
    static boolean changesKeys(Change change) {
        return change instanceof Update || change instanceof UpdateListed || change instanceof Renumber;
    }

    /** Whether a change names a row by its number. */
    static boolean namesByNumber(Change change) {
        Optional<Expression> where = change instanceof Delete delete
                ? delete.where()
                : change instanceof Update update ? update.where() : Optional.empty();
        return where.map(condition ->
                                condition.leaves().stream().anyMatch(leaf -> leaf instanceof Expression.RowNumber))
                        .orElse(false)
                || (change instanceof Listed listed
                        && listed.rows().stream().anyMatch(row -> row.at().isPresent()));
    }

    /**
     * A line of a table of keys.
     *
     * @param place the file and line
     * @param key the cells by which the row is found, as texts; null for null
     * @param values the new cells
     * @param at where the row stands, for a line of evidence: then the key is what the row has to hold
     */
    record ListedRow(String place, List<String> key, List<Input> values, Optional<RowPlace> at) {
        public ListedRow {
            key = java.util.Collections.unmodifiableList(new java.util.ArrayList<>(key));
            values = List.copyOf(values);
        }
    }

    /** How two values of a column become one when their rows are merged. */
    enum Combination {
        SUM,
        LEAST,
        GREATEST,
        /** The value of the row that stays, or that of the other where it is null. */
        FIRST,
        STAYER
    }

    /**
     * Two rows that are one: whatever points at the one that goes is pointed at the one that stays, then it goes. Where two rows that
     * point at them would share a key, they are merged in turn, if it is said how.
     *
     * @param goes the key of the row that goes, as texts
     * @param stays the key of the row that stays
     * @param fills whether columns of the one that stays which are null get the values of the other
     * @param combine for each table whose rows may be merged in turn, how its columns are; those not named are the stayer's
     */
    record Merge(
            Origin origin,
            String table,
            List<String> goes,
            List<String> stays,
            boolean fills,
            Map<String, Map<String, Combination>> combine)
            implements Change {
        public Merge {
            goes = List.copyOf(goes);
            stays = List.copyOf(stays);
            combine = Map.copyOf(combine);
        }
    }

    /** Another key for a row, with whatever points at it. */
    record Renumber(Origin origin, String table, List<String> from, List<String> to) implements Change {
        public Renumber {
            from = List.copyOf(from);
            to = List.copyOf(to);
        }
    }
}
