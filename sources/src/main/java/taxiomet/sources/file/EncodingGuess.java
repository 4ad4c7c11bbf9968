package taxiomet.sources.file;

import java.util.Optional;

/**
 * What encoding the beginning of a file speaks for.
 *
 * @param remark that it is a guess, and what it is made of; empty where the bytes leave no doubt
 */
public record EncodingGuess(String encoding, Optional<String> remark) {
    public static EncodingGuess of(byte[] first) {
        boolean isLittle = first.length > 1 && (first[0] & 0xFF) == 0xFF && (first[1] & 0xFF) == 0xFE;
        boolean isBig = first.length > 1 && (first[0] & 0xFF) == 0xFE && (first[1] & 0xFF) == 0xFF;
        if (isLittle || isBig) {
            return new EncodingGuess("UTF-16", Optional.empty());
        }
        int sound = 0;
        int bad = 0;
        int firstBadLine = 0;
        int line = 1;
        for (int i = 0; i < first.length; ) {
            line += first[i] == '\n' ? 1 : 0;
            int length = Utf8.lengthAt(first, i, first.length);
            if (length > 1) {
                sound++;
            } else if (length < 1 && first.length - i >= 4) {
                firstBadLine = bad == 0 ? line : firstBadLine;
                bad++;
            }
            i += Math.max(1, length);
        }
        if (bad == 0) {
            return new EncodingGuess("UTF-8", Optional.empty());
        }
        String seen = bad + (bad == 1 ? " byte" : " bytes") + " near its beginning "
                + (bad == 1 ? "is" : "are") + " no UTF-8 (the first in line " + firstBadLine + "), "
                + (sound == 0
                        ? "and no character beyond ASCII is"
                        : sound + (sound == 1 ? " character is" : " characters are"));
        return sound > bad
                ? new EncodingGuess(
                        "UTF-8",
                        Optional.of(
                                "encoding guessed: UTF-8, though " + seen + "; the rows with such bytes are malformed"))
                : new EncodingGuess("windows-1252", Optional.of("encoding guessed: windows-1252, since " + seen));
    }
}
