package taxiomet.reports;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;

/** Which cells of a row a report shows. */
public final class EvidenceFields {
    private final TableResult table;
    private final List<String> columns;
    private final FindingKind kind;

    public EvidenceFields(CheckResult result, Finding finding) {
        this.table = result.table(finding.table());
        this.columns = List.copyOf(finding.columns());
        this.kind = finding.kind();
    }

    /**
     * Whether a row is told by its number, too: always but in a database, where nobody can go to it, and where a key names the row that
     * is no key at fault.
     */
    public boolean areNumbered() {
        boolean isInDatabase = table.files().stream().allMatch(DatabaseAddress::isOfDatabase);
        boolean isNamed =
                !table.key().isEmpty() && kind.place() != FindingKind.Place.KEY && kind != FindingKind.MALFORMED_ROW;
        return !isInDatabase || !isNamed;
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
        return Stream.of(row.problem(), row.hint().map(h -> h.words()).orElse(""), row.isAccepted() ? "accepted" : "")
                .filter(part -> !part.isEmpty())
                .collect(Collectors.joining("; "));
    }
}
