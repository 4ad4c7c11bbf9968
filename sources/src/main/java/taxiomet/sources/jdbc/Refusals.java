package taxiomet.sources.jdbc;

import java.sql.SQLException;
import java.util.Locale;
import taxiomet.charter.place.Database;
import taxiomet.rows.SourceException;

/** What a server refused, in words that say what to do. */
final class Refusals {
    private Refusals() {}

    /** @param relation what was read; empty where nothing was yet */
    static SourceException of(Database database, String relation, SQLException e) {
        return of(database, relation, e, false);
    }

    /** @param isPersonal whether rows that it is about hold personal values */
    static SourceException of(Database database, String relation, SQLException e, boolean isPersonal) {
        String state = e.getSQLState() == null ? "" : e.getSQLState();
        String said = e.getMessage() == null
                ? "no reason is given"
                : ServerWords.told(e.getMessage(), e.getSQLState(), isPersonal);
        String place = database.shown() + (relation.isEmpty() ? "" : ", " + relation);
        if (said.toLowerCase(Locale.ROOT).contains("no suitable driver")) {
            return new SourceException(
                    place,
                    "there is no driver for this address",
                    "drivers of PostgreSQL, MariaDB, MySQL and SQLite are here; name the .jar of another with --driver, or lay"
                            + " it into the folder taxiomet/drivers of your settings");
        } else if (state.startsWith("28")) {
            return new SourceException(
                    place,
                    "the server does not let the user in (" + said + ")",
                    "see `user` and `password` of the charter's `database`");
        } else if (state.startsWith("08")) {
            return new SourceException(
                    place,
                    relation.isEmpty()
                            ? "the server cannot be reached (" + said + ")"
                            : "the connection was lost while rows were read (" + said + ")",
                    relation.isEmpty() ? "see whether it runs, and the address" : "check again");
        } else if (state.equals("57P01") || state.equals("57P02") || state.equals("57P03")) {
            return new SourceException(place, "the server ended the connection (" + said + ")", "check again");
        } else if (state.equals("42501") || (state.equals("42000") && said.contains("denied"))) {
            return new SourceException(
                    place, "the user may not read it (" + said + ")", "have the right to SELECT granted");
        } else if (state.equals("3D000") || (state.equals("42000") && said.contains("Unknown database"))) {
            return new SourceException(place, "there is no such database (" + said + ")", "see the address");
        } else if (state.equals("42P01") || state.equals("42S02")) {
            return new SourceException(
                    place, "there is no such table or view (" + said + ")", "write its schema before it, and a dot");
        }
        return new SourceException(place, "the database cannot be read (" + said + ")", "");
    }
}
