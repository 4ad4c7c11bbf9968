package taxiomet.check.rule;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.OrderedCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.StoredValues;
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
public final class JoinedRuleCheck extends OrderedCheck implements Conclusion {
    private static final int ROW = 0;
    /** How many different parents the child has met so far, or their parents; 0 for one alone. */
    private static final int SEVERAL = 1;

    /** Tables full of equal keys have as many pairs as the product of their rows. */
    public static final int MOST_PARENTS = 100;

    private static final int KEYS = 2;

    private final RuleTally tally;
    private final SpillFolder spill;
    private final JoinPlan plan;
    private final List<RuleStep> steps;
    private final Map<Long, Outcome> severalParents = new HashMap<>();
    private final StoredValues scratch = new StoredValues();
    private final FiguresKept kept;
    private Partitions rows;

    // While rows are joined.
    private final StoredValues joined = new StoredValues();
    private long[] row = new long[KEYS];
    private int rowLength;
    private JoinedBatch complete;
    private final JoinedBatch.Verdicts verdicts = new Counted();

    /** What became of a child of several parents. */
    private static final class Outcome {
        private boolean hasTooMany;
        boolean isJudged;
        boolean isBroken;
        boolean isKnown;
        String reason = "";
        List<Object> figures = List.of();
    }

    /**
     * @param tally of the rule
     * @param table the table that declares it
     * @param secret of the run
     */
    public JoinedRuleCheck(RuleTally tally, Table table, Charter charter, SpillFolder spill, Secret secret) {
        this.tally = tally;
        this.spill = spill;
        Rule rule = tally.rule();
        this.plan = new JoinPlan(rule, table, charter, spill, secret);
        this.kept = new FiguresKept(plan.figures(), spill);
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
        tally.exchange(state);
    }

    @Override
    public void check(TypedBatch batch) {
        plan.startKeys(batch, -1);
        for (int at = 0; at < batch.size(); at++) {
            scratch.clear();
            scratch.add(batch.ref(at));
            scratch.add(0);
            boolean isComplete = plan.addKeys(at, -1, scratch);
            for (int column : plan.ownColumns) {
                isComplete &= batch.column(column).state(at) != TypedColumn.BAD;
                scratch.addCell(batch.column(column), at);
            }
            if (isComplete) {
                rows.addRecord(partition(scratch, 0), scratch.longs(), scratch.size());
            } else {
                tally.addNotJudged(1);
            }
        }
    }

    private static int partition(StoredValues record, int step) {
        return Partitions.of(KeyTable.hash(record.longs()[KEYS + 2 * step], record.longs()[KEYS + 2 * step + 1]));
    }

    /** Joins and judges; all tables have been read. */
    @Override
    public void resolve() {
        complete = new JoinedBatch(tally, plan);
        complete.clear();
        for (int s = 0; s < steps.size(); s++) {
            Partitions next = s + 1 < steps.size() ? new Partitions(spill) : null;
            for (int partition = 0; partition < Partitions.COUNT; partition++) {
                LongSpool.Reader records = rows.read(partition);
                if (records != null && steps.get(s).isDown()) {
                    joinChildren(s, partition, records, next);
                } else if (records != null) {
                    joinParents(s, partition, records, next);
                }
            }
            rows.close();
            rows = next;
        }
        complete.judge(verdicts);
        severalParents.forEach(this::conclude);
    }

    private void read(LongSpool.Reader records) {
        rowLength = (int) records.next();
        if (row.length < rowLength) {
            row = new long[rowLength * 2];
        }
        for (int i = 0; i < rowLength; i++) {
            row[i] = records.next();
        }
    }

    private void joinParents(int s, int partition, LongSpool.Reader records, Partitions next) {
        try (ParentRecords parents = new ParentRecords(steps.get(s).others.read(partition), MOST_PARENTS)) {
            while (records.hasNext()) {
                read(records);
                int first = parents.first(row[KEYS + 2 * s], row[KEYS + 2 * s + 1]);
                if (first == 0) {
                    endWithoutParent();
                    continue;
                }
                long matching = 0;
                for (int parent = first; parent != 0; parent = parents.next(parent)) {
                    matching++;
                }
                long several = Math.max(1, row[SEVERAL]) * matching;
                if (several > MOST_PARENTS) {
                    outcomeOf(row[ROW]).hasTooMany = true;
                    continue;
                }
                for (int parent = first; parent != 0; parent = parents.next(parent)) {
                    join(parents, parent, several > 1 ? several : 0);
                    goOn(s, next);
                }
            }
        }
    }

    private void endWithoutParent() {
        if (row[SEVERAL] == 0) {
            tally.addNotJudged(1);
        } else {
            outcomeOf(row[ROW]);
        }
    }

