package taxiomet.charters.csvw;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;

/** Least and greatest numbers and days of columns, which metadata has words for, and a charter has as rules. */
final class Bounds {
    private final Table table;
    /** By the column's place, the words for bounds and what they are. */
    private final Map<Integer, Map<String, String>> all = new HashMap<>();

    Bounds(Table table) {
        this.table = table;
    }

    /** Takes what a rule says; false, and nothing is taken, where it says more than bounds, or a second time. */
    boolean take(Rule rule) {
        Map<Integer, Map<String, String>> found = new HashMap<>();
        if (!addTo(found, rule.condition())) {
            return false;
        }
        for (Map.Entry<Integer, Map<String, String>> column : found.entrySet()) {
            Map<String, String> known = all.getOrDefault(column.getKey(), Map.of());
            if (column.getValue().keySet().stream().anyMatch(known::containsKey)) {
                return false;
            }
        }
        found.forEach((column, words) ->
                all.computeIfAbsent(column, place -> new HashMap<>()).putAll(words));
        return true;
    }

    /** The bounds of a column, by the words for them. */
    Map<String, String> of(Column column) {
        return all.getOrDefault(table.columns().indexOf(column), Map.of());
    }

    private boolean addTo(Map<Integer, Map<String, String>> found, Expression condition) {
        if (condition instanceof And and) {
            return and.all().stream().allMatch(each -> addTo(found, each));
        } else if (condition instanceof Between between) {
            return add(found, "minInclusive", between.operand(), between.low())
                    && add(found, "maxInclusive", between.operand(), between.high());
        } else if (condition instanceof Compared compared) {
            Optional<String> forward = word(compared.comparator(), false);
            Optional<String> backward = word(compared.comparator(), true);
            return forward.isPresent()
                    && (add(found, forward.get(), compared.left(), compared.right())
                            || add(found, backward.orElseThrow(), compared.right(), compared.left()));
        }
        return false;
    }

    private static Optional<String> word(Comparator comparator, boolean isTurned) {
        List<String> words = List.of("minExclusive", "minInclusive", "maxExclusive", "maxInclusive");
        int place = switch (comparator) {
            case GREATER -> 0;
            case GREATER_OR_EQUAL -> 1;
            case LESS -> 2;
            case LESS_OR_EQUAL -> 3;
            default -> -1;
        };
        return place < 0 ? Optional.empty() : Optional.of(words.get(isTurned ? (place + 2) % 4 : place));
    }

    private boolean add(Map<Integer, Map<String, String>> found, String word, Expression operand, Expression bound) {
        if (!(operand instanceof ColumnValue column)) {
            return false;
        }
        return literal(table.columns().get(column.column()), bound)
                .filter(text -> found.computeIfAbsent(column.column(), place -> new HashMap<>())
                                .putIfAbsent(word, text)
                        == null)
                .isPresent();
    }

    private static Optional<String> literal(Column column, Expression bound) {
        boolean isNegative = bound instanceof Negation;
        Expression inner = bound instanceof Negation negation ? negation.operand() : bound;
        if (!(inner instanceof Literal literal)) {
            return Optional.empty();
        } else if (column.type().family() == Family.EXACT_NUMBER && literal.value() instanceof BigDecimal number) {
            return Optional.of((isNegative ? number.negate() : number).toPlainString());
        } else if (column.type().name() == Name.DATE
                && column.format().isEmpty()
                && literal.value() instanceof Long micros) {
            return Optional.of(Instant.EPOCH
                    .plus(micros, ChronoUnit.MICROS)
                    .atZone(ZoneOffset.UTC)
                    .toLocalDate()
                    .toString());
        }
        return Optional.empty();
    }
}
