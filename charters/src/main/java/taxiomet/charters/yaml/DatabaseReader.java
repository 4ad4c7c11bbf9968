package taxiomet.charters.yaml;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import taxiomet.charter.place.Database;
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/**
 * Reads what a charter says of the database that rows live in. Which variables it may name is limited by how their names end, and by where it
 * names them: no other secret of a machine can be sent to an address that a charter chose.
 */
final class DatabaseReader {
    private static final List<String> KEYS = List.of("url", "user", "password", "password_file", "prove");

    /** How names of variables end that may stand in a text. */
    private static final Map<String, List<String>> ENDINGS = Map.of(
            "url", List.of("_HOST", "_PORT", "_DATABASE"),
            "user", List.of("_USER"),
            "password", List.of("_PASSWORD"),
            "password_file", List.of());

    private final Problems problems;

    DatabaseReader(Problems problems) {
        this.problems = problems;
    }

    Optional<Database> read(Node node) {
        if (node instanceof Scalar url && !url.isNull()) {
            return address(url)
                    .map(address ->
                            new Database(address, Optional.empty(), Optional.empty(), Optional.empty(), false, true));
        } else if (!(node instanceof MapNode)) {
            problems.form(node, "`database` is an address or a mapping, not " + node.words(), "write `url: jdbc:...`");
            return Optional.empty();
        }
        MapNode map = new MapNode(
                node.line(),
                node.column(),
                ((MapNode) node)
                        .entries().stream()
                                .filter(entry -> !isDriver(entry.key()))
                                .toList());
        Fields fields = new Fields(problems, map, "`database`", KEYS, List.of());
        fields.require("url");
        if (fields.has("password") && fields.has("password_file")) {
            problems.meaning(
                    fields.find("password").orElseThrow(),
                    "`database` has both a password and a file with one",
                    "leave one of them out");
        }
        return fields.scalar("url", "an address")
                .flatMap(this::address)
                .map(address -> new Database(
                        address,
                        text(fields, "user"),
                        text(fields, "password"),
                        text(fields, "password_file"),
                        fields.truth("prove", false),
                        true));
    }

    /** A program is not loaded because a file says so. */
    private boolean isDriver(Scalar key) {
        boolean isOne = key.text().equals("driver");
        if (isOne) {
            problems.meaning(
                    key,
                    "a driver is a program, and none is loaded because a charter names it",
                    "leave it out; name the .jar with --driver, or lay it into the folder taxiomet/drivers of your settings");
        }
        return isOne;
    }

    private Optional<String> text(Fields fields, String key) {
        Optional<Scalar> text = fields.scalar(key, "a text");
        text.ifPresent(scalar -> requireKnownVariables(key, scalar));
        return text.map(Scalar::text);
    }

    private Optional<DatabaseAddress> address(Scalar url) {
        requireKnownVariables("url", url);
        try {
            return Optional.of(DatabaseAddress.ofFile(url.text()));
        } catch (DatabaseAddress.Unusable e) {
            problems.form(url, e.getMessage(), e.remedy());
            return Optional.empty();
        }
    }

    private void requireKnownVariables(String key, Scalar text) {
        List<String> endings = ENDINGS.get(key);
        Matcher variables = Database.VARIABLE.matcher(text.text());
        while (variables.find()) {
            String name = variables.group(1);
            if (endings.stream().noneMatch(name::endsWith)) {
                problems.meaning(
                        text,
                        "`" + key + "` cannot name the variable " + name,
                        endings.isEmpty()
                                ? "write the path itself"
                                : "there it is one whose name ends in " + String.join(", ", endings));
            }
        }
    }
}
