/**
 * What results say in words: once for all reports that people read, on a terminal, in a page or in a workbook. {@link
 * taxiomet.reports.words.CellText} makes cells fit to be shown.
 */
package taxiomet.reports.words;
