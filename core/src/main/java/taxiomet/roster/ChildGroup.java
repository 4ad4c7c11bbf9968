package taxiomet.roster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;
import taxiomet.total.RowTotals;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

/** The children over one link: which cells of them are shown, and what each comes to. It serves one thread. */
final class ChildGroup implements AutoCloseable {
    private final ForeignKey link;
    private final Table child;
    private final KeyEncoder encoder;
    private final KeyEncoder ofParent;
    private final RowFilter filter;
    private final Pseudonyms pseudonyms;
    private final RowTotals totals;
    private final RowTotals.OnThread sums;
    private final List<Shown> shown = new ArrayList<>();
    private final Map<ForeignKey, ParentCells> parents = new LinkedHashMap<>();
    private TypedBatch batch;

    /**
     * One column of cells: an own one, or what stands in a column of a parent, or the parent's name.
     *
     * @param own the place of the column in the child; -1 for a parent's
     * @param parent null for an own column
     * @param from the first of the parent's cells that belong to it
     * @param to behind the last of them
     */
    private record Shown(String head, int own, ParentCells parent, int from, int to, boolean isName) {}

    /** @param columns which are shown; empty for all */
    ChildGroup(
            Charter charter,
            ForeignKey link,
            List<String> columns,
            Pseudonyms pseudonyms,
            RunContext context,
            SpillFolder spill) {
        this.link = link;
        this.child = charter.table(link.child());
        this.totals = new RowTotals(child, charter, context);
        this.sums = totals.onThread();
        Secret secret = context.secret();
        MemoryBudget budget = context.budget();
        this.pseudonyms = pseudonyms;
        this.filter = RowFilter.of(link.where());
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        this.encoder = new KeyEncoder(child.indexesOf(link.columns()), forms, secret);
        this.ofParent = new KeyEncoder(parent.indexesOf(link.parentColumns()), forms, secret);
        Map<ForeignKey, List<String>> asked = new LinkedHashMap<>();
        List<String[]> plan = columns.isEmpty() ? usual() : asAsked(columns);
        for (String[] part : plan) {
            if (part[0] != null) {
                ForeignKey to = child.link(part[0]).orElseThrow();
                Table above = charter.table(to.parent());
                asked.computeIfAbsent(to, l -> new ArrayList<>())
                        .addAll(part[1] == null ? named(above) : List.of(part[1]));
            }
        }
        asked.forEach((to, cells) ->
                parents.put(to, new ParentCells(to, child, charter.table(to.parent()), cells, secret, spill, budget)));
        Map<ForeignKey, Integer> next = new LinkedHashMap<>();
        for (String[] part : plan) {
            if (part[0] == null) {
                shown.add(new Shown(part[1], child.indexOf(part[1]), null, 0, 0, false));
                continue;
            }
            ForeignKey to = child.link(part[0]).orElseThrow();
            int count = part[1] == null ? named(charter.table(to.parent())).size() : 1;
            int from = next.merge(to, count, Integer::sum) - count;
            String head = part[1] == null ? head(to) : part[0] + "." + part[1];
            shown.add(new Shown(head, -1, parents.get(to), from, from + count, part[1] == null));
        }
    }

    /** What a row is called: its label, else its key. */
    private static List<String> named(Table table) {
        return table.label().isEmpty() ? table.namingKey() : table.label();
    }

    /** A parent is called by its table; by the link where several lead there. */
    private String head(ForeignKey to) {
        long alike = child.links().stream()
                .filter(other -> other.parent().equals(to.parent()))
                .count();
        return alike > 1 ? to.name() : to.parent();
    }

    /** All columns but the link's own; those of another link are its parent's name, once. */
    private List<String[]> usual() {
        List<String[]> plan = new ArrayList<>();
        List<ForeignKey> others =
                child.links().stream().filter(other -> !other.equals(link)).toList();
        List<ForeignKey> done = new ArrayList<>();
        for (Column column : child.columns()) {
            List<ForeignKey> starting = others.stream()
                    .filter(other -> other.columns().contains(column.name()))
                    .toList();
            for (ForeignKey other : starting) {
                if (!done.contains(other)) {
                    done.add(other);
                    plan.add(new String[] {other.name(), null});
                }
            }
            if (starting.isEmpty() && !link.columns().contains(column.name())) {
                plan.add(new String[] {null, column.name()});
            }
        }
        return plan;
    }

