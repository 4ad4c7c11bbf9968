package taxiomet.testing;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression;
import taxiomet.charter.Server;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.InsertedRow;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.proposal.Proposal;
import taxiomet.proposal.Proposal.Deferral;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;

/** What changes to the tables of a test come to. */
public final class Rehearsed {
    public static final Instant NOW = Instant.parse("2026-05-01T10:20:30Z");

    private final RehearsalResult result;
    private final Map<String, List<String>> after = new LinkedHashMap<>();
    private final List<String> effects = new ArrayList<>();

    private Rehearsed(TestTables tables, Server behaviour, Proposal proposal) {
        RehearsalOptions options =
                new RehearsalOptions(behaviour, 100, false, true, RehearsalOptions.USUALLY_NEAR, false);
        try (Rehearsal rehearsal = start(tables, tables.charter(), proposal, options)) {
            result = rehearsal.result();
            tables.charter()
                    .tables()
                    .forEach(table -> after.put(table.name(), MemorySource.rowsOf(rehearsal.after(table.name()))));
            rehearsal
                    .effects()
                    .forEach(effect -> effects.add(effect.row().table() + " "
                            + String.join(",", effect.row().key().values()) + " "
                            + effect.kind().words()
                            + effect.link().map(link -> " by " + link).orElse("")));
        }
    }

    /** A rehearsal of the tables of a test, whose caller closes it. */
    public static Rehearsal start(TestTables tables, Charter charter, Proposal proposal, RehearsalOptions options) {
        return Rehearsal.start(
                charter, proposal, options, table -> tables.table(table.name()).source(), tables.context());
    }

    /** Changes one after the other, each for itself. */
    public static Proposal inTurn(Change... changes) {
        return new Proposal(List.of(changes), false, Deferral.DECLARED, NOW);
    }

    public static Rehearsed as(Server behaviour, TestTables tables, Change... changes) {
        return as(behaviour, Deferral.DECLARED, tables, changes);
    }

    public static Rehearsed as(Server behaviour, Deferral deferral, TestTables tables, Change... changes) {
        return new Rehearsed(tables, behaviour, new Proposal(List.of(changes), false, deferral, NOW));
    }

    public static Rehearsed allOrNothing(Server behaviour, TestTables tables, Change... changes) {
        return new Rehearsed(tables, behaviour, new Proposal(List.of(changes), true, Deferral.DECLARED, NOW));
    }

    public RehearsalResult result() {
        return result;
    }

    /** The rows of a table as they would be, cells with bars between them. */
    public List<String> rows(String table) {
        return after.get(table);
    }

    /** All effects in their order, such as {@code hive 3 deleted by hive_apiary}. */
    public List<String> effects() {
        return effects;
    }

    /** For each change {@code accepted}, or {@code blocked:} and each rule that refuses with the keys of its rows. */
    public List<String> answers() {
        List<String> answers = new ArrayList<>();
        for (ChangeResult change : result.changes()) {
            answers.add(change.isAccepted() ? "accepted" : "blocked: " + refusals(change.refusals()));
        }
        if (!result.atEnd().isEmpty()) {
            answers.add("at the end: " + refusals(result.atEnd()));
        }
        return answers;
    }

    private static String refusals(List<RefusalResult> refusals) {
        return refusals.stream()
                .map(refusal -> refusal.kind().words() + " at " + refusal.table() + "." + refusal.at()
                        + refusal.examples().stream()
                                .map(row -> " " + String.join(",", row.key().values()))
                                .collect(Collectors.joining()))
                .collect(Collectors.joining("; "));
    }

    /** The findings added, then those mended: {@code +orphan at c.l 1}, {@code -duplicate at t.k 2}. */
    public List<String> findingChanges() {
        List<String> changes = new ArrayList<>();
        result.added()
                .forEach(f -> changes.add("+" + f.kind().words() + " at " + f.table() + "." + f.at() + " " + f.rows()));
        result.mended()
                .forEach(f -> changes.add("-" + f.kind().words() + " at " + f.table() + "." + f.at() + " " + f.rows()));
        return changes;
    }

