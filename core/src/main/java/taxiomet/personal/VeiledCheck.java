package taxiomet.personal;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Hint;
import taxiomet.work.Secret;

/** The result of a check, told without the values of personal columns. */
public final class VeiledCheck {
    /** Stands for the line of a malformed row, of which nobody can say where in it which value stands. */
    public static final String HIDDEN = "(hidden: its table has personal columns)";

    private final Charter charter;
    private final Pseudonyms pseudonyms;

    /** @param secret of the run */
    public VeiledCheck(Charter charter, Secret secret) {
        this.charter = charter;
        this.pseudonyms = new Pseudonyms(charter, secret);
    }

    /** The same result, with pseudonyms in place of values. */
    public CheckResult of(CheckResult result) {
        return !pseudonyms.isAny()
                ? result
                : new CheckResult(
                        result.title(),
                        result.tables(),
                        result.links(),
                        result.rules(),
                        result.findings().stream().map(this::of).toList());
    }

    private Finding of(Finding finding) {
        Optional<ForeignKey> link = finding.details() instanceof Finding.Missing missing
                ? charter.table(finding.table()).link(missing.link())
                : Optional.empty();
        List<String> columns = columns(finding.table());
        UnaryOperator<Evidence> veil = row -> of(finding.table(), columns, row, link);
        return new Finding(
                finding.kind(),
                finding.severity(),
                finding.table(),
                finding.at(),
                finding.columns(),
                finding.rows(),
                of(finding, link),
                finding.examples().stream().map(veil).toList(),
                (most, reader) -> finding.evidence().first(most, row -> reader.accept(veil.apply(row))),
                finding.accepted());
    }

    private Finding.Details of(Finding finding, Optional<ForeignKey> link) {
        if (finding.details() instanceof Finding.Missing missing && link.isPresent()) {
            return new Finding.Missing(
                    missing.link(),
                    missing.distinct(),
                    missing.commonest().stream()
                            .map(value -> new Finding.MissingValue(
                                    veiled(link.get().child(), link.get().columns(), value.values()),
                                    value.rows(),
                                    value.hint().map(hint -> of(hint, link.get()))))
                            .toList(),
                    missing.consequences());
        }
        boolean areNumbersPersonal = finding.details() instanceof Finding.Gaps
                && finding.columns().stream().anyMatch(column -> pseudonyms.isPersonal(finding.table(), column));
        return areNumbersPersonal && finding.details() instanceof Finding.Gaps gaps
                ? new Finding.Gaps(gaps.ranges(), gaps.missing(), List.of())
                : finding.details();
    }

    private List<String> columns(String table) {
        return table.isEmpty()
                ? List.of()
                : charter.table(table).columns().stream().map(Column::name).toList();
    }

    private Evidence of(String table, List<String> columns, Evidence row, Optional<ForeignKey> link) {
        boolean isOfPeople = pseudonyms.isAny(table);
        return new Evidence(
                row.part(),
                row.row(),
                row.line(),
                isOfPeople && !row.values().isEmpty() ? veiled(table, columns, row.values()) : row.values(),
                row.group(),
                row.problem(),
                link.isPresent() ? row.hint().map(hint -> of(hint, link.get())) : row.hint(),
                row.differsIn(),
                isOfPeople && !row.raw().isEmpty() ? HIDDEN : row.raw(),
                row.isAccepted());
    }

    /** A hint at parents over a link. */
    public Hint of(Hint hint, ForeignKey link) {
        return new Hint(
                hint.kind(),
                hint.parents().stream()
                        .map(key -> veiled(link.parent(), link.parentColumns(), key))
                        .toList(),
                hint.faultyParent());
    }

    private List<String> veiled(String table, List<String> columns, List<String> values) {
        List<String> veiled = new ArrayList<>();
        for (int i = 0; i < values.size(); i++) {
            veiled.add(pseudonyms.of(table, columns.get(i), values.get(i)));
        }
        return veiled;
    }
}
