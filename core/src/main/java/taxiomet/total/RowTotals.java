package taxiomet.total;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Table;
import taxiomet.charter.Total;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.Evaluator;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.TableSource;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/**
 * What the totals of a table come to for each of its rows. A total over a column of a parent is nothing for a row whose parent is missing, as
 * it is for a null.
 */
public final class RowTotals implements AutoCloseable {
    private final List<Total> totals;
    private final List<String> hidden;
    private final RunContext context;
    /** Null where no total asks for parents. */
    private final SpillFolder spill;
    /** By the names of the links that lead there; those that others start from stand before these. */
    private final Map<List<String>, Step> steps = new LinkedHashMap<>();
    /** By the leaves themselves: each stands once in a total's tree. */
    private final IdentityHashMap<Expression, Leaf> leaves = new IdentityHashMap<>();

    /**
     * One link up.
     *
     * @param from the number of the step that it starts from; -1 for the row itself
     * @param place the place of its keys among those of that step
     */
    private record Step(int number, ParentValues parents, int from, int place) {}

    /** Where the value of a parent's column stands. */
    private record Leaf(int step, int place) {}

    /** The totals of a table. */
    public RowTotals(Table table, Charter charter, RunContext context) {
        this.totals = table.totals().stream()
                .filter(total -> !charter.readsPersonal(table, total.value()))
                .toList();
        this.hidden = table.totals().stream()
                .filter(total -> !totals.contains(total))
                .map(Total::text)
                .toList();
        this.context = context;
        boolean asksParents =
                totals.stream().anyMatch(total -> !total.value().parentsRead().isEmpty());
        this.spill = asksParents ? new SpillFolder(context.temporary(), context.budget()) : null;
        for (Total total : totals) {
            for (ParentValue value : total.value().parentsRead()) {
                Step step = step(value.links(), table, charter);
                leaves.put(value, new Leaf(step.number, step.parents.keep(value.column())));
            }
        }
    }

    private Step step(List<String> way, Table table, Charter charter) {
        Step known = steps.get(way);
        if (known != null) {
            return known;
        }
        int last = way.size() - 1;
        Step before = last == 0 ? null : step(way.subList(0, last), table, charter);
        Table start = before == null ? table : before.parents.parent();
        ParentValues parents = new ParentValues(
                start.link(way.get(last)).orElseThrow(), charter, context.secret(), spill, context.budget());
        int place = before == null ? 0 : before.parents.goOn(parents.ofChild());
        Step step = new Step(steps.size(), parents, before == null ? -1 : before.number, place);
        steps.put(List.copyOf(way), step);
        return step;
    }

    /**
     * Reads the parents that totals ask for, if there are any.
     *
     * @param rows hands over the rows of a table, all declared columns of which can be read
     * @throws taxiomet.rows.SourceException when they cannot be read, or their keys do not fit into memory
     */
    public void read(BiConsumer<Table, Consumer<TableSource>> rows) {
        for (Step step : steps.values()) {
            rows.accept(step.parents.parent(), source -> step.parents.read(source, context.secret()));
        }
    }

    /** How many totals there are. */
    public int size() {
        return totals.size();
    }

    /** Totals that are not added up, since they read columns whose values are not shown: over one row they would be these values. */
    public List<String> hidden() {
        return hidden;
    }

    /** The totals as they are written. */
    public List<String> texts() {
        return totals.stream().map(Total::text).toList();
    }

    /** The places of the columns of the row itself that are read, with their values. */
    public int[] columns() {
        return Stream.concat(
                        totals.stream()
                                .flatMapToInt(
                                        total -> IntStream.of(total.value().columnsRead()))
                                .boxed(),
                        steps.values().stream()
                                .filter(step -> step.from < 0)
                                .flatMapToInt(step ->
                                        IntStream.of(step.parents.ofChild().columns()))
                                .boxed())
                .mapToInt(column -> column)
                .distinct()
                .toArray();
    }

    /** Adds up for one thread. */
    public OnThread onThread() {
        return new OnThread();
    }

    /** What the totals come to for the rows of batches. */
    public final class OnThread implements Evaluator.Leaves {
        private final Evaluator evaluator = new Evaluator();
        private final BatchEvaluator own = new BatchEvaluator();
        private final List<Step> all = new ArrayList<>(steps.values());
        private final List<KeyEncoder> keys = all.stream()
                .map(step -> step.from < 0 ? step.parents.ofChild().copy() : null)
                .toList();
        private final List<ParentValues.Finder> finders =
                all.stream().map(step -> step.parents.new Finder()).toList();
        private int row;

        /** The batch whose rows come next. */
        public void start(TypedBatch batch) {
            own.start(batch);
            for (KeyEncoder each : keys) {
                if (each != null) {
                    each.start(batch);
                }
            }
        }

        /** Goes to a row of the batch. */
        public void look(int ofRow) {
            row = ofRow;
            for (int i = 0; i < all.size(); i++) {
                Step step = all.get(i);
                if (step.from >= 0) {
                    finders.get(step.from).goOn(step.place, finders.get(i));
                } else {
                    find(keys.get(i), finders.get(i));
                }
            }
        }

        private void find(KeyEncoder key, ParentValues.Finder finder) {
            key.look(row);
            if (key.isComplete()) {
                key.encode(row);
                finder.find(key.high(), key.low());
            } else {
                finder.findNone();
            }
        }

        /** What a total comes to for the row; zero where it is null or cannot be reckoned. */
        public BigDecimal of(int total) {
            return evaluator.numberToAdd(totals.get(total).value(), this);
        }

        @Override
        public Object value(Expression leaf) {
            if (leaf instanceof ColumnValue column) {
                return own.columnValue(column.column(), row);
            }
            Leaf place = leaves.get(leaf);
            return finders.get(place.step).value(place.place);
        }
    }

    @Override
    public void close() {
        steps.values().forEach(step -> step.parents.close());
        if (spill != null) {
            spill.close();
        }
    }
}
