package taxiomet.personal;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.keys.KeyForm;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;
import taxiomet.values.ValueReader;
import taxiomet.work.KeyedHash;
import taxiomet.work.Secret;

/**
 * Names that stand for the values of personal columns: one value has one throughout a run, and so have values that are equal as keys; in
 * another run it has another. A column is personal if it says so, and if a link joins it to one that is. Names are made with HMAC-SHA-256
 * under a key that only the run knows.
 */
public final class Pseudonyms {
    /** Stands in messages for a value that need not be told from others. */
    public static final String HIDDEN = "(personal)";

    private static final String MARK = "veiled-";
    private static final String LETTERS = "0123456789abcdefghjkmnpqrstvwxyz";
    private static final int LENGTH = 10;
    private static final int BITS = 5;
    private static final String KEYED_FOR = "taxiomet pseudonyms";

    private final Charter charter;
    private final Map<String, Map<String, Values>> personal = new HashMap<>();
    private final KeyedHash hash;

    /** How the values of one column are read and compared. */
    private record Values(Column column, ValueReader reader, List<KeyForm> forms) {}

    /** @param secret of the run */
    public Pseudonyms(Charter charter, Secret secret) {
        this.charter = charter;
        this.hash = new KeyedHash(secret, KEYED_FOR);
        Map<Place, Set<KeyForm>> forms = new LinkedHashMap<>();
        for (Table table : charter.tables()) {
            table.columns().stream()
                    .filter(Column::isPersonal)
                    .forEach(column -> forms.computeIfAbsent(
                                    new Place(table.name(), column.name()), p -> new LinkedHashSet<>())
                            .add(KeyForm.of(column)));
        }
        while (spread(forms)) {
            // Links may reach farther each time.
        }
        forms.forEach((place, all) -> {
            Column column = charter.table(place.table).column(place.column);
            personal.computeIfAbsent(place.table, t -> new HashMap<>())
                    .put(place.column, new Values(column, ValueReader.of(column), List.copyOf(all)));
        });
    }

    private record Place(String table, String column) {}

    /** Over all links in both directions: both ends are personal if one is, and compared in the forms of both; false when nothing is new. */
    private boolean spread(Map<Place, Set<KeyForm>> forms) {
        boolean isNew = false;
        for (ForeignKey link : charter.links()) {
            for (int i = 0; i < link.columns().size(); i++) {
                Place child = new Place(link.child(), link.columns().get(i));
                Place parent = new Place(link.parent(), link.parentColumns().get(i));
                if (forms.containsKey(child) || forms.containsKey(parent)) {
                    Set<KeyForm> both = new LinkedHashSet<>();
                    for (Place end : List.of(child, parent)) {
                        both.add(KeyForm.of(charter.table(end.table).column(end.column)));
                        both.addAll(forms.getOrDefault(end, Set.of()));
                    }
                    isNew |= !both.equals(forms.put(child, both));
                    isNew |= !both.equals(forms.put(parent, new LinkedHashSet<>(both)));
                }
            }
        }
        return isNew;
    }

    /** Whether there is a personal column at all. */
    public boolean isAny() {
        return !personal.isEmpty();
    }

    /** Whether a table has a personal column. */
    public boolean isAny(String table) {
        return personal.containsKey(table);
    }

    /** Whether a column's values are shown as pseudonyms. */
    public boolean isPersonal(String table, String column) {
        return personal.containsKey(table) && personal.get(table).containsKey(column);
    }

    /** The charter, with all columns called personal whose values are shown as pseudonyms. */
    public Charter charter() {
        return isAny() ? charter.withPersonal(this::isPersonal) : charter;
    }

    /** What messages show for a value. */
    public static String hidden(Column column, String value) {
        return column.isPersonal() && value != null ? HIDDEN : value;
    }

    /** Whether a text looks like a pseudonym, of this run or of another. */
    public static boolean isOne(String text) {
        return text != null && text.startsWith(MARK) && text.length() == MARK.length() + LENGTH;
    }

    /** What is shown for a value: itself, if the column is not personal, or null. */
    public String of(String table, String column, String value) {
        return value == null || !isPersonal(table, column)
                ? value
                : name(canonical(personal.get(table).get(column), value));
    }

    /** One text for all values that are equal as keys. */
    private static String canonical(Values values, String value) {
        if (values.column.type().isText()) {
            String text = values.column.type().name() == ColumnType.Name.CHAR ? value.replaceAll(" +$", "") : value;
            for (KeyForm form : values.forms) {
                text = form.folded(text);
            }
            return text;
        }
        byte[] utf8 = value.getBytes(StandardCharsets.UTF_8);
        byte[] padded = Arrays.copyOf(utf8, utf8.length + CellColumn.PADDING);
        if (!values.reader.accepts(padded, 0, utf8.length)) {
            return value;
        }
        return values.reader.low() == TypedColumn.WIDE
                ? ValueReader.wideNumber(utf8, 0, utf8.length).toPlainString()
                : values.reader.high() + " " + values.reader.low();
    }

    private String name(String canonical) {
        long bits = hash.of(canonical);
        StringBuilder name = new StringBuilder(MARK);
        for (int i = 0; i < LENGTH; i++) {
            name.append(LETTERS.charAt((int) (bits >>> BITS * i) & LETTERS.length() - 1));
        }
        return name.toString();
    }
}
