package taxiomet.cli.option;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Predicate;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Server;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;

/** Reads the servers that options name. */
public final class ServerOption {
    private ServerOption() {}

    /**
     * The server that an option names.
     *
     * @param taken which servers may stand there
     * @throws UsageException for any other word
     */
    public static Server parse(String option, String text, Predicate<Server> taken, Terminal terminal) {
        Optional<Server> found = Server.find(text);
        if (found.filter(taken).isPresent()) {
            if (Server.isOtherName(text)) {
                terminal.say("mysql is taken as mariadb");
            }
            return found.get();
        }
        List<String> words = Server.words(taken);
        String near = NearestWord.of(text.toLowerCase(Locale.ROOT), words)
                .map(nearest -> "; did you mean " + nearest + "?")
                .orElse("");
        throw new UsageException(option + " " + text + ": "
                + (found.isPresent() ? "this command does not know that server; write " : "write ")
                + String.join(", ", words) + near);
    }

    /** For completion. */
    static final class Rehearsed extends WordList {
        private static final long serialVersionUID = 1;

        Rehearsed() {
            super(Server.words(Server::isRehearsed));
        }
    }

    /** For completion. */
    public static final class Written extends WordList {
        private static final long serialVersionUID = 1;

        public Written() {
            super(Server.words(Server::isWritten));
        }
    }

    /** For completion. */
    public static final class Vetted extends WordList {
        private static final long serialVersionUID = 1;

        public Vetted() {
            super(Server.words(Server::isVetted));
        }
    }
}
