package taxiomet.charters.yaml;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.place.Database;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads what a charter says of the database that rows live in. */
final class DatabaseReader {
    private static final List<String> KEYS = List.of("url", "user", "password", "password_file", "driver", "prove");

    private final Problems problems;

    DatabaseReader(Problems problems) {
        this.problems = problems;
    }

    Optional<Database> read(Node node) {
        if (node instanceof Scalar url && !url.isNull()) {
            return Optional.of(Database.at(address(url)));
        } else if (!(node instanceof MapNode)) {
            problems.form(node, "`database` is an address or a mapping, not " + node.words(), "write `url: jdbc:...`");
            return Optional.empty();
        }
        Fields fields = new Fields(problems, (MapNode) node, "`database`", KEYS, List.of());
        fields.require("url");
        if (fields.has("password") && fields.has("password_file")) {
            problems.meaning(
                    fields.find("password").orElseThrow(),
                    "`database` has both a password and a file with one",
                    "leave one of them out");
        }
        return fields.scalar("url", "an address")
                .map(url -> new Database(
                        address(url),
                        fields.text("user"),
                        fields.text("password"),
                        fields.text("password_file"),
                        fields.text("driver"),
                        fields.truth("prove", false)));
    }

    private String address(Scalar url) {
        if (!Database.isAddress(url.text())) {
            problems.form(
                    url,
                    "the address of a database begins with `jdbc:`, and `" + url.text() + "` does not",
                    "write it as the driver has it, such as jdbc:postgresql://localhost/shop");
        }
        return url.text();
    }
}
