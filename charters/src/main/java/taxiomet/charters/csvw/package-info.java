/**
 * Metadata of delimited text as the W3C has it (CSVW: "Metadata Vocabulary for Tabular Data", 2015), read as a charter and written from one.
 */
package taxiomet.charters.csvw;
