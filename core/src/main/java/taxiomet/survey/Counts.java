package taxiomet.survey;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;

/** What was counted about all candidates, by the names that they have in the exams. */
final class Counts {
    private final Map<List<String>, RuleResult> rules = new HashMap<>();
    private final Map<List<Object>, Finding> findings = new HashMap<>();
    private final Map<String, LinkResult> links = new HashMap<>();

    void add(CheckResult result) {
        result.rules().forEach(rule -> rules.put(List.of(rule.table(), rule.name()), rule));
        // Without the way to all of their rows, which holds the whole run.
        result.findings()
                .forEach(f -> findings.put(
                        List.of(f.kind(), f.table(), f.at()),
                        new Finding(
                                f.kind(),
                                f.severity(),
                                f.table(),
                                f.at(),
                                f.columns(),
                                f.rows(),
                                f.details(),
                                new ArrayList<>(f.examples()),
                                all -> {})));
        result.links().forEach(link -> links.put(link.name(), link));
    }

    Optional<RuleResult> rule(String table, String name) {
        return Optional.ofNullable(rules.get(List.of(table, name)));
    }

    Optional<Finding> finding(FindingKind kind, String table, String at) {
        return Optional.ofNullable(findings.get(List.of(kind, table, at)));
    }

    Optional<LinkResult> link(String name) {
        return Optional.ofNullable(links.get(name));
    }
}