    private List<String[]> asAsked(List<String> columns) {
        List<String[]> plan = new ArrayList<>();
        for (String column : columns) {
            if (child.indexOf(column) >= 0) {
                plan.add(new String[] {null, column});
            } else {
                int dot = column.indexOf('.');
                String name = dot < 0 ? column : column.substring(0, dot);
                child.link(name)
                        .ifPresent(to -> plan.add(new String[] {name, dot < 0 ? null : column.substring(dot + 1)}));
            }
        }
        return plan;
    }

    ForeignKey link() {
        return link;
    }

    Table child() {
        return child;
    }

    /** Makes the keys of the headings. */
    KeyEncoder ofParent() {
        return ofParent;
    }

    List<ParentCells> parents() {
        return List.copyOf(parents.values());
    }

    List<String> heads() {
        return shown.stream().map(Shown::head).toList();
    }

    RowTotals totals() {
        return totals;
    }

    int[] columns() {
        return Stream.of(
                        IntStream.of(RowFilter.columnsOf(encoder.columns(), filter)),
                        shown.stream().filter(each -> each.own() >= 0).mapToInt(Shown::own),
                        parents.values().stream().flatMapToInt(each -> IntStream.of(each.childColumns())),
                        IntStream.of(totals.columns()))
                .flatMapToInt(each -> each)
                .distinct()
                .toArray();
    }

    void start(TypedBatch rows) {
        batch = rows;
        encoder.start(rows);
        sums.start(rows);
        parents.values().forEach(parent -> parent.start(rows));
        if (filter != null) {
            filter.start(rows);
        }
    }

    /** Whether a row points at a row of the headings' table. */
    boolean hasParent(int row) {
        if (filter != null && !filter.holds(row)) {
            return false;
        }
        encoder.look(row);
        return encoder.nulls() == 0;
    }

    /** The key of a row that points at another; empty where a value is not of its type. */
    Optional<KeyEncoder> key(int row) {
        encoder.look(row);
        if (!encoder.isComplete()) {
            return Optional.empty();
        }
        encoder.encode(row);
        return Optional.of(encoder);
    }

    /**
     * The cells of a row that are shown, and behind them its totals as texts.
     *
     * @param withCode whether the link's own cells stand before them
     */
    List<String> cells(int row, boolean withCode) {
        List<String> cells = new ArrayList<>();
        if (withCode) {
            for (int column : encoder.columns()) {
                cells.add(own(column, row));
            }
        }
        for (Shown each : shown) {
            cells.add(each.own() >= 0 ? own(each.own(), row) : above(each, row));
        }
        sums.look(row);
        for (int i = 0; i < totals.size(); i++) {
            cells.add(sums.of(i).toPlainString());
        }
        return cells;
    }

    private String own(int column, int row) {
        return pseudonyms.of(
                child.name(),
                child.columns().get(column).name(),
                batch.column(column).cells().text(row));
    }

    private String above(Shown each, int row) {
        ParentCells parent = each.parent();
        Optional<List<String>> found = parent.of(row);
        if (found.isEmpty()) {
            return each.isName() && parent.isAsked(row) ? code(parent, row) : null;
        }
        List<String> cells = found.get().subList(each.from(), each.to());
        if (!each.isName()) {
            return cells.get(0);
        }
        return cells.stream().filter(cell -> cell != null).collect(Collectors.joining(" "));
    }

    /** What stands in the row where there is no name for it. */
    private String code(ParentCells parent, int row) {
        String code = Arrays.stream(parent.childColumns())
                .mapToObj(column -> String.valueOf(own(column, row)))
                .collect(Collectors.joining(", "));
        return parent.isWhole() ? code + " (no such " + parent.parent().name() + ")" : code;
    }

    @Override
    public void close() {
        parents.values().forEach(ParentCells::close);
        totals.close();
    }
}
