package taxiomet.survey.profile;

import taxiomet.values.CellColumn;

/**
 * All different values of a column.
 *
 * @param texts as they are written, those of most rows first; no null is among them
 * @param rows how many rows have each
 */
@SuppressWarnings("ArrayRecordComponent") // columns of a batch, as everywhere; never compared
public record KnownValues(CellColumn texts, int[] rows) {}
