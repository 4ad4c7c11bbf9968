/**
 * What came of a rehearsal: {@link taxiomet.rehearse.result.ResultBuilder} counts and sums, {@link
 * taxiomet.rehearse.result.RowNames} calls rows by key and label, and {@link taxiomet.rehearse.result.FindingComparison} checks the rows
 * before and after, those near the change ({@link taxiomet.rehearse.result.Neighbourhood}) or all of them, seen through an {@link
 * taxiomet.rehearse.result.OverlaySource}.
 */
package taxiomet.rehearse.result;
