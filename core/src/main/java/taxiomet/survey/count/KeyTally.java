package taxiomet.survey.count;

import taxiomet.check.pass.BatchCheck;
import taxiomet.check.pass.RowCheck;
import taxiomet.keys.KeyCounts;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyIndex;
import taxiomet.keys.TypedBatch;

/** Counts the rows of a candidate key: those without one, and those of each. */
public final class KeyTally implements RowCheck {
    private final KeyEncoder encoder;
    private final Keys keys;
    private long rows;
    private long withNull;
    private long illTyped;

    /** Where the keys go. */
    interface Keys {
        /** Adds the keys of some rows; {@code usable} tells which have one, null for all. */
        void add(long[] highs, long[] lows, boolean[] usable, int size, KeyIndex.RowRefs refs);

        /** All rows have been seen. */
        void seal();

        /** Whether there was no room to tell how many rows repeat a key. */
        boolean isFull();

        /** Rows beyond the first of each key. */
        long excess();

        void close();
    }

    KeyTally(KeyEncoder encoder, Keys keys) {
        this.encoder = encoder;
        this.keys = keys;
    }

    /** Keys in memory, each with its rows: links may point at them. */
    static Keys inMemory(KeyCounts counts) {
        return new Keys() {
            @Override
            public void add(long[] highs, long[] lows, boolean[] usable, int size, KeyIndex.RowRefs refs) {
                counts.add(highs, lows, usable, size);
            }

            @Override
            public void seal() {
                // All is known already.
            }

            @Override
            public boolean isFull() {
                return counts.isFull();
            }

            @Override
            public long excess() {
                return counts.excess();
            }

            @Override
            public void close() {
                counts.close();
            }
        };
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
        private final KeyEncoder own;
        private TypedBatch batch;
        private boolean[] usable = new boolean[0];
        private boolean areAll;
        private int size;
        private long nulls;
        private long misfits;

        Encoding(KeyEncoder own) {
            this.own = own;
        }

        @Override
        public void look(TypedBatch toRead) {
            batch = toRead;
            size = batch.size();
            nulls = 0;
            misfits = 0;
            own.start(batch);
            own.encodeAll(size);
            areAll = own.areAllComplete();
            if (areAll) {
                return;
            }
            if (usable.length < size) {
                usable = new boolean[size];
            }
            for (int row = 0; row < size; row++) {
                own.look(row);
                usable[row] = own.isComplete();
                nulls += own.nulls() > 0 ? 1 : 0;
                misfits += own.nulls() == 0 && own.illTyped() > 0 ? 1 : 0;
            }
        }

        @Override
        public void settle() {
            rows += size;
            withNull += nulls;
            illTyped += misfits;
            keys.add(own.highs(), own.lows(), areAll ? null : usable, size, batch::ref);
        }
    }

    /** Where the keys are. */
    Keys keys() {
        return keys;
    }

    /** What was counted, once all rows were seen. */
    CountedKey counted() {
        return new CountedKey(rows, keys.excess(), withNull, illTyped);
    }

    /** Rows without a key that can be compared. */
    long keyless() {
        return withNull + illTyped;
    }
}
