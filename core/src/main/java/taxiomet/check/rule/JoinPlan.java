package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.Aggregate;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.expression.StoredValues;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/**
 * What a rule over relatives reads, link by link, and where each value stands in a record: the row's own values, then those of each step. The
 * ways down to children come before those up to parents.
 */
final class JoinPlan {
    final List<Integer> ownColumns = new ArrayList<>();
    final List<RuleStep> steps = new ArrayList<>();
    /** By the leaves themselves: each stands once in the condition's tree. */
    private final IdentityHashMap<Expression, Integer> slots = new IdentityHashMap<>();
    /** What stands in each slot, as a column of its own. */
    private final List<Column> slotColumns = new ArrayList<>();
    /** Where the figures stand that are kept for the evidence. */
    final List<Integer> keptSlots = new ArrayList<>();

    private final Rule rule;
    private final SpillFolder spill;
    private final Secret secret;

    /** @param table the table that declares the rule */
    JoinPlan(Rule rule, Table table, Charter charter, SpillFolder spill, Secret secret) {
        this.rule = rule;
        this.spill = spill;
        this.secret = secret;
        for (int column : rule.condition().columnsRead()) {
            ownColumns.add(column);
        }
        Map<List<String>, Integer> places = new LinkedHashMap<>();
        rule.condition().childrenRead().forEach(value -> planDown(value, charter, places));
        List<ParentValue> values = rule.condition().parentsRead();
        values.forEach(value -> plan(value.links(), table, charter, places));
        for (ParentValue value : values) {
            RuleStep step = steps.get(places.get(value.links()));
            if (!step.columns.contains(value.column())) {
                step.columns.add(value.column());
            }
        }
        giveSlots(table, values, charter, places);
    }

    private void planDown(ChildrenValue value, Charter charter, Map<List<String>, Integer> places) {
        // With its table before it, so that it is no way up.
        List<String> way = List.of(value.child() + ".", value.link());
        if (!places.containsKey(way)) {
            ForeignKey link = charter.table(value.child()).link(value.link()).orElseThrow();
            places.put(way, steps.size());
            steps.add(new RuleStep(link, charter, -1, false, spill, secret));
        }
        RuleStep step = steps.get(places.get(way));
        if (!step.figures.contains(value)) {
            step.figures.add(value);
        }
        value.column().filter(column -> !step.columns.contains(column)).ifPresent(step.columns::add);
    }

    private void plan(List<String> path, Table table, Charter charter, Map<List<String>, Integer> places) {
        Table from = table;
        for (int i = 1; i <= path.size(); i++) {
            List<String> way = path.subList(0, i);
            String name = way.get(i - 1);
            ForeignKey link = from.link(name).orElseThrow();
            if (!places.containsKey(way)) {
                int before = i == 1 ? -1 : places.get(path.subList(0, i - 1));
                places.put(List.copyOf(way), steps.size());
                steps.add(new RuleStep(link, charter, before, true, spill, secret));
            }
            from = charter.table(link.parent());
        }
    }

    /** Values stand in a record in the order: the row's own, then those of each step. */
    private void giveSlots(Table table, List<ParentValue> values, Charter charter, Map<List<String>, Integer> places) {
        Map<Integer, Integer> own = new HashMap<>();
        for (int i = 0; i < ownColumns.size(); i++) {
            own.put(ownColumns.get(i), i);
            slotColumns.add(table.columns().get(ownColumns.get(i)));
        }
        rule.condition().leaves().forEach(leaf -> {
            if (leaf instanceof ColumnValue column) {
                slots.put(leaf, own.get(column.column()));
            }
        });
        int next = ownColumns.size();
        for (int s = 0; s < steps.size(); s++) {
            RuleStep step = steps.get(s);
            for (ChildrenValue figure : step.figures) {
                keptSlots.add(next);
                slotColumns.add(
                        Column.of(figure.text(), typeOf(figure, step.other)).asPersonal(charter.isPersonal(figure)));
                for (ChildrenValue value : rule.condition().childrenRead()) {
                    if (value.equals(figure)) {
                        slots.put(value, next);
                    }
                }
                next++;
            }
            for (int column : step.isDown() ? List.<Integer>of() : step.columns) {
                slotColumns.add(step.other.columns().get(column));
                for (ParentValue value : values) {
                    if (places.get(value.links()) == s && value.column() == column) {
                        slots.put(value, next);
                    }
                }
                next++;
            }
        }
    }

    /** A type of columns that holds all values of a figure: the least and greatest are values of the child's column. */
    private static ColumnType typeOf(ChildrenValue figure, Table child) {
        if (figure.aggregate() == Aggregate.MIN || figure.aggregate() == Aggregate.MAX) {
            return child.columns().get(figure.column().orElseThrow()).type();
        }
        return ColumnType.of(figure.type() == Type.APPROXIMATE ? Name.DOUBLE : Name.NUMERIC);
    }

    /** The figures that the rule asks for, as columns of their own. */
    List<Column> figures() {
        return keptSlots.stream().map(slotColumns::get).toList();
    }

    /** What stands in each slot, as a column of its own. */
    List<Column> slotColumns() {
        return slotColumns;
    }

    /** The slot of a leaf of the condition; -1 for one that has none. */
    int slotOf(Expression leaf) {
        return slots.getOrDefault(leaf, -1);
    }

    /** Places of some columns, of those that the links of a step need, and of a key, each once. */
    int[] columnsWith(List<Integer> values, int from, KeyEncoder more) {
        TreeSet<Integer> columns = new TreeSet<>(values);
        for (RuleStep step : steps) {
            if (step.from == from) {
                for (int column : step.near.columns()) {
                    columns.add(column);
                }
            }
        }
        if (more != null) {
            for (int column : more.columns()) {
                columns.add(column);
            }
        }
        return columns.stream().mapToInt(Integer::intValue).toArray();
    }

    /** Begins a batch for the keys of all links that start from a step; -1 for the row itself. */
    void startKeys(TypedBatch batch, int from) {
        for (RuleStep step : steps) {
            if (step.from == from) {
                step.near.start(batch);
            }
        }
    }

    /**
     * Adds two longs for each step: the keys of those that start here, zeros for the others. False when there is no parent to be found
     * for one of them; a row without a key has no children, and is judged.
     */
    boolean addKeys(int row, int from, StoredValues scratch) {
        boolean isComplete = true;
        for (RuleStep step : steps) {
            boolean isHere = step.from == from;
            if (isHere) {
                step.near.look(row);
                if (step.near.isComplete()) {
                    step.near.encode(row);
                } else if (step.isDown()) {
                    // Equal to no key of a child: those are complete.
                    step.near.encodeAsWritten(row);
                } else {
                    isComplete = false;
                    isHere = false;
                }
            }
            scratch.add(isHere ? step.near.high() : 0);
            scratch.add(isHere ? step.near.low() : 0);
        }
        return isComplete;
    }
}
