package taxiomet.charter;

import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Rows in files with one JSON object in each line.
 *
 * @param path a path or, for a table in parts, a glob
 * @param fields for a column that is not the field of its own name at the top, the way to its value as a JSON Pointer (RFC 6901):
 *     {@code /keeper/id}, {@code /tags/0}
 */
public record JsonLines(Path folder, String path, Map<String, String> fields) implements RowsPlace {
    public JsonLines {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
    }

    /** Rows of the same form that stand somewhere else. */
    public JsonLines at(Path otherFolder, String otherPath) {
        return new JsonLines(otherFolder, otherPath, fields);
    }

    /** The way to the value of a column, as a JSON Pointer. */
    public String pointerOf(String column) {
        return fields.getOrDefault(column, "/" + column.replace("~", "~0").replace("/", "~1"));
    }
}
