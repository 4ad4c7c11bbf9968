package taxiomet.charter.place;

import java.nio.charset.Charset;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Rows in files of delimited text, and how they are written.
 *
 * @param folder where the path starts: the charter's own folder
 * @param path a path or, for a table in parts, a glob ({@code *}, {@code ?}, {@code [..]}, <code>{a,b}</code>)
 * @param delimiter between the fields of a row
 * @param quote round a field that holds delimiters, quotes or line breaks
 * @param encoding name of the character encoding
 * @param hasHeader whether the first line of each file names the columns
 * @param header the columns in their order where no line of the file names them
 * @param nullWords unquoted words that mean null, besides the empty field
 */
public record DelimitedFiles(
        Path folder,
        String path,
        char delimiter,
        char quote,
        String encoding,
        boolean hasHeader,
        Optional<List<String>> header,
        List<String> nullWords)
        implements RowsPlace {
    /** The encodings that files are usually in; there are many more. */
    public static final List<String> USUAL_ENCODINGS =
            List.of("UTF-8", "UTF-16", "UTF-16LE", "UTF-16BE", "ISO-8859-1", "windows-1252", "US-ASCII");

    public DelimitedFiles {
        header = header.map(List::copyOf);
        nullWords = List.copyOf(nullWords);
    }

    /** The name of the encoding that a word means, in any case and with any hyphens; empty where this machine knows none. */
    public static Optional<String> encodingNamed(String word) {
        for (String usual : USUAL_ENCODINGS) {
            if (letters(usual).equals(letters(word))) {
                return Optional.of(usual);
            }
        }
        try {
            return Optional.of(Charset.forName(word.strip()).name());
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    private static String letters(String name) {
        return name.toUpperCase(Locale.ROOT).replace("-", "").replace("_", "");
    }

    /** Rows written in the same way that stand somewhere else. */
    public DelimitedFiles at(Path otherFolder, String otherPath) {
        return new DelimitedFiles(otherFolder, otherPath, delimiter, quote, encoding, hasHeader, header, nullWords);
    }
}
