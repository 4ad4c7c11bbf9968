package taxiomet.reports;

import java.util.Collection;
import java.util.HashSet;
import java.util.Locale;
import java.util.Set;

/** Names for files and folders made of names of other things: fit for any file system, each of them different. */
public final class FileNames {
    private static final int LONGEST_NAME = 80;

    private final Set<String> taken = new HashSet<>();

    /** @param already names that are taken */
    public FileNames(Collection<String> already) {
        already.forEach(name -> taken.add(name.toLowerCase(Locale.ROOT)));
    }

    /** A name of letters, digits, {@code _}, {@code -} and dots that does not begin with one; two of them may be alike. */
    public static String plain(String name) {
        String plain = name.replaceAll("[^\\p{L}\\p{N}_.-]+", "_").replaceAll("^[.]+", "_");
        String cut = plain.length() > LONGEST_NAME ? plain.substring(0, LONGEST_NAME) : plain;
        return cut.isEmpty() ? "_" : cut;
    }

    /**
     * A name that was not given before, whatever case a file system sees.
     *
     * @param plain is given as it is, or with a number behind it
     * @param ending stands behind it, such as {@code .csv}
     */
    public String different(String plain, String ending) {
        String different = plain + ending;
        for (int i = 2; !taken.add(different.toLowerCase(Locale.ROOT)); i++) {
            different = plain + "-" + i + ending;
        }
        return different;
    }
}
