package taxiomet.keys;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.values.SqlText;

/**
 * How the values of one column of a key are compared. Keys in the same forms are equal exactly when their values are.
 *
 * @param family the family of types as which values are compared: exact and approximate numbers meet as approximate ones
 * @param comparison for texts
 */
public record KeyForm(Family family, Comparison comparison) {
    /** By hand, as {@link #hashCode} is: what a record makes at run time costs too much of a start. */
    @Override
    public boolean equals(Object other) {
        return other instanceof KeyForm form && family == form.family && comparison == form.comparison;
    }

    @Override
    public int hashCode() {
        return 31 * family.hashCode() + comparison.hashCode();
    }

    /** The form in which values of a column are compared with one another. */
    public static KeyForm of(Column column) {
        return new KeyForm(column.type().family(), column.type().isText() ? column.comparison() : Comparison.EXACT);
    }

    /** The forms of a key's columns, in their order. */
    public static List<KeyForm> of(Table table, Key key) {
        return key.columns().stream().map(name -> of(table.column(name))).toList();
    }

    /** The forms in which both ends of a link are compared: the parent's, unless the child's numbers are wider. */
    public static List<KeyForm> of(Table child, Table parent, ForeignKey link) {
        List<KeyForm> forms = new ArrayList<>();
        for (int i = 0; i < link.columns().size(); i++) {
            KeyForm parentForm = of(parent.column(link.parentColumns().get(i)));
            Family childFamily = child.column(link.columns().get(i)).type().family();
            forms.add(
                    childFamily == Family.APPROXIMATE_NUMBER ? new KeyForm(childFamily, Comparison.EXACT) : parentForm);
        }
        return forms;
    }

    /** A text as the form compares it: two texts are equal in it exactly when these are. */
    public String folded(String text) {
        return switch (comparison) {
            case EXACT -> text;
            case IGNORE_CASE -> SqlText.fold(text);
            case TRIMMED -> SqlText.trim(text);
        };
    }
}
