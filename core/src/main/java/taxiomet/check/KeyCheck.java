package taxiomet.check;

/** Duplicates and nulls in one key of a table; where only a link needs the key, nothing but its index. */
final class KeyCheck implements RowCheck {
    private final KeyEncoder encoder;
    private final KeyIndex index;
    private final boolean nullsAreEqual;
    private final FaultLog nullsInKey;

    /**
     * @param index gets all keys that can be a parent or a duplicate
     * @param nullsAreEqual whether a key with a null in it can be a duplicate too
     * @param nullsInKey gets rows with a null in the key; null where that is sound
     */
    KeyCheck(KeyEncoder encoder, KeyIndex index, boolean nullsAreEqual, FaultLog nullsInKey) {
        this.encoder = encoder;
        this.index = index;
        this.nullsAreEqual = nullsAreEqual;
        this.nullsInKey = nullsInKey;
    }

    @Override
    public int[] columns() {
        return encoder.columns();
    }

    @Override
    public BatchCheck onThread() {
        return new KeyMaker(encoder.copy());
    }

    private final class KeyMaker implements BatchCheck {
        private final KeyEncoder keys;
        private TypedBatch batch;
        private boolean[] usable = new boolean[0];
        private boolean areAllUsable;

        KeyMaker(KeyEncoder keys) {
            this.keys = keys;
        }

        @Override
        public void look(TypedBatch toRead) {
            batch = toRead;
            keys.start(batch);
            keys.encodeAll(batch.size());
            areAllUsable = keys.areAllComplete();
            if (!areAllUsable) {
                if (usable.length < batch.size()) {
                    usable = new boolean[batch.size()];
                }
                for (int row = 0; row < batch.size(); row++) {
                    keys.look(row);
                    usable[row] = keys.illTyped() == 0 && (keys.nulls() == 0 || nullsAreEqual);
                }
            }
        }

        @Override
        public void settle() {
            if (nullsInKey != null && !areAllUsable) {
                for (int row = 0; row < batch.size(); row++) {
                    keys.look(row);
                    if (keys.nulls() > 0) {
                        nullsInKey.add(batch.ref(row));
                    }
                }
            }
            index.add(keys.highs(), keys.lows(), areAllUsable ? null : usable, batch.size(), batch::ref);
        }
    }
}
