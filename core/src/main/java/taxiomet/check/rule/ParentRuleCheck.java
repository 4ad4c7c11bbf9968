package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.finding.Finding.Broken;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;
import taxiomet.values.TypedColumn;

/**
 * A rule over a row's own columns and those of its parents, one link up or several. Children and parents keep the values that
 * the condition asks for, in partitions by their keys; once all tables have been read they are joined link by link, and the
 * condition is evaluated. A child of a duplicated parent breaks the rule when it does so with one of them; each different parent is
 * looked at once, and where there are more than {@link #MOST_PARENTS} the child is not judged.
 *
 * <p>A child's record is: its row, whether it has met several parents, two longs for the key of each link, and the values found
 * so far. A parent's is: its key, two longs for the key of each link that starts from it, and its values.
 */
public final class ParentRuleCheck extends OrderedCheck implements JudgedRule, Conclusion {
    private static final int ROW = 0;
    /** How many different parents the child has met so far, or their parents; 0 for one alone. */
    private static final int SEVERAL = 1;

    /** Tables full of equal keys have as many pairs as the product of their rows. */
    public static final int MOST_PARENTS = 100;

    private static final int KEYS = 2;

    private final Rule rule;
    private final FaultLog faults;
    private final SpillFolder spill;
    private final List<Integer> ownColumns = new ArrayList<>();
    private final List<Step> steps = new ArrayList<>();
    /** By the leaves themselves: each stands once in the condition's tree. */
    private final IdentityHashMap<Expression, Integer> slots = new IdentityHashMap<>();

    private final Evaluator evaluator = new Evaluator();
    private final BatchEvaluator own = new BatchEvaluator();
    private final Map<Long, Outcome> severalParents = new HashMap<>();
    private final StoredValues scratch = new StoredValues();
    private Partitions children;
    private long judged;
    private long notJudged;
    private long unknown;
    private long withTooManyParents;

    /** What became of a child of several parents. */
    private static final class Outcome {
        private boolean hasTooMany;
        boolean isJudged;
        boolean isBroken;
        boolean isKnown;
        String reason = "";
    }

    /** One link on the way up. */
    private final class Step {
        final ForeignKey link;
        final Table parent;
        /** The step whose parent this link starts from; -1 for the row itself. */
        final int from;

        final KeyEncoder childKey;
        final List<Integer> columns = new ArrayList<>();
        final Partitions parents;

        Step(ForeignKey link, Charter charter, int from) {
            this.link = link;
            this.parent = charter.table(link.parent());
            this.from = from;
            Table child = charter.table(link.child());
            this.childKey = new KeyEncoder(child.indexesOf(link.columns()), KeyForm.of(child, parent, link));
            this.parents = new Partitions(spill);
        }
    }

    public ParentRuleCheck(Rule rule, Table table, Charter charter, FaultLog faults, SpillFolder spill) {
        this.rule = rule;
        this.faults = faults;
        this.spill = spill;
        Map<List<String>, Integer> places = new LinkedHashMap<>();
        List<ParentValue> values = rule.condition().parentsRead();
        values.forEach(value -> plan(value.links(), table, charter, places));
        for (int column : rule.condition().columnsRead()) {
            ownColumns.add(column);
        }
        for (ParentValue value : values) {
            Step step = steps.get(places.get(value.links()));
            if (!step.columns.contains(value.column())) {
                step.columns.add(value.column());
            }
        }
        giveSlots(values, places);
        children = new Partitions(spill);
    }

    private void plan(List<String> path, Table table, Charter charter, Map<List<String>, Integer> places) {
        Table from = table;
        for (int i = 1; i <= path.size(); i++) {
            List<String> way = path.subList(0, i);
            String name = way.get(i - 1);
            ForeignKey link = from.links().stream()
                    .filter(l -> l.name().equals(name))
                    .findFirst()
                    .orElseThrow();
            if (!places.containsKey(way)) {
                int before = i == 1 ? -1 : places.get(path.subList(0, i - 1));
                places.put(List.copyOf(way), steps.size());
                steps.add(new Step(link, charter, before));
            }
            from = charter.table(link.parent());
        }
    }

    /** Values stand in a record in the order: the row's own, then those of each step. */
    private void giveSlots(List<ParentValue> values, Map<List<String>, Integer> places) {
        Map<Integer, Integer> own = new HashMap<>();
        for (int i = 0; i < ownColumns.size(); i++) {
            own.put(ownColumns.get(i), i);
        }
        rule.condition().leaves().forEach(leaf -> {
            if (leaf instanceof ColumnValue column) {
                slots.put(leaf, own.get(column.column()));
            }
        });
        int next = ownColumns.size();
        for (int s = 0; s < steps.size(); s++) {
            for (int column : steps.get(s).columns) {
                for (ParentValue value : values) {
                    if (places.get(value.links()) == s && value.column() == column) {
                        slots.put(value, next);
                    }
                }
                next++;
            }
        }
    }

