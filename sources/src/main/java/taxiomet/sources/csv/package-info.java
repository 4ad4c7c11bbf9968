/**
 * Rows in delimited text files: RFC 4180 with any delimiter and quote, in any encoding, compressed or not, in one file or in parts.
 *
 * <p>{@link taxiomet.sources.csv.CsvTableSource} is a table, and each of its files a {@link taxiomet.sources.csv.CsvPart}. Whatever a file
 * holds becomes UTF-8 with a delimiter and a quote of one byte each first: {@link taxiomet.sources.csv.ByteForm} says how, and whether rows
 * can still be found by their place in the file. A {@link taxiomet.sources.csv.ByteScan} hands out {@link
 * taxiomet.sources.csv.Chunk}s of bytes; {@link taxiomet.sources.csv.Marks} are the bytes in a chunk at which a {@link
 * taxiomet.sources.csv.RowSplitter} takes its rows apart, the odd ones with a {@link taxiomet.sources.csv.FieldCursor}, and {@link
 * taxiomet.sources.csv.Joints} are where chunks meet. Cells stay where they are: a batch's columns point into the chunk. Compressed and
 * recoded parts are read the same way, from the blocks that an {@link taxiomet.sources.file.UnpackedInput} makes of them.
 *
 * <p>{@link taxiomet.sources.csv.Runs} are a walk over rows on one thread, for a piece of a table ({@link
 * taxiomet.sources.csv.SplitReader}) and for single rows ({@link taxiomet.sources.csv.RowPicker}), which lie between the places that the
 * first pass has left in a {@link taxiomet.sources.file.PlaceIndex}.
 *
 * <p>The header line, and what a {@link taxiomet.sources.csv.Sniffer} looks at, are read by a library. Tests compare all that is read
 * here with what that library makes of random documents.
 */
package taxiomet.sources.csv;
