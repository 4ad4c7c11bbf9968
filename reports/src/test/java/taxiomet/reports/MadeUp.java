package taxiomet.reports;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.NotRead;
import taxiomet.charter.Problem;
import taxiomet.charter.Severity;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.CheckResult.TableResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.Finding.Reason;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.CellChanges;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectCount;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.LinkActions;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.TableChange;
import taxiomet.finding.RehearsalResult.TableCount;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.reports.json.Provenance;
import taxiomet.vet.Judgement;
import taxiomet.vet.LinkGraph;
import taxiomet.vet.VetResult;

/** Results as no check came to them: every kind of finding, and cells that are wide, long, hidden, or turn a line round. */
final class MadeUp {
    private static final String LONG_KEY = "cc2ff992-7e0b-4e3c-9a51-0d8a4d3f1b27";

    private MadeUp() {}

    private static Evidence row(long row, long group, String problem, Hint hint, String... cells) {
        return new Evidence(
                "hives.csv",
                row,
                row + 1,
                Arrays.asList(cells),
                group,
                problem,
                Optional.ofNullable(hint),
                List.of(),
                "");
    }

    private static TableResult table(String name, long rows, long faulty, List<String> columns) {
        return new TableResult(
                name,
                List.of(name + "s.csv"),
                columns,
                columns.subList(0, 1),
                Optional.empty(),
                columns.size() > 1 ? columns.subList(1, 2) : List.of(),
                Optional.empty(),
                Optional.empty(),
                rows,
                name.equals("hive") ? 1 : 0,
                faulty,
                name.equals("hive") ? 2 : 0,
                name.equals("hive") ? List.of(new Remark("encoding", "read as windows-1252")) : List.of());
    }

    private static Finding finding(
            FindingKind kind, String at, List<String> columns, long rows, Finding.Details details, Evidence... rowsOf) {
        List<Evidence> examples = List.of(rowsOf);
        return new Finding(
                kind,
                kind.severity(Severity.ERROR),
                "hive",
                at,
                columns,
                rows,
                details,
                examples,
                (most, reader) -> examples.stream().limit(most).forEach(reader));
    }

