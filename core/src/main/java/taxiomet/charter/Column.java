package taxiomet.charter;

import java.util.List;
import java.util.Optional;

/**
 * One column and what its values must be.
 *
 * @param isRequired NOT NULL was declared; a column of the primary key is required without it
 * @param length how many characters (Unicode code points) a text must have
 * @param values the values allowed, compared by value; empty for any
 * @param pattern a regular expression (RE2 syntax) that the whole text must match
 * @param format how dates and times are written, in the letters of {@link java.time.format.DateTimeFormatter}
 * @param decimalComma whether numbers are written with a comma for the point
 * @param defaultValue what an insert that leaves the column out writes; null without one
 * @param generated whether the database numbers rows that leave the column out
 * @param isWordInteger whether the type was declared by the very word INTEGER: SQLite takes such a primary key for the row's own number
 * @param notesGaps whether numbers that no row has, between the least and the greatest, are worth a note
 * @param isPersonal whether its values are shown as pseudonyms alone
 */
public record Column(
        String name,
        ColumnType type,
        boolean isRequired,
        Optional<IntRange> length,
        List<String> values,
        Optional<String> pattern,
        Comparison comparison,
        Optional<String> format,
        boolean decimalComma,
        Optional<DefaultValue> defaultValue,
        Generated generated,
        boolean isWordInteger,
        boolean notesGaps,
        boolean isPersonal,
        Severity severity) {

    /** Who numbers a row. */
    public enum Generated {
        NEVER,
        BY_DEFAULT,
        ALWAYS
    }

    public Column {
        values = List.copyOf(values);
    }

    /** The same column, its type declared by the word INTEGER or by another one. */
    public Column spelled(boolean isInteger) {
        return new Column(
                name,
                type,
                isRequired,
                length,
                values,
                pattern,
                comparison,
                format,
                decimalComma,
                defaultValue,
                generated,
                isInteger,
                notesGaps,
                isPersonal,
                severity);
    }

    /** The same column, its values personal or not. */
    public Column asPersonal(boolean isSo) {
        return new Column(
                name,
                type,
                isRequired,
                length,
                values,
                pattern,
                comparison,
                format,
                decimalComma,
                defaultValue,
                generated,
                isWordInteger,
                notesGaps,
                isSo,
                severity);
    }

    /** A column with a type and nothing else declared. */
    public static Column of(String name, ColumnType type) {
        return new Column(
                name,
                type,
                false,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Comparison.EXACT,
                Optional.empty(),
                false,
                Optional.empty(),
                Generated.NEVER,
                type.name() == ColumnType.Name.INTEGER,
                false,
                false,
                Severity.ERROR);
    }
}
