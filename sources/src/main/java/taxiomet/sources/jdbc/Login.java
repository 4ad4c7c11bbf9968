package taxiomet.sources.jdbc;

import java.io.IOException;
import java.io.InputStream;
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
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.regex.Matcher;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseAddress.Kind;
import taxiomet.rows.SourceException;
import taxiomet.sources.sqlite.SqliteCatalogue;

/**
 * Connects to a database as a charter says, with what the person at this machine allows. A driver gets an address made here, of parts that are
 * known to do no harm. No message of it has a password, or what stands in a variable.
 */
public final class Login {
    private static final String SECONDS_TO_CONNECT = "20";
    private static final int MOST_OF_PASSWORD = 4_096;

    private final Database database;
    private final Path folder;
    private final DatabaseAccess access;
    /** What variables hold, each with its name, to be put back into messages. */
    private final Map<String, String> filled = new LinkedHashMap<>();

    /** Makes connections; can be used more than once. */
    interface Connecting {
        Connection connect();
    }

    /**
     * A way to connect.
     *
     * @param folder where a password file and a file of SQLite are sought
     */
    Login(Database database, Path folder, DatabaseAccess access) {
        this.database = database;
        this.folder = folder;
        this.access = access;
    }

    /**
     * The way to connect to read, with all variables filled in.
     *
     * @throws SourceException when a variable is not set, or a password file cannot be read
     * @throws RuntimeException when it is not allowed
     */
    Connecting connected() {
        return connected(false);
    }

    /** The same for a transaction that is rolled back. */
    Connecting connectedToProve() {
        return connected(true);
    }

    private Connecting connected(boolean writes) {
        DatabaseAddress address = filledAddress();
        if (address.kind() == Kind.SQLITE) {
            Path file = folder.resolve(address.place());
            requireFile(file, "there is no such file", "name a file that SQLite wrote");
            return () -> {
                try {
                    return writes ? SqliteCatalogue.connectToProve(file) : SqliteCatalogue.connect(file);
                } catch (SQLException e) {
                    throw refused(e);
                }
            };
        }
        access.admit(new Database(
                address,
                database.user(),
                database.password(),
                database.passwordFile(),
                database.mayBeProvedIn(),
                database.isFromFile()));
        Properties properties = new Properties();
        properties.putAll(address.properties());
        database.user().ifPresent(user -> properties.setProperty("user", filled(user)));
        password().ifPresent(password -> properties.setProperty("password", password));
        if (address.kind() == Kind.POSTGRESQL) {
            properties.putIfAbsent("loginTimeout", SECONDS_TO_CONNECT);
            properties.putIfAbsent("ApplicationName", "taxiomet");
            if (!writes) {
                // Also of a transaction that somebody would begin after ours.
                properties.setProperty("readOnly", "true");
                properties.setProperty("readOnlyMode", "always");
            }
        } else if (address.kind() == Kind.MARIADB) {
            properties.putIfAbsent("connectTimeout", SECONDS_TO_CONNECT + "000");
            // Numbers stay numbers, and dates that are none are handed over as they are.
            properties.setProperty("tinyInt1isBit", "false");
            // A server may ask for any file of this machine otherwise, and for a second statement.
            properties.setProperty("allowLocalInfile", "false");
            properties.setProperty("allowMultiQueries", "false");
        }
        String url = new DatabaseAddress(address.kind(), address.place(), Map.of(), Optional.empty(), Optional.empty())
                .written();
        return () -> {
            try {
                Connection connection = driver(address, url).connect(url, properties);
                if (connection == null) {
                    throw new SourceException(
                            database.shown(), "its driver gives no connection for this address", "see the address");
                }
                return connection;
            } catch (SQLException e) {
                throw refused(e);
            }
        };
    }

