package taxiomet.charters.input;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;

/** What a file is that somebody took for a charter, by how it begins; nothing of what it holds is told. */
public final class FileKind {
    private static final int HEAD = 16;
    private static final String SQLITE = "SQLite format 3\0";
    private static final Pattern TABLE = Pattern.compile("(?i).*\\.(csv|tsv|tab|psv|txt|jsonl|ndjson)");
    private static final Map<String, String> BEGINNINGS = new LinkedHashMap<>();

    static {
        BEGINNINGS.put("PK\u0003\u0004", "a workbook or an archive");
        BEGINNINGS.put("PAR1", "a Parquet file");
        BEGINNINGS.put("\u001f\u008b", "a compressed file");
        BEGINNINGS.put("(\u00b5/\u00fd", "a compressed file");
        BEGINNINGS.put(SQLITE, "a SQLite file");
        BEGINNINGS.put("%PDF", "a PDF");
    }

    private FileKind() {}

    /** Whether it is a file of SQLite, whatever its name. */
    public static boolean isSqlite(Path file) {
        return Files.isRegularFile(file) && head(file).startsWith(SQLITE);
    }

    private static String head(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return new String(in.readNBytes(HEAD), StandardCharsets.ISO_8859_1);
        } catch (IOException e) {
            // Whoever reads it says why it cannot be read.
            return "";
        }
    }

    /** What it is, in words, where it is no charter, schema or metadata; empty where it may be one. */
    public static Optional<String> other(Path file) {
        String name = file.toString().toLowerCase(Locale.ROOT);
        if (TABLE.matcher(name).matches()) {
            return Optional.of("a table");
        }
        String head = head(file);
        return BEGINNINGS.entrySet().stream()
                .filter(each -> head.startsWith(each.getKey()))
                .map(Map.Entry::getValue)
                .findFirst();
    }
}