    /** The parts of the check that see parents' rows, each with its table. */
    public Map<RowCheck, Table> parentSides() {
        Map<RowCheck, Table> sides = new LinkedHashMap<>();
        steps.forEach(step -> sides.put(new ParentSide(step), step.parent));
        return sides;
    }

    private int[] columnsWith(List<Integer> values, int from, KeyEncoder more) {
        TreeSet<Integer> columns = new TreeSet<>(values);
        for (Step step : steps) {
            if (step.from == from) {
                for (int column : step.childKey.columns()) {
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

    @Override
    public int[] columns() {
        return columnsWith(ownColumns, -1, null);
    }

    @Override
    public void check(TypedBatch batch) {
        startKeys(batch, -1);
        own.start(batch);
        for (int row = 0; row < batch.size(); row++) {
            scratch.clear();
            scratch.add(batch.ref(row));
            scratch.add(0);
            boolean isComplete = addKeys(row, -1);
            for (int column : ownColumns) {
                isComplete &= batch.column(column).state(row) != TypedColumn.BAD;
                scratch.addValue(own.columnValue(column, row));
            }
            if (isComplete) {
                long[] record = scratch.toArray();
                children.addRecord(partition(record, 0), record);
            } else {
                notJudged++;
            }
        }
    }

    private void startKeys(TypedBatch batch, int from) {
        for (Step step : steps) {
            if (step.from == from) {
                step.childKey.start(batch);
            }
        }
    }

    /** Adds two longs for each step: the keys of those that start here, zeros for the others. False when one is incomplete. */
    private boolean addKeys(int row, int from) {
        boolean isComplete = true;
        for (Step step : steps) {
            if (step.from == from) {
                step.childKey.look(row);
                isComplete &= step.childKey.isComplete();
                if (step.childKey.isComplete()) {
                    step.childKey.encode(row);
                }
            }
            boolean isHere = step.from == from && isComplete;
            scratch.add(isHere ? step.childKey.high() : 0);
            scratch.add(isHere ? step.childKey.low() : 0);
        }
        return isComplete;
    }

    private static int partition(long[] record, int step) {
        return Partitions.of(KeyTable.hash(record[KEYS + 2 * step], record[KEYS + 2 * step + 1]));
    }

    /** Keeps the values of the rows that a link points at. */
    private final class ParentSide extends OrderedCheck {
        private final Step step;
        private final KeyEncoder key;
        private final BatchEvaluator values = new BatchEvaluator();
        private final int number;

        ParentSide(Step step) {
            this.step = step;
            this.number = steps.indexOf(step);
            this.key = new KeyEncoder(step.parent.indexesOf(step.link.parentColumns()), step.childKey.forms());
        }

        @Override
        public int[] columns() {
            return columnsWith(step.columns, number, key);
        }

        @Override
        public void check(TypedBatch batch) {
            key.start(batch);
            startKeys(batch, number);
            values.start(batch);
            for (int row = 0; row < batch.size(); row++) {
                key.look(row);
                if (!key.isComplete()) {
                    continue;
                }
                key.encode(row);
                scratch.clear();
                scratch.add(key.high());
                scratch.add(key.low());
                // A parent without the link that goes on from it ends the way: its child is not judged.
                if (addKeys(row, number)) {
                    for (int column : step.columns) {
                        boolean isIllTyped = batch.column(column).state(row) == TypedColumn.BAD;
                        scratch.addValue(isIllTyped ? StoredValues.ILL_TYPED : values.columnValue(column, row));
                    }
                    step.parents.addRecord(Partitions.of(KeyTable.hash(key.high(), key.low())), scratch.toArray());
                }
            }
        }
    }

    /** Joins and judges; all tables have been read. */
    @Override
    public void resolve() {
        for (int s = 0; s < steps.size(); s++) {
            Partitions joined = s + 1 < steps.size() ? new Partitions(spill) : null;
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                join(s, partition, joined);
            }
            children.close();
            children = joined;
        }
        severalParents.forEach(this::conclude);
    }

    private void join(int s, int partition, Partitions joined) {
        LongSpool.Reader childRecords = children.read(partition);
        if (childRecords == null) {
            return;
        }
        Map<Long, List<long[]>> parents = new HashMap<>();
        LongSpool.Reader parentRecords = steps.get(s).parents.read(partition);
        while (parentRecords != null && parentRecords.hasNext()) {
            long[] parent = Partitions.nextRecord(parentRecords);
            addDifferent(
                    parents.computeIfAbsent(parent[0] ^ Long.rotateLeft(parent[1], 17), k -> new ArrayList<>(1)),
                    parent);
        }
        while (childRecords.hasNext()) {
            long[] child = Partitions.nextRecord(childRecords);
            long high = child[KEYS + 2 * s];
            long low = child[KEYS + 2 * s + 1];
            List<long[]> matching = new ArrayList<>(1);
            for (long[] parent : parents.getOrDefault(high ^ Long.rotateLeft(low, 17), List.of())) {
                if (parent[0] == high && parent[1] == low) {
                    matching.add(parent);
                }
            }
            if (matching.isEmpty()) {
                endWithoutParent(child);
            }
            long several = Math.max(1, child[SEVERAL]) * matching.size();
            if (several > MOST_PARENTS) {
                severalParents.computeIfAbsent(child[ROW], ref -> new Outcome()).hasTooMany = true;
                continue;
            }
            for (long[] parent : matching) {
                long[] both = joined(child, parent, several > 1 ? several : 0);
                if (joined == null) {
                    judge(both);
                } else {
                    joined.addRecord(partition(both, s + 1), both);
                }
            }
        }
    }

    /** Adds a parent unless one like it is there, or more than are looked at. */
    private static void addDifferent(List<long[]> parents, long[] parent) {
        boolean isEnough = parents.size() > MOST_PARENTS;
        if (!isEnough && parents.stream().noneMatch(other -> Arrays.equals(other, parent))) {
            parents.add(parent);
        }
    }

    private void endWithoutParent(long[] child) {
        if (child[SEVERAL] == 0) {
            notJudged++;
        } else {
            severalParents.computeIfAbsent(child[ROW], ref -> new Outcome());
        }
    }

    private long[] joined(long[] child, long[] parent, long several) {
        StoredValues both = new StoredValues();
        both.addAll(child, 0);
        both.addAll(parent, KEYS + 2 * steps.size());
        long[] record = both.toArray();
        record[SEVERAL] = several;
        // The keys of the links that start from this parent; zeros elsewhere, so that adding fills in what is missing.
        for (int i = 0; i < 2 * steps.size(); i++) {
            record[KEYS + i] |= parent[KEYS + i];
        }
        return record;
    }

    private void judge(long[] record) {
        StoredValues stored = new StoredValues();
        stored.read(record, KEYS + 2 * steps.size());
        List<Object> values = new ArrayList<>();
        boolean isIllTyped = false;
        while (stored.hasNext()) {
            Object value = stored.next();
            isIllTyped |= StoredValues.ILL_TYPED.equals(value);
            values.add(value);
        }
        Outcome outcome = record[SEVERAL] == 0
                ? new Outcome()
                : severalParents.computeIfAbsent(record[ROW], ref -> new Outcome());
        if (!isIllTyped) {
            evaluate(values, outcome);
        }
        if (record[SEVERAL] == 0) {
            conclude(record[ROW], outcome);
        }
    }

    private void evaluate(List<Object> values, Outcome outcome) {
        outcome.isJudged = true;
        try {
            Object value = evaluator.evaluate(rule.condition(), leaf -> values.get(slots.get(leaf)));
            outcome.isKnown |= value != null;
            if (value != null && !(Boolean) value) {
                outcome.isBroken = true;
                outcome.reason = Broken.FALSE;
            }
        } catch (DivisionByZero e) {
            outcome.isBroken = true;
            outcome.reason = e.getMessage();
        }
    }

    private void conclude(long ref, Outcome outcome) {
        if (outcome.hasTooMany) {
            withTooManyParents++;
        }
        if (outcome.hasTooMany || !outcome.isJudged) {
            notJudged++;
            return;
        }
        judged++;
        if (outcome.isBroken) {
            faults.add(ref, outcome.reason);
        } else if (!outcome.isKnown) {
            unknown++;
        }
    }

    @Override
    public Rule rule() {
        return rule;
    }

    @Override
    public long judged() {
        return judged;
    }

    @Override
    public long notJudged() {
        return notJudged;
    }

    @Override
    public long unknown() {
        return unknown;
    }

    @Override
    public long withTooManyParents() {
        return withTooManyParents;
    }

    @Override
    public FaultLog faults() {
        return faults;
    }

    @Override
    public void close() {
        steps.forEach(step -> step.parents.close());
        if (children != null) {
            children.close();
        }
    }
}
