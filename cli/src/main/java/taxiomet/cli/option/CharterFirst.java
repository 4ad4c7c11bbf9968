package taxiomet.cli.option;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import taxiomet.charter.place.DatabaseAddress;

/**
 * Arguments of which the first is the charter, unless that is the usual one.
 *
 * @param all as they were typed, at least one
 */
record CharterFirst(List<String> all) {
    private static final String USUAL = "charter.yaml";
    private static final List<String> ENDINGS = List.of(".yaml", ".yml", ".json", ".sql");

    Path charter() {
        return Path.of(isNamed() ? all.get(0) : USUAL);
    }

    /** What stands behind it. */
    List<String> others() {
        return isNamed() ? all.subList(1, all.size()) : all;
    }

    private boolean isNamed() {
        String first = all.get(0);
        String name = first.toLowerCase(Locale.ROOT);
        boolean looksLikeOne = ENDINGS.stream().anyMatch(name::endsWith);
        return all.size() > 1
                && (first.equals("-")
                        || looksLikeOne
                        || DatabaseAddress.isOfDatabase(first)
                        || Files.isRegularFile(Path.of(first)));
    }
}
