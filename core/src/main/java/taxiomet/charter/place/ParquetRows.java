package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Rows in Parquet files, whose columns have types.
 *
 * @param path a path or, for a table in parts, a glob
 * @param fields for a column that is not the field of its own name at the top, the way to its value through groups, as a JSON Pointer
 *     (RFC 6901): {@code /keeper/id}
 */
public record ParquetRows(Path folder, String path, Map<String, String> fields) implements RowsPlace {
    private static final Pattern NAMES =
            Pattern.compile(".+\\.(?:parquet|parq)", Pattern.CASE_INSENSITIVE | Pattern.DOTALL);

    public ParquetRows {
        fields = Collections.unmodifiableMap(new LinkedHashMap<>(fields));
    }

    /** Whether a file is one of them by its name or path. */
    public static boolean isNamedSo(String file) {
        return NAMES.matcher(file).matches();
    }

    /** Rows of the same form that stand somewhere else. */
    public ParquetRows at(Path otherFolder, String otherPath) {
        return new ParquetRows(otherFolder, otherPath, fields);
    }

    /** The way to the value of a column, as a JSON Pointer. */
    public String pointerOf(String column) {
        return fields.getOrDefault(column, FieldPointer.to(column));
    }
}
