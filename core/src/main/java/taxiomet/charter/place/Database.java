package taxiomet.charter.place;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A database that rows live in. Texts may hold {@code ${NAME}}, which stands for a variable of the environment; they are filled in when it is
 * connected to, so that no result can hold what they stand for.
 *
 * @param address without user and password
 * @param user empty where the driver knows
 * @param password empty for none; never told
 * @param passwordFile a file whose first line is the password, from the charter's folder on
 * @param mayBeProvedIn whether a proposal may be carried out in it, in a transaction that is rolled back
 * @param isFromFile whether all this stands in a file, which anybody may have written, and not on the command line
 */
public record Database(
        DatabaseAddress address,
        Optional<String> user,
        Optional<String> password,
        Optional<String> passwordFile,
        boolean mayBeProvedIn,
        boolean isFromFile) {
    /** A variable in a text; the first group is its name. */
    public static final Pattern VARIABLE = Pattern.compile("\\$\\{([A-Za-z_][A-Za-z0-9_]*)}");

    /** What stands in an address itself, where nothing else says it, belongs here. */
    public Database {
        user = user.or(address::user);
        password = passwordFile.isPresent() ? password : password.or(address::password);
        address = new DatabaseAddress(
                address.kind(), address.place(), address.properties(), Optional.empty(), Optional.empty());
    }

    /**
     * One that the person at this machine named, of which the address is known, and nothing else.
     *
     * @throws DatabaseAddress.Unusable when that is none
     */
    public static Database at(String address) throws DatabaseAddress.Unusable {
        return new Database(
                DatabaseAddress.of(address), Optional.empty(), Optional.empty(), Optional.empty(), false, false);
    }

    /** Whether the password itself stands there, and no variable for it. */
    public boolean hasPlainPassword() {
        return password.map(VARIABLE::matcher).filter(found -> !found.matches()).isPresent();
    }

    /** What of this machine would be sent there, as it is named: variables, and the file with the password. */
    public String secrets() {
        StringBuilder names = new StringBuilder();
        for (Optional<String> each : List.of(user, password)) {
            Matcher variables = VARIABLE.matcher(each.orElse(""));
            while (variables.find()) {
                names.append(names.isEmpty() ? "" : ", ").append(variables.group());
            }
        }
        passwordFile.ifPresent(file -> names.append(names.isEmpty() ? "" : ", ")
                .append("the first line of ")
                .append(file));
        return names.toString();
    }

    /** The address without anything that could be a secret. */
    public String shown() {
        return address.shown();
    }

    @Override
    public String toString() {
        return shown();
    }
}
