/**
 * Rows in delimited text files: RFC 4180 with any delimiter and quote, in several encodings, compressed or not, in one file
 * or in parts.
 *
 * <p>{@link taxiomet.sources.csv.CsvTableSource} is a table; each of its files is a {@link
 * taxiomet.sources.csv.CsvPart}, which is read whole as a split or from a place on for single rows. A {@link
 * taxiomet.sources.csv.LineReader} decodes the bytes, remembers where lines begin, and can go back to the line after a
 * faulty one; FastCSV takes the records apart, and a {@link taxiomet.sources.csv.RecordHandler} puts their fields into
 * batches.
 */
package taxiomet.sources.csv;