    /** Every kind of finding. */
    static CheckResult check() {
        List<Finding> findings = new ArrayList<>();
        findings.add(new Finding(
                FindingKind.RULE_NOT_READ,
                Severity.ERROR,
                "",
                "visit_check",
                List.of(),
                0,
                new Finding.Undeclared("rule", "CHECK (odd(year))", "there is no function odd", "schema.sql:3:14"),
                List.of(),
                (most, all) -> {}));
        findings.add(finding(
                FindingKind.MALFORMED_ROW,
                "hive",
                List.of(),
                1,
                new Finding.Reasons("", List.of(new Reason("5 fields where the header has 4", 1))),
                new Evidence(
                        "hives.csv",
                        9,
                        10,
                        List.of(),
                        0,
                        "5 fields where the header has 4",
                        Optional.empty(),
                        List.of(),
                        "H-9,\"Fox\tglove\u001B[31m\",A1,7,8 " + "x".repeat(400))));
        findings.add(finding(
                FindingKind.TYPE_MISMATCH,
                "frames",
                List.of("frames"),
                1_234,
                new Finding.Reasons(
                        "", List.of(new Reason("not a whole number", 1_233), new Reason("out of the range", 1))),
                row(3, 0, "not a whole number", null, "H-3", "Foxglove 4", "A1", "l7"),
                row(4, 0, "out of the range", null, "H-4", "名前はまだない", "A1", "99999999999")));
        findings.add(finding(
                FindingKind.NULL_IN_KEY,
                "primary_key",
                List.of("hive_id"),
                1,
                new Finding.Reasons("", List.of()),
                row(5, 0, "null in hive_id", null, null, "null", "A1", "")));
        findings.add(finding(
                FindingKind.DUPLICATE,
                "primary_key",
                List.of("hive_id"),
                2,
                new Finding.Duplicates(1, 1),
                row(6, 1, "", null, LONG_KEY, "one", "A1", "7"),
                row(7, 1, "not as the first: name", null, LONG_KEY, "another", "A1", "7")));
        Hint hint = new Hint(Hint.Kind.OTHER_CASE, List.of(List.of("A1")));
        findings.add(finding(
                FindingKind.ORPHAN,
                "hive_apiary",
                List.of("apiary_id"),
                4,
                new Finding.Missing(
                        "hive_apiary",
                        3,
                        List.of(
                                new MissingValue(List.of("a1"), 2, Optional.of(hint)),
                                new MissingValue(List.of(""), 1, Optional.empty()),
                                new MissingValue(List.of("x\u202Ey\u001B[31m"), 1, Optional.empty())),
                        List.of(new Finding.Consequence(FindingKind.MALFORMED_ROW, "apiary", 2))),
                row(8, 0, "", hint, "H-8", "\u05D3\u05D1\u05E9 (honey)", "a1", "1"),
                row(10, 0, "", null, "H-10", " blank at an end ", "", "1"),
                row(11, 0, "", null, "H-11", "two\nlines", "x\u202Ey\u001B[31m", "1")));
        findings.add(new Finding(
                FindingKind.TOO_FEW_CHILDREN,
                Severity.WARNING,
                "apiary",
                "hive_apiary",
                List.of("apiary_id"),
                1,
                new Finding.Children("hive", "hive_apiary", "1.."),
                List.of(new Evidence(
                        "apiarys.csv", 2, 3, List.of("A2"), 0, "0 children", Optional.empty(), List.of(), "")),
                (most, all) -> {}));
        findings.add(finding(
                FindingKind.OWN_ANCESTOR,
                "hive_mother",
                List.of("frames"),
                1,
                new Finding.Rings(1),
                row(12, 1, "", null, "H-12", "itself", "A1", "12")));
        findings.add(finding(
                FindingKind.BROKEN_RULE,
                "few",
                List.of("frames"),
                1,
                new Finding.Broken("frames < 12", List.of(new Reason(Finding.Broken.FALSE, 1))),
                row(13, 0, Finding.Broken.FALSE, null, "H-13", "x".repeat(90), "A1", "13")));
        findings.add(finding(
                FindingKind.VALUE_NOT_ALLOWED,
                "apiary_id",
                List.of("apiary_id"),
                1,
                new Finding.Reasons("one of A1, A2", List.of(new Reason("not among the values allowed", 1))),
                row(14, 0, "not among the values allowed", null, "H-14", "y", "B7", "1")));
        findings.add(finding(
                FindingKind.GAP_IN_KEY,
                "hive_id",
                List.of("hive_id"),
                0,
                new Finding.Gaps(2, 4, List.of(new Finding.Gap(3, 3), new Finding.Gap(7, 9)))));
        CheckResult result = new CheckResult(
                "Merrow Vale",
                List.of(
                        table("hive", 12_345, 1_240, List.of("hive_id", "name", "apiary_id", "frames")),
                        table("apiary", 2, 1, List.of("apiary_id")),
                        table("keeper", 40, 0, List.of("keeper_id"))),
                List.of(new LinkResult(
                        "hive_apiary",
                        "hive",
                        List.of("apiary_id"),
                        "apiary",
                        List.of("apiary_id"),
                        "simple",
                        true,
                        12_344,
                        12_340,
                        4,
                        0,
                        1,
                        4,
                        Optional.of(new ChildrenTally(2, 1, 0, 0, 12_336, 12_336)))),
                List.of(new RuleResult("hive", "few", "frames < 12", false, false, 12_000, 344, 1, 1)),
                findings);
        return result.with(causes());
    }

