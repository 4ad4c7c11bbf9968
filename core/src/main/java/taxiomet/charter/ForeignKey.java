package taxiomet.charter;

import java.util.List;
import java.util.Optional;

/**
 * A foreign key, in messages a link: the columns of a child table that point at a key of a parent table.
 *
 * @param columns the child's columns, in the order of the parent's key
 * @param parent name of the table referenced
 * @param parentColumns the referenced columns, as many as {@code columns}
 * @param isEnforced whether the database holds the link today
 * @param children how many children each parent row may have
 * @param where the child's rows that the link is declared for; empty for all
 * @param isAcyclic on a link of a table to itself: no row may be its own ancestor
 */
public record ForeignKey(
        String name,
        String child,
        List<String> columns,
        String parent,
        List<String> parentColumns,
        Match match,
        Action onDelete,
        Action onUpdate,
        Deferrable deferrable,
        boolean isEnforced,
        Optional<Condition> where,
        Optional<IntRange> children,
        boolean isAcyclic,
        Severity severity) {

    /** The standard's match types (ISO/IEC 9075-2, 4.18.3.2). */
    public enum Match {
        SIMPLE,
        FULL,
        PARTIAL
    }

    /** When the check of a link may wait. */
    public enum Deferrable {
        NO,
        IMMEDIATE,
        DEFERRED
    }

    /** The standard's referential actions (ISO/IEC 9075-2, 4.18.3.4). */
    public enum ActionName {
        NO_ACTION("no action"),
        RESTRICT("restrict"),
        CASCADE("cascade"),
        SET_NULL("set null"),
        SET_DEFAULT("set default");

        private final String sql;

        ActionName(String sql) {
            this.sql = sql;
        }

        public String sql() {
            return sql;
        }
    }

    /**
     * What happens to children when the parent row goes or its key changes.
     *
     * @param columns the columns that set null or set default writes; empty for all of the link
     */
    public record Action(ActionName name, List<String> columns) {
        public static final Action NONE = new Action(ActionName.NO_ACTION, List.of());

        public Action {
            columns = List.copyOf(columns);
        }
    }

    /** Whether values of both ends can be equal, by their types; SQLite alone compares others, too. */
    public boolean isComparable(Table childTable, Table parentTable) {
        for (int i = 0; i < columns.size(); i++) {
            ColumnType one = childTable.column(columns.get(i)).type();
            ColumnType other = parentTable.column(parentColumns.get(i)).type();
            if (!one.family().isComparableWith(other.family())) {
                return false;
            }
        }
        return true;
    }

    /** The same link for the rows that meet a condition. */
    public ForeignKey where(Optional<Condition> condition) {
        return with(condition, isEnforced, isAcyclic);
    }

    /** The same link, over which a row may be its own ancestor. */
    public ForeignKey notAcyclic() {
        return with(where, isEnforced, false);
    }

    /** The same link, held by no database. */
    public ForeignKey notEnforced() {
        return with(where, false, isAcyclic);
    }

    private ForeignKey with(Optional<Condition> condition, boolean isHeld, boolean mayHaveNoRings) {
        return new ForeignKey(
                name,
                child,
                columns,
                parent,
                parentColumns,
                match,
                onDelete,
                onUpdate,
                deferrable,
                isHeld,
                condition,
                children,
                mayHaveNoRings,
                severity);
    }

    public ForeignKey {
        columns = List.copyOf(columns);
        parentColumns = List.copyOf(parentColumns);
    }
}
