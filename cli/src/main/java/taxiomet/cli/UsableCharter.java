package taxiomet.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charter.Severity;
import taxiomet.charters.ReadCharter;
import taxiomet.vet.Review;

/** A charter to work with: read, and without anything in it that would make the answer worthless. */
final class UsableCharter {
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
        ReadCharter read = source.read(file);
        List<Problem> errors = Review.of(read.charter(), Optional.empty()).stream()
                .filter(judgement -> judgement.severity() == Severity.ERROR)
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
