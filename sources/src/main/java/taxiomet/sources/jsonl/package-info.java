/**
 * Rows in files with one JSON object in each line (JSON Lines). A {@link taxiomet.sources.jsonl.LineCursor} cuts a file into runs of
 * whole lines, one thread at a time; a {@link taxiomet.sources.jsonl.ObjectReader} takes the objects of a run apart, on several threads.
 *
 * <p>A value keeps the spelling it has in the file: a number its digits, a text its characters, {@code true} and {@code false} these
 * words; an object or array is its own text. {@code null} and a field that is not there are null. What is no object, names a field twice
 * or is broken is a malformed row. Files are in UTF-8.
 */
package taxiomet.sources.jsonl;