    private static Cause cause(
            Cause.What what,
            List<String> values,
            List<String> meant,
            Hint.Kind hint,
            long count,
            List<String> differsIn,
            Cause.Cure... cures) {
        boolean isOfParent = what == Cause.What.ENTER_PARENT;
        return new Cause(
                what,
                cures[0].kind(),
                isOfParent ? "apiary" : "hive",
                isOfParent ? "primary_key" : cures[0].at(),
                List.of(what == Cause.What.KEEP_ONE ? "hive_id" : "apiary_id"),
                values,
                meant,
                Optional.ofNullable(hint),
                "apiary",
                count,
                what == Cause.What.MEND_ROW || what == Cause.What.KEEP_ONE
                        ? Optional.of(new Cause.Place("hives.csv", 17, false))
                        : Optional.empty(),
                differsIn,
                List.of(cures));
    }

    /** One of each kind, with values that mean no good. */
    private static List<Cause> causes() {
        Cause.Cure orphans = new Cause.Cure(FindingKind.ORPHAN, "hive", "hive_apiary", 1_234);
        Cause.Cure one = new Cause.Cure(FindingKind.ORPHAN, "hive", "hive_apiary", 1);
        Cause.Cure twice = new Cause.Cure(FindingKind.DUPLICATE, "hive", "primary_key", 2);
        Cause.Cure malformed = new Cause.Cure(FindingKind.MALFORMED_ROW, "hive", "hive", 1);
        return List.of(
                cause(Cause.What.ENTER_PARENT, List.of("77"), List.of(), null, 0, List.of(), orphans, one),
                cause(Cause.What.RESPELL, List.of(), List.of(), Hint.Kind.OTHER_CASE, 41, List.of(), orphans),
                cause(Cause.What.RESPELL, List.of("a'b "), List.of("a'b"), Hint.Kind.TRIMMED, 1, List.of(), one),
                cause(Cause.What.EMPTY, List.of("0"), List.of(), Hint.Kind.STANDS_FOR_NOTHING, 1, List.of(), one),
                cause(
                        Cause.What.KEEP_ONE,
                        List.of("$(reboot)\u202E\u001B[31m"),
                        List.of(),
                        null,
                        3,
                        List.of("name", "frames", "kind", "set_up_on"),
                        twice),
                cause(Cause.What.MEND_ROW, List.of(), List.of(), null, 0, List.of(), malformed, orphans),
                cause(Cause.What.MEND_EACH, List.of(), List.of(), null, 0, List.of(), orphans));
    }

    private static RowName name(String table, String... key) {
        Map<String, String> cells = new LinkedHashMap<>();
        for (int i = 0; i < key.length; i++) {
            cells.put(table + "_" + "abc".charAt(i), key[i]);
        }
        return new RowName(table, table + "s.csv", 7, 8, cells, Map.of("name", "Foxglove 4"));
    }

    private static CellChanges cells(String column, String before, String after) {
        Map<String, String> was = new LinkedHashMap<>();
        Map<String, String> is = new LinkedHashMap<>();
        was.put(column, before);
        is.put(column, after);
        return new CellChanges(was, is);
    }

    private static EffectCount effect(String table, EffectKind kind, String link, int steps, long rows, String... key) {
        CellChanges values = cells("keeper_id", "K-005", kind == EffectKind.DELETED ? null : "K-012");
        return new EffectCount(
                table,
                kind,
                Optional.ofNullable(link),
                steps,
                steps,
                rows,
                rows,
                List.of(name(table, key)),
                List.of(values));
    }