    /** The ways to a row, each {@code table key kind > …}, then what it stands in the way of. */
    public static List<String> ways(
            Server behaviour, TestTables tables, String table, List<String> key, Change... changes) {
        RehearsalOptions options =
                new RehearsalOptions(behaviour, 100, false, false, RehearsalOptions.USUALLY_NEAR, false);
        List<String> ways = new ArrayList<>();
        try (Rehearsal rehearsal = start(tables, tables.charter(), inTurn(changes), options)) {
            RehearsalResult.Ways found = rehearsal.why(table, key);
            found.ways()
                    .forEach(way -> ways.add(way.stream()
                            .map(step -> step.row().table() + " "
                                    + String.join(",", step.row().key().values()) + " "
                                    + step.kind().words())
                            .collect(Collectors.joining(" > "))));
            found.inTheWay()
                    .forEach(row -> ways.add(
                            "change " + row.change() + ": " + row.refusal().orElseThrow()));
        }
        return ways;
    }

    /** Where else the changes would end differently, and how. */
    public static List<String> elsewhere(Server behaviour, TestTables tables, Change... changes) {
        RehearsalOptions options =
                new RehearsalOptions(behaviour, 100, true, false, RehearsalOptions.USUALLY_NEAR, false);
        try (Rehearsal rehearsal = start(tables, tables.charter(), inTurn(changes), options)) {
            return rehearsal.result().elsewhere().stream()
                    .map(divergence -> divergence.where() + " " + divergence.words() + " " + divergence.rows())
                    .toList();
        }
    }

    private static Origin origin(String words) {
        return new Origin(words, "test");
    }

    /** All rows, or those that meet a condition. */
    public static Change delete(String table, Expression... where) {
        return new Change.Delete(origin("delete"), table, Arrays.stream(where).findFirst());
    }

    public static Change update(String table, String column, Expression value, Expression... where) {
        return new Change.Update(
                origin("update"),
                table,
                Map.of(column, new Input.Computed(value)),
                Arrays.stream(where).findFirst());
    }

    public static Change update(String table, Map<String, Input> assignments, Optional<Expression> where) {
        return new Change.Update(origin("update"), table, assignments, where);
    }

    /** @param rows cells with bars between them; {@code NULL} for null, {@code DEFAULT} for the default */
    public static Change insert(String table, List<String> columns, String... rows) {
        List<InsertedRow> inserted = new ArrayList<>();
        for (String row : rows) {
            List<Input> inputs = new ArrayList<>();
            for (String cell : row.split("\\|", -1)) {
                inputs.add(
                        cell.equals("DEFAULT")
                                ? new Input.Default()
                                : new Input.Cell(cell.equals("NULL") ? null : cell));
            }
            inserted.add(new InsertedRow("test", inputs));
        }
        return new Change.Insert(origin("insert"), table, columns, inserted);
    }

    public static Change merge(String table, String goes, String stays) {
        return new Change.Merge(origin("merge"), table, List.of(goes), List.of(stays), true, Map.of());
    }

    /** @param rows keys of the rows that go, cells with bars between them */
    public static Change deleteListed(String table, List<String> columns, String... rows) {
        return new Change.DeleteListed(origin("delete listed"), table, columns, listed(columns.size(), rows));
    }

    /** @param rows keys and behind them new values, cells with bars between them */
    public static Change updateListed(String table, List<String> columns, List<String> newColumns, String... rows) {
        return new Change.UpdateListed(
                origin("update listed"), table, columns, newColumns, listed(columns.size(), rows));
    }

    private static List<Change.ListedRow> listed(int keys, String... rows) {
        List<Change.ListedRow> listed = new ArrayList<>();
        for (String row : rows) {
            List<String> cells = Arrays.asList(row.split("\\|", -1));
            cells.replaceAll(cell -> cell.equals("NULL") ? null : cell);
            List<Input> values = cells.subList(keys, cells.size()).stream()
                    .map(cell -> (Input) new Input.Cell(cell))
                    .toList();
            listed.add(new Change.ListedRow("list", cells.subList(0, keys), values, Optional.empty()));
        }
        return listed;
    }

    public static Change mergeAll(
            String table, String goes, String stays, Map<String, Map<String, Change.Combination>> combine) {
        return new Change.Merge(origin("merge"), table, List.of(goes), List.of(stays), true, combine);
    }

    public static Change renumber(String table, String from, String to) {
        return new Change.Renumber(origin("renumber"), table, List.of(from), List.of(to));
    }
}
