/**
 * JSON. {@code JsonLinesSource} reads files with one object in each line (JSON Lines), in pieces and with all threads: a {@code LineCursor} cuts a
 * file into runs of whole lines, an {@code ObjectReader} takes the objects of a run apart. {@code JsonItemsSource} reads lists inside documents or
 * lines, element by element: {@code JsonTree} is one element as a whole, {@code ItemWay} the way to rows in it. {@code FieldSniffer} and {@code
 * ListSniffer} find out what a survey needs.
 *
 * <p>A value keeps the spelling it has in the file: a number its digits, a text its characters, {@code true} and {@code false} these
 * words; an object or list is its own text. {@code null} and a field that is not there are null. A line that is no object, names a field twice
 * or is broken is a malformed row; a document that is broken ends the reading.
 */
package taxiomet.sources.json;
