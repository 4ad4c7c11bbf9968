package taxiomet.charter.place;

import java.util.regex.Pattern;

/** The address of a database, or of a file elsewhere, where a file is expected. */
public final class DatabaseAddress {
    /** What is wrong with one. */
    public static final String PROBLEM = "this is the address of a database or of a file elsewhere, and not a file";
    /** What to do instead. */
    public static final String REMEDY =
            "a database is named as JDBC has it (jdbc:postgresql://host/name) in place of a charter, or under `database` in"
                    + " one; a file elsewhere is fetched first";

    /** Also as it looks once it was taken for a path, in which two slashes are one. */
    private static final Pattern ADDRESS = Pattern.compile("(?i)jdbc:.*|[a-z][a-z0-9+.-]+:/{1,2}[^/].*");

    /** Of a database in a file, whose path has one slash. */
    private static final Pattern OF_FILE =
            Pattern.compile("(?i)jdbc:(?!postgresql:|mariadb:|mysql:|sqlserver:)[a-z0-9]+:/");

    private DatabaseAddress() {}

    /** Whether a text is one. */
    public static boolean isOne(String text) {
        return ADDRESS.matcher(text).matches();
    }

    /** An address as it was written, though it was taken for a path since, in which two slashes are one. */
    public static String shown(String text) {
        if (OF_FILE.matcher(text).lookingAt()) {
            return text;
        }
        return text.replaceFirst("^([a-zA-Z][a-zA-Z0-9+.:-]*:|[jJ][dD][bB][cC]:.*@)/([^/])", "$1//$2");
    }
}
