package taxiomet.sources.csv;

import java.io.InputStream;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.sources.file.RecodedText;
import taxiomet.sources.file.SingleByteText;

/**
 * How the files of a table become bytes that can be taken apart: UTF-8, with a delimiter and a quote of one byte each. UTF-8 is taken as it
 * stands. An encoding of one byte a character is turned into UTF-8 chunk by chunk, so that rows can still be found by their place in the
 * file. All else is recoded from the beginning on. A delimiter or quote beyond ASCII then changes places with a control character that
 * nothing else stands for, and changes back in the cells ({@link #restored}).
 */
final class ByteForm {
    /** Beyond these nobody can tell which control character would be free. */
    private static final String STAND_INS = "\u001C\u001D\u001E\u001F";

    private static final int BEYOND_ASCII = 0x80;

    private final DelimitedFiles format;
    private final Optional<SingleByteText> singleByte;
    private final boolean isRecoded;
    private final char delimiter;
    private final char quote;

    ByteForm(DelimitedFiles format) {
        this.format = format;
        this.delimiter = standIn(format.delimiter(), 0);
        this.quote = standIn(format.quote(), 1);
        boolean isUtf8 = format.encoding().equals(StandardCharsets.UTF_8.name());
        Optional<SingleByteText> table =
                isUtf8 ? Optional.empty() : SingleByteText.of(Charset.forName(format.encoding()));
        this.isRecoded = areExchanged() || !isUtf8 && table.isEmpty();
        this.singleByte = isRecoded ? Optional.empty() : table;
    }

    private char standIn(char mark, int which) {
        if (mark < BEYOND_ASCII) {
            return mark;
        }
        List<Integer> free = STAND_INS
                .chars()
                .filter(c -> c != format.delimiter() && c != format.quote())
                .boxed()
                .toList();
        return (char) (int) free.get(which);
    }

    /** As it is declared. */
    DelimitedFiles declared() {
        return format;
    }

    /** The byte between fields. */
    byte delimiter() {
        return (byte) delimiter;
    }

    /** The byte around fields. */
    byte quote() {
        return (byte) quote;
    }

    /** The words for null, as they read in the bytes. */
    NullWords nullWords() {
        return new NullWords(format.nullWords().stream().map(this::restored).toList());
    }

    /** How to turn bytes into UTF-8, chunk by chunk; empty when they are. */
    Optional<SingleByteText> singleByte() {
        return singleByte;
    }

    /** Whether files are recoded as a whole: rows cannot be found by their place in the file. */
    boolean isRecoded() {
        return isRecoded;
    }

    /** Whether the delimiter or the quote has changed places with another character. */
    boolean areExchanged() {
        return delimiter != format.delimiter() || quote != format.quote();
    }

    /**
     * The bytes of a file that is {@link #isRecoded recoded}.
     *
     * @param in stands behind any byte order mark
     */
    InputStream recode(InputStream in, Charset encoding) {
        return new RecodedText(in, encoding, areExchanged() ? this::exchange : characters -> {});
    }

    private void exchange(CharBuffer characters) {
        for (int i = characters.position(); i < characters.limit(); i++) {
            characters.put(i, exchanged(characters.get(i)));
        }
    }

    private char exchanged(char c) {
        if (c == format.delimiter()) {
            return delimiter;
        } else if (c == delimiter) {
            return format.delimiter();
        } else if (c == format.quote()) {
            return quote;
        }
        return c == quote ? format.quote() : c;
    }

    /** A text with the characters that changed places back in theirs. */
    String restored(String text) {
        if (!areExchanged()) {
            return text;
        }
        char[] characters = text.toCharArray();
        for (int i = 0; i < characters.length; i++) {
            characters[i] = exchanged(characters[i]);
        }
        return new String(characters);
    }
}
