package taxiomet.survey.count;

import java.util.List;
import java.util.Optional;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;

/** What a check of an exam says about its candidates, which are named by their places. */
public record ExamResult(CheckResult result) {
    CountedKey key(String table, int place) {
        String name = Exam.keyName(place);
        // There is no rule where no row lacks a value.
        Optional<RuleResult> nulls = result.rules().stream()
                .filter(rule -> rule.table().equals(table) && rule.name().equals(name))
                .findFirst();
        long excess = finding(FindingKind.DUPLICATE, table, name)
                .map(f -> ((Finding.Duplicates) f.details()).excess())
                .orElse(0L);
        return new CountedKey(
                result.table(table).rows() - result.table(table).malformedRows(),
                excess,
                nulls.map(RuleResult::broken).orElse(0L),
                nulls.map(RuleResult::notJudged).orElse(0L));
    }

    /** Some of the rows that share a value of a key. */
    public List<Evidence> repeatedRows(String table, int place) {
        return finding(FindingKind.DUPLICATE, table, Exam.keyName(place))
                .map(Finding::examples)
                .orElse(List.of());
    }

    CountedLink link(int place) {
        String name = Exam.linkName(place);
        LinkResult link = result.links().stream()
                .filter(l -> l.name().equals(name))
                .findFirst()
                .orElseThrow();
        return new CountedLink(
                link,
                finding(FindingKind.ORPHAN, link.child(), name)
                        .map(f -> ((Finding.Missing) f.details()).commonest())
                        .orElse(List.of()),
                finding(FindingKind.OWN_ANCESTOR, link.child(), name).isPresent());
    }

    private Optional<Finding> finding(FindingKind kind, String table, String at) {
        return result.findings().stream()
                .filter(f -> f.kind() == kind && f.table().equals(table) && f.at().equals(at))
                .findFirst();
    }
}
