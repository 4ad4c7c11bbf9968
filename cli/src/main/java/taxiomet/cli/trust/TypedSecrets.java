package taxiomet.cli.trust;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.cli.terminal.Terminal;
import taxiomet.cli.terminal.UsageException;

/**
 * Arguments as they are worked with: an address of a database in one spelling, and without its password, which is kept apart and is in no
 * message, result or draft from here on.
 */
public final class TypedSecrets {
    /** The launcher puts an argument that looks as though it held a password into a variable: the list of processes shows arguments to all. */
    private static final String ARGUMENT = "TAXIOMET_ARGUMENT_";

    /** One that may hold a password; `sqlite:FILE` and `mariadb:/FILE` are also what a script is written for. */
    private static final Pattern ADDRESS = Pattern.compile("(?is)(?:jdbc:|(?:postgres|postgresql|mysql|mariadb)://).*");

    private TypedSecrets() {}

    /**
     * Takes them out of arguments.
     *
     * @throws UsageException when an address cannot be used
     */
    public static String[] keptApart(String[] arguments, Terminal terminal) {
        String[] apart = new String[arguments.length];
        for (int i = 0; i < arguments.length; i++) {
            String argument = arguments[i].startsWith(ARGUMENT) ? terminal.variable(arguments[i]) : arguments[i];
            argument = argument.isEmpty() ? arguments[i] : argument;
            int equals = argument.startsWith("--") ? argument.indexOf('=') + 1 : 0;
            String text = argument.substring(equals);
            apart[i] =
                    ADDRESS.matcher(text).matches() ? argument.substring(0, equals) + keep(text, terminal) : argument;
        }
        return apart;
    }

    private static String keep(String text, Terminal terminal) {
        try {
            DatabaseAddress address = DatabaseAddress.of(DatabaseAddress.unmangled(text));
            String user = address.user().orElse("");
            String written = address.written();
            if (address.password().isPresent()) {
                terminal.keepSecret(address.shown(), address.password().get());
                terminal.say(
                        "The password in the address of " + address.shown()
                                + " stays in the history of the shell; --password-file, TAXIOMET_PASSWORD or a prompt keep it out.");
            }
            return user.isEmpty() ? written : written.replaceFirst("//", "//" + encoded(user) + "@");
        } catch (DatabaseAddress.Unusable e) {
            throw new UsageException(DatabaseAddress.masked(text) + ": " + e.getMessage() + "; " + e.remedy());
        }
    }

    private static String encoded(String user) {
        return Matcher.quoteReplacement(
                URLEncoder.encode(user, StandardCharsets.UTF_8).replace("+", "%20"));
    }
}
