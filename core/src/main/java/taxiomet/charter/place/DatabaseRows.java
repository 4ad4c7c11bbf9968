package taxiomet.charter.place;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * Rows of a table, a view or a query in a database.
 *
 * @param folder the charter's own: a password file is sought from there
 * @param relation the name of the table, its schema and a dot before it where it is not the usual one; or the query
 * @param isQuery whether it is a query
 * @param order columns by which rows are put in order where nothing else does: those of the primary key, or all
 */
public record DatabaseRows(Path folder, Database database, String relation, boolean isQuery, List<String> order)
        implements RowsPlace {
    private static final int MOST_OF_QUERY = 60;

    public DatabaseRows {
        order = List.copyOf(order);
    }

    /** The same rows in another order. */
    public DatabaseRows inOrderOf(List<String> columns) {
        return new DatabaseRows(folder, database, relation, isQuery, columns);
    }

    /** What it is called in messages. */
    @Override
    public String path() {
        String query = relation.strip().replaceAll("\\s+", " ");
        String called = !isQuery
                ? relation
                : "(" + (query.length() > MOST_OF_QUERY ? query.substring(0, MOST_OF_QUERY) + "..." : query) + ")";
        return database.shown() + ", " + called;
    }

    /** The parts of the table's name, its schema first; in the relation dots stand between them, and double quotes around one with a dot. */
    public List<String> parts() {
        List<String> parts = new ArrayList<>();
        StringBuilder part = new StringBuilder();
        boolean isQuoted = false;
        for (int i = 0; i < relation.length(); i++) {
            char c = relation.charAt(i);
            if (c == '"') {
                if (isQuoted && i + 1 < relation.length() && relation.charAt(i + 1) == '"') {
                    part.append(c);
                    i++;
                } else {
                    isQuoted = !isQuoted;
                }
            } else if (c == '.' && !isQuoted) {
                parts.add(part.toString());
                part.setLength(0);
            } else {
                part.append(c);
            }
        }
        parts.add(part.toString());
        return parts;
    }
}
