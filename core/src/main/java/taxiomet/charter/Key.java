package taxiomet.charter;

import java.util.List;
import java.util.Optional;

/**
 * A primary or unique key.
 *
 * @param name the key's name; {@code primary_key} for the primary key
 * @param columns names of columns of the table, in key order, at least one
 * @param nullsAreEqual SQL's NULLS NOT DISTINCT: a key with a null in it can be a duplicate too
 * @param where the rows that the key is declared for; empty for all
 * @param declaredName what the primary key is called in the database, where that is known; empty for unique keys
 */
public record Key(
        String name,
        List<String> columns,
        boolean isPrimary,
        boolean nullsAreEqual,
        Optional<Condition> where,
        Optional<String> declaredName,
        Severity severity) {
    /** The name that every primary key goes by. */
    public static final String PRIMARY = "primary_key";

    public Key {
        columns = List.copyOf(columns);
    }

    /** The same key for the rows that meet a condition. */
    public Key where(Optional<Condition> condition) {
        return new Key(name, columns, isPrimary, nullsAreEqual, condition, declaredName, severity);
    }

    /** A key of all rows, with nothing else declared. */
    public static Key of(String name, List<String> columns, boolean isPrimary) {
        return new Key(name, columns, isPrimary, false, Optional.empty(), Optional.empty(), Severity.ERROR);
    }
}
