/** Text in which each column has its positions in a line: {@code FixedWidthSource} cuts lines, {@code BoundedLines} reads them. */
package taxiomet.sources.fixed;
