package taxiomet.cli.option;

import java.util.Locale;
import java.util.stream.Stream;
import taxiomet.charter.Severity;

/** What is grave enough for an exit status of 1. */
public enum FailOn {
    ERROR,
    WARNING,
    NEVER,
    /** What an earlier result has not; for commands that know one. */
    NEW;

    /** Whether one of some findings is as grave as that. */
    public boolean isMetBy(Stream<Severity> findings) {
        Severity worst = this == WARNING ? Severity.WARNING : Severity.ERROR;
        return this != NEVER && this != NEW && findings.anyMatch(severity -> severity.isAtLeast(worst));
    }

    /** The word as users type it. */
    @Override
    public String toString() {
        return name().toLowerCase(Locale.ROOT);
    }
}
