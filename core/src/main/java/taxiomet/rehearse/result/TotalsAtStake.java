package taxiomet.rehearse.result;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Total;
import taxiomet.expression.Evaluator;
import taxiomet.finding.RefusalKind;
import taxiomet.finding.RehearsalResult.EffectKind;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowGatherer;
import taxiomet.rehearse.reach.RowLeaves;
import taxiomet.rehearse.replay.Refusals;

/** What the totals of a table come to over rows at stake. Values of parents are those before the proposal: it may take the parents away. */
final class TotalsAtStake {
    private final RowGatherer gatherer;

    /** @param gatherer reads the parents that totals ask for */
    TotalsAtStake(RowGatherer gatherer) {
        this.gatherer = gatherer;
    }

    /** Sums over rows that would disappear, or lose what they point at; each row once. */
    List<TotalSum> of(List<Effect> effects) {
        Map<ReachedTable, Map<EffectKind, Set<ReachedRow>>> atStake = new LinkedHashMap<>();
        for (Effect effect : effects) {
            boolean isAtStake = effect.kind() == EffectKind.DELETED
                    || effect.kind() == EffectKind.EMPTIED
                    || effect.kind() == EffectKind.DEFAULTED;
            if (isAtStake && !effect.row().table.table().totals().isEmpty()) {
                atStake.computeIfAbsent(effect.row().table, table -> new LinkedHashMap<>())
                        .computeIfAbsent(effect.kind(), kind -> new HashSet<>())
                        .add(effect.row());
            }
        }
        List<TotalSum> sums = new ArrayList<>();
        atStake.forEach((table, kinds) -> kinds.forEach((kind, some) -> sums.addAll(sums(table, some, kind.words()))));
        return sums;
    }

    /** Sums over rows that would lose what they point at. */
    List<TotalSum> owed(Refusals.Rule rule, Set<ReachedRow> refused) {
        return rule.kind() == RefusalKind.STILL_REFERENCED ? sums(rule.table(), refused, "in the way") : List.of();
    }

    private List<TotalSum> sums(ReachedTable table, Set<ReachedRow> some, String rowsAre) {
        return table.table().totals().stream()
                .map(total ->
                        new TotalSum(table.table().name(), total.text(), sum(table, total, some), rowsAre, some.size()))
                .toList();
    }

    private BigDecimal sum(ReachedTable table, Total total, Collection<ReachedRow> some) {
        Map<List<String>, Map<ReachedRow, ReachedRow>> ancestors = new HashMap<>();
        for (ParentValue value : total.value().parentsRead()) {
            ancestors.computeIfAbsent(value.links(), links -> ancestors(table.way(links), some));
        }
        Evaluator evaluator = new Evaluator();
        BigDecimal sum = BigDecimal.ZERO;
        for (ReachedRow row : some) {
            RowLeaves own = new RowLeaves(table, row.values);
            sum = sum.add(evaluator.numberToAdd(
                    total.value(),
                    leaf -> leaf instanceof ParentValue above
                            ? value(above, ancestors.get(above.links()).get(row))
                            : own.value(leaf)));
        }
        return sum;
    }

    private static Object value(ParentValue above, ReachedRow ancestor) {
        if (ancestor == null) {
            return null;
        }
        ReachedTable table = ancestor.table;
        return table.codec(above.column()).operand(before(ancestor)[table.slotOf(above.column())]);
    }

    /** A row's values before the proposal; of one that it makes, those made. */
    private static Object[] before(ReachedRow row) {
        return row.isNew() ? row.values : row.original;
    }

    /** The row to which links lead from each of some rows, the first where several have its key; none for rows without one. */
    private Map<ReachedRow, ReachedRow> ancestors(List<ReachedLink> way, Collection<ReachedRow> some) {
        Map<ReachedRow, ReachedRow> at = new HashMap<>();
        some.forEach(row -> at.put(row, row));
        for (ReachedLink link : way) {
            for (ReachedRow row : at.values()) {
                Object key = link.children.keyOf(before(row));
                if (key != null) {
                    link.parent.want(link.parents, key);
                }
            }
            gatherer.gather();
            Map<Object, ReachedRow> parents = new HashMap<>();
            for (ReachedRow parent : link.parent.rows.inOrder()) {
                parents.putIfAbsent(link.parents.keyOf(before(parent)), parent);
            }
            link.parent.madeRows().forEach(parent -> parents.putIfAbsent(link.parents.keyOf(parent.values), parent));
            parents.remove(null);
            at.replaceAll((row, last) -> parents.get(link.children.keyOf(before(last))));
            at.values().removeIf(parent -> parent == null);
        }
        return at;
    }
}
