package taxiomet.check.alike;

import java.text.Normalizer;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;

/** A text without what people write now one way and now another: case, accents, punctuation; its words are in order and one blank apart. */
final class LooseText {
    /** Letters that no normal form takes apart. */
    private static final Map<Character, String> TAKEN_APART = Map.of(
            'ß', "ss", 'æ', "ae", 'œ', "oe", 'ø', "o", 'đ', "d", 'ð', "d", 'ł', "l", 'þ', "th", 'ı', "i", 'ħ', "h");

    private LooseText() {}

    /** The words of a text, in lower case and plain letters, one blank between two; empty when it has none. */
    static String of(String text) {
        String plain = isAscii(text)
                ? text
                : Normalizer.normalize(text, Normalizer.Form.NFKD).toLowerCase(Locale.ROOT);
        StringBuilder words = new StringBuilder(plain.length());
        boolean isBetween = false;
        for (int i = 0; i < plain.length(); i++) {
            char letter = plain.charAt(i);
            char c = letter >= 'A' && letter <= 'Z' ? (char) (letter + 'a' - 'A') : letter;
            boolean isPlain = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
            if (!isPlain && isNothing(c)) {
                continue;
            }
            if (!isPlain && !Character.isLetterOrDigit(c) && !Character.isSurrogate(c)) {
                isBetween = true;
                continue;
            }
            if (isBetween && !words.isEmpty()) {
                words.append(' ');
            }
            isBetween = false;
            if (c < 0x80) {
                words.append(c);
            } else {
                words.append(TAKEN_APART.getOrDefault(c, String.valueOf(c)));
            }
        }
        return words.toString();
    }

    private static boolean isAscii(String text) {
        for (int i = 0; i < text.length(); i++) {
            if (text.charAt(i) >= 0x80) {
                return false;
            }
        }
        return true;
    }

    /** Marks on letters, and apostrophes: a word goes on behind them. */
    private static boolean isNothing(char c) {
        return c == '\''
                || c == '\u2019'
                || c == '\u2018'
                || c == '`'
                || c == '\u00B4'
                || Character.getType(c) == Character.NON_SPACING_MARK
                || Character.getType(c) == Character.FORMAT;
    }

    /** The same words without blanks between them. */
    static String joined(String words) {
        return words.indexOf(' ') < 0 ? words : words.replace(" ", "");
    }

    /** The words in the order of the alphabet, without blanks between them. */
    static String sorted(String words) {
        if (words.indexOf(' ') < 0) {
            return words;
        }
        String[] all = words.split(" ");
        Arrays.sort(all);
        return String.join("", all);
    }

    /** Longer texts are prose, in which a slip says little, and would be long to look for. */
    private static final int LONGEST_WITH_SLIPS = 200;

    /** How many slips of one letter are allowed in a text of so many letters: none in a short one, then one more for every eight. */
    static int slips(int letters) {
        return letters < 4 || letters > LONGEST_WITH_SLIPS ? 0 : Math.min(3, 1 + (letters - 4) / 8);
    }
}
