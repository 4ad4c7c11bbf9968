package taxiomet.charter;

import java.util.List;

/**
 * A primary or unique key.
 *
 * @param name the key's name; {@code primary_key} for the primary key
 * @param columns names of columns of the table, in key order, at least one
 * @param nullsAreEqual SQL's NULLS NOT DISTINCT: a key with a null in it can be a duplicate too
 */
public record Key(String name, List<String> columns, boolean isPrimary, boolean nullsAreEqual, Severity severity) {
    /** The name that every primary key goes by. */
    public static final String PRIMARY = "primary_key";

    public Key {
        columns = List.copyOf(columns);
    }
}