    private SourceException refused(SQLException e) {
        String message = String.valueOf(e.getMessage());
        for (Map.Entry<String, String> each : filled.entrySet()) {
            message = message.replace(each.getKey(), each.getValue());
        }
        return Refusals.of(database, "", new SQLException(message, e.getSQLState(), e.getErrorCode()));
    }

    private DatabaseAddress filledAddress() {
        try {
            String text = filled(database.address().written());
            return database.isFromFile() ? DatabaseAddress.ofFile(text) : DatabaseAddress.of(text);
        } catch (DatabaseAddress.Unusable e) {
            throw new SourceException(database.shown(), e.getMessage(), e.remedy());
        }
    }

    /** Of a server that is not known here, that of the person's own files first. */
    private Driver driver(DatabaseAddress address, String url) throws SQLException {
        if (address.kind() == Kind.OTHER) {
            for (Path jar : access.drivers()) {
                Optional<Driver> own = own(jar, url);
                if (own.isPresent()) {
                    return own.get();
                }
            }
        }
        return DriverManager.getDriver(url);
    }

    /** The driver in a .jar; it stays loaded as long as the program runs. */
    private static Optional<Driver> own(Path jar, String url) throws SQLException {
        requireFile(jar, "there is no such driver", "name the .jar of a JDBC driver");
        try {
            @SuppressWarnings("resource")
            URLClassLoader loader = new URLClassLoader(new URL[] {jar.toUri().toURL()}, Login.class.getClassLoader());
            for (Driver driver : ServiceLoader.load(Driver.class, loader)) {
                if (driver.getClass().getClassLoader() == loader && driver.acceptsURL(url)) {
                    return Optional.of(driver);
                }
            }
            return Optional.empty();
        } catch (MalformedURLException | ServiceConfigurationError e) {
            throw new SourceException(
                    jar.toString(), "it holds no driver that can be loaded (" + e.getMessage() + ")", "");
        }
    }

    private Optional<String> password() {
        if (database.passwordFile().isEmpty()) {
            return database.password().map(this::filled);
        }
        Path file = folder.resolve(database.passwordFile().get());
        // A pipe may never end, or never begin.
        requireFile(file, "the password file is not there", "name a file whose first line is the password");
        try (InputStream in = Files.newInputStream(file)) {
            return Optional.of(firstLine(in, file));
        } catch (IOException e) {
            throw new SourceException(
                    file.toString(),
                    "the password file of " + database.shown() + " cannot be read",
                    "name a file whose first line is the password");
        }
    }

    /**
     * The first line of a file with a password.
     *
     * @throws SourceException when it has more than 4,096 bytes
     */
    public static String firstLine(InputStream in, Path file) throws IOException {
        String text = new String(in.readNBytes(MOST_OF_PASSWORD + 1), StandardCharsets.UTF_8);
        String line = text.lines().findFirst().orElse("");
        if (line.length() >= MOST_OF_PASSWORD) {
            throw new SourceException(
                    file.toString(),
                    "its first line is longer than any password (" + MOST_OF_PASSWORD + " bytes)",
                    "name a file whose first line is the password");
        }
        return line;
    }

    private static void requireFile(Path file, String problem, String remedy) {
        if (!Files.isRegularFile(file)) {
            throw new SourceException(
                    file.toString(), Files.exists(file) ? "this is no ordinary file" : problem, remedy);
        }
    }

    private String filled(String text) {
        Matcher variables = Database.VARIABLE.matcher(text);
        StringBuilder all = new StringBuilder();
        while (variables.find()) {
            String name = variables.group(1);
            String value = access.variable(name)
                    .orElseThrow(() -> new SourceException(
                            database.shown(),
                            "the variable " + name + ", which the charter's `database` names, is not set",
                            "set it, as in " + name + "=... taxiomet ..."));
            if (!value.isEmpty()) {
                filled.put(value, variables.group());
            }
            variables.appendReplacement(all, Matcher.quoteReplacement(value));
        }
        return variables.appendTail(all).toString();
    }
}
