package taxiomet.browse;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.finding.Hint;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.Below;
import taxiomet.finding.TraceResult.Children;
import taxiomet.finding.TraceResult.Parent;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.finding.TraceResult.TracedRow;
import taxiomet.finding.TraceResult.Twin;
import taxiomet.personal.Pseudonyms;
import taxiomet.personal.VeiledCheck;
import taxiomet.rows.RowRef;

/** Makes the result of what was found, with pseudonyms in place of personal values. */
final class TraceAssembler {
    private final Charter charter;
    private final TraceOptions options;
    private final Pseudonyms pseudonyms;

    /** Other rows that share a key: how many, and the first of them. */
    record TwinsFound(long others, List<RowAtHand> first) {}

    TraceAssembler(Charter charter, TraceOptions options, Pseudonyms pseudonyms) {
        this.charter = charter;
        this.options = options;
        this.pseudonyms = pseudonyms;
    }

    /** None, or several rows, of which only what they hold is said. */
    TraceResult several(Table table, RowSearch.Found found, List<RowAtHand> rows) {
        Optional<Hint> near = found.near().map(hint -> veiled(hint, table.name(), found.nearColumns()));
        return new TraceResult(
                charter.name(),
                table.name(),
                found.rows(),
                rows.stream()
                        .limit(Math.max(1, options.shown()))
                        .map(this::alone)
                        .toList(),
                near);
    }

    /** One row with all that was found of it. */
    TraceResult one(
            RowAtHand root,
            long found,
            List<RowFault> faults,
            String notJudged,
            Map<Key, TwinsFound> twins,
            List<ChildrenSought> children) {
        List<Twin> copies = new ArrayList<>();
        twins.forEach((key, which) -> copies.add(new Twin(
                key.name(),
                key.columns(),
                which.others(),
                which.first().stream().map(this::alone).toList())));
        TracedRow row = row(
                root,
                faults,
                notJudged,
                copies,
                parents(root, options.up()),
                options.down() == 0 ? List.of() : children(root, children));
        return new TraceResult(charter.name(), root.table().name(), found, List.of(row), Optional.empty());
    }

    private TracedRow alone(RowAtHand row) {
        return row(row, List.of(), "", List.of(), List.of(), List.of());
    }

    private TracedRow row(
            RowAtHand at,
            List<RowFault> faults,
            String notJudged,
            List<Twin> twins,
            List<Parent> parents,
            List<Children> children) {
        Table table = at.table();
        List<String> columns = table.columns().stream().map(Column::name).toList();
        List<String> cells = new ArrayList<>();
        for (int i = 0; i < at.row().values().size(); i++) {
            cells.add(pseudonyms.of(
                    table.name(), columns.get(i), at.row().values().get(i)));
        }
        String label = cells.isEmpty()
                ? ""
                : table.label().stream()
                        .map(column -> cells.get(table.indexOf(column)))
                        .filter(Objects::nonNull)
                        .collect(Collectors.joining(" "));
        String raw = at.row().raw();
        return new TracedRow(
                table.name(),
                at.row().part(),
                RowRef.row(at.row().ref()),
                at.row().line(),
                columns,
                cells,
                table.namingKey(),
                label,
                raw.isEmpty() || !pseudonyms.isAny(table.name()) ? raw : VeiledCheck.HIDDEN,
                faults,
                notJudged,
                twins,
                parents,
                children);
    }

    private List<Parent> parents(RowAtHand row, int levels) {
        if (levels == 0) {
            return List.of();
        }
        return row.parents().stream()
                .map(sought -> {
                    ForeignKey link = sought.link();
                    return new Parent(
                            link.name(),
                            link.columns(),
                            link.parent(),
                            link.parentColumns(),
                            sought.state(),
                            sought.rows(),
                            sought.parent()
                                    .map(parent -> row(
                                            parent, List.of(), "", List.of(), parents(parent, levels - 1), List.of())),
                            sought.hint().map(hint -> veiled(hint, link.parent(), link.parentColumns())));
                })
                .toList();
    }

    private Hint veiled(Hint hint, String table, List<String> columns) {
        List<List<String>> keys = new ArrayList<>();
        for (List<String> key : hint.parents()) {
            List<String> cells = new ArrayList<>();
            for (int i = 0; i < key.size(); i++) {
                cells.add(pseudonyms.of(table, columns.get(i), key.get(i)));
            }
            keys.add(cells);
        }
        return new Hint(hint.kind(), keys, hint.faultyParent());
    }

    private List<Children> children(RowAtHand row, List<ChildrenSought> all) {
        List<Children> children = new ArrayList<>();
        for (ChildrenSought sought : all) {
            ChildrenSought.Found found = sought.of(row);
            boolean isFirstLevel = sought.way().size() == 1;
            children.add(new Children(
                    sought.link().name(),
                    sought.child().name(),
                    sought.link().columns(),
                    found.rows(),
                    found.sums(),
                    sought.shown(row).stream()
                            .map(child ->
                                    row(child, List.of(), "", List.of(), List.of(), children(child, sought.deeper())))
                            .toList(),
                    isFirstLevel ? below(sought) : List.of()));
        }
        return children;
    }

    /** What hangs below all children of a first level, way by way. */
    private static List<Below> below(ChildrenSought sought) {
        List<Below> all = new ArrayList<>();
        for (ChildrenSought next : sought.deeper()) {
            ChildrenSought.Found found = next.all();
            if (found.rows() > 0) {
                all.add(new Below(
                        next.way().stream()
                                .map(link -> link.child() + "." + link.name())
                                .toList(),
                        next.child().name(),
                        found.rows(),
                        found.sums()));
            }
            all.addAll(below(next));
        }
        return all;
    }
}
