/** Results as CSV: all rows of all findings in one file, or a folder with a file for each finding. */
package taxiomet.reports.csv;
