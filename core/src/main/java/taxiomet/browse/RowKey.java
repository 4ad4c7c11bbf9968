package taxiomet.browse;

/** A key of a row, as {@link taxiomet.keys.KeyEncoder} makes it. */
record RowKey(long high, long low) {}
