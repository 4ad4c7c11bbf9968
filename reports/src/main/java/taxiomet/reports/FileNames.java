package taxiomet.reports;

import java.text.Normalizer;
import java.util.Collection;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;

/** Names for files and folders made of names of other things: fit for any file system, each of them different. */
public final class FileNames {
    /** In bytes of UTF-8: a few of them, with what stands between, fit into the 255 of a name. */
    private static final int LONGEST_NAME = 60;

    /** Names of devices on Windows, whatever ending they have. */
    private static final Pattern RESERVED = Pattern.compile(
            "(?i)(con|prn|aux|nul|conin\\$|conout\\$|com[0-9\u00b9\u00b2\u00b3]|lpt[0-9\u00b9\u00b2\u00b3])([.].*)?");

    private final Set<String> taken = new HashSet<>();

    /** @param already names that are taken */
    public FileNames(Collection<String> already) {
        already.forEach(name -> taken.add(folded(name)));
    }

    /**
     * A name of letters, digits, {@code _}, {@code -} and dots that begins with neither of the last two, does not end with a dot, and is no
     * device of any system; two of them may be alike.
     */
    public static String plain(String name) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFC)
                .replaceAll("[^\\p{L}\\p{N}_.-]+", "_")
                .replaceAll("^[.-]+", "_");
        String cut = cut(plain).replaceAll("[.]+$", "_");
        return cut.isEmpty() || RESERVED.matcher(cut).matches() ? "_" + cut : cut;
    }

    private static String cut(String name) {
        int end = 0;
        int bytes = 0;
        while (end < name.length()) {
            int codePoint = name.codePointAt(end);
            bytes += codePoint < 0x80 ? 1 : codePoint < 0x800 ? 2 : codePoint < 0x10000 ? 3 : 4;
            if (bytes > LONGEST_NAME) {
                break;
            }
            end += Character.charCount(codePoint);
        }
        return name.substring(0, end);
    }

    /**
     * A name that was not given before, whatever case a file system sees.
     *
     * @param plain is given as it is, or with a number behind it
     * @param ending stands behind it, such as {@code .csv}
     */
    public String different(String plain, String ending) {
        String different = plain + ending;
        for (int i = 2; !taken.add(folded(different)); i++) {
            different = plain + "-" + i + ending;
        }
        return different;
    }

    /** As file systems fold names that fold any. */
    private static String folded(String name) {
        return Normalizer.normalize(name.toUpperCase(Locale.ROOT).toLowerCase(Locale.ROOT), Normalizer.Form.NFKC);
    }
}
