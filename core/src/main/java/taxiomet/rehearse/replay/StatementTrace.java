package taxiomet.rehearse.replay;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.finding.PlannedStatement;
import taxiomet.finding.PlannedStatement.ChildCount;
import taxiomet.finding.PlannedStatement.Kind;
import taxiomet.finding.PlannedStatement.PlannedRow;
import taxiomet.proposal.Change;
import taxiomet.rehearse.reach.Effect;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;

/** Takes down what each statement of a replay did, while the values from before it are still known. */
public final class StatementTrace {
    private final List<PlannedStatement> kept = new ArrayList<>();
    private final List<PlannedStatement> ofChange = new ArrayList<>();

    /** A change begins. */
    void begin() {
        ofChange.clear();
    }

    /** The change that began is accepted. */
    void keep() {
        kept.addAll(ofChange);
        ofChange.clear();
    }

    /** Nothing of the proposal stays. */
    void forget() {
        kept.clear();
    }

    /** The statements of all changes that were accepted, in their order. */
    public List<PlannedStatement> statements() {
        return kept;
    }

    /**
     * A statement is through.
     *
     * @param written for each row that an update names, the values that it gave it
     * @param effects all effects of the statement
     */
    void add(
            Replay replay,
            Change change,
            Kind kind,
            ReachedTable table,
            int[] set,
            Map<ReachedRow, Object[]> written,
            List<Effect> effects) {
        List<PlannedRow> rows = new ArrayList<>();
        Map<ReachedRow, Effect> followers = new LinkedHashMap<>();
        Set<ReachedRow> touched = new LinkedHashSet<>();
        for (Effect effect : effects) {
            ReachedRow row = effect.row();
            touched.add(row);
            if (effect.steps() > 0) {
                followers.putIfAbsent(row, effect);
            } else if (kind == Kind.INSERT) {
                rows.add(planned(row, List.of(), row.values));
            } else if (kind == Kind.DELETE) {
                rows.add(planned(row, cells(table, replay.valuesAtStart(row)), null));
            }
        }
        written.forEach((row, values) -> rows.add(planned(row, cells(table, replay.valuesAtStart(row)), values)));
        Set<ReachedRow> named = new HashSet<>(written.keySet());
        effects.stream().filter(effect -> effect.steps() == 0).forEach(effect -> named.add(effect.row()));
        List<PlannedRow> planned = new ArrayList<>();
        for (ReachedRow row : followers.keySet()) {
            if (!named.contains(row)) {
                planned.add(planned(row, cells(row.table, replay.valuesAtStart(row)), row.isGone ? null : row.values));
            }
        }
        ofChange.add(new PlannedStatement(
                change.origin().words(),
                kind,
                table.table().name(),
                Arrays.stream(set)
                        .mapToObj(column -> table.column(column).name())
                        .toList(),
                rows,
                planned,
                kind == Kind.INSERT ? List.of() : counts(replay, touched)));
    }

    /** @param after null for a row that goes */
    private static PlannedRow planned(ReachedRow row, List<String> before, Object[] after) {
        return new PlannedRow(
                row.table.table().name(),
                before,
                after == null ? List.of() : cells(row.table, after),
                row.isGone ? List.of() : cells(row.table, row.values));
    }

    private static List<String> cells(ReachedTable table, Object[] values) {
        List<String> cells = new ArrayList<>();
        for (int column = 0; column < table.width(); column++) {
            cells.add(table.codec(column).writeSql(values[table.slotOf(column)]));
        }
        return cells;
    }

    /** For each link whose actions ran, the keys that went and how many rows pointed at them. */
    private static List<ChildCount> counts(Replay replay, Set<ReachedRow> touched) {
        Map<ReachedLink, Map<Object, List<String>>> gone = new LinkedHashMap<>();
        for (ReachedRow row : touched) {
            Object[] before = replay.valuesAtStart(row);
            for (ReachedLink link : row.table.linksIn) {
                Object key = link.parents.keyOf(before);
                boolean isGone = row.isGone || (key != null && !key.equals(link.parents.keyOf(row.values)));
                if (key != null && isGone && link.link.isEnforced()) {
                    List<String> parts = new ArrayList<>();
                    for (int column : link.parentColumns) {
                        parts.add(link.parent.codec(column).writeSql(before[link.parent.slotOf(column)]));
                    }
                    gone.computeIfAbsent(link, l -> new LinkedHashMap<>()).put(key, parts);
                }
            }
        }
        List<ChildCount> counts = new ArrayList<>();
        gone.forEach((link, keys) -> {
            long rows = touched.stream()
                    .filter(row -> row.table == link.child)
                    .map(row -> link.children.keyOf(replay.valuesAtStart(row)))
                    .filter(key -> key != null && keys.containsKey(key))
                    .count();
            long left = keys.keySet().stream()
                    .flatMap(key -> link.childrenOf(key).stream())
                    .filter(row -> !touched.contains(row))
                    .count();
            counts.add(new ChildCount(
                    link.child.table().name(), link.link.columns(), List.copyOf(keys.values()), rows + left));
        });
        return counts;
    }
}
