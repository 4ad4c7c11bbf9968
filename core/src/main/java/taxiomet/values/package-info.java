/**
 * Values: what a cell holds under the type of its column.
 *
 * <p>A {@link taxiomet.values.CellColumn} holds the texts of one column of a batch, as places in a flat array of UTF-8 bytes. A {@link
 * taxiomet.values.ValueReader} turns them into a {@link taxiomet.values.TypedColumn} of primitive values, all at once and as {@link
 * taxiomet.values.Words} where they are written as usual, or says with a {@link taxiomet.values.Refusal} why a cell is not of its
 * type. No object is made for a cell. {@link taxiomet.values.ValueWriter} is the way back, and {@link taxiomet.values.SqlText}
 * what SQL does with texts.
 */
package taxiomet.values;
