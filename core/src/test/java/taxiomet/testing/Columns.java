package taxiomet.testing;

import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.IntRange;
import taxiomet.charter.Severity;

/** What a test's columns declare beyond their types. */
public final class Columns {
    private Optional<IntRange> length;
    private List<String> values;
    private Optional<String> pattern;
    private Comparison comparison;
    private Optional<String> format;
    private boolean decimalComma;
    private boolean notesGaps;
    private Severity severity;

    private Columns(Column of) {
        length = of.length();
        values = of.values();
        pattern = of.pattern();
        comparison = of.comparison();
        format = of.format();
        decimalComma = of.decimalComma();
        notesGaps = of.notesGaps();
        severity = of.severity();
    }

    private static Column copy(Column of, Consumer<Columns> change) {
        Columns parts = new Columns(of);
        change.accept(parts);
        return new Column(
                of.name(),
                of.type(),
                of.isRequired(),
                parts.length,
                parts.values,
                parts.pattern,
                parts.comparison,
                parts.format,
                parts.decimalComma,
                of.defaultValue(),
                of.generated(),
                of.isWordInteger(),
                parts.notesGaps,
                of.isPersonal(),
                parts.severity);
    }

    public static UnaryOperator<Column> length(String range) {
        return column -> copy(column, parts -> parts.length = IntRange.parse(range));
    }

    public static UnaryOperator<Column> oneOf(String... values) {
        return column -> copy(column, parts -> parts.values = List.of(values));
    }

    public static UnaryOperator<Column> pattern(String pattern) {
        return column -> copy(column, parts -> parts.pattern = Optional.of(pattern));
    }

    public static Column ignoringCase(Column column) {
        return copy(column, parts -> parts.comparison = Comparison.IGNORE_CASE);
    }

    public static UnaryOperator<Column> written(String format) {
        return column -> copy(column, parts -> parts.format = Optional.of(format));
    }

    public static Column decimalComma(Column column) {
        return copy(column, parts -> parts.decimalComma = true);
    }

    public static Column notingGaps(Column column) {
        return copy(column, parts -> parts.notesGaps = true);
    }

    public static Column warning(Column column) {
        return copy(column, parts -> parts.severity = Severity.WARNING);
    }
}
