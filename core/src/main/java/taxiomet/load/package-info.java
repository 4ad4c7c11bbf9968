/**
 * What a load into a database would take in: the tables with parents first, each row by row as it stands, with all constraints on. {@link
 * taxiomet.load.Loading} reads the rows once more, table after table, and knows by then which of them are at fault by themselves.
 */
package taxiomet.load;
