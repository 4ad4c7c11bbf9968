package taxiomet.values;

import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** Values that people write where there is none. */
public final class Placeholders {
    private static final Pattern REPEATED = Pattern.compile("9{3,}|x{2,}|-+|\\?+|\\.+|0+");
    private static final Set<String> WORDS = Set.of(
            "0",
            "-1",
            "1900-01-01",
            "0001-01-01",
            "9999-12-31",
            "19000101",
            "99991231",
            "01.01.1900",
            "n/a",
            "na",
            "#n/a",
            "n.a.",
            "none",
            "null",
            "nil",
            "nan",
            "x",
            "unknown",
            "tbd",
            "missing",
            "undefined",
            "empty",
            "blank",
            "void");

    private Placeholders() {}

    /** Whether a value probably stands for nothing: n/a, 9999, xxx, 1900-01-01. */
    public static boolean standsForNothing(String text) {
        String plain = text.strip().toLowerCase(Locale.ROOT);
        return WORDS.contains(plain) || REPEATED.matcher(plain).matches();
    }
}
