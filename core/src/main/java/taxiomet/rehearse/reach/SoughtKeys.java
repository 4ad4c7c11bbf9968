package taxiomet.rehearse.reach;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.keys.KeyForm;
import taxiomet.rehearse.reach.RowCondition.NamedKeys;
import taxiomet.rows.Sought;

/** Keys as whoever keeps the rows can be asked for them. */
final class SoughtKeys {
    private static final Set<Family> ASKED = Set.of(Family.EXACT_NUMBER, Family.TEXT, Family.UUID, Family.BOOLEAN);

    private SoughtKeys() {}

    /** The values of some keys; empty where their columns are compared otherwise than by value, or code point by code point. */
    static Optional<Sought> of(ReachedTable table, NamedKeys named) {
        for (int i = 0; i < named.columns().length; i++) {
            KeyForm form = named.forms().get(i);
            boolean isAsked = ASKED.contains(form.family())
                    && form.comparison() == Comparison.EXACT
                    && table.column(named.columns()[i]).type().family() == form.family();
            if (!isAsked) {
                return Optional.empty();
            }
        }
        List<List<String>> values = new ArrayList<>();
        for (Object key : named.keys()) {
            List<String> texts = new ArrayList<>();
            for (int i = 0; i < named.columns().length; i++) {
                Object part = key instanceof CompositeKey composite ? composite.part(i) : key;
                texts.add(part instanceof BigDecimal number ? number.toPlainString() : part.toString());
            }
            values.add(texts);
        }
        return Optional.of(new Sought(Arrays.stream(named.columns()).boxed().toList(), values));
    }
}
