package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Comparison;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.Literal;
import taxiomet.keys.KeyForm;
import taxiomet.rehearse.reach.RowCondition.NamedKeys;

/** Finds out that a condition asks for nothing but certain values of columns: {@code a = 1 AND b = 'x'}, {@code a IN (1, 2)}. */
final class KeyEqualities {
    private final ReachedTable table;
    private final Map<Integer, List<Object>> parts = new LinkedHashMap<>();

    private KeyEqualities(ReachedTable table) {
        this.table = table;
    }

    /** The keys whose rows a condition names, all of them; empty where it asks for more than equality, or values compare in another way. */
    static Optional<NamedKeys> of(ReachedTable table, Expression condition) {
        KeyEqualities equalities = new KeyEqualities(table);
        List<Expression> all = condition instanceof And and ? and.all() : List.of(condition);
        boolean areAll = all.stream().allMatch(equalities::take);
        boolean isOneKey = equalities.parts.values().stream().allMatch(list -> list.size() == 1);
        if (!areAll || !(isOneKey || equalities.parts.size() == 1)) {
            return Optional.empty();
        }
        return Optional.of(equalities.keys(isOneKey && equalities.parts.size() > 1));
    }

    private NamedKeys keys(boolean isComposite) {
        int[] columns = parts.keySet().stream().mapToInt(Integer::intValue).toArray();
        List<KeyForm> forms = Arrays.stream(columns)
                .mapToObj(column -> KeyForm.of(table.column(column)))
                .toList();
        List<Object> keys = isComposite
                ? List.of(new CompositeKey(
                        parts.values().stream().map(list -> list.get(0)).toArray()))
                : parts.values().iterator().next();
        return new NamedKeys(columns, forms, keys);
    }

    private boolean take(Expression part) {
        if (part instanceof Compared compared && compared.comparator() == Comparator.EQUAL) {
            boolean isColumnFirst = compared.left() instanceof ColumnValue;
            return take(
                    isColumnFirst ? compared.left() : compared.right(),
                    List.of(isColumnFirst ? compared.right() : compared.left()));
        }
        return part instanceof In in && take(in.operand(), in.list());
    }

    private boolean take(Expression operand, List<Expression> values) {
        if (!(operand instanceof ColumnValue column) || !isComparedAsKey(column.column())) {
            return false;
        }
        List<Object> found = new ArrayList<>();
        for (Expression value : values) {
            Object assigned = value instanceof Literal literal
                    ? table.codec(column.column()).assign(literal.value())
                    : null;
            if (assigned == null || assigned instanceof Unread) {
                return false;
            }
            found.add(CellCodec.keyPart(assigned, KeyForm.of(table.column(column.column()))));
        }
        return parts.putIfAbsent(column.column(), found) == null;
    }

    /** Whether values of a column are equal in a condition exactly when they are in a key. */
    private boolean isComparedAsKey(int column) {
        Name type = table.column(column).type().name();
        boolean isPlainText = table.column(column).type().isText()
                && type != Name.CHAR
                && table.column(column).comparison() == Comparison.EXACT;
        return isPlainText || table.column(column).type().isInteger();
    }
}
