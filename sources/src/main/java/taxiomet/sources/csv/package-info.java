/**
 * Rows in delimited text files: RFC 4180 with any delimiter and quote, in several encodings, compressed or not, in one file
 * or in parts.
 *
 * <p>{@link taxiomet.sources.csv.CsvTableSource} is a table, and each of its files a {@link taxiomet.sources.csv.CsvPart}. There are two
 * ways to read all rows. Where delimiter and quote are ASCII and the encoding is UTF-8 or has one byte a character, a {@link
 * taxiomet.sources.csv.ByteScan} hands out {@link taxiomet.sources.csv.Chunk}s of bytes; {@link taxiomet.sources.csv.Marks} are the bytes
 * in a chunk at which a {@link taxiomet.sources.csv.RowSplitter} takes its rows apart, the odd ones with a {@link
 * taxiomet.sources.csv.FieldCursor}, and {@link taxiomet.sources.csv.Joints} are where chunks meet. Cells stay where they are: a batch's
 * columns point into the chunk. Compressed parts are read the same way, from the blocks that an {@link
 * taxiomet.sources.file.UnpackedInput} makes of them. Single rows are picked by a {@link taxiomet.sources.csv.RowPicker}, from between the
 * places that the first pass has left in a {@link taxiomet.sources.file.PlaceIndex}.
 *
 * <p>For all else, and as the reference that tests compare with, there is a {@link taxiomet.sources.csv.LibraryScan}: a {@link
 * taxiomet.sources.csv.LineReader} decodes, remembers where lines begin, and can go back to the line after a faulty one; FastCSV
 * takes the records apart, a {@link taxiomet.sources.csv.RecordCursor} goes on behind faulty ones, and a {@link
 * taxiomet.sources.csv.RecordHandler} puts fields into batches. Where all rows are read this way, or a part is compressed,
 * single rows are as well.
 */
package taxiomet.sources.csv;
