package taxiomet.sources.jdbc;

import java.util.List;
import java.util.regex.Pattern;

/**
 * What a server says, told to people. Servers quote the values that they refuse, and triggers say what they like: where rows hold personal
 * values, only words are told that are known to name rules, tables and columns alone.
 */
final class ServerWords {
    private static final List<Pattern> WITHOUT_VALUES = List.of(
            // PostgreSQL, first lines; the values stand in the details behind them.
            Pattern.compile("duplicate key value violates unique constraint \"[^\"]*\""),
            Pattern.compile("null value in column \"[^\"]*\" (of relation \"[^\"]*\" )?violates not-null constraint"),
            Pattern.compile("new row for relation \"[^\"]*\" violates check constraint \"[^\"]*\""),
            Pattern.compile(
                    "(insert or update|update or delete) on table \"[^\"]*\" violates (RESTRICT setting of )?foreign key"
                            + " constraint \"[^\"]*\"( on table \"[^\"]*\")?"),
            Pattern.compile("value too long for type [a-z ]+\\(\\d+\\)|numeric field overflow|[a-z]+ out of range"),
            Pattern.compile("permission denied for [a-z]+ \\S+"),
            // MariaDB.
            Pattern.compile(
                    "Cannot (delete|add) or update a (parent|child) row: a foreign key constraint fails \\(.*\\)"),
            Pattern.compile("Column '[^']*' cannot be null|Data too long for column '[^']*' at row \\d+"),
            Pattern.compile("CONSTRAINT `[^`]*` failed for `[^`]*`\\.`[^`]*`"),
            Pattern.compile("Duplicate entry for key '[^']*'"),
            // SQLite.
            Pattern.compile("[A-Z ]+ constraint failed(: [\\w.\" ,]+)?"));

    private ServerWords() {}

    /**
     * The first line of a message, without what servers put before it.
     *
     * @param isPersonal whether rows that it is about hold personal values
     * @param state as SQL has it, which is told where the words are not
     */
    static String told(String message, String state, boolean isPersonal) {
        String said = message == null ? "" : message.strip();
        String first = said.lines()
                .findFirst()
                .orElse("")
                .replaceFirst("^(ERROR: *|FATAL: *|\\(conn=\\d+\\) *)+", "")
                .replaceFirst("^\\[SQLITE_CONSTRAINT[A-Z_]*] *", "")
                .strip();
        if (!isPersonal) {
            return first;
        }
        // The value may hold anything, and the name of the key stands last.
        String plain = first.replaceFirst("^Duplicate entry '.*' for key", "Duplicate entry for key");
        boolean isKnown =
                WITHOUT_VALUES.stream().anyMatch(known -> known.matcher(plain).matches());
        return isKnown
                ? plain
                : "its words may hold personal values, and are not told; SQLSTATE "
                        + (state == null ? "unknown" : state);
    }
}
