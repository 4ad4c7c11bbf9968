package taxiomet.cause;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.finding.Cause;
import taxiomet.finding.Cause.Cure;
import taxiomet.finding.Cause.What;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.personal.Pseudonyms;
import taxiomet.values.ValueReader;

/**
 * Brings together what one mending would cure: orphans of all links that miss one parent, rows that hang on a faulty one, values that are
 * written otherwise. Findings of many rows that have no common cause stay together.
 */
public final class Causes {
    /** So many rows of a finding are looked at one by one; beyond that they are one cause. */
    private static final long FEW_ROWS = 200;

    private static final int FEW_CAUSES = 50;

    private final Charter charter;
    private final CheckResult result;
    private final Map<List<Object>, Draft> drafts = new LinkedHashMap<>();
    /** Findings whose rows others may hang on: they are looked at when it is known which do. */
    private final List<Finding> ofRows = new ArrayList<>();

    private Causes(Charter charter, CheckResult result) {
        this.charter = charter;
        this.result = result;
    }

    /** All causes, in the order in which they are best mended: see {@link MendingOrder}. Notes have none. */
    public static List<Cause> of(Charter charter, CheckResult result) {
        Causes causes = new Causes(charter, result);
        for (Finding finding : result.findings()) {
            if (finding.severity() != Severity.NOTE) {
                causes.add(finding);
            }
        }
        causes.ofRows.forEach(causes::addRows);
        return new MendingOrder(charter)
                .of(causes.drafts.values().stream()
                        .map(Draft::cause)
                        .filter(cause -> cause.rows() > 0 || cause.finding().hasNoRows())
                        .toList());
    }

    /** A cause to which cures are still added. */
    private static final class Draft {
        private final What what;
        private final FindingKind finding;
        private final String table;
        private final String at;
        private List<String> columns = List.of();
        private List<String> values = List.of();
        private List<String> meant = List.of();
        private Optional<Hint.Kind> hint = Optional.empty();
        private String parent = "";
        private long count;
        private Optional<Cause.Place> place = Optional.empty();
        private List<String> differsIn = List.of();
        private final Map<List<Object>, Cure> cures = new LinkedHashMap<>();

        Draft(What what, FindingKind finding, String table, String at) {
            this.what = what;
            this.finding = finding;
            this.table = table;
            this.at = at;
        }

        void cures(Finding of, long rows) {
            cures.merge(
                    List.of(of.kind(), of.table(), of.at()),
                    new Cure(of.kind(), of.table(), of.at(), rows),
                    (one, more) -> new Cure(one.kind(), one.table(), one.at(), one.rows() + more.rows()));
        }

        Cause cause() {
            List<Cure> most = new ArrayList<>(cures.values());
            most.removeIf(cure -> cure.rows() == 0);
            most.sort(Comparator.comparingLong(Cure::rows).reversed().thenComparing(Cure::kind));
            return new Cause(
                    what, finding, table, at, columns, values, meant, hint, parent, count, place, differsIn, most);
        }
    }

    private Draft draft(What what, FindingKind finding, String table, String at, Object... key) {
        List<Object> whole = new ArrayList<>(List.of(what, table));
        whole.addAll(Arrays.asList(key));
        return drafts.computeIfAbsent(whole, k -> new Draft(what, finding, table, at));
    }

    private void add(Finding finding) {
        if (finding.details() instanceof Finding.Missing missing) {
            addOrphans(finding, missing);
        } else if (finding.details() instanceof Finding.Duplicates duplicates) {
            addDuplicates(finding, duplicates);
        } else if (finding.details() instanceof Finding.LikelyDoubles doubles) {
            each(finding).cures(finding, finding.rows() - doubles.groups());
        } else if (isOfRows(finding)) {
            ofRows.add(finding);
        } else {
            each(finding).cures(finding, finding.rows());
        }
    }

    /** Whether rows of this kind may have others hanging on them, and are few. */
    private boolean isOfRows(Finding finding) {
        return switch (finding.kind()) {
            case MALFORMED_ROW -> finding.rows() <= FEW_CAUSES;
            case NULL_IN_KEY -> finding.rows() <= FEW_CAUSES;
            case TYPE_MISMATCH ->
                finding.rows() <= FEW_CAUSES
                        && charter.table(finding.table())
                                .primaryKey()
                                .filter(key -> key.columns().contains(finding.at()))
                                .isPresent();
            default -> false;
        };
    }

    /** Rows on which others hang are mended each by itself, and so is a single one; the others of a finding are one cause. */
    private void addRows(Finding finding) {
        List<Evidence> alone = new ArrayList<>();
        finding.evidence().forEach(row -> {
            Draft draft = drafts.get(List.<Object>of(What.MEND_ROW, finding.table(), row.part(), row.row()));
            if (draft == null) {
                alone.add(row);
            } else {
                draft.cures(finding, 1);
            }
        });
        for (Evidence row : alone) {
            Draft draft = alone.size() > 1
                    ? each(finding)
                    : ofRow(finding.kind(), finding.table(), finding.at(), row.part(), row.row());
            draft.columns = finding.columns();
            draft.cures(finding, 1);
        }
    }

    private Draft ofRow(FindingKind kind, String table, String at, String part, long row) {
        Draft draft = draft(What.MEND_ROW, kind, table, at, part, row);
        draft.place = Optional.of(place(table, part, row));
        return draft;
    }

    private Cause.Place place(String table, String part, long row) {
        boolean isInParts = result.tables().stream()
                .anyMatch(each -> each.name().equals(table) && each.files().size() > 1);
        return new Cause.Place(part, row, isInParts);
    }

    private Draft each(Finding finding) {
        Draft draft =
                draft(What.MEND_EACH, finding.kind(), finding.table(), finding.at(), finding.kind(), finding.at());
        draft.columns = finding.columns();
        return draft;
    }

