package taxiomet.cli.option;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charters.input.ReadCharter;
import taxiomet.cli.terminal.Terminal;
import taxiomet.vet.Judgement;
import taxiomet.vet.Review;

/** A charter to work with: read, and without anything in it that would make the answer worthless. */
public final class UsableCharter {
    /** Declarations that play no part in a check of the rows, and of which a rehearsal shows what they come to. */
    private static final Set<String> FOR_CHANGES = Set.of("on_delete", "on_update", "default");

    private final Terminal terminal;
    private final CharterOptions source;
    private final Path file;
    private final boolean isQuiet;

    public UsableCharter(Terminal terminal, CharterOptions source, Path file, boolean isQuiet) {
        this.terminal = terminal;
        this.source = source;
        this.file = file;
        this.isQuiet = isQuiet;
    }

    /**
     * The charter for a check; what is wrong with actions and defaults is said, and left to others.
     *
     * @throws CharterException with all errors in it that concern rows
     */
    public Charter forCheck() throws CharterException {
        ReadCharter read = source.read(file, terminal);
        List<Problem> errors = errors(read, false);
        if (!errors.isEmpty() && !isQuiet) {
            errors.forEach(error -> terminal.say(error.toString()));
            terminal.say("This plays no part in a check, which goes on.");
        }
        return charter(read);
    }

    /**
     * The charter for a rehearsal: what is wrong with actions is what it is to show.
     *
     * @param behaviour whose behaviour is asked for; null for the charter's own. SQLite compares values of all types
     * @throws CharterException with all errors in it that have to do with other things
     */
    public Charter forRehearsal(Server behaviour) throws CharterException {
        ReadCharter read = source.read(file, terminal);
        Server whose = behaviour == null ? read.charter().behavesAs() : behaviour;
        errors(read, whose == Server.SQLITE);
        return charter(read);
    }

    /** What is wrong and concerns changes alone. */
    private static List<Problem> errors(ReadCharter read, boolean comparesAll) throws CharterException {
        List<Problem> ofRows = new ArrayList<>();
        List<Problem> ofChanges = new ArrayList<>();
        for (Judgement judgement : Review.of(read.charter(), Optional.empty())) {
            List<String> path = judgement.path();
            boolean isOfTypes = path.size() > 4 && path.get(4).equals("columns");
            if (judgement.severity() != Severity.ERROR || path.contains("not_read") || (isOfTypes && comparesAll)) {
                continue;
            }
            Problem problem = read.places().of(path).problem(judgement.problem(), judgement.remedy());
            boolean isOfChanges = FOR_CHANGES.contains(path.get(path.size() - 1));
            (isOfChanges ? ofChanges : ofRows).add(problem);
        }
        if (!ofRows.isEmpty()) {
            throw new CharterException(ofRows);
        }
        return ofChanges;
    }

    private Charter charter(ReadCharter read) {
        if (!read.remarks().isEmpty() && !isQuiet) {
            terminal.say("Some of " + file + " was passed over; `taxiomet vet " + file + "` tells what.");
        }
        return read.charter();
    }
}
