package taxiomet.charter.place;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The address of a database, taken apart, so that a driver is told what is known here to do no harm and nothing else: drivers load classes, run
 * statements and open files for properties of an address. Parts may hold {@code ${NAME}}, which stands for a variable.
 *
 * @param kind of what
 * @param place host, port and database as in {@code db.example:5432/coop}; the path of a file of SQLite; for other servers all behind
 *     {@code jdbc:}
 * @param properties known ones, under the driver's names; none for other servers
 * @param user as the address had it
 * @param password as the address had it; it is in no text that this gives
 */
public record DatabaseAddress(
        Kind kind, String place, Map<String, String> properties, Optional<String> user, Optional<String> password) {
    /** What is wrong with one where a file is expected. */
    public static final String PROBLEM = "this is the address of a database or of a file elsewhere, and not a file";
    /** What to do instead. */
    public static final String REMEDY =
            "a database is named by its address (jdbc:postgresql://host/name) in place of a charter, or under `database` in"
                    + " one; a file elsewhere is fetched first";

    /** Also as it looks once it was taken for a path, in which two slashes are one. */
    private static final Pattern ANY = Pattern.compile("(?i)jdbc:.*|[a-z][a-z0-9+.-]+:/{1,2}[^/].*|sqlite:.+");

    private static final Pattern OF_DATABASE = Pattern.compile(
            "(?i)(?:jdbc:|(?:postgres|postgresql|mysql|mariadb):/{1,2}[^/]|sqlite:.).*", Pattern.DOTALL);

    /** Of a database in a file, whose path has one slash. */
    private static final Pattern OF_FILE = Pattern.compile("(?i)(?:jdbc:(?:sqlite|h2|hsqldb|derby|duckdb)|sqlite):/");

    private static final String VARIABLE = "\\$\\{[A-Za-z_][A-Za-z0-9_]*}";
    private static final String HOST =
            "(?:(?:[\\w.-]|" + VARIABLE + ")+|\\[[0-9a-fA-F:.]+])(?::(?:\\d{1,5}|" + VARIABLE + "))?";
    private static final String BEHIND_USER =
            "(?<hosts>" + HOST + "(?:," + HOST + ")*)(?:/(?<name>[^?#/\\\\;@]*))?(?:\\?(?<properties>.*))?";
    private static final Pattern WITHOUT_USER = Pattern.compile(BEHIND_USER, Pattern.DOTALL);
    private static final Pattern WITH_USER =
            Pattern.compile("(?<user>[^:]*?)(?::(?<password>.*))?@" + BEHIND_USER, Pattern.DOTALL);
    private static final Pattern NAMES_USER_FIRST = Pattern.compile("[^/?]*@.*", Pattern.DOTALL);

    /** Of another server, with nothing that its driver could take for an instruction. */
    private static final Pattern PLAIN_OTHER = Pattern.compile("(?i)sqlserver://" + HOST
            + "(?:;(?:databaseName|encrypt|trustServerCertificate|loginTimeout|applicationName)=[\\w .-]*)*;?"
            + "|oracle:thin:@(?://)?" + HOST + "[/:][\\w.$-]+"
            + "|[a-z][a-z0-9]*://" + HOST + "(?:/[\\w.$-]*)?");

    private static final Map<Kind, List<String>> HARMLESS = Map.of(
            Kind.POSTGRESQL,
            List.of(
                    "sslmode",
                    "ssl",
                    "channelBinding",
                    "connectTimeout",
                    "loginTimeout",
                    "socketTimeout",
                    "tcpKeepAlive",
                    "ApplicationName",
                    "currentSchema",
                    "targetServerType"),
            Kind.MARIADB,
            List.of("sslMode", "useSsl", "connectTimeout", "socketTimeout", "tcpKeepAlive"));

    private static final Pattern PLAIN_NAME = Pattern.compile("[A-Za-z_.]{1,40}");
    private static final Pattern PLAIN_VALUE = Pattern.compile("[\\w .,:$\"-]*");

    public DatabaseAddress {
        properties = Map.copyOf(properties);
    }

    /** Of which databases one can be. */
    public enum Kind {
        POSTGRESQL,
        MARIADB,
        /** In a file. */
        SQLITE,
        /** Of a server whose driver is not here. */
        OTHER
    }

    /** An address that is not used, with why and what to do; no secret is in its words. */
    public static final class Unusable extends Exception {
        private static final long serialVersionUID = 1;
        private final String remedy;

        Unusable(String problem, String remedy) {
            super(problem);
            this.remedy = remedy;
        }

        /** What to do about it. */
        public String remedy() {
            return remedy;
        }
    }

    /** Whether a text is the address of something that is no file here. */
    public static boolean isOne(String text) {
        return ANY.matcher(text).matches();
    }

    /** Whether a text is the address of a database, by how it begins. */
    public static boolean isOfDatabase(String text) {
        return OF_DATABASE.matcher(text).matches();
    }

    /** An address as it was written, though it was taken for a path since, in which two slashes are one. */
    public static String unmangled(String text) {
        if (OF_FILE.matcher(text).lookingAt()) {
            return text;
        }
        return text.replaceFirst("^([a-zA-Z][a-zA-Z0-9+.:-]*:|[jJ][dD][bB][cC]:.*@)/([^/])", "$1//$2");
    }

    /** What messages and results may hold of a text that may be an address: nothing of it that could be a secret. */
    public static String masked(String text) {
        String whole = unmangled(text);
        if (!isOne(whole)) {
            return text;
        }
        try {
            return of(whole).shown();
        } catch (Unusable e) {
            return withoutSecrets(whole);
        }
    }

    /** Cut wide where it is not known what stands where: a password may hold any sign. */
    private static String withoutSecrets(String text) {
        return text.replaceFirst("(?s)^((?:[A-Za-z][A-Za-z0-9+.-]*:)+(?://)?).*@", "$1")
                .replaceFirst("(?s)[?;].*", "");
    }

    /**
     * Takes an address apart that the person at this machine typed.
     *
     * @throws Unusable when it is none, or has properties that are not known
     */
    public static DatabaseAddress of(String text) throws Unusable {
        String rest = text.replaceFirst("(?i)^jdbc:", "");
        String lower = rest.toLowerCase(Locale.ROOT);
        if (lower.startsWith("sqlite:")) {
            return ofSqlite(rest.substring("sqlite:".length()));
        } else if (lower.matches("(?s)(postgres|postgresql):.*")) {
            return ofServer(Kind.POSTGRESQL, rest);
        } else if (lower.matches("(?s)(mysql|mariadb):.*")) {
            return ofServer(Kind.MARIADB, rest);
        } else if (rest.length() == text.length() || !lower.matches("(?s)[a-z][a-z0-9]*:.+")) {
            throw new Unusable(
                    "this is no address of a database",
                    "write jdbc:postgresql://host:port/name, jdbc:mariadb://host:port/name or jdbc:sqlite:FILE");
        }
        return new DatabaseAddress(Kind.OTHER, rest, Map.of(), Optional.empty(), Optional.empty());
    }

    /**
     * Takes an address apart that stands in a file, which anybody may have written.
     *
     * @throws Unusable also when it is of a server that is not known here, and holds more than host, port and database
     */
    public static DatabaseAddress ofFile(String text) throws Unusable {
        DatabaseAddress address = of(text);
        boolean isKnown = HARMLESS.containsKey(address.kind) || address.kind == Kind.SQLITE;
        if (!isKnown && !PLAIN_OTHER.matcher(address.place).matches()) {
            throw new Unusable(
                    "in a file the address of such a database holds host, port and name alone",
                    "leave the rest out, or name the whole address on the command line in place of the charter");
        }
        return address;
    }

    private static DatabaseAddress ofSqlite(String path) throws Unusable {
        String file = path.replaceFirst("^//(?=/)", "");
        int question = file.indexOf('?');
        if (question >= 0) {
            throw new Unusable(
                    "the address of a SQLite file is its path alone, and this one has "
                            + named(file.substring(question + 1)),
                    "leave out what stands behind the question mark; it is opened to be read");
        } else if (file.isEmpty()
                || file.startsWith(":")
                || file.toLowerCase(Locale.ROOT).startsWith("file:")) {
            throw new Unusable(
                    "the address of a SQLite file is the path of a file that is there",
                    "write jdbc:sqlite: and the path");
        }
        return new DatabaseAddress(Kind.SQLITE, file, Map.of(), Optional.empty(), Optional.empty());
    }

    private static DatabaseAddress ofServer(Kind kind, String rest) throws Unusable {
        String behind = rest.substring(rest.indexOf(':') + 1);
        // As drivers have it: a name alone is a database of this machine.
        String authority = behind.startsWith("//") ? behind.substring(2) : "localhost/" + behind.replaceFirst("^/", "");
        Matcher parts = WITHOUT_USER.matcher(authority);
        boolean isPlain = !NAMES_USER_FIRST.matcher(authority).matches() && parts.matches();
        Optional<String> user = Optional.empty();
        Optional<String> password = Optional.empty();
        if (!isPlain) {
            parts = WITH_USER.matcher(authority);
            if (!parts.matches()) {
                throw new Unusable(
                        "this is no address of a database",
                        "write it as jdbc:" + word(kind) + "://host:port/name?property=value");
            }
            user = Optional.of(decoded(parts.group("user"))).filter(name -> !name.isEmpty());
            password = Optional.ofNullable(parts.group("password")).map(DatabaseAddress::decoded);
        }
        Map<String, String> properties = new LinkedHashMap<>();
        String all = parts.group("properties") == null ? "" : parts.group("properties");
        for (String each : all.split("&")) {
            int equals = each.indexOf('=');
            String name = equals < 0 ? each : each.substring(0, equals);
            String value = equals < 0 ? "" : decoded(each.substring(equals + 1));
            if (name.matches("(?i)user|username")) {
                user = Optional.of(value);
            } else if (name.equalsIgnoreCase("password")) {
                password = Optional.of(value);
            } else if (!each.isEmpty()) {
                properties.put(known(kind, name, each), plain(name, value));
            }
        }
        String name = parts.group("name") == null ? "" : parts.group("name");
        return new DatabaseAddress(kind, parts.group("hosts") + "/" + name, properties, user, password);
    }

    private static String known(Kind kind, String name, String each) throws Unusable {
        return HARMLESS.get(kind).stream()
                .filter(known -> known.equalsIgnoreCase(name))
                .findFirst()
                .orElseThrow(() -> new Unusable(
                        named(each) + " in the address is not among what is handed to the driver",
                        "leave it out; there are "
                                + HARMLESS.get(kind).stream().sorted().collect(Collectors.joining(", "))));
    }

    private static String plain(String name, String value) throws Unusable {
        if (!PLAIN_VALUE.matcher(value).matches()) {
            throw new Unusable(
                    "the value of " + name + " in the address is not a plain word", "write one, or leave it out");
        }
        return value;
    }

    /** The name of a property, unless it may be a piece of a password. */
    private static String named(String property) {
        String name = property.replaceFirst("(?s)[=&].*", "");
        return PLAIN_NAME.matcher(name).matches() && property.indexOf('@') < 0 ? "`" + name + "`" : "a property";
    }

    private static String decoded(String text) {
        try {
            return URLDecoder.decode(text.replace("+", "%2B"), StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            // A per cent sign that stands for itself.
            return text;
        }
    }

    private static String word(Kind kind) {
        return kind.name().toLowerCase(Locale.ROOT);
    }

    /** Whether it is reached over a network, so that something could be sent to somebody. */
    public boolean isOfServer() {
        return kind != Kind.SQLITE;
    }

    /** The address without anything that could be a secret: server, host, port and database. */
    public String shown() {
        return switch (kind) {
            case POSTGRESQL, MARIADB -> "jdbc:" + word(kind) + "://" + place.replaceFirst("/$", "");
            case SQLITE -> "jdbc:sqlite:" + place;
            default -> withoutSecrets("jdbc:" + place);
        };
    }

    /** The address as a charter has it, with its properties: a user and a password are none of them. */
    public String written() {
        if (!HARMLESS.containsKey(kind)) {
            return kind == Kind.SQLITE ? shown() : "jdbc:" + place;
        }
        String all = properties.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .map(each -> each.getKey() + "=" + each.getValue())
                .collect(Collectors.joining("&"));
        return "jdbc:" + word(kind) + "://" + place + (all.isEmpty() ? "" : "?" + all);
    }

    @Override
    public String toString() {
        return shown();
    }
}
