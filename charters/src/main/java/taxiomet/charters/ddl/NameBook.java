package taxiomet.charters.ddl;

import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import taxiomet.charters.sql.SqlTokens.Token;

/** Finds tables and columns by names that mean them, though they be written in another case, as SQL allows. */
final class NameBook {
    private final Map<String, TableDraft> tables = new LinkedHashMap<>();

    private static String plain(String name) {
        return name.toLowerCase(Locale.ROOT);
    }

    /** @return false when there is such a table already */
    boolean add(TableDraft table) {
        return tables.putIfAbsent(plain(table.name.text()), table) == null;
    }

    /** Takes a table out again; false when there was none of that name. */
    boolean remove(Token name) {
        return tables.remove(plain(name.text())) != null;
    }

    /** The table that a name means; null when there is none. */
    TableDraft find(Token name) {
        return tables.get(plain(name.text()));
    }

    Iterable<TableDraft> tables() {
        return tables.values();
    }

    boolean isEmpty() {
        return tables.isEmpty();
    }

    /** What a table is called where it was created; the name as written when there is none. */
    String table(Token name) {
        TableDraft table = find(name);
        return table == null ? name.text() : table.name.text();
    }

    /** What a column is called where it was declared; the name as written when there is none. */
    String column(String table, Token name) {
        TableDraft draft = tables.get(plain(table));
        if (draft != null) {
            for (String column : draft.columns.keySet()) {
                if (column.equalsIgnoreCase(name.text())) {
                    return column;
                }
            }
        }
        return name.text();
    }

    boolean hasColumn(String table, Token name) {
        return tables.get(plain(table)).columns.keySet().stream().anyMatch(c -> c.equalsIgnoreCase(name.text()));
    }
}
