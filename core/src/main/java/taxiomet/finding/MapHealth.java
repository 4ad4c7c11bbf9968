package taxiomet.finding;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Severity;
import taxiomet.finding.MapResult.Health;

/** What a check found, table by table and link by link. */
public final class MapHealth {
    private final Map<String, Health> tables = new HashMap<>();
    private final Map<String, Health> links = new HashMap<>();

    /** Nothing is known. */
    public static MapHealth unknown() {
        return new MapHealth();
    }

    /** What a result says. */
    public static MapHealth of(CheckResult result) {
        MapHealth health = new MapHealth();
        result.tables().forEach(table -> health.addTable(table.name(), table.rows(), table.faultyRows()));
        result.links().forEach(link -> health.addLink(link.child(), link.name(), link.judged(), link.orphans()));
        result.findings().stream()
                .filter(finding ->
                        finding.severity() != Severity.NOTE && !finding.kind().hasNoRows())
                .forEach(finding -> health.addFinding(
                        finding.kind(), finding.table(), childOf(finding), finding.at(), finding.rows()));
        return health;
    }

    /** The table that a link of a finding belongs to: findings about numbers of children are told of the parent. */
    private static String childOf(Finding finding) {
        return finding.details() instanceof Finding.Children children ? children.child() : finding.table();
    }

    public void addTable(String table, long rows, long faulty) {
        tables.put(table, new Health(rows, faulty, List.of()));
    }

    public void addLink(String child, String link, long judged, long orphans) {
        links.put(child + "." + link, new Health(judged, orphans, List.of()));
    }

    /**
     * Notes a finding, when its table and link are known.
     *
     * @param table whose rows are at fault
     * @param child the table that the link belongs to, where it is about one
     */
    public void addFinding(FindingKind kind, String table, String child, String at, long rows) {
        String words = kind.words() + (kind.place() == FindingKind.Place.TABLE ? "" : " at " + at) + ": " + rows;
        tables.computeIfPresent(table, (name, health) -> with(health, words));
        if (kind.place() == FindingKind.Place.LINK) {
            links.computeIfPresent(child + "." + at, (name, health) -> with(health, kind.words() + ": " + rows));
        }
    }

    private static Health with(Health health, String finding) {
        List<String> findings = new ArrayList<>(health.findings());
        findings.add(finding);
        return new Health(health.rows(), health.faulty(), findings);
    }

    /** What is known of a table. */
    public Optional<Health> table(String name) {
        return Optional.ofNullable(tables.get(name));
    }

    /** What is known of a link. */
    public Optional<Health> link(String child, String name) {
        return Optional.ofNullable(links.get(child + "." + name));
    }

    /** The names of the tables of which something is known. */
    public List<String> tables() {
        return tables.keySet().stream().sorted().toList();
    }
}
