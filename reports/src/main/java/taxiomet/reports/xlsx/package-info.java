/**
 * Results as workbooks, for people who sort and filter: {@link taxiomet.reports.xlsx.CheckWorkbook}. Rows are written as they come, one
 * sheet after the other, so that memory does not grow with them. Cells are values and never formulas; {@link taxiomet.reports.xlsx.CellValue}
 * says what becomes a number or a date, and what stays the text that it is.
 */
package taxiomet.reports.xlsx;
