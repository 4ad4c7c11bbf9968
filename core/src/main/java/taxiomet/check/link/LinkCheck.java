package taxiomet.check.link;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.Conclusion;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.pass.StateExchange;
import taxiomet.expression.RowFilter;
import taxiomet.hint.HintFinder;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyIndex;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.Sieved;
import taxiomet.rows.Suspicion;
import taxiomet.rows.Suspicion.WithoutParent;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/** Orphans and half-null rows of one link, under its match type (ISO/IEC 9075-2, 4.18.3.2). */
public final class LinkCheck implements RowCheck, KeyIndex.Probe, Conclusion {
    private final LinkEnds ends;
    private final WithoutParent withoutParent;
    private final KeyEncoder encoder;
    private final Match match;
    private final KeyIndex parents;
    private final BooleanSupplier areUsualNumbers;
    private final Optional<PartialParents> partialParents;
    private final RowFilter filter;
    private final FaultLog orphans;
    private final FaultLog halfNull;
    private final int counted;
    private final MissingValues missing;
    private final Partitions waiting;

    /** What was found where the rows live; null where all of them are looked at here. */
    private Sieved found;

    private long rows;
    private long judged;
    private long nulls;
    private long halfNulls;
    private long illTyped;

    /**
     * @param parents the keys of the parent, in the forms of the link
     * @param areUsualNumbers whether these keys are whole numbers, all written as usual; asked when all have been read
     * @param partialParents the parts of these keys, where the match is partial
     * @param counted how many of the commonest values without a parent will be asked for
     */
    public LinkCheck(
            SpillFolder spill,
            LinkEnds ends,
            KeyIndex parents,
            BooleanSupplier areUsualNumbers,
            Optional<PartialParents> partialParents,
            FaultLog orphans,
            FaultLog halfNull,
            int counted) {
        this.ends = ends;
        this.withoutParent = ends.withoutParent();
        this.encoder = ends.ofChild();
        this.match = ends.link().match();
        this.parents = parents;
        this.areUsualNumbers = areUsualNumbers;
        this.partialParents = partialParents;
        this.filter = ends.filter();
        this.orphans = orphans;
        this.halfNull = halfNull;
        this.counted = counted;
        this.missing = new MissingValues(spill);
        this.waiting = new Partitions(spill);
        parents.await(this);
    }

    @Override
    public int[] columns() {
        return RowFilter.columnsOf(encoder.columns(), filter);
    }

    @Override
    public Optional<List<Suspicion>> suspicions() {
        if (filter != null || partialParents.isPresent() || !encoder.comparesAsWritten()) {
            return Optional.empty();
        }
        return Optional.of(
                match == Match.FULL && ends.link().columns().size() > 1
                        ? List.of(withoutParent, new Suspicion.PartlyNull(ends.places()))
                        : List.of(withoutParent));
    }

    @Override
    public List<List<Integer>> nullsCounted() {
        return List.of(ends.places());
    }

    @Override
    public void rowsAre(Sieved those) {
        found = those;
    }

    @Override
    public void exchange(StateExchange state) {
        rows = state.count(rows);
        judged = state.count(judged);
        nulls = state.count(nulls);
        halfNulls = state.count(halfNulls);
        illTyped = state.count(illTyped);
        state.partitions(waiting, 3, 2);
        missing.exchange(state);
        partialParents.ifPresent(parts -> parts.exchangeQuestions(this, state));
    }

    @Override
    public BatchCheck onThread() {
        return new Finder(encoder.copy(), RowFilter.copyOf(filter));
    }

    /** Looks for the parents of the rows of batches. */
    private final class Finder implements BatchCheck {
        private final KeyEncoder keys;
        private TypedBatch batch;
        private boolean isAnswered;
        private boolean areAllComplete;
        /** Rows without a parent where the answer is known; those that are not complete otherwise. */
        private int[] missingRows = new int[0];

        private int missingCount;
        private int[] otherRows = new int[64];
        private int otherCount;
        private long[] packed = new long[0];
        private final RowFilter among;
        /** Rows that the link is not declared for; none are noted where it is for all. */
        private final BitSet passedOver = new BitSet();

        Finder(KeyEncoder keys, RowFilter among) {
            this.keys = keys;
            this.among = among;
        }

        @Override
        public void look(TypedBatch toRead) {
            batch = toRead;
            keys.start(batch);
            keys.encodeAll(batch.size());
            missingCount = 0;
            otherCount = 0;
            areAllComplete = keys.areAllComplete() && among == null;
            passedOver.clear();
            if (among != null) {
                among.start(batch);
                for (int row = 0; row < batch.size(); row++) {
                    passedOver.set(row, !among.holds(row));
                }
            }
            isAnswered = found != null || parents.canAnswer();
            if (areAllComplete && isAnswered && found == null) {
                findMissing(keys.highs(), keys.lows());
            } else {
                lookAtEach();
            }
        }

