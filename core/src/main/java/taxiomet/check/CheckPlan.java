package taxiomet.check;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.alike.AlikeKinds;
import taxiomet.check.column.ColumnKinds;
import taxiomet.check.key.KeyIndexes;
import taxiomet.check.key.KeyKinds;
import taxiomet.check.link.LinkKinds;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.ParentsFirst;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.StateExchange;
import taxiomet.check.rule.RuleKinds;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Finding;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/** All kinds of checks, and what a charter asks of them. A new kind is one more line in the list. */
final class CheckPlan implements AutoCloseable {
    private final Charter charter;
    private final Plan plan;
    private final KeyIndexes indexes;
    private final MalformedRows malformed;
    private final RuleKinds rules;
    private final LinkKinds links;
    private final AlikeKinds alike;
    private final List<Kind> kinds;

    CheckPlan(Charter charter, CheckOptions options, SpillFolder spill, RunContext context) {
        this.charter = charter;
        this.plan = new Plan(charter, options, spill, context);
        this.indexes = new KeyIndexes(plan);
        this.malformed = new MalformedRows(plan);
        this.rules = new RuleKinds(plan);
        this.links = new LinkKinds(plan, indexes);
        this.alike = new AlikeKinds(plan);
        this.kinds = List.of(
                malformed,
                new RulesNotRead(plan),
                new ColumnKinds(plan),
                new KeyKinds(plan, indexes),
                rules,
                links,
                alike);
        for (Kind kind : kinds) {
            charter.tables().stream()
                    .filter(table -> options.judges(table.name()))
                    .forEach(kind::plan);
        }
    }

    /** What the kinds have planned. */
    Plan plan() {
        return plan;
    }

    /** Has keys kept so that they can be handed over: no link is answered before all are there. */
    void keepKeysApart() {
        indexes.keepApart();
    }

    /** Hands over, or takes in, all that is known of a table's rows. */
    void exchange(Table table, StateExchange state) {
        plan.checksOf(table).forEach(check -> check.exchange(state));
        plan.logs().stream().filter(log -> log.table().equals(table.name())).forEach(state::log);
    }

    /** The tables to be read, parents before children where circles allow it, otherwise as declared. */
    List<Table> order() {
        List<String> names = charter.tables().stream()
                .map(Table::name)
                .filter(plan.tables()::contains)
                .toList();
        return ParentsFirst.order(
                        names,
                        name -> charter.table(name).links().stream()
                                .map(ForeignKey::parent)
                                .toList())
                .stream()
                .map(charter::table)
                .toList();
    }

    /** Where malformed rows of a table are logged; empty when the table is read for its keys alone. */
    Optional<FaultLog> malformedOf(Table table) {
        return malformed.of(table);
    }

    /** What the kinds say that is behind no row. */
    List<Finding> findingsWithoutRows() {
        return kinds.stream()
                .flatMap(kind -> kind.findingsWithoutRows().stream())
                .toList();
    }

    List<LinkResult> linkResults() {
        return links.results();
    }

    List<RuleResult> ruleResults() {
        return rules.results();
    }

    List<Remark> remarks(Table table) {
        return Stream.concat(rules.remarks(table).stream(), alike.remarks(table).stream())
                .toList();
    }

    @Override
    public void close() {
        plan.close();
    }
}
