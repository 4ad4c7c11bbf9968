package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.finding.Finding.Broken;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.spill.LongSpool;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;
import taxiomet.values.TypedColumn;
import taxiomet.work.Secret;

/**
 * A rule over a row's own columns, those of its parents, one link up or several, and what its children come to. The row and its
 * relatives keep the values that the condition asks for, in partitions by their keys; once all tables have been read they are joined
 * link by link, and the condition is evaluated. A child of a duplicated parent breaks the rule when it does so with one of them; each
 * different parent is looked at once, and where there are more than {@link #MOST_PARENTS} the child is not judged. Children are added up
 * ({@link Figure}): however many there are, they give one value each figure.
 *
 * <p>A row's record is: its row, whether it has met several parents, two longs for the key of each link, and the values found
 * so far. A parent's is: its key, two longs for the key of each link that starts from it, and its values; a child's is its key and its
 * values.
 */
public final class JoinedRuleCheck extends OrderedCheck implements JudgedRule, Conclusion {
    private static final int ROW = 0;
    /** How many different parents the child has met so far, or their parents; 0 for one alone. */
    private static final int SEVERAL = 1;

    /** Tables full of equal keys have as many pairs as the product of their rows. */
    public static final int MOST_PARENTS = 100;

    private static final int KEYS = 2;

    private final Rule rule;
    private final FaultLog faults;
    private final SpillFolder spill;
    private final JoinPlan plan;
    private final List<RuleStep> steps;
    private final Evaluator evaluator = new Evaluator();
    private final BatchEvaluator own = new BatchEvaluator();
    private final Map<Long, Outcome> severalParents = new HashMap<>();
    private final StoredValues scratch = new StoredValues();
    private final FiguresKept kept;
    private Partitions rows;
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
        List<Object> values = List.of();

