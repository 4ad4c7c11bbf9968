package taxiomet.check.link;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Table;
import taxiomet.check.key.KeyIndexes;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.Kind;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.check.pass.Telling;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.keys.KeyForm;

/** What links declare: that there is a parent, how many children it may have, that no row is its own ancestor. */
public final class LinkKinds implements Kind {
    private final Plan plan;
    private final KeyIndexes indexes;
    private final List<PlannedLink> links = new ArrayList<>();

    private record PlannedLink(ForeignKey link, LinkCheck check, Optional<ChildrenCheck> children) {}

    /** @param indexes have the keys that links point at */
    public LinkKinds(Plan plan, KeyIndexes indexes) {
        this.plan = plan;
        this.indexes = indexes;
    }

    @Override
    public void plan(Table table) {
        table.links().forEach(this::plan);
    }

    private void plan(ForeignKey link) {
        Table child = plan.charter().table(link.child());
        Table parent = plan.charter().table(link.parent());
        LinkEnds ends = new LinkEnds(link, child, parent, KeyForm.of(child, parent, link), plan.secret());
        LinkCheck check = planParents(ends);
        if (link.isAcyclic()) {
            planRings(ends);
        }
        links.add(new PlannedLink(link, check, link.children().map(range -> planChildren(ends, range))));
        plan.await(child, parent.name());
    }

    private LinkCheck planParents(LinkEnds ends) {
        ForeignKey link = ends.link();
        Optional<PartialParents> parts = Optional.empty();
        if (link.match() == Match.PARTIAL && link.columns().size() > 1) {
            parts = Optional.of(new PartialParents(plan.spill(), ends.ofParent()));
            plan.look(ends.parent(), parts.get());
        }
        FaultLog missing = log(FindingKind.ORPHAN, ends);
        LinkCheck check = new LinkCheck(
                plan.spill(),
                ends,
                indexes.pointedAt(ends.parent(), link.parentColumns(), ends.forms()),
                () -> areUsualNumbers(ends),
                parts,
                missing,
                log(FindingKind.HALF_NULL_LINK, ends),
                plan.options().namedOrHinted());
        missing.tellAs(new OrphansTold(plan, link, missing, check));
        plan.look(ends.child(), check);
        plan.conclude(check);
        return check;
    }

    private FaultLog log(FindingKind kind, LinkEnds ends) {
        return plan.log(
                kind,
                ends.link().severity(),
                ends.child(),
                ends.link().name(),
                ends.link().columns());
    }

    private void planRings(LinkEnds ends) {
        FaultLog ancestors = log(FindingKind.OWN_ANCESTOR, ends);
        AcyclicCheck check = new AcyclicCheck(
                plan.spill(), plan.budget(), ends.ofParent(), ends.ofChild(), ends.filter(), ancestors);
        ancestors.tellAs(new RingsTold(check));
        plan.look(ends.child(), check);
        plan.conclude(check);
    }

    private ChildrenCheck planChildren(LinkEnds ends, IntRange range) {
        ChildrenCheck check = new ChildrenCheck(
                plan.spill(),
                range,
                childrenLog(FindingKind.TOO_FEW_CHILDREN, ends),
                childrenLog(FindingKind.TOO_MANY_CHILDREN, ends));
        plan.look(ends.parent(), check.parentSide(ends.ofParent()));
        plan.look(ends.child(), check.childSide(ends.ofChild(), ends.filter()));
        plan.conclude(check);
        return check;
    }

    private FaultLog childrenLog(FindingKind kind, LinkEnds ends) {
        FaultLog log = plan.log(
                kind,
                ends.link().severity(),
                ends.parent(),
                ends.link().name(),
                ends.link().parentColumns());
        log.tellAs(new CountsTold(ends.link()));
        return log;
    }

    /** Whether the parent's columns hold whole numbers alone, compared as such, and all of their values are written as usual. */
    private boolean areUsualNumbers(LinkEnds ends) {
        List<String> columns = ends.link().parentColumns();
        for (int i = 0; i < columns.size(); i++) {
            String column = columns.get(i);
            Name type = ends.parent().column(column).type().name();
            boolean isWhole = type == Name.SMALLINT || type == Name.INTEGER || type == Name.BIGINT;
            if (!isWhole
                    || ends.forms().get(i).family() != Family.EXACT_NUMBER
                    || !isSpelledAsUsual(ends.parent(), column)) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is known that every value of a column is of its type, and none oddly written. */
    private boolean isSpelledAsUsual(Table table, String column) {
        List<FaultLog> spelling = plan.logs().stream()
                .filter(log -> log.kind() == FindingKind.ODD_SPELLING || log.kind() == FindingKind.TYPE_MISMATCH)
                .filter(log -> log.table().equals(table.name()) && log.at().equals(column))
                .toList();
        return !spelling.isEmpty() && spelling.stream().allMatch(log -> log.size() == 0);
    }

    private record RingsTold(AcyclicCheck check) implements Telling {
        @Override
        public Finding.Details details() {
            return new Finding.Rings(check.rings());
        }

        @Override
        public Evidence evidence(FoundRow row, long group) {
            return row.evidence(group, "", List.of());
        }
    }

    private record CountsTold(ForeignKey link) implements Telling {
        @Override
        public Finding.Details details() {
            return new Finding.Children(
                    link.child(), link.name(), link.children().orElseThrow().toString());
        }

        @Override
        public Evidence evidence(FoundRow row, long count) {
            return row.evidence(count + (count == 1 ? " child" : " children"));
        }
    }

    /** How many rows were judged over each link, as declared. */
    public List<LinkResult> results() {
        return links.stream().map(LinkKinds::result).toList();
    }

    private static LinkResult result(PlannedLink planned) {
        ForeignKey link = planned.link();
        LinkCheck check = planned.check();
        return new LinkResult(
                link.name(),
                link.child(),
                link.columns(),
                link.parent(),
                link.parentColumns(),
                link.match().name().toLowerCase(Locale.ROOT),
                link.isEnforced(),
                check.rows(),
                check.judged(),
                check.nulls(),
                check.halfNulls(),
                check.illTyped(),
                check.orphans().size(),
                planned.children().map(ChildrenCheck::tally));
    }
}