    /** Makes one record of the row's and a parent's. */
    private void join(ParentRecords parents, int parent, long several) {
        int start = parents.start(parent);
        joined.clear();
        joined.addAll(row, 0, rowLength);
        joined.addAll(parents.longs(), start + KEYS + 2 * steps.size(), parents.end(parent));
        long[] record = joined.longs();
        record[SEVERAL] = several;
        // The keys of the links that start from this parent; zeros elsewhere, so that adding fills in what is missing.
        for (int i = 0; i < 2 * steps.size(); i++) {
            record[KEYS + i] |= parents.longs()[start + KEYS + i];
        }
    }

    private void joinChildren(int s, int partition, LongSpool.Reader records, Partitions next) {
        RuleStep step = steps.get(s);
        List<Figure[]> figures = new ArrayList<>();
        try (KeyTable places = new KeyTable(null)) {
            LongSpool.Reader children = step.others.read(partition);
            StoredValues child = new StoredValues();
            int[] starts = new int[step.columns.size()];
            while (children != null && children.hasNext()) {
                read(children);
                places.ensureRoom();
                int slot = places.slotOf(row[0], row[1]);
                if (!places.isUsed(slot)) {
                    places.insert(slot, row[0], row[1], figures.size());
                    figures.add(newFigures(step));
                }
                child.read(row, rowLength, 2);
                add(child, starts, step, figures.get((int) places.value(slot)));
            }
            Figure[] none = newFigures(step);
            while (records.hasNext()) {
                read(records);
                int slot = places.slotOf(row[KEYS + 2 * s], row[KEYS + 2 * s + 1]);
                joined.clear();
                joined.addAll(row, 0, rowLength);
                for (Figure figure : places.isUsed(slot) ? figures.get((int) places.value(slot)) : none) {
                    figure.addTo(joined);
                }
                goOn(s, next);
            }
        }
    }

    private static Figure[] newFigures(RuleStep step) {
        return step.figures.stream().map(Figure::new).toArray(Figure[]::new);
    }

    private static void add(StoredValues child, int[] starts, RuleStep step, Figure[] figures) {
        for (int i = 0; i < starts.length; i++) {
            starts[i] = child.place();
            child.skip();
        }
        for (int i = 0; i < figures.length; i++) {
            int column = step.columnOfFigure(i);
            if (column < 0) {
                figures[i].addRow();
            } else {
                child.goTo(starts[column]);
                figures[i].addNext(child);
            }
        }
    }

    /** What was joined last has met the relatives of one more step: the next follows, or it is complete. */
    private void goOn(int s, Partitions next) {
        if (next != null) {
            next.addRecord(partition(joined, s + 1), joined.longs(), joined.size());
            return;
        }
        long ref = joined.longs()[ROW];
        long several = joined.longs()[SEVERAL];
        joined.goTo(KEYS + 2 * steps.size());
        if (joined.hasIllTyped()) {
            if (several == 0) {
                tally.addNotJudged(1);
            } else {
                outcomeOf(ref);
            }
            return;
        }
        complete.add(ref, several, joined);
        if (complete.isFull()) {
            complete.judge(verdicts);
        }
    }

    private Outcome outcomeOf(long ref) {
        return severalParents.computeIfAbsent(ref, any -> new Outcome());
    }

    /** Counts what the rule says, at once of a row with one parent, later of one with several. */
    private final class Counted implements JoinedBatch.Verdicts {
        @Override
        public void holds(long ref, long several, boolean isKnown) {
            if (several == 0) {
                tally.addJudged(1);
                tally.addUnknown(isKnown ? 0 : 1);
                return;
            }
            Outcome outcome = outcomeOf(ref);
            outcome.isJudged = true;
            outcome.isKnown |= isKnown;
        }

        @Override
        public void breaks(long ref, long several, String reason, List<Object> figures) {
            if (several == 0) {
                tally.addJudged(1);
                addFault(ref, reason, figures);
                return;
            }
            Outcome outcome = outcomeOf(ref);
            outcome.isJudged = true;
            outcome.isBroken = true;
            outcome.reason = reason;
            outcome.figures = figures;
        }
    }

    private void addFault(long ref, String reason, List<Object> figures) {
        tally.faults().add(ref, reason);
        kept.add(ref, figures);
    }

    private void conclude(long ref, Outcome outcome) {
        if (outcome.hasTooMany) {
            tally.addWithTooManyParents();
        }
        if (outcome.hasTooMany || !outcome.isJudged) {
            tally.addNotJudged(1);
            return;
        }
        tally.addJudged(1);
        if (outcome.isBroken) {
            addFault(ref, outcome.reason, outcome.figures);
        } else if (!outcome.isKnown) {
            tally.addUnknown(1);
        }
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
