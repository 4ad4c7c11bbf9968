package taxiomet.sources.file;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Pattern;
import taxiomet.rows.SourceException;

/** Tells files that are plainly no delimited text by what is in them, whatever their names say. */
public final class FileContent {
    private static final Pattern SQL = Pattern.compile(
            "(?is)\\A\\uFEFF?(\\s|--[^\\n]*\\n|/\\*.*?\\*/)*(create\\s+(or\\s+replace\\s+)?(temp\\w*\\s+|unlogged\\s+)?(table|schema|database|view|index|type)\\s"
                    + "|insert\\s+into\\s|drop\\s+(table|schema|database)\\s|alter\\s+table\\s|begin\\s*(transaction\\s*)?;|set\\s+\\w+\\s*(=|to)\\s|pragma\\s).*");
    private static final Pattern JSON = Pattern.compile(
            "(?s)\\A\\uFEFF?\\s*(\\{\\s*(\"[^\"\\n]*\"\\s*:|\\}).*|\\[\\s*([\\[{\"]|\\]|-?[0-9.]+\\s*,?\\s*[\\n0-9-]).*)");
    private static final Pattern MARKUP =
            Pattern.compile("(?is)\\A\\uFEFF?\\s*<(\\?xml|!doctype|html|[a-z][\\w:.-]*[\\s/>]).*");

    private static final String EXPORT = "export its tables as CSV, one file for each";

    /** What a file is, and what to do with it. */
    private record Kind(String what, String remedy) {}

    private FileContent() {}

    /** @throws SourceException when the beginning of a file shows that it is something else */
    public static void requireDelimitedText(Path file, byte[] first) {
        kindOf(first).ifPresent(kind -> {
            throw new SourceException(
                    file.toString(), "this is " + kind.what() + ", not delimited text", kind.remedy());
        });
    }

    private static Optional<Kind> kindOf(byte[] first) {
        String start = new String(first, 0, Math.min(first.length, 16), StandardCharsets.ISO_8859_1);
        if (start.startsWith("PK\u0003\u0004")) {
            String names = new String(first, StandardCharsets.ISO_8859_1);
            return Optional.of(
                    names.contains("xl/")
                                    || names.contains("[Content_Types].xml")
                                    || names.contains("mimetypeapplication/vnd.oasis")
                            ? new Kind("a workbook", EXPORT)
                            : new Kind("a zip archive", "let its name end in .zip, with one file in it"));
        } else if (start.startsWith("\u00D0\u00CF\u0011\u00E0")) {
            return Optional.of(new Kind("a workbook in an old format", EXPORT));
        } else if (start.startsWith("SQLite format 3")) {
            return Optional.of(new Kind(
                    "an SQLite database",
                    "let its name end in .sqlite, or write `rows: {file: NAME, table: TABLE}` in a charter"));
        } else if (start.startsWith("\u001F\u008B")) {
            return Optional.of(new Kind("compressed (gzip)", "let its name end in .gz"));
        } else if (start.startsWith("(\u00B5/\u00FD")) {
            return Optional.of(new Kind("compressed (zstd)", "let its name end in .zst"));
        } else if (start.startsWith("7z\u00BC\u00AF") || start.startsWith("BZh") || start.startsWith("\u00FD7zXZ")) {
            return Optional.of(new Kind("a compressed archive", "unpack it first"));
        } else if (start.startsWith("PAR1")) {
            return Optional.of(new Kind("a Parquet file", EXPORT));
        } else if (start.startsWith("%PDF")) {
            return Optional.of(new Kind("a PDF document", EXPORT));
        } else if (start.startsWith("\u007FELF") || start.startsWith("\u0089PNG") || start.startsWith("GIF8")) {
            return Optional.of(new Kind("no text at all", "leave it out"));
        }
        String text = new String(first, StandardCharsets.UTF_8);
        if (JSON.matcher(text).matches()) {
            return Optional.of(new Kind("JSON", EXPORT));
        } else if (SQL.matcher(text).matches()) {
            return Optional.of(
                    new Kind("a SQL script", "a schema goes to vet or check: taxiomet check SCHEMA.sql --rows FOLDER"));
        } else if (MARKUP.matcher(text).matches()) {
            return Optional.of(new Kind("XML or HTML", EXPORT));
        }
        return Optional.empty();
    }
}
