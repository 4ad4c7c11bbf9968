package taxiomet.check;

import taxiomet.charter.ForeignKey.Match;
import taxiomet.spill.Partitions;
import taxiomet.spill.SpillFolder;

/** Orphans and half-null rows of one link, under its match type (ISO/IEC 9075-2, 4.18.3.2). */
final class LinkCheck implements RowCheck, KeyIndex.Probe {
    private final KeyEncoder encoder;
    private final Match match;
    private final KeyIndex parents;
    private final PartialParents partialParents;
    private final FaultLog orphans;
    private final FaultLog halfNull;
    private final MissingValues missing;
    private final Partitions waiting;

    private long rows;
    private long judged;
    private long nulls;
    private long halfNulls;
    private long illTyped;

    /**
     * @param parents the keys of the parent, in the encoder's forms
     * @param partialParents the parts of these keys; null unless the match is partial
     */
    LinkCheck(
            SpillFolder spill,
            KeyEncoder encoder,
            Match match,
            KeyIndex parents,
            PartialParents partialParents,
            FaultLog orphans,
            FaultLog halfNull) {
        this.encoder = encoder;
        this.match = match;
        this.parents = parents;
        this.partialParents = partialParents;
        this.orphans = orphans;
        this.halfNull = halfNull;
        this.missing = new MissingValues(spill);
        this.waiting = new Partitions(spill);
        parents.await(this);
    }

    @Override
    public int[] columns() {
        return encoder.columns();
    }

    @Override
    public void check(TypedBatch batch) {
        encoder.start(batch);
        boolean canAnswer = parents.canAnswer();
        rows += batch.size();
        for (int row = 0; row < batch.size(); row++) {
            long ref = batch.ref(row);
            encoder.look(row);
            if (encoder.nulls() > 0) {
                checkWithNulls(row, ref);
                continue;
            }
            judged++;
            if (encoder.illTyped() > 0) {
                addIllTyped(row, ref);
                continue;
            }
            encoder.encode(row);
            long high = encoder.high();
            long low = encoder.low();
            if (!canAnswer) {
                waiting.add(Partitions.of(KeyTable.hash(high, low)), high, low, ref);
            } else if (!parents.contains(high, low)) {
                missing(high, low, ref);
            }
        }
    }

    private void checkWithNulls(int row, long ref) {
        if (encoder.isAllNull()) {
            nulls++;
            return;
        }
        halfNulls++;
        if (match == Match.FULL) {
            halfNull.add(ref);
        } else if (match == Match.PARTIAL) {
            judged++;
            if (encoder.illTyped() > 0) {
                addIllTyped(row, ref);
            } else {
                partialParents.await(this, encoder, row, ref);
            }
        }
    }

    private void addIllTyped(int row, long ref) {
        illTyped++;
        encoder.encodeAsWritten(row);
        missing(encoder.high(), encoder.low(), ref);
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

    /** Lets go of the keys that waited, and of the values once they are counted. */
    void close() {
        waiting.close();
        missing.close();
    }

    MissingValues missingValues() {
        return missing;
    }

    FaultLog orphans() {
        return orphans;
    }

    long rows() {
        return rows;
    }

    long judged() {
        return judged;
    }

    long nulls() {
        return nulls;
    }

    long halfNulls() {
        return halfNulls;
    }

    long illTyped() {
        return illTyped;
    }
}
