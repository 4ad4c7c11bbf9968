package taxiomet.finding;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Severity;

/**
 * What a check of the rows came to.
 *
 * @param title what the charter is called
 * @param tables the tables that were judged, as the charter declares them
 * @param findings the worst first
 * @param causes what would cure them, in the order in which it is best done; none where nobody looked for them
 * @param load what a load of the rows would come to; empty where nobody asked
 * @param since what is new and gone since an earlier result; empty where nobody asked
 */
public record CheckResult(
        String title,
        List<TableResult> tables,
        List<LinkResult> links,
        List<RuleResult> rules,
        List<Finding> findings,
        List<Cause> causes,
        Optional<LoadResult> load,
        Optional<ResultComparison> since) {
    /** A result of which causes are not known. */
    public CheckResult(
            String title,
            List<TableResult> tables,
            List<LinkResult> links,
            List<RuleResult> rules,
            List<Finding> findings) {
        this(title, tables, links, rules, findings, List.of(), Optional.empty(), Optional.empty());
    }

    public CheckResult {
        tables = List.copyOf(tables);
        links = List.copyOf(links);
        rules = List.copyOf(rules);
        findings = List.copyOf(findings);
        causes = List.copyOf(causes);
    }

    /** The same result with causes. */
    public CheckResult with(List<Cause> others) {
        return new CheckResult(title, tables, links, rules, findings, others, load, since);
    }

    /** The same result with what is new and gone since an earlier one. */
    public CheckResult with(ResultComparison earlier) {
        return new CheckResult(title, tables, links, rules, findings, causes, load, Optional.of(earlier));
    }

    /** The same result with what a load would come to. */
    public CheckResult with(LoadResult loaded) {
        return new CheckResult(title, tables, links, rules, findings, causes, Optional.of(loaded), since);
    }

    /**
     * One table.
     *
     * @param files the files that its rows stand in
     * @param columns its declared columns
     * @param key the columns that name a row: of the primary key, else of the first unique key, else none
     * @param keyName what the primary key is called in the database, where that was declared
     * @param label the columns that name a row to a person
     * @param ownerColumn the column that holds who decides about a row
     * @param owner who decides about all rows
     * @param rows all data rows, malformed ones too
     * @param faultyRows rows with at least one fault that is an error or a warning
     * @param emptyLines lines without any field, which are no rows
     * @param remarks what else is worth saying once
     */
    public record TableResult(
            String name,
            List<String> files,
            List<String> columns,
            List<String> key,
            Optional<String> keyName,
            List<String> label,
            Optional<String> ownerColumn,
            Optional<String> owner,
            long rows,
            long malformedRows,
            long faultyRows,
            long emptyLines,
            List<Remark> remarks) {
        public TableResult {
            files = List.copyOf(files);
            columns = List.copyOf(columns);
            key = List.copyOf(key);
            label = List.copyOf(label);
            remarks = List.copyOf(remarks);
        }
    }

    /** Something worth saying that is no fault: of which kind, and as a full clause. */
    public record Remark(String kind, String text) {}

    /**
     * One link.
     *
     * @param match simple, full or partial
     * @param rows the child's rows that could be read
     * @param judged rows looked up among the parents, ill-typed ones too
     * @param nulls rows with nulls in all columns of the link
     * @param halfNulls rows with nulls in some columns of it
     * @param illTyped rows among the judged with a value that is not of its type
     * @param orphans rows among the judged without a parent
     * @param children how many children the parents have, where the charter asks for a number
     */
    public record LinkResult(
            String name,
            String child,
            List<String> columns,
            String parent,
            List<String> parentColumns,
            String match,
            boolean isEnforced,
            long rows,
            long judged,
            long nulls,
            long halfNulls,
            long illTyped,
            long orphans,
            Optional<ChildrenTally> children) {
        public LinkResult {
            columns = List.copyOf(columns);
            parentColumns = List.copyOf(parentColumns);
        }
    }

    /**
     * One rule.
     *
     * @param asksParents whether the condition asks for columns of parents
     * @param asksChildren whether it asks what children come to
     * @param judged rows for which the condition was evaluated
     * @param notJudged rows with an operand that is not of its type, their children's among them, or without the parent asked for
     * @param unknown rows among the judged for which it is neither true nor false
     * @param broken rows among the judged for which it is false, or that divide by zero
     */
    public record RuleResult(
            String table,
            String name,
            String condition,
            boolean asksParents,
            boolean asksChildren,
            long judged,
            long notJudged,
            long unknown,
            long broken) {}

    /** How many findings there are of a severity. */
    public long count(Severity severity) {
        return findings.stream().filter(f -> f.severity() == severity).count();
    }

    /** What it comes to, in a word or two. */
    public String answer() {
        return isSound() ? "sound" : "not sound";
    }

    /** Neither an error nor a warning. */
    public boolean isSound() {
        return findings.stream().allMatch(f -> f.severity() == Severity.NOTE);
    }

    /** All rows of all tables, malformed ones too. */
    public long rows() {
        return tables.stream().mapToLong(TableResult::rows).sum();
    }

    /** Rows with at least one fault that is an error or a warning. */
    public long faultyRows() {
        return tables.stream().mapToLong(TableResult::faultyRows).sum();
    }

    /** The table of a name that is known to be among the results. */
    public TableResult table(String name) {
        return tables.stream()
                .filter(t -> t.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("no table " + name));
    }
}
