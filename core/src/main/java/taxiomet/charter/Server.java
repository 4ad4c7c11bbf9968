package taxiomet.charter;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * The database servers, and the standard that none of them follows to the letter: the one list of them, and what is known of each.
 * How a change is carried out there is in {@code rehearse} and the packages below it, what is not taken there in {@code vet}, how SQL is
 * written there in {@code reports.sql}.
 */
public enum Server {
    STANDARD("the SQL standard", true, false, false),
    POSTGRESQL("PostgreSQL", true, true, true),
    MARIADB("MariaDB", true, true, true),
    SQLITE("SQLite", true, true, true),
    SQLSERVER("SQL Server", false, true, false),
    ORACLE("Oracle", false, true, false);

    private static final String OTHER_NAME_OF_MARIADB = "mysql";

    private final String title;
    private final boolean isRehearsed;
    private final boolean isVetted;
    private final boolean isWritten;

    Server(String title, boolean isRehearsed, boolean isVetted, boolean isWritten) {
        this.title = title;
        this.isRehearsed = isRehearsed;
        this.isVetted = isVetted;
        this.isWritten = isWritten;
    }

    /** Its name as its makers write it. */
    public String title() {
        return title;
    }

    /** The word that options, charters and results use. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether its behaviour can be rehearsed. */
    public boolean isRehearsed() {
        return isRehearsed;
    }

    /** Whether it is known what it does not take. */
    public boolean isVetted() {
        return isVetted;
    }

    /** Whether scripts can be written for it. */
    public boolean isWritten() {
        return isWritten;
    }

    /** The words of those of which something is known, in their order. */
    public static List<String> words(Predicate<Server> of) {
        return Arrays.stream(values()).filter(of).map(Server::word).toList();
    }

    /** Whether a word is the other name of {@link #MARIADB}. */
    public static boolean isOtherName(String word) {
        return word.equalsIgnoreCase(OTHER_NAME_OF_MARIADB);
    }

    /** The server of a word, in any case. */
    public static Optional<Server> find(String word) {
        String known = isOtherName(word) ? MARIADB.word() : word.toLowerCase(Locale.ROOT);
        return Arrays.stream(values())
                .filter(server -> server.word().equals(known))
                .findFirst();
    }
}
