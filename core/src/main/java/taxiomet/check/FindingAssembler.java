package taxiomet.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Consumer;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.RowsAtHand;
import taxiomet.check.pass.Telling;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.Accepting;
import taxiomet.finding.FindingKind;
import taxiomet.keys.RowSet;
import taxiomet.rows.RefCursor;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;

/** Makes findings of the logs: the first rows as examples, what the kinds tell of them, and the way to all evidence. */
final class FindingAssembler {
    /** Grouped rows stand group by group, and all over the file: so many are fetched in one go. */
    private static final int GROUPED_ROWS_AT_ONCE = 100_000;

    private final Plan plan;
    private final RowsAtHand rows;
    private final AcceptedFaults accepted;

    FindingAssembler(Plan plan, Map<String, TableSource> sources, AcceptedFaults accepted) {
        this.plan = plan;
        this.accepted = accepted;
        this.rows = new RowsAtHand(plan.charter(), sources);
    }

    /**
     * All findings, the worst first, then in the order of the kinds and of the charter.
     *
     * @param withoutRows findings that are behind no row
     */
    List<Finding> assemble(List<Finding> withoutRows) {
        List<FaultLog> logs = plan.logs().stream().filter(log -> log.size() > 0).toList();
        rows.fetch(logs, plan.options().examples());
        List<Finding> findings = new ArrayList<>(withoutRows);
        logs.forEach(log -> findings.add(finding(log)));
        findings.sort(Comparator.comparing(Finding::severity).thenComparing(Finding::kind));
        return findings;
    }

    /** How many rows of a table have at least one fault that is not a mere note, nor accepted. */
    static long faultyRows(Table table, List<FaultLog> logs, AcceptedFaults accepted) {
        RowSet rows = new RowSet();
        for (FaultLog log : logs) {
            if (log.table().equals(table.name()) && log.kind() != FindingKind.ODD_SPELLING) {
                log.forEachRow(ref -> {
                    if (!accepted.isBorne(log, ref)) {
                        rows.add(ref);
                    }
                });
            }
        }
        return rows.size();
    }

    private Finding finding(FaultLog log) {
        Telling telling = log.telling();
        telling.prepare(rows);
        List<Evidence> examples = new ArrayList<>();
        SortedSpool.Reader reader = log.read();
        Groups groups = new Groups(telling);
        for (int i = 0; i < plan.options().examples() && reader.next(); i++) {
            Evidence row = log.isGrouped()
                    ? groups.evidence(reader.first(), rows.row(log.table(), reader.second()))
                    : telling.evidence(rows.row(log.table(), reader.first()), reader.second());
            examples.add(row.accepted(accepted.isBorne(log, log.isGrouped() ? reader.second() : reader.first())));
        }
        List<Accepting> borne = accepted.of(log);
        boolean areAllBorne = borne.stream().mapToLong(Accepting::rows).sum() == log.size();
        return new Finding(
                log.kind(),
                areAllBorne ? Severity.NOTE : log.severity(),
                log.table(),
                log.at(),
                log.columns(),
                log.size(),
                telling.details(),
                examples,
                (most, all) -> readEvidence(log, most, all),
                borne);
    }

    /** Numbers groups as they come, from 1, and holds the first row of each against the others. */
    private static final class Groups {
        private final Telling telling;
        private long first = -1;
        private long number;
        private FoundRow firstRow;

        Groups(Telling telling) {
            this.telling = telling;
        }

        /** The row of a group that comes next; the first of a group comes first. */
        Evidence evidence(long firstOfGroup, FoundRow row) {
            if (firstOfGroup == first) {
                return telling.evidence(row, number, firstRow);
            }
            first = firstOfGroup;
            firstRow = row;
            number++;
            return telling.evidence(row, number);
        }
    }

    private void readEvidence(FaultLog log, long most, Consumer<Evidence> all) {
        RowLookup lookup = rows.lookup(log.table());
        if (log.isGrouped()) {
            readGroupedEvidence(log, lookup, most, all);
            return;
        }
        SortedSpool.Reader refs = log.read();
        SortedSpool.Reader remarks = log.read();
        long[] left = {most};
        lookup.forEach(() -> left[0]-- > 0 && refs.next() ? refs.first() : RefCursor.END, row -> {
            if (!remarks.next() || remarks.first() != row.ref()) {
                throw new IllegalStateException("rows and remarks have lost step at " + row);
            }
            all.accept(log.telling().evidence(row, remarks.second()).accepted(accepted.isBorne(log, row.ref())));
        });
    }

    private void readGroupedEvidence(FaultLog log, RowLookup lookup, long most, Consumer<Evidence> all) {
        SortedSpool.Reader reader = log.read();
        Groups groups = new Groups(log.telling());
        List<long[]> chunk = new ArrayList<>();
        long left = most;
        boolean hasMore = left > 0 && reader.next();
        while (hasMore) {
            chunk.add(new long[] {reader.first(), reader.second()});
            left--;
            hasMore = left > 0 && reader.next();
            if (!hasMore || chunk.size() == GROUPED_ROWS_AT_ONCE) {
                TreeSet<Long> refs = new TreeSet<>();
                chunk.forEach(pair -> refs.add(pair[1]));
                Map<Long, FoundRow> found = lookup.find(refs);
                chunk.forEach(pair -> all.accept(
                        groups.evidence(pair[0], found.get(pair[1])).accepted(accepted.isBorne(log, pair[1]))));
                chunk.clear();
            }
        }
    }
}
