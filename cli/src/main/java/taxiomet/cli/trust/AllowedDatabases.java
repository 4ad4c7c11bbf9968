package taxiomet.cli.trust;

import java.io.Console;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseAddress.Kind;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;
import taxiomet.reports.OutputException;
import taxiomet.sources.jdbc.DatabaseAccess;

/**
 * Which databases are connected to: those that were named on the command line, and of those that files name the ones that the person at this
 * machine has said yes to, once for each address, user and what is sent there. What was said is kept in the folder for settings, a line each.
 */
public final class AllowedDatabases implements DatabaseAccess {
    /** Addresses that are allowed in this run, with blanks between them. */
    public static final String VARIABLE = "TAXIOMET_ALLOW_DATABASE";

    public static final String OPTION = "--allow-database";
    /** Set for a run by the option of the name. */
    static final String DRIVER = "TAXIOMET_DRIVER";

    private static final String KEPT = "allowed-databases";
    private static final String DRIVERS = "drivers";
    private static final int MOST_KEPT = 1 << 20;

    private final Terminal terminal;
    private final Set<String> told = new HashSet<>();

    public AllowedDatabases(Terminal terminal) {
        this.terminal = terminal;
    }

    /** Says for a run what options say. */
    public static void allow(Terminal terminal, List<String> addresses, Optional<String> driver) {
        for (String address : addresses) {
            parsed(address, OPTION);
            terminal.setVariable(VARIABLE, (terminal.variable(VARIABLE) + " " + address).strip());
        }
        driver.ifPresent(file -> terminal.setVariable(DRIVER, file));
    }

    @Override
    public Optional<String> variable(String name) {
        return Optional.of(terminal.variable(name)).filter(value -> !value.isEmpty());
    }

    @Override
    public List<Path> drivers() {
        List<Path> all = new ArrayList<>();
        variable(DRIVER).map(Path::of).ifPresent(all::add);
        Optional<Path> folder = Settings.folder(terminal)
                .map(settings -> settings.resolve(DRIVERS))
                .filter(Files::isDirectory);
        if (folder.isPresent()) {
            try (Stream<Path> files = Files.list(folder.get())) {
                files.filter(file -> file.toString().endsWith(".jar")).sorted().forEach(all::add);
            } catch (IOException e) {
                throw OutputException.of(folder.get().toString(), e);
            }
        }
        return all;
    }

    @Override
    public void admit(Database database) {
        if (database.isFromFile()) {
            requireAllowed(database);
            if (database.hasPlainPassword() && told.add("password")) {
                terminal.say("The password of " + database.shown()
                        + " stands in a file for all who can read it; name a variable for it, or a password_file.");
            }
        }
        terminal.sayMore("connecting to " + database.shown()
                + database.user().map(user -> " as " + user).orElse(""));
    }

    private void requireAllowed(Database database) {
        String line = lineOf(database);
        if (told.contains(line)) {
            return;
        }
        if (isNamed(database)) {
            terminal.sayMore(database.shown() + " is allowed by " + OPTION + " or " + VARIABLE);
        } else if (kept().contains(line)) {
            terminal.sayMore(database.shown() + " was allowed before, in "
                    + file().map(Path::toString).orElse(""));
        } else if (isAgreedTo(database)) {
            keep(line);
        } else {
            throw new UsageException(sentence(database)
                    + ": nothing is sent to an address that stands in a file before you"
                    + " have said so. On a terminal you are asked; otherwise add " + OPTION + " \"" + database.shown()
                    + "\", or set " + VARIABLE + " to it");
        }
        told.add(line);
    }

    private static String sentence(Database database) {
        return "rows live at " + database.shown() + ", and "
                + (database.secrets().isEmpty()
                        ? "none of your variables would be sent there"
                        : database.secrets() + " would be sent there");
    }

    private static String lineOf(Database database) {
        return String.join(
                "\t",
                Stream.of(database.shown(), database.user().orElse(""), database.secrets())
                        .map(part -> part.replaceAll("\\s+", " "))
                        .toList());
    }

    private boolean isNamed(Database database) {
        return Stream.of(terminal.variable(VARIABLE).split("\\s+"))
                .filter(each -> !each.isEmpty())
                .anyMatch(each -> isSame(parsed(each, VARIABLE), database.address()));
    }

    private static boolean isSame(DatabaseAddress one, DatabaseAddress other) {
        return one.kind() == other.kind() && place(one).equals(place(other));
    }

    /** With the port that is meant where none stands there. */
    private static String place(DatabaseAddress address) {
        String usual = address.kind() == Kind.POSTGRESQL ? ":5432/" : ":3306/";
        return address.kind() == Kind.OTHER
                ? address.shown()
                : address.place().replaceFirst("^([^:/,\\[]+|\\[[^]]*])/", "$1" + usual);
    }

    private static DatabaseAddress parsed(String address, String where) {
        try {
            return DatabaseAddress.of(address);
        } catch (DatabaseAddress.Unusable e) {
            throw new UsageException(
                    where + " " + DatabaseAddress.masked(address) + ": " + e.getMessage() + "; " + e.remedy());
        }
    }

    /**
     * Whether somebody was asked, and said yes.
     *
     * @throws UsageException when somebody said no
     */
    // Later versions of Java give a console that is none: whether somebody watches is known otherwise.
    @SuppressWarnings("SystemConsoleNull")
    private boolean isAgreedTo(Database database) {
        Console console = System.console();
        if (console == null || !terminal.isWatched()) {
            return false;
        }
        terminal.say("A file names this database: " + sentence(database) + ".");
        String answer = console.readLine("Connect to it, now and from now on? [y/N] ");
        if (answer == null || !answer.strip().toLowerCase(Locale.ROOT).matches("y|yes")) {
            throw new UsageException("not connected to " + database.shown() + ": nothing was sent");
        }
        return true;
    }

    private Optional<Path> file() {
        return Settings.folder(terminal).map(folder -> folder.resolve(KEPT));
    }

    private List<String> kept() {
        Optional<Path> file = file().filter(Files::isRegularFile);
        if (file.isEmpty()) {
            return List.of();
        }
        try (InputStream in = Files.newInputStream(file.get())) {
            byte[] bytes = in.readNBytes(MOST_KEPT);
            return new String(bytes, StandardCharsets.UTF_8).lines().toList();
        } catch (IOException e) {
            throw OutputException.of(file.get().toString(), e);
        }
    }

    private void keep(String line) {
        Optional<Path> file = file();
        if (file.isEmpty()) {
            return;
        }
        try {
            Path folder = Files.createDirectories(file.get().toAbsolutePath().getParent());
            if (Files.notExists(file.get()) && Files.getFileStore(folder).supportsFileAttributeView("posix")) {
                Files.createFile(
                        file.get(), PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            }
            Files.writeString(file.get(), line + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        } catch (IOException e) {
            throw OutputException.of(file.get().toString(), e);
        }
    }
}
