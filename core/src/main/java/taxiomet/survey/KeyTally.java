package taxiomet.survey;

import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.keys.KeyCounts;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;

/** Counts the rows of a candidate key: those without one, and those of each. */
final class KeyTally implements RowCheck {
    private final KeyEncoder encoder;
    private final KeyCounts counts;
    private long withNull;
    private long illTyped;

    KeyTally(KeyEncoder encoder, KeyCounts counts) {
        this.encoder = encoder;
        this.counts = counts;
    }

    @Override
    public int[] columns() {
        return encoder.columns();
    }

    @Override
    public BatchCheck onThread() {
        return new Encoding(encoder.copy());
    }

    private final class Encoding implements BatchCheck {
        private final KeyEncoder keys;
        private boolean[] usable = new boolean[0];
        private boolean areAll;
        private int size;
        private long nulls;
        private long misfits;

        Encoding(KeyEncoder keys) {
            this.keys = keys;
        }

        @Override
        public void look(TypedBatch batch) {
            size = batch.size();
            nulls = 0;
            misfits = 0;
            keys.start(batch);
            keys.encodeAll(size);
            areAll = keys.areAllComplete();
            if (areAll) {
                return;
            }
            if (usable.length < size) {
                usable = new boolean[size];
            }
            for (int row = 0; row < size; row++) {
                keys.look(row);
                usable[row] = keys.isComplete();
                nulls += keys.nulls() > 0 ? 1 : 0;
                misfits += keys.nulls() == 0 && keys.illTyped() > 0 ? 1 : 0;
            }
        }

        @Override
        public void settle() {
            withNull += nulls;
            illTyped += misfits;
            counts.add(keys.highs(), keys.lows(), areAll ? null : usable, size);
        }
    }

    /** The keys, to be asked for by links. */
    KeyCounts counts() {
        return counts;
    }

    /** What was counted, once all rows were seen. */
    CountedKey counted() {
        return new CountedKey(counts.excess(), withNull, illTyped);
    }

    /** Rows without a key that can be compared. */
    long keyless() {
        return withNull + illTyped;
    }
}
