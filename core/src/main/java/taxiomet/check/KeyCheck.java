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
    public void check(TypedBatch batch) {
        encoder.start(batch);
        for (int row = 0; row < batch.size(); row++) {
            encoder.look(row);
            if (encoder.nulls() > 0 && nullsInKey != null) {
                nullsInKey.add(batch.ref(row));
            }
            if (encoder.illTyped() == 0 && (encoder.nulls() == 0 || nullsAreEqual)) {
                encoder.encode(row);
                index.add(encoder.high(), encoder.low(), batch.ref(row));
            }
        }
    }
}
