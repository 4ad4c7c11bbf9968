package taxiomet.testing;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.IntRange;
import taxiomet.charter.Severity;

/** What a test's columns declare beyond their types. */
public final class Columns {
    private Columns() {}

    private static Column copy(
            Column of,
            Optional<IntRange> length,
            List<String> values,
            Optional<String> pattern,
            Comparison comparison,
            Optional<String> format,
            boolean decimalComma,
            boolean notesGaps,
            Severity severity) {
        return new Column(
                of.name(),
                of.type(),
                of.isRequired(),
                length,
                values,
                pattern,
                comparison,
                format,
                decimalComma,
                of.defaultValue(),
                of.generated(),
                of.isWordInteger(),
                notesGaps,
                severity);
    }

    public static UnaryOperator<Column> length(String range) {
        return c -> copy(
                c,
                IntRange.parse(range),
                c.values(),
                c.pattern(),
                c.comparison(),
                c.format(),
                c.decimalComma(),
                c.notesGaps(),
                c.severity());
    }

    public static UnaryOperator<Column> oneOf(String... values) {
        return c -> copy(
                c,
                c.length(),
                List.of(values),
                c.pattern(),
                c.comparison(),
                c.format(),
                c.decimalComma(),
                c.notesGaps(),
                c.severity());
    }

    public static UnaryOperator<Column> pattern(String pattern) {
        return c -> copy(
                c,
                c.length(),
                c.values(),
                Optional.of(pattern),
                c.comparison(),
                c.format(),
                c.decimalComma(),
                c.notesGaps(),
                c.severity());
    }

    public static Column ignoringCase(Column c) {
        return copy(
                c,
                c.length(),
                c.values(),
                c.pattern(),
                Comparison.IGNORE_CASE,
                c.format(),
                c.decimalComma(),
                c.notesGaps(),
                c.severity());
    }

    public static UnaryOperator<Column> written(String format) {
        return c -> copy(
                c,
                c.length(),
                c.values(),
                c.pattern(),
                c.comparison(),
                Optional.of(format),
                c.decimalComma(),
                c.notesGaps(),
                c.severity());
    }

    public static Column decimalComma(Column c) {
        return copy(
                c, c.length(), c.values(), c.pattern(), c.comparison(), c.format(), true, c.notesGaps(), c.severity());
    }

    public static Column notingGaps(Column c) {
        return copy(
                c,
                c.length(),
                c.values(),
                c.pattern(),
                c.comparison(),
                c.format(),
                c.decimalComma(),
                true,
                c.severity());
    }

    public static Column warning(Column c) {
        return copy(
                c,
                c.length(),
                c.values(),
                c.pattern(),
                c.comparison(),
                c.format(),
                c.decimalComma(),
                c.notesGaps(),
                Severity.WARNING);
    }
}
