package taxiomet.charter.place;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A database that rows live in, as a charter names it. Texts may hold {@code ${NAME}}, which stands for a variable of the environment; they
 * are filled in when it is connected to, so that no result can hold what they stand for.
 *
 * @param url as JDBC has it
 * @param user empty where the url or the driver knows
 * @param password empty for none; never told
 * @param passwordFile a file whose first line is the password, from the charter's folder on
 * @param driver a .jar with a JDBC driver, from the charter's folder on; empty for those that are there
 * @param mayBeProvedIn whether a proposal may be carried out in it, in a transaction that is rolled back
 */
public record Database(
        String url,
        Optional<String> user,
        Optional<String> password,
        Optional<String> passwordFile,
        Optional<String> driver,
        boolean mayBeProvedIn) {
    private static final Pattern USER_INFO = Pattern.compile("//[^/@?]*@");
    private static final Pattern PARAMETERS = Pattern.compile("[?;].*", Pattern.DOTALL);

    /** One in which nothing may be carried out. */
    public Database(
            String url,
            Optional<String> user,
            Optional<String> password,
            Optional<String> passwordFile,
            Optional<String> driver) {
        this(url, user, password, passwordFile, driver, false);
    }

    /** Whether a text is the address of one. */
    public static boolean isAddress(String text) {
        return text.toLowerCase(Locale.ROOT).startsWith("jdbc:");
    }

    /** A database of which the address is known, and nothing else. */
    public static Database at(String url) {
        return new Database(url, Optional.empty(), Optional.empty(), Optional.empty(), Optional.empty());
    }

    /** The address without anything that could be a secret. */
    public String shown() {
        return PARAMETERS.matcher(USER_INFO.matcher(url).replaceFirst("//")).replaceFirst("");
    }

    @Override
    public String toString() {
        return shown();
    }
}
