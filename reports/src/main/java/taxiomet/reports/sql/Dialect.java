package taxiomet.reports.sql;

import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Table;

/** How a server wants names and values written. */
public enum Dialect {
    POSTGRESQL,
    SQLITE,
    MARIADB;

    String name(String name) {
        return this == MARIADB ? "`" + name.replace("`", "``") + "`" : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /** A value of a column; {@code text} as SQL writes it without quotes, null for null. */
    String literal(Column column, String text) {
        if (text == null) {
            return "NULL";
        }
        Family family = column.type().family();
        if (family == Family.BOOLEAN && this != POSTGRESQL) {
            return text.equals("true") ? "1" : "0";
        }
        boolean isPlain =
                family == Family.EXACT_NUMBER || (family == Family.APPROXIMATE_NUMBER && text.matches("[-+0-9.eE]+"));
        if (isPlain) {
            return text;
        }
        String escaped = text.replace("'", "''");
        return "'" + (this == MARIADB ? escaped.replace("\\", "\\\\") : escaped) + "'";
    }

    String begin() {
        return this == MARIADB ? "START TRANSACTION" : "BEGIN";
    }

    /** What stands before the table of a guard, so that a guard that does not hold takes everything back. */
    String insertOrRollBack() {
        return this == SQLITE ? "INSERT OR ROLLBACK INTO" : "INSERT INTO";
    }

    /** What lets an insert give numbers to a column that the server numbers alone. */
    String overriding(Table table) {
        boolean isNeeded = this == POSTGRESQL
                && table.columns().stream().anyMatch(column -> column.generated() == Generated.ALWAYS);
        return isNeeded ? " OVERRIDING SYSTEM VALUE" : "";
    }
}
