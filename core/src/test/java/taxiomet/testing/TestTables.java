package taxiomet.testing;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.RunContext;

/** The tables of a test, and what a check of them comes to. */
public final class TestTables {
    private final Map<String, TestTable> tables = new LinkedHashMap<>();
    private final Path temporary;
    private long memory = 64 << 20;
    private int threads = 2;

    private TestTables(Path temporary) {
        this.temporary = temporary;
    }

    /** @param temporary an existing folder for temporary files */
    public static TestTables of(Path temporary, TestTable... tables) {
        TestTables all = new TestTables(temporary);
        for (TestTable table : tables) {
            all.tables.put(table.name(), table);
        }
        return all;
    }

    /** How many bytes there are for keys; what gets no room goes to disk. */
    public TestTables withMemory(long bytes) {
        memory = bytes;
        return this;
    }

    public TestTables withThreads(int count) {
        threads = count;
        return this;
    }

    public Charter charter() {
        return new Charter(
                "test", tables.values().stream().map(TestTable::declared).toList(), Server.STANDARD);
    }

    public TestTable table(String name) {
        return tables.get(name);
    }

    public RunContext context() {
        return new RunContext(temporary, new MemoryBudget(memory), threads, 1);
    }

    private CheckRun start(CheckOptions options) {
        return CheckRun.start(
                charter(), options, table -> tables.get(table.name()).source(), context());
    }

    /** What a check comes to. */
    public CheckResult check() {
        return check(new CheckOptions(Set.of(), 100, 100));
    }

    public CheckResult check(CheckOptions options) {
        try (CheckRun run = start(options)) {
            return run.result();
        }
    }

    /** What a load would come to: a table as {@code name: loaded of rows}, with why the others are refused. */
    public List<String> load() {
        try (CheckRun run = start(new CheckOptions(Set.of(), 0, 0))) {
            return run.load().tables().stream()
                    .map(table -> table.name() + ": " + table.loaded() + " of " + table.rows()
                            + table.refusals().stream()
                                    .map(why -> ", " + why.rows() + " " + why.why() + " at " + why.at() + " from "
                                            + why.first())
                                    .collect(Collectors.joining()))
                    .toList();
        }
    }

    /** Each finding as {@code kind at table.place: rows}, with all rows of its evidence; rows of other parts as part:row. */
    public List<String> findings() {
        List<String> findings = new ArrayList<>();
        try (CheckRun run = start(new CheckOptions(Set.of(), 3, 100))) {
            for (Finding finding : run.result().findings()) {
                List<String> rows = new ArrayList<>();
                finding.evidence().forEach(row -> rows.add(place(row)));
                if (rows.size() != finding.rows()) {
                    throw new AssertionError(finding.rows() + " rows counted, and evidence of " + rows);
                }
                findings.add(finding.kind().words() + " at " + finding.table() + "." + finding.at() + ": "
                        + String.join(" ", rows));
            }
        }
        return findings;
    }

    /** All rows behind the finding at one place, each with what is wrong with it. */
    public List<String> problems(String at) {
        List<String> problems = new ArrayList<>();
        try (CheckRun run = start(new CheckOptions(Set.of(), 3, 100))) {
            run.result().findings().stream()
                    .filter(finding -> finding.at().equals(at))
                    .forEach(finding ->
                            finding.evidence().forEach(row -> problems.add(row.row() + " " + row.problem())));
        }
        return problems;
    }

    private static String place(Evidence row) {
        String group = row.group() > 0 ? "/" + row.group() : "";
        return (row.part().equals("part0") ? "" : row.part() + ":") + row.row() + group;
    }

    /** The hints of the orphans of one link, row by row; {@code none} where there is none. */
    public List<String> hints() {
        return check().findings().stream()
                .filter(finding -> finding.kind() == FindingKind.ORPHAN)
                .findFirst()
                .orElseThrow()
                .examples()
                .stream()
                .map(row -> row.hint().map(hint -> hint.words()).orElse("none"))
                .collect(Collectors.toList());
    }
}
