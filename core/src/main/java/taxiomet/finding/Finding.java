package taxiomet.finding;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Severity;

/**
 * One kind of fault at one place of the charter.
 *
 * @param table the table whose rows are at fault; for children counts the parent's; empty for what belongs to none
 * @param at the column, key, link or rule; the table itself for malformed rows
 * @param columns the columns of {@code table} in which the fault stands; may be empty
 * @param rows exact count of rows at fault
 * @param examples some of the rows
 * @param evidence all of them
 * @param accepted which of the rows are borne for a while, by reason; where all are, the finding is a note
 */
public record Finding(
        FindingKind kind,
        Severity severity,
        String table,
        String at,
        List<String> columns,
        long rows,
        Details details,
        List<Evidence> examples,
        EvidenceRows evidence,
        List<Accepting> accepted) {

    /** A finding of which no row is accepted. */
    public Finding(
            FindingKind kind,
            Severity severity,
            String table,
            String at,
            List<String> columns,
            long rows,
            Details details,
            List<Evidence> examples,
            EvidenceRows evidence) {
        this(kind, severity, table, at, columns, rows, details, examples, evidence, List.of());
    }

    /**
     * Rows that are borne.
     *
     * @param until the last day; empty for as long as the charter says so
     */
    public record Accepting(String reason, Optional<LocalDate> until, long rows) {}

    /** How many of the rows are borne. */
    public long acceptedRows() {
        return accepted.stream().mapToLong(Accepting::rows).sum();
    }

    /** How many are not. */
    public long openRows() {
        return rows - acceptedRows();
    }

    public Finding {
        accepted = List.copyOf(accepted);
        columns = List.copyOf(columns);
        examples = List.copyOf(examples);
    }

    /** What there is to say about a kind of finding beyond the count of its rows. */
    public sealed interface Details {}

    /**
     * Why rows were refused.
     *
     * @param declared what the charter asks for there, such as {@code one of N1, N2}; empty where the kind says it all
     * @param reasons the commonest first; none where the finding says it all
     */
    public record Reasons(String declared, List<Reason> reasons) implements Details {
        public Reasons {
            reasons = List.copyOf(reasons);
        }
    }

    /** A reason as a clause, and how many rows it holds for. */
    public record Reason(String words, long rows) {}

    /**
     * Duplicates.
     *
     * @param groups how many different keys stand more than once
     * @param excess rows beyond the first of each group
     */
    public record Duplicates(long groups, long excess) implements Details {}

    /**
     * Rows that are probably one thing entered twice.
     *
     * @param pairs how many pairs of rows are alike
     * @param groups how many things they come to, where rows that are like one row are taken for one thing
     * @param rule what is asked of two rows, as a clause
     */
    public record LikelyDoubles(long pairs, long groups, String rule) implements Details {}

    /** Rows that are their own ancestors, and how many rings they stand in. */
    public record Rings(long rings) implements Details {}

    /**
     * Orphans.
     *
     * @param link name of the link
     * @param distinct how many different values have no parent
     * @param commonest some of them, the commonest first
     * @param consequences how many of the rows bear the key of a row that is no parent for a fault of its own, by that fault
     */
    public record Missing(String link, long distinct, List<MissingValue> commonest, List<Consequence> consequences)
            implements Details {
        public Missing {
            commonest = List.copyOf(commonest);
            consequences = List.copyOf(consequences);
        }
    }

    /** Rows that are at fault only because rows of another table are: mending those mends these. */
    public record Consequence(FindingKind kind, String table, long rows) {}

    /** A value of a link's columns that no parent has, and how many rows have it. */
    public record MissingValue(List<String> values, long rows, Optional<Hint> hint) {}

    /**
     * Parents with too few or too many children.
     *
     * @param child the table whose rows are counted
     * @param link the link they are counted over
     * @param range how many there should be
     */
    public record Children(String child, String link, String range) implements Details {}

    /**
     * Something declared that could not be read; it has no rows.
     *
     * @param what rule, key, link, default, type or table
     * @param declared as it was written
     * @param problem why it was not read, as a clause
     * @param place the file, line and column that declare it
     */
    public record Undeclared(String what, String declared, String problem, String place) implements Details {}

    /**
     * Numbers that no row has; such a finding has no rows.
     *
     * @param ranges how many runs of such numbers there are
     * @param missing how many numbers are in them
     * @param first some of the runs, the least first
     */
    public record Gaps(long ranges, long missing, List<Gap> first) implements Details {
        public Gaps {
            first = List.copyOf(first);
        }
    }

    /** Numbers from one to another, both among those missing. */
    public record Gap(long from, long to) {}

    /** A broken rule and its condition. */
    public record Broken(String condition, List<Reason> reasons) implements Details {
        /** The usual reason why a rule is broken. */
        public static final String FALSE = "the condition is false";

        public Broken {
            reasons = List.copyOf(reasons);
        }
    }
}