    private void addDuplicates(Finding finding, Finding.Duplicates duplicates) {
        if (finding.rows() > FEW_ROWS || duplicates.groups() > FEW_CAUSES) {
            each(finding).cures(finding, duplicates.excess());
            return;
        }
        List<String> columns = result.table(finding.table()).columns();
        finding.evidence().forEach(row -> {
            Draft draft =
                    draft(What.KEEP_ONE, finding.kind(), finding.table(), finding.at(), finding.at(), row.group());
            draft.count++;
            if (draft.count == 1) {
                draft.columns = finding.columns();
                draft.values = finding.columns().stream()
                        .map(column -> row.values().get(columns.indexOf(column)))
                        .toList();
            } else {
                draft.cures(finding, 1);
                draft.place = draft.place.or(() -> Optional.of(place(finding.table(), row.part(), row.row())));
                draft.differsIn = draft.differsIn.isEmpty() ? row.differsIn() : draft.differsIn;
            }
        });
    }

    private void addOrphans(Finding finding, Finding.Missing missing) {
        ForeignKey link = charter.table(finding.table()).link(missing.link()).orElseThrow();
        long told = missing.commonest().stream().mapToLong(MissingValue::rows).sum();
        boolean isMostUntold = told * 2 < finding.rows();
        for (MissingValue value : missing.commonest()) {
            ofValue(finding, link, value)
                    .orElseGet(
                            () -> isMostUntold ? allMissing(finding, link, missing) : oneMissing(finding, link, value))
                    .cures(finding, value.rows());
        }
        if (told < finding.rows()) {
            Draft rest = isMostUntold ? allMissing(finding, link, missing) : each(finding);
            rest.cures(finding, finding.rows() - told);
        }
    }

    /** Where most values have not been looked at, it is not single parents that are missing. */
    private Draft allMissing(Finding finding, ForeignKey link, Finding.Missing missing) {
        Draft draft = draft(What.ENTER_PARENT, finding.kind(), link.parent(), link.parent(), link.name());
        draft.columns = link.parentColumns();
        draft.count = missing.distinct();
        return draft;
    }

    /** Nobody makes the same slip twice: what several rows miss is likelier to be missing. */
    private static boolean isSlip(MissingValue value) {
        return value.hint()
                .filter(hint -> !hint.parents().isEmpty())
                .filter(hint -> hint.kind() != Hint.Kind.ONE_EDIT || value.rows() == 1)
                .isPresent();
    }

    private Draft oneMissing(Finding finding, ForeignKey link, MissingValue value) {
        Draft draft = draft(
                What.ENTER_PARENT,
                finding.kind(),
                link.parent(),
                keyName(charter.table(link.parent()), link),
                link.parentColumns(),
                value.values());
        draft.columns = link.parentColumns();
        draft.values = value.values();
        return draft;
    }

    /** What is wrong with a value itself, or with the row that it means; empty where its parent is missing. */
    private Optional<Draft> ofValue(Finding finding, ForeignKey link, MissingValue value) {
        Optional<Hint> hint = value.hint();
        Optional<Hint.FaultyParent> faulty = hint.flatMap(Hint::faultyParent);
        if (faulty.isPresent()) {
            Hint.FaultyParent parent = faulty.get();
            return Optional.of(
                    ofRow(parent.fault().kind(), parent.table(), parent.table(), parent.part(), parent.row()));
        }
        Optional<Finding> mismatch = mismatch(link, value.values());
        if (mismatch.isPresent()) {
            return mismatch.map(this::each);
        }
        if (hint.isPresent() && hint.get().kind() == Hint.Kind.STANDS_FOR_NOTHING) {
            boolean canBeNull = link.columns().stream()
                    .noneMatch(column -> charter.table(link.child()).isRequired(column));
            Draft draft = ofLink(canBeNull ? What.EMPTY : What.RESPELL, finding, link, value, "nothing");
            draft.hint = hint.map(Hint::kind);
            return Optional.of(draft);
        }
        if (isSlip(value)) {
            Draft draft =
                    ofLink(What.RESPELL, finding, link, value, hint.get().kind().name());
            draft.hint = Optional.of(hint.get().kind());
            draft.meant = draft.count == 1 ? hint.get().parents().get(0) : List.of();
            return Optional.of(draft);
        }
        return Optional.empty();
    }

    /** What tells of a value that is not of its column's type. */
    private Optional<Finding> mismatch(ForeignKey link, List<String> values) {
        Table child = charter.table(link.child());
        for (int i = 0; i < values.size(); i++) {
            String column = link.columns().get(i);
            boolean isOfType = values.get(i) == null
                    || Pseudonyms.isOne(values.get(i))
                    || ValueReader.of(child.column(column)).accepts(values.get(i));
            if (!isOfType) {
                return result.findings().stream()
                        .filter(other -> other.kind() == FindingKind.TYPE_MISMATCH
                                && other.table().equals(child.name())
                                && other.at().equals(column))
                        .findFirst();
            }
        }
        return Optional.empty();
    }

    private Draft ofLink(What what, Finding finding, ForeignKey link, MissingValue value, String kind) {
        Draft draft = draft(what, finding.kind(), link.child(), link.name(), link.name(), kind);
        draft.columns = link.columns();
        draft.parent = link.parent();
        draft.count++;
        draft.values = draft.count == 1 ? value.values() : List.of();
        return draft;
    }

    private static String keyName(Table parent, ForeignKey link) {
        return parent.keys().stream()
                .filter(key -> key.columns().equals(link.parentColumns()))
                .map(key -> key.name())
                .findFirst()
                .orElse(parent.name());
    }
}
