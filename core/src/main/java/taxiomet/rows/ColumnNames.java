package taxiomet.rows;

import java.util.Collection;
import java.util.stream.Collectors;
import taxiomet.charter.NearestWord;

/** What sources say of the names of columns: those that are there, and those that are not. */
public final class ColumnNames {
    private static final int NAMES_SHOWN = 8;
    private static final int LONGEST = 40;

    private ColumnNames() {}

    /** The first of some names, and how many more there are. */
    public static String listed(Collection<String> names) {
        String some = names.stream()
                .limit(NAMES_SHOWN)
                .map(name -> "`" + shortened(name) + "`")
                .collect(Collectors.joining(", "));
        return names.size() > NAMES_SHOWN ? some + " and " + (names.size() - NAMES_SHOWN) + " more" : some;
    }

    private static String shortened(String name) {
        return name.codePointCount(0, name.length()) > LONGEST
                ? name.substring(0, name.offsetByCodePoints(0, LONGEST - 1)) + "…"
                : name;
    }

    /** A clause about the name that a missing one was meant to be, to stand behind it; empty where none is like it. */
    public static String near(String missing, Collection<String> there) {
        return NearestWord.of(missing.strip(), there.stream().map(String::strip).toList())
                .map(name -> "; `" + name + "` looks like it, but names must be equal to the letter")
                .orElse("");
    }
}
