package taxiomet.reports.xlsx;

import java.util.HashSet;
import java.util.Locale;
import java.util.Set;

/** Names for sheets, each of them different and fit for one. */
final class SheetNames {
    private static final int LONGEST = 31;

    private final Set<String> taken = new HashSet<>();

    /** A name that begins as asked, with a number behind it where it is taken. */
    String next(String wanted) {
        String plain = wanted.replaceAll("[\\[\\]:*?/\\\\\\p{Cntrl}']", "_").strip();
        String name = cut(plain.isEmpty() ? "sheet" : plain, LONGEST);
        for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
            String behind = " (" + i + ")";
            name = cut(plain, LONGEST - behind.length()) + behind;
        }
        return name;
    }

    private static String cut(String name, int length) {
        if (name.length() <= length) {
            return name;
        }
        return name.substring(0, Character.isHighSurrogate(name.charAt(length - 1)) ? length - 1 : length);
    }
}