        private void findMissing(long[] highs, long[] lows) {
            int size = batch.size();
            if (packed.length < size) {
                packed = new long[size];
                missingRows = new int[size];
            }
            missingCount = parents.keys().findMissing(highs, lows, size, packed, missingRows);
        }

        private void addMissing(int row) {
            if (missingCount == missingRows.length) {
                missingRows = Arrays.copyOf(missingRows, missingCount * 2 + 16);
            }
            missingRows[missingCount++] = row;
        }

        private void lookAtEach() {
            for (int row = 0; row < batch.size(); row++) {
                if (passedOver.get(row)) {
                    continue;
                }
                keys.look(row);
                if (!keys.isComplete()) {
                    if (otherCount == otherRows.length) {
                        otherRows = Arrays.copyOf(otherRows, otherCount * 2);
                    }
                    otherRows[otherCount++] = row;
                } else if (isAnswered && isMissing(row)) {
                    addMissing(row);
                }
            }
        }

        private boolean isMissing(int row) {
            return found == null
                    ? !parents.contains(keys.highs()[row], keys.lows()[row])
                    : found.isMet(withoutParent, batch.ref(row));
        }

        @Override
        public void settle() {
            rows += batch.size();
            judged += batch.size() - otherCount - passedOver.cardinality();
            for (int i = 0; i < otherCount; i++) {
                settleIncomplete(otherRows[i]);
            }
            if (isAnswered) {
                for (int i = 0; i < missingCount; i++) {
                    int row = missingRows[i];
                    missing(keys.highs()[row], keys.lows()[row], batch.ref(row));
                }
                return;
            }
            int other = 0;
            for (int row = 0; row < batch.size(); row++) {
                if (other < otherCount && otherRows[other] == row) {
                    other++;
                    continue;
                }
                if (passedOver.get(row)) {
                    continue;
                }
                long high = keys.highs()[row];
                long low = keys.lows()[row];
                waiting.add(Partitions.of(KeyTable.hash(high, low)), high, low, batch.ref(row));
            }
        }

        private void settleIncomplete(int row) {
            keys.look(row);
            long ref = batch.ref(row);
            if (keys.nulls() == 0) {
                judged++;
                addIllTyped(row, ref);
            } else if (keys.isAllNull()) {
                nulls++;
            } else {
                settleHalfNull(row, ref);
            }
        }

        private void settleHalfNull(int row, long ref) {
            halfNulls++;
            if (match == Match.FULL) {
                halfNull.add(ref);
            } else if (match == Match.PARTIAL) {
                judged++;
                if (keys.illTyped() > 0) {
                    addIllTyped(row, ref);
                } else {
                    partialParents.orElseThrow().await(LinkCheck.this, keys, row, ref);
                }
            }
        }

        private void addIllTyped(int row, long ref) {
            illTyped++;
            keys.encodeAsWritten(row);
            missing(keys.high(), keys.low(), ref);
        }
    }

    @Override
    public Partitions keys() {
        return waiting;
    }

    @Override
    public void missing(long high, long low, long ref) {
        orphans.add(ref);
        missing.add(high, low, ref);
    }

    @Override
    public void resolve() {
        partialParents.ifPresent(PartialParents::resolve);
        missing.count(counted);
        if (found != null) {
            Sieved.NullCounts ofAll = found.nulls().get(ends.places());
            rows = found.rowsInAll();
            nulls = ofAll.all();
            halfNulls = ofAll.some();
            judged = rows - nulls - halfNulls;
        }
    }

    @Override
    public void close() {
        partialParents.ifPresent(PartialParents::close);
        waiting.close();
        missing.close();
    }

    /**
     * A way to ask whether a parent has some whole numbers as its key; empty when the parents' keys are no such numbers, are not in
     * memory, or may not all be written as usual.
     */
    public Optional<HintFinder.Parents> parentsByNumbers() {
        if (!parents.canAnswer() || !areUsualNumbers()) {
            return Optional.empty();
        }
        KeyEncoder numbers = encoder.copy();
        return Optional.of(values -> {
            numbers.encodeNumbers(values);
            return parents.contains(numbers.high(), numbers.low());
        });
    }

    /** Whether the parents' keys are whole numbers, all written as usual. */
    boolean areUsualNumbers() {
        return areUsualNumbers.getAsBoolean();
    }

    /** The different values without a parent. */
    public MissingValues missingValues() {
        return missing;
    }

    /** The rows without a parent. */
    public FaultLog orphans() {
        return orphans;
    }

    /** The child's rows that could be read. */
    public long rows() {
        return rows;
    }

    /** Rows looked up among the parents, ill-typed ones too. */
    public long judged() {
        return judged;
    }

    /** Rows with nulls in all columns of the link. */
    public long nulls() {
        return nulls;
    }

    /** Rows with nulls in some columns of it. */
    public long halfNulls() {
        return halfNulls;
    }

    /** Rows among the judged with a value that is not of its type. */
    public long illTyped() {
        return illTyped;
    }
}
