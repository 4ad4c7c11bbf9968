package taxiomet.personal;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.finding.RehearsalResult;
import taxiomet.finding.RehearsalResult.CellChanges;
import taxiomet.finding.RehearsalResult.ChangeResult;
import taxiomet.finding.RehearsalResult.Divergence;
import taxiomet.finding.RehearsalResult.EffectCount;
import taxiomet.finding.RehearsalResult.EffectRow;
import taxiomet.finding.RehearsalResult.FindingChange;
import taxiomet.finding.RehearsalResult.RefusalResult;
import taxiomet.finding.RehearsalResult.RowName;
import taxiomet.finding.RehearsalResult.TotalSum;
import taxiomet.finding.RehearsalResult.Ways;

/** What a rehearsal comes to, told without the values of personal columns. */
public final class VeiledRehearsal {
    private final Pseudonyms pseudonyms;

    public VeiledRehearsal(Pseudonyms pseudonyms) {
        this.pseudonyms = pseudonyms;
    }

    /**
     * The same result, with pseudonyms in place of values.
     *
     * @param words of each change, as {@link VeiledWords} gives them
     */
    public RehearsalResult of(RehearsalResult result, List<String> words) {
        List<ChangeResult> changes = new ArrayList<>();
        for (int i = 0; i < words.size(); i++) {
            changes.add(of(result.changes().get(i), words.get(i)));
        }
        return new RehearsalResult(
                result.title(),
                result.behaviour(),
                result.now(),
                result.links(),
                changes,
                result.atEnd().stream().map(this::of).toList(),
                result.isUndone(),
                result.tables(),
                result.added().stream().map(this::of).toList(),
                result.mended().stream().map(this::of).toList(),
                result.elsewhere().stream()
                        .map(each -> new Divergence(each.where(), each.words(), each.rows(), names(each.examples())))
                        .toList(),
                result.notRead());
    }

    private ChangeResult of(ChangeResult change, String words) {
        return new ChangeResult(
                words,
                change.place(),
                change.isAccepted(),
                change.direct(),
                change.isIdle(),
                change.tables(),
                change.effects().stream()
                        .map(effect -> new EffectCount(
                                effect.table(),
                                effect.kind(),
                                effect.link(),
                                effect.steps(),
                                effect.farthest(),
                                effect.rows(),
                                effect.writes(),
                                names(effect.examples()),
                                effect.values().stream()
                                        .map(cells -> of(effect.table(), cells))
                                        .toList()))
                        .toList(),
                shown(change.totals()),
                change.refusals().stream().map(this::of).toList(),
                change.passesAfter(),
                change.keptByTwins());
    }

    private RefusalResult of(RefusalResult refusal) {
        return new RefusalResult(
                refusal.kind(),
                refusal.table(),
                refusal.at(),
                refusal.rows(),
                names(refusal.examples()),
                shown(refusal.totals()),
                refusal.isOfKey(),
                refusal.remedy());
    }

    /** Sums over personal columns are left out: over one row they would be its value. */
    private List<TotalSum> shown(List<TotalSum> sums) {
        Charter told = pseudonyms.charter();
        return sums.stream()
                .filter(sum -> told.table(sum.table()).totals().stream()
                        .filter(total -> total.text().equals(sum.text()))
                        .noneMatch(total -> told.readsPersonal(told.table(sum.table()), total.value())))
                .toList();
    }

    private FindingChange of(FindingChange change) {
        return new FindingChange(change.kind(), change.table(), change.at(), change.rows(), names(change.examples()));
    }

    private List<RowName> names(List<RowName> names) {
        return names.stream().map(this::of).toList();
    }

    /** How a row is called. */
    public RowName of(RowName row) {
        return new RowName(
                row.table(),
                row.part(),
                row.row(),
                row.line(),
                of(row.table(), row.key()),
                of(row.table(), row.label()));
    }

    /** One effect. */
    public EffectRow of(EffectRow effect) {
        return new EffectRow(
                effect.change(),
                effect.isAccepted(),
                of(effect.row()),
                effect.kind(),
                effect.link(),
                effect.steps(),
                effect.by().map(this::of),
                of(effect.row().table(), effect.values()),
                effect.refusal());
    }

    /** Why a row is touched. */
    public Ways of(Ways ways) {
        return new Ways(
                ways.ways().stream()
                        .map(way -> way.stream().map(this::of).toList())
                        .toList(),
                ways.inTheWay().stream().map(this::of).toList());
    }

    private CellChanges of(String table, CellChanges cells) {
        return new CellChanges(of(table, cells.before()), of(table, cells.after()));
    }

    private Map<String, String> of(String table, Map<String, String> cells) {
        Map<String, String> veiled = new LinkedHashMap<>();
        cells.forEach((column, cell) -> veiled.put(column, pseudonyms.of(table, column, cell)));
        return veiled;
    }
}
