package taxiomet.sources.jdbc;

import java.io.IOException;
import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Driver;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.charter.place.Database;
import taxiomet.rows.SourceException;

/** Connects to a database as a charter says, with what the environment holds. No message of it has a password. */
public final class Login {
    private static final Pattern VARIABLE = Pattern.compile("\\$\\{([A-Za-z_][A-Za-z0-9_]*)}");
    private static final String SECONDS_TO_CONNECT = "20";

    private final Database database;
    private final Path folder;
    private final Function<String, Optional<String>> environment;

    /** Makes connections; can be used more than once. */
    public interface Connecting {
        Connection connect();
    }

    /**
     * A way to connect.
     *
     * @param folder where a password file is sought
     * @param environment gives variables
     */
    public Login(Database database, Path folder, Function<String, Optional<String>> environment) {
        this.database = database;
        this.folder = folder;
        this.environment = environment;
    }

    /**
     * The way to connect, with all variables filled in.
     *
     * @throws SourceException when a variable is not set, or a password file cannot be read
     */
    public Connecting connected() {
        return connected(false);
    }

    /**
     * The same.
     *
     * @param writes whether rows are to be changed
     */
    Connecting connected(boolean writes) {
        String url = filled(database.url());
        Properties properties = new Properties();
        database.user().ifPresent(user -> properties.setProperty("user", filled(user)));
        password().ifPresent(password -> properties.setProperty("password", password));
        String lower = url.toLowerCase(java.util.Locale.ROOT);
        if (lower.startsWith("jdbc:postgresql:")) {
            properties.setProperty("loginTimeout", SECONDS_TO_CONNECT);
            properties.setProperty("ApplicationName", "taxiomet");
        } else if (lower.startsWith("jdbc:sqlite:")) {
            // To read alone: a file that is not there is not made.
            properties.setProperty("open_mode", writes ? "2" : "1");
        } else if (lower.startsWith("jdbc:mariadb:")) {
            properties.setProperty("connectTimeout", SECONDS_TO_CONNECT + "000");
            // Numbers stay numbers, and dates that are none are handed over as they are.
            properties.setProperty("tinyInt1isBit", "false");
        }
        return () -> {
            try {
                return database.driver().isPresent()
                        ? own(folder.resolve(database.driver().get())).connect(url, properties)
                        : DriverManager.getConnection(url, properties);
            } catch (SQLException e) {
                throw Refusals.of(database, "", e);
            }
        };
    }

    /** The driver in a .jar; it stays loaded as long as the program runs. */
    private Driver own(Path jar) throws SQLException {
        if (!Files.isRegularFile(jar)) {
            throw new SourceException(jar.toString(), "there is no such driver", "name the .jar of a JDBC driver");
        }
        try {
            @SuppressWarnings("resource")
            URLClassLoader loader = new URLClassLoader(new URL[] {jar.toUri().toURL()}, Login.class.getClassLoader());
            for (Driver driver : ServiceLoader.load(Driver.class, loader)) {
                if (driver.getClass().getClassLoader() == loader && driver.acceptsURL(filled(database.url()))) {
                    return driver;
                }
            }
        } catch (MalformedURLException | ServiceConfigurationError e) {
            throw new SourceException(
                    jar.toString(), "it holds no driver that can be loaded (" + e.getMessage() + ")", "");
        }
        throw new SourceException(
                jar.toString(),
                "it holds no driver for " + database.shown(),
                "name the .jar of the server's JDBC driver");
    }

    private Optional<String> password() {
        if (database.passwordFile().isEmpty()) {
            return database.password().map(this::filled);
        }
        Path file = folder.resolve(filled(database.passwordFile().get()));
        try {
            List<String> lines = Files.readAllLines(file, StandardCharsets.UTF_8);
            return Optional.of(lines.isEmpty() ? "" : lines.get(0));
        } catch (IOException e) {
            throw new SourceException(
                    file.toString(),
                    "the password file of " + database.shown() + " cannot be read",
                    "name a file whose first line is the password");
        }
    }

    private String filled(String text) {
        Matcher variables = VARIABLE.matcher(text);
        StringBuilder filled = new StringBuilder();
        while (variables.find()) {
            String name = variables.group(1);
            String value = environment
                    .apply(name)
                    .orElseThrow(() -> new SourceException(
                            database.shown(),
                            "the variable " + name + ", which the charter's `database` names, is not set",
                            "set it, as in " + name + "=... taxiomet ..."));
            variables.appendReplacement(filled, Matcher.quoteReplacement(value));
        }
        return variables.appendTail(filled).toString();
    }
}
