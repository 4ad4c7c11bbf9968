package taxiomet.charter;

import java.util.Collection;
import java.util.Locale;
import java.util.Optional;

/** Finds the word that was probably meant. */
public final class NearestWord {
    private static final int LONGEST = 80;
    private static final int LEAST_BEGINNING = 3;

    private NearestWord() {}

    /** The known word with the fewest differences, if there are few enough to be a slip; else one that this one begins. */
    public static Optional<String> of(String word, Collection<String> known) {
        String wanted = plain(word);
        if (wanted.length() > LONGEST) {
            return Optional.empty();
        }
        String nearest = null;
        int fewest = Math.max(1, Math.min(3, wanted.length() / 3)) + 1;
        for (String candidate : known) {
            int distance = candidate.length() > LONGEST ? LONGEST : distance(wanted, plain(candidate));
            if (distance < fewest) {
                fewest = distance;
                nearest = candidate;
            }
        }
        if (nearest == null && wanted.length() >= LEAST_BEGINNING) {
            nearest = known.stream()
                    .filter(candidate ->
                            plain(candidate).startsWith(wanted) || wanted.startsWith(plain(candidate) + "_"))
                    .findFirst()
                    .orElse(null);
        }
        return Optional.ofNullable(nearest);
    }

    /** How many slips make one word of another, in whatever case; very many where one is long. */
    public static int differences(String one, String other) {
        boolean isLong = one.length() > LONGEST || other.length() > LONGEST;
        boolean isFar = Math.abs(one.length() - other.length()) > one.length();
        return isLong || isFar ? Integer.MAX_VALUE : distance(plain(one), plain(other));
    }

    private static String plain(String word) {
        return word.toLowerCase(Locale.ROOT).replace(' ', '_').replace('-', '_');
    }

    /** Insertions, deletions, replacements and swaps of neighbours that make one word of the other. */
    private static int distance(String a, String b) {
        int[][] d = new int[a.length() + 1][b.length() + 1];
        for (int i = 0; i <= a.length(); i++) {
            for (int j = 0; j <= b.length(); j++) {
                if (i == 0 || j == 0) {
                    d[i][j] = i + j;
                    continue;
                }
                int replaced = d[i - 1][j - 1] + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                d[i][j] = Math.min(replaced, 1 + Math.min(d[i - 1][j], d[i][j - 1]));
                if (i > 1 && j > 1 && a.charAt(i - 1) == b.charAt(j - 2) && a.charAt(i - 2) == b.charAt(j - 1)) {
                    d[i][j] = Math.min(d[i][j], d[i - 2][j - 2] + 1);
                }
            }
        }
        return d[a.length()][b.length()];
    }
}
