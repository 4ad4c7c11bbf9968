/**
 * Sheets of workbooks. {@code SheetSource} knows where rows stand in a sheet; a {@code Workbook} goes over the rows of its sheets, and there is one for
 * each format: {@code XlsxWorkbook}, by a library, and {@code OdsWorkbook}. Both stream a sheet, and take cells as they are stored.
 */
package taxiomet.sources.sheet;
