package taxiomet.sources.jdbc;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.rows.Sought;

/** Values whose rows are sought, as a driver takes them. */
final class SoughtValues {
    private SoughtValues() {}

    /**
     * All values; those left out that no row can have.
     *
     * @param columns those of what is sought, in its order
     */
    static List<List<Object>> of(Sought sought, List<ColumnInside> columns) {
        List<List<Object>> all = new ArrayList<>();
        for (List<String> texts : sought.values()) {
            List<Object> values = new ArrayList<>();
            for (int i = 0; i < texts.size(); i++) {
                value(columns.get(i), texts.get(i)).ifPresent(values::add);
            }
            if (values.size() == texts.size()) {
                all.add(values);
            }
        }
        return all;
    }

    /** Empty for a value that no column of the type can have. */
    private static Optional<Object> value(ColumnInside column, String text) {
        if (column.kind() != ColumnInside.Kind.NUMBER) {
            return Optional.of(text);
        }
        try {
            BigDecimal number = new BigDecimal(text);
            return Optional.of(column.type().isInteger() ? (Object) number.longValueExact() : number);
        } catch (ArithmeticException | NumberFormatException e) {
            // No number, no whole one, or one beyond all of them.
            return Optional.empty();
        }
    }
}