        void breakBy(String why, List<Object> by) {
            isBroken = true;
            reason = why;
            values = by;
        }
    }

    /**
     * @param table the table that declares the rule
     * @param faults gets the rows that break it
     * @param secret of the run
     */
    public JoinedRuleCheck(Rule rule, Table table, Charter charter, FaultLog faults, SpillFolder spill, Secret secret) {
        this.rule = rule;
        this.faults = faults;
        this.spill = spill;
        this.kept = new FiguresKept(
                rule.condition().childrenRead().stream().distinct().toList(), spill);
        this.plan = new JoinPlan(rule, table, charter, kept, spill, secret);
        this.steps = plan.steps;
        rows = new Partitions(spill);
    }

    /** The parts of the check that see the rows of relatives, each with its table. */
    public Map<RowCheck, Table> otherSides() {
        Map<RowCheck, Table> sides = new LinkedHashMap<>();
        steps.forEach(step -> sides.put(step.isDown() ? new ChildSide(step) : new ParentSide(plan, step), step.other));
        return sides;
    }

    @Override
    public int[] columns() {
        return plan.columnsWith(plan.ownColumns, -1, null);
    }

    @Override
    public void exchange(StateExchange state) {
        state.records(rows, ROW);
        notJudged = state.count(notJudged);
    }

    @Override
    public void check(TypedBatch batch) {
        plan.startKeys(batch, -1);
        own.start(batch);
        for (int row = 0; row < batch.size(); row++) {
            scratch.clear();
            scratch.add(batch.ref(row));
            scratch.add(0);
            boolean isComplete = plan.addKeys(row, -1, scratch);
            for (int column : plan.ownColumns) {
                isComplete &= batch.column(column).state(row) != TypedColumn.BAD;
                scratch.addValue(own.columnValue(column, row));
            }
            if (isComplete) {
                long[] record = scratch.toArray();
                rows.addRecord(partition(record, 0), record);
            } else {
                notJudged++;
            }
        }
    }

    private static int partition(long[] record, int step) {
        return Partitions.of(KeyTable.hash(record[KEYS + 2 * step], record[KEYS + 2 * step + 1]));
    }

    /** Joins and judges; all tables have been read. */
    @Override
    public void resolve() {
        for (int s = 0; s < steps.size(); s++) {
            Partitions joined = s + 1 < steps.size() ? new Partitions(spill) : null;
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                LongSpool.Reader records = rows.read(partition);
                if (records != null && steps.get(s).isDown()) {
                    joinChildren(s, partition, records, joined);
                } else if (records != null) {
                    joinParents(s, partition, records, joined);
                }
            }
            rows.close();
            rows = joined;
        }
        severalParents.forEach(this::conclude);
    }

    private void joinParents(int s, int partition, LongSpool.Reader records, Partitions joined) {
        Map<Long, List<long[]>> parents = new HashMap<>();
        LongSpool.Reader parentRecords = steps.get(s).others.read(partition);
        while (parentRecords != null && parentRecords.hasNext()) {
            long[] parent = Partitions.nextRecord(parentRecords);
            addDifferent(
                    parents.computeIfAbsent(parent[0] ^ Long.rotateLeft(parent[1], 17), k -> new ArrayList<>(1)),
                    parent);
        }
        while (records.hasNext()) {
            long[] row = Partitions.nextRecord(records);
            long high = row[KEYS + 2 * s];
            long low = row[KEYS + 2 * s + 1];
            List<long[]> matching = new ArrayList<>(1);
            for (long[] parent : parents.getOrDefault(high ^ Long.rotateLeft(low, 17), List.of())) {
                if (parent[0] == high && parent[1] == low) {
                    matching.add(parent);
                }
            }
            if (matching.isEmpty()) {
                endWithoutParent(row);
            }
            long several = Math.max(1, row[SEVERAL]) * matching.size();
            if (several > MOST_PARENTS) {
                severalParents.computeIfAbsent(row[ROW], ref -> new Outcome()).hasTooMany = true;
                continue;
            }
            for (long[] parent : matching) {
                goOn(joined(row, parent, several > 1 ? several : 0), s, joined);
            }
        }
    }

    private void goOn(long[] record, int s, Partitions joined) {
        if (joined == null) {
            judge(record);
        } else {
            joined.addRecord(partition(record, s + 1), record);
        }
    }

    private void joinChildren(int s, int partition, LongSpool.Reader records, Partitions joined) {
        RuleStep step = steps.get(s);
        List<List<Figure>> figures = new ArrayList<>();
        try (KeyTable places = new KeyTable(null)) {
            LongSpool.Reader children = step.others.read(partition);
            while (children != null && children.hasNext()) {
                long[] child = Partitions.nextRecord(children);
                places.ensureRoom();
                int slot = places.slotOf(child[0], child[1]);
                if (!places.isUsed(slot)) {
                    places.insert(slot, child[0], child[1], figures.size());
                    figures.add(newFigures(step));
                }
                add(child, step, figures.get((int) places.value(slot)));
            }
            List<Figure> none = newFigures(step);
            while (records.hasNext()) {
                long[] row = Partitions.nextRecord(records);
                places.ensureRoom();
                int slot = places.slotOf(row[KEYS + 2 * s], row[KEYS + 2 * s + 1]);
                List<Figure> own = places.isUsed(slot) ? figures.get((int) places.value(slot)) : none;
                StoredValues both = new StoredValues();
                both.addAll(row, 0);
                own.forEach(figure -> both.addValue(figure.value()));
                goOn(both.toArray(), s, joined);
            }
        }
    }

    private static List<Figure> newFigures(RuleStep step) {
        return step.figures.stream().map(Figure::new).toList();
    }

    private static void add(long[] child, RuleStep step, List<Figure> figures) {
        StoredValues stored = new StoredValues();
        stored.read(child, 2);
        Map<Integer, Object> values = new HashMap<>();
        for (int column : step.columns) {
            values.put(column, stored.next());
        }
        for (int i = 0; i < figures.size(); i++) {
            Optional<Integer> column = step.figures.get(i).column();
            if (column.isPresent()) {
                figures.get(i).add(values.get(column.get()));
            } else {
                figures.get(i).addRow();
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
            Object value = evaluator.evaluate(rule.condition(), leaf -> values.get(plan.slots.get(leaf)));
            outcome.isKnown |= value != null;
            if (value != null && !(Boolean) value) {
                outcome.breakBy(Broken.FALSE, values);
            }
        } catch (DivisionByZero e) {
            outcome.breakBy(e.getMessage(), values);
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
            kept.add(ref, plan.keptSlots.stream().map(outcome.values::get).toList());
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

    /** What the children of a row at fault come to, as a clause; empty where the rule asks for none. */
    String figuresOf(long ref) {
        return kept.wordsFor(ref);
    }

    /** Lets go of the figures, which the evidence needs. */
    void forgetFigures() {
        kept.close();
    }

    @Override
    public void close() {
        steps.forEach(step -> step.others.close());
        if (rows != null) {
            rows.close();
        }
    }
}
