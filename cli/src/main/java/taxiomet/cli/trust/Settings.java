package taxiomet.cli.trust;

import java.nio.file.Path;
import java.util.Optional;
import taxiomet.cli.terminal.Terminal;

/** The folder that a person's settings are in: nothing that comes from elsewhere is laid there. */
public final class Settings {
    private static final String OWN = "taxiomet";

    private Settings() {}

    /** The folder, which need not be there; empty where nobody knows where it should be. */
    public static Optional<Path> folder(Terminal terminal) {
        String settings = terminal.variable("XDG_CONFIG_HOME");
        String home = terminal.variable("HOME");
        if (!settings.isEmpty()) {
            return Optional.of(Path.of(settings, OWN));
        }
        return home.isEmpty() ? Optional.empty() : Optional.of(Path.of(home, ".config", OWN));
    }
}
