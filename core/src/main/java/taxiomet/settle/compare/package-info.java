/**
 * What came of findings from one result to the next. {@link taxiomet.settle.compare.ResultKeeper} makes of a check what is kept of it, with
 * rows as numbers that stand for them ({@link taxiomet.settle.compare.RowMarks}); {@link taxiomet.settle.compare.Comparing} holds two of
 * these against each other, and {@link taxiomet.settle.compare.CharterComparing} two charters.
 */
package taxiomet.settle.compare;
