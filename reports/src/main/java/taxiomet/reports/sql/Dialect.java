package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Server;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseRows;

/** How a server wants names and values written. */
public enum Dialect {
    POSTGRESQL,
    SQLITE,
    MARIADB;

    /** The temporary table that guards write into. */
    static final String GUARD = "taxiomet_guard";

    /**
     * The dialect of a server.
     *
     * @throws IllegalArgumentException for one for which nothing is written
     */
    public static Dialect of(Server server) {
        return valueOf(server.name());
    }

    String name(String name) {
        return this == MARIADB ? "`" + name.replace("`", "``") + "`" : "\"" + name.replace("\"", "\"\"") + "\"";
    }

    /** A table in statements: where its rows live in a database, with the schema; else by its own name. */
    String name(Table table) {
        return table.rows() instanceof DatabaseRows rows && !rows.isQuery()
                ? rows.parts().stream().map(this::name).collect(Collectors.joining("."))
                : name(table.name());
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
        if (this == SQLITE || text.indexOf('\\') < 0) {
            return "'" + escaped + "'";
        }
        // PostgreSQL reads E'..' alike whatever standard_conforming_strings says; MariaDB's mode is set at the head of
        // a script.
        return (this == POSTGRESQL ? "E'" : "'") + escaped.replace("\\", "\\\\") + "'";
    }

    /** Statements by which the server reads others as they are meant, and has links act. */
    List<String> settings() {
        return switch (this) {
            case POSTGRESQL -> List.of("SET standard_conforming_strings = on");
            case SQLITE -> List.of("PRAGMA foreign_keys = ON");
            case MARIADB ->
                List.of(
                        // Zero is a number like any other, assignments see the row as it was, a backslash in a text is
                        // doubled.
                        "SET sql_mode = CONCAT(REPLACE(@@sql_mode, 'NO_BACKSLASH_ESCAPES', ''),"
                                + " ',NO_AUTO_VALUE_ON_ZERO,SIMULTANEOUS_ASSIGNMENT')");
        };
    }

    /** Statements that begin a script: links act, and a guard left by a script that failed is gone. */
    List<String> begin() {
        List<String> begin = new ArrayList<>(settings());
        if (this == MARIADB) {
            begin.add(dropTemporary() + " IF EXISTS " + GUARD);
        }
        begin.add(this == MARIADB ? "START TRANSACTION" : "BEGIN");
        return begin;
    }

    /** Statements that begin a script that works outside the rules of the tables. */
    List<String> beginWithoutRules() {
        List<String> begin = new ArrayList<>();
        switch (this) {
            case POSTGRESQL -> {
                begin.addAll(begin());
                begin.add("SET LOCAL session_replication_role = replica");
            }
            case SQLITE -> {
                begin.add("PRAGMA ignore_check_constraints = ON");
                begin.add("PRAGMA foreign_keys = OFF");
                begin.add("BEGIN");
            }
            case MARIADB -> {
                begin.add("SET check_constraint_checks = 0");
                begin.add("SET foreign_key_checks = 0");
                begin.addAll(begin());
            }
        }
        return begin;
    }

    List<String> afterWithoutRules() {
        return switch (this) {
            case POSTGRESQL -> List.of();
            case SQLITE -> List.of("PRAGMA foreign_keys = ON", "PRAGMA ignore_check_constraints = OFF");
            case MARIADB -> List.of("SET foreign_key_checks = 1", "SET check_constraint_checks = 1");
        };
    }

    /** What whoever runs such a script has to know. */
    List<String> remarksWithoutRules() {
        return this == POSTGRESQL
                ? List.of(
                        "Links and triggers are at rest while the rows are put back: whoever runs it needs the right to set",
                        "session_replication_role. Rules on values (CHECK) stay in force: drop first those that the rows broke before.")
                : List.of("Links and rules are at rest while the rows are put back.");
    }

    /** What stands before a list of rows of several values that a key may be in. */
    String tuples() {
        return this == SQLITE ? "VALUES " : "";
    }

    String dropTemporary() {
        return this == MARIADB ? "DROP TEMPORARY TABLE" : "DROP TABLE";
    }

    /** Whether rules are judged after each row, and the order of the rows can be asked for. */
    boolean judgesRowByRow() {
        return this == MARIADB;
    }

    /** The condition of a statement that does nothing once a guard has taken all back, though the client goes on with the script. */
    String whileGuarded(String condition) {
        return this == SQLITE ? "(" + condition + ")\n    AND EXISTS (SELECT 1 FROM " + GUARD + ")" : condition;
    }

    /** The same for a value to be inserted. */
    String valueWhileGuarded(String literal) {
        return this == SQLITE ? "(SELECT " + literal + " FROM " + GUARD + ")" : literal;
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
