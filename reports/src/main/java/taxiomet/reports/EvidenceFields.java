package taxiomet.reports;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;

/** Which cells of a row a report shows. */
public final class EvidenceFields {
    private final TableResult table;
    private final List<String> columns;

    public EvidenceFields(CheckResult result, Finding finding) {
        this(result.table(finding.table()), finding.columns());
    }

    private EvidenceFields(TableResult table, List<String> columns) {
        this.table = table;
        this.columns = List.copyOf(columns);
    }

    public TableResult table() {
        return table;
    }

    /** The columns in which the fault stands. */
    public List<String> columns() {
        return columns;
    }

    /** The columns that show a row to a person: its key, its label, and where the fault stands; each once. */
    public List<String> shown() {
        List<String> shown = new ArrayList<>(table.key());
        for (List<String> more : List.of(table.label(), columns)) {
            more.stream().filter(column -> !shown.contains(column)).forEach(shown::add);
        }
        return shown;
    }

    /** A cell of the row, or null where it is null; empty when the row has no cells at all, since it is malformed. */
    public Optional<String> cell(Evidence row, String column) {
        int place = table.columns().indexOf(column);
        return row.values().isEmpty()
                ? Optional.empty()
                : Optional.ofNullable(row.values().get(place));
    }

    /** What is to be said about one row: its problem, its hint, or both. */
    public static String remark(Evidence row) {
        String hint = row.hint().map(h -> h.words()).orElse("");
        if (row.problem().isEmpty() || hint.isEmpty()) {
            return row.problem() + hint;
        }
        return row.problem() + "; " + hint;
    }
}
