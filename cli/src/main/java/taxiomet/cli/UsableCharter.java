package taxiomet.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charter.Severity;
import taxiomet.charters.ReadCharter;
import taxiomet.vet.Review;

/** A charter to work with: read, and without anything in it that would make the answer worthless. */
final class UsableCharter {
    private static final Set<String> ACTIONS = Set.of("on_delete", "on_update");

    private final Terminal terminal;
    private final CharterOptions source;
    private final Path file;
    private final boolean isQuiet;

    UsableCharter(Terminal terminal, CharterOptions source, Path file, boolean isQuiet) {
        this.terminal = terminal;
        this.source = source;
        this.file = file;
        this.isQuiet = isQuiet;
    }

    /** @throws CharterException with all errors in it */
    Charter read() throws CharterException {
        return read(path -> true);
    }

    /**
     * The same for a rehearsal: what is wrong with actions is what it is to show.
     *
     * @throws CharterException with all errors in it that have to do with other things
     */
    Charter readWhateverActionsDo() throws CharterException {
        return read(path -> path.isEmpty() || !ACTIONS.contains(path.get(path.size() - 1)));
    }

    private Charter read(Predicate<List<String>> counts) throws CharterException {
        ReadCharter read = source.read(file);
        List<Problem> errors = Review.of(read.charter(), Optional.empty()).stream()
                .filter(judgement -> judgement.severity() == Severity.ERROR && counts.test(judgement.path()))
                .map(judgement -> read.places().of(judgement.path()).problem(judgement.problem(), judgement.remedy()))
                .toList();
        if (!errors.isEmpty()) {
            throw new CharterException(errors);
        }
        if (!read.remarks().isEmpty() && !isQuiet) {
            terminal.err()
                    .println("Not all of " + file + " could be taken over; `taxiomet vet " + file
                            + "` tells what was left out.");
        }
        return read.charter();
    }
}
