package taxiomet.cli.option;

import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter.Behaviour;
import taxiomet.charter.NearestWord;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.sql.Dialect;
import taxiomet.vet.Server;

/** The database servers that options name, and what is known of each: the one list of them. */
public enum ServerName {
    STANDARD,
    POSTGRESQL,
    MARIADB,
    SQLITE,
    SQLSERVER,
    ORACLE;

    /** Those whose behaviour can be rehearsed. */
    static final Set<ServerName> REHEARSED = EnumSet.of(STANDARD, POSTGRESQL, MARIADB, SQLITE);

    /** Those of which it is known what they do not take. */
    public static final Set<ServerName> VETTED = EnumSet.of(POSTGRESQL, MARIADB, SQLITE, SQLSERVER, ORACLE);

    /** Those for which scripts can be written. */
    public static final Set<ServerName> WRITTEN = EnumSet.of(POSTGRESQL, MARIADB, SQLITE);

    private static final String OTHER_NAME_OF_MARIADB = "mysql";

    /** The word that options, charters and results use. */
    String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    Behaviour behaviour() {
        return Behaviour.valueOf(name());
    }

    public Server vetted() {
        return Server.valueOf(name());
    }

    public Dialect dialect() {
        return Dialect.valueOf(name());
    }

    /** Whether a text is the name of a server, whichever. */
    public static boolean isOne(String text) {
        return find(text).isPresent();
    }

    private static Optional<ServerName> find(String text) {
        String word = text.toLowerCase(Locale.ROOT);
        String known = word.equals(OTHER_NAME_OF_MARIADB) ? MARIADB.word() : word;
        return Arrays.stream(values()).filter(name -> name.word().equals(known)).findFirst();
    }

    /**
     * The server that an option names.
     *
     * @param taken those that may stand there
     * @throws UsageException for any other word
     */
    public static ServerName parse(String option, String text, Set<ServerName> taken, Terminal terminal) {
        Optional<ServerName> found = find(text);
        if (found.isPresent() && taken.contains(found.get())) {
            if (text.equalsIgnoreCase(OTHER_NAME_OF_MARIADB)) {
                terminal.say("mysql is taken as mariadb");
            }
            return found.get();
        }
        List<String> words = words(taken);
        String near = NearestWord.of(text.toLowerCase(Locale.ROOT), words)
                .map(nearest -> "; did you mean " + nearest + "?")
                .orElse("");
        throw new UsageException(option + " " + text + ": "
                + (found.isPresent() ? "this command does not know that server; write " : "write ")
                + words.stream().collect(Collectors.joining(", ")) + near);
    }

    private static List<String> words(Set<ServerName> names) {
        return names.stream().map(ServerName::word).toList();
    }

    /** For completion. */
    static final class Rehearsed extends WordList {
        private static final long serialVersionUID = 1;

        Rehearsed() {
            super(words(REHEARSED));
        }
    }

    /** For completion. */
    public static final class Vetted extends WordList {
        private static final long serialVersionUID = 1;

        public Vetted() {
            super(words(VETTED));
        }
    }
}
