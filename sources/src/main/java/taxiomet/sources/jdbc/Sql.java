package taxiomet.sources.jdbc;

import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.util.List;

/** A condition with the values that its question marks stand for. */
record Sql(String text, List<Object> values) {
    Sql {
        values = List.copyOf(values);
    }

    static Sql of(String text) {
        return new Sql(text, List.of());
    }

    /** So many question marks in parentheses. */
    static String marks(int count) {
        return "(" + "?, ".repeat(count - 1) + "?)";
    }

    /** Lists of so many, in parentheses too. */
    static String marks(int count, int lists) {
        return "(" + (marks(count) + ", ").repeat(lists - 1) + marks(count) + ")";
    }

    static void setAll(PreparedStatement statement, int from, List<?> values) throws SQLException {
        for (int i = 0; i < values.size(); i++) {
            statement.setObject(from + i, values.get(i));
        }
    }
}
