package taxiomet.vet;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.Table;
import taxiomet.values.ValueReader;
import taxiomet.vet.Judgement.Kind;

/** Judges the columns of one table: their defaults against their types and what else they declare. */
final class ColumnReview {
    private final Table table;
    private final Review review;

    ColumnReview(Table table, Review review) {
        this.table = table;
        this.review = review;
    }

    void judge() {
        for (Column column : table.columns()) {
            List<String> path = Review.path(table.name(), "columns", column.name(), "default");
            column.defaultValue()
                    .filter(DefaultValue.Constant.class::isInstance)
                    .flatMap(value -> problem(column, value.text()))
                    .ifPresent(problem -> review.error(
                            Kind.DEFAULT_NOT_FITTING,
                            path,
                            "the default `"
                                    + column.defaultValue().orElseThrow().text() + "` of `" + column.name() + "` is "
                                    + problem,
                            "write a value that the column can hold"));
            if (column.defaultValue().isPresent() && column.generated() != Column.Generated.NEVER) {
                review.warn(
                        Kind.NUMBERED_WITH_DEFAULT,
                        path,
                        "`" + column.name() + "` is numbered by the database and has a default too",
                        "leave one of them out");
            }
        }
    }

    private static Optional<String> problem(Column column, String value) {
        ValueReader reader = ValueReader.of(column);
        if (!reader.accepts(value)) {
            return Optional.of("no " + column.type() + " (" + reader.refusal().words() + ")");
        }
        if (column.length().isPresent() && !column.length().get().contains(value.codePointCount(0, value.length()))) {
            return Optional.of("not of the length declared (" + column.length().get() + ")");
        }
        if (!column.values().isEmpty()
                && column.values().stream().noneMatch(allowed -> sameValue(column, allowed, value))) {
            return Optional.of("not among the values allowed");
        }
        return Optional.empty();
    }

    private static boolean sameValue(Column column, String one, String other) {
        if (column.type().isText()) {
            return column.comparison() == Comparison.IGNORE_CASE
                    ? one.equalsIgnoreCase(other)
                    : one.strip().equals(other.strip());
        }
        ValueReader reader = ValueReader.of(column);
        if (!reader.accepts(one)) {
            return false;
        }
        long high = reader.high();
        long low = reader.low();
        return reader.accepts(other) && reader.high() == high && reader.low() == low;
    }
}
