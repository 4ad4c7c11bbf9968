package taxiomet.rows;

import taxiomet.charter.ColumnType;

/**
 * What is known of all values of a column before any row is read, since whoever keeps the rows vouches for it.
 *
 * @param type one that all values are of
 * @param hasNulls whether some may be null
 */
public record ColumnFacts(ColumnType type, boolean hasNulls) {}
