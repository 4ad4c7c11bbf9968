/**
 * Sheets of workbooks (.xlsx): {@link taxiomet.sources.xlsx.SheetSource}. Cells are taken as they are stored, not as they are shown; a number
 * that is formatted as a date is a date ({@link taxiomet.sources.xlsx.SheetCells}).
 */
package taxiomet.sources.xlsx;