    /** A change that is accepted, one that is blocked, and one that meets nothing. */
    static RehearsalResult rehearsal() {
        TotalSum owed = new TotalSum("payout", "amount", new BigDecimal("1234.50"), "deleted", 3);
        ChangeResult accepted = new ChangeResult(
                "DELETE FROM keeper WHERE keeper_id = 'K-005'",
                "-e 1",
                true,
                1,
                false,
                List.of(new TableCount("keeper", 1, 0, 0), new TableCount("payout", 3, 0, 0)),
                List.of(
                        effect("keeper", EffectKind.DELETED, null, 0, 1, "K-005"),
                        effect("payout", EffectKind.DELETED, "payout_keeper", 1, 3, "P-1"),
                        effect("apiary", EffectKind.REPOINTED, "apiary_keeper", 1, 2, LONG_KEY, "2024-09-02")),
                List.of(owed),
                List.of(),
                0,
                1);
        ChangeResult blocked = new ChangeResult(
                "UPDATE apiary SET apiary_id = 'A9' WHERE name = 'two\nlines' AND opened_on < DATE '2019-01-01' AND keeper"
                        + "_id IS NOT NULL",
                "changes.sql:4",
                false,
                2,
                false,
                List.of(new TableCount("apiary", 0, 2, 0)),
                List.of(effect("apiary", EffectKind.CHANGED, null, 0, 2, "A1")),
                List.of(),
                List.of(new RefusalResult(
                        RefusalKind.STILL_REFERENCED,
                        "hive",
                        "hive_apiary",
                        12,
                        List.of(name("hive", "H-1"), name("hive", "H-\u202E2")),
                        List.of(owed),
                        true,
                        "point the rows elsewhere first")),
                1,
                0);
        ChangeResult idle = new ChangeResult(
                "DELETE FROM hive WHERE hive_id = 'H-44'",
                "-e 3",
                true,
                0,
                true,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                0,
                0);
        return new RehearsalResult(
                "Merrow Vale",
                "postgresql",
                "2026-05-01T12:00:00Z",
                List.of(new LinkActions("hive_apiary", "hive", "apiary", "restrict", "cascade", true)),
                List.of(accepted, blocked, idle),
                List.of(),
                false,
                List.of(new TableChange("keeper", 40, 39, 1, 0, 0), new TableChange("apiary", 25, 25, 0, 2, 0)),
                List.of(new FindingChange(
                        FindingKind.ORPHAN, "visit", "visit_keeper", 2, List.of(name("visit", "V-1")))),
                List.of(new FindingChange(
                        FindingKind.DUPLICATE, "keeper", "keeper_mail", 1, List.of(name("keeper", "K-005")))),
                List.of(new Divergence("MariaDB", "refuses change 1", 4, List.of(name("payout", "P-1")))),
                List.of(new NotRead(
                        NotRead.What.RULE,
                        Optional.of("visit"),
                        "visit_check",
                        "CHECK (odd(year))",
                        "there is no function odd",
                        "schema.sql:3:14",
                        Severity.ERROR)));
    }

    static final Provenance PROVENANCE =
            new Provenance("taxiomet 0.0", Instant.parse("2026-05-01T12:00:00Z"), "rules/charter.yaml");

    /** One judgement of each severity. */
    static VetResult vet() {
        List<String> path = List.of("tables", "hive", "foreign_keys", "hive_apiary");
        return new VetResult(
                "Merrow Vale",
                3,
                List.of(
                        new Judgement(
                                Judgement.Kind.POINTS_AT_NO_KEY,
                                Severity.ERROR,
                                path,
                                "it points at (name), which is neither a primary nor a unique key of apiary",
                                "declare a unique key over it, or point at another"),
                        new Judgement(
                                Judgement.Kind.NUMBER_AS_TEXT,
                                Severity.WARNING,
                                List.of("tables", "apiary", "columns", "place\u202E"),
                                "its type is text",
                                "")),
                List.of(new Problem("schema.sql", 0, 0, Problem.Kind.MEANING, "2 statements were passed over", "")),
                List.of(new VetResult.LinkMeaning(
                        "hive", "hive_apiary", "apiary", "each row of hive points at exactly one row of apiary")),
                List.of(new LinkGraph.ManyToMany("visit", "treatment", "visit_treatment")),
                List.of(List.of("keeper", "treatment"), List.of("apiary"), List.of("hive")),
                Optional.of(new VetResult.Around(
                        "apiary",
                        List.of(new VetResult.Neighbour("hive", 1), new VetResult.Neighbour("visit", 2)),
                        List.of(new VetResult.Neighbour("keeper", 1)),
                        List.of())));
    }
}
