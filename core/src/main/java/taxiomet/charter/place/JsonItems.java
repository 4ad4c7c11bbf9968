package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Rows that are elements of lists in JSON: of a document's own list, of one inside it, or of the lists inside the elements of another.
 *
 * @param path a path or, for a table in parts, a glob
 * @param items the way to the list as a JSON Pointer (RFC 6901) in which a step {@code *} stands for each element of a list; empty where the document is the list, or a line of it one row. An object in place of a list is one row
 * @param fields for a column that is not the field of its own name in the row, the way to its value: a JSON Pointer from the row on
 *     ({@code /keeper/id}), or a relative one: a number of steps up, and from there on ({@code 2/id}), {@code 0} for the row itself, {@code 0#}
 *     for its place in its list, from 0
 */
public record JsonItems(Path folder, String path, String items, Map<String, String> fields) implements RowsPlace {
    private static final Pattern NAMES =
            Pattern.compile(".+\\.json(?:\\.gz|\\.zst|\\.zip)?", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);
    private static final Pattern POINTER =
            Pattern.compile("(?:(?:0|[1-9][0-9]{0,3})(?:#|(?:/.*)?)|/.*)", Pattern.DOTALL);

    public JsonItems {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
    }

    /** Whether a file is a document by its name or path. */
    public static boolean isNamedSo(String file) {
        return NAMES.matcher(file).matches();
    }

    /** Whether a text is the way to a value. */
    public static boolean isPointer(String text) {
        return POINTER.matcher(text).matches();
    }

    /** The way to the value of a column. */
    public String pointerOf(String column) {
        return fields.getOrDefault(column, FieldPointer.to(column));
    }
}
