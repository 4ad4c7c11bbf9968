package taxiomet.charters.input;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Pattern;

/** A file with rules or changes, or standard input where it is called {@code -}. What came from there is kept: it comes once. */
public final class InputFile {
    private static final Path STANDARD_INPUT = Path.of("-");
    private static final Pattern SCHEMA =
            Pattern.compile("(?i)\\bcreate\\s+(global\\s+|temp\\w*\\s+|unlogged\\s+)*table\\b");

    /** Larger than any charter, schema, metadata or proposal that is read whole. */
    private static final int MOST = 64 << 20;

    private static byte[] fromStandardInput;

    private InputFile() {}

    /** Whether a path stands for standard input. */
    public static boolean isStandardInput(Path file) {
        return file.equals(STANDARD_INPUT);
    }

    /** What messages call it. */
    public static String name(Path file) {
        return isStandardInput(file) ? "standard input" : file.toString();
    }

    /**
     * All bytes of it.
     *
     * @throws IOException also when it has more than 64 MB, or is a file without an end
     */
    public static synchronized byte[] bytes(Path file) throws IOException {
        if (!isStandardInput(file)) {
            // A kernel's files have no size, and some of them no end.
            boolean isEmpty = Files.isRegularFile(file) && Files.size(file) == 0;
            if (isEmpty) {
                return new byte[0];
            }
            try (InputStream in = Files.newInputStream(file)) {
                return bounded(in);
            }
        }
        if (fromStandardInput == null) {
            fromStandardInput = bounded(System.in);
        }
        return fromStandardInput.clone();
    }

    private static byte[] bounded(InputStream in) throws IOException {
        byte[] bytes = in.readNBytes(MOST + 1);
        if (bytes.length > MOST) {
            throw new IOException("it is larger than " + (MOST >> 20) + " MB, the most that is read of such a file");
        }
        return bytes;
    }

    /** Whether standard input has been read. */
    public static synchronized boolean isStandardInputRead() {
        return fromStandardInput != null;
    }

    /** Takes standard input as not yet read: where one process runs several commands. */
    public static synchronized void forgetStandardInput() {
        fromStandardInput = null;
    }

    /** Whether it is a SQL schema: by its name, or from standard input by what is in it. */
    public static boolean isSchema(Path file, byte[] bytes) {
        return isStandardInput(file) ? !isJson(file, bytes) && declaresTables(text(bytes)) : isSchema(file);
    }

    /** Whether a text is a SQL schema by what is in it. */
    public static boolean declaresTables(String text) {
        return SCHEMA.matcher(text).find();
    }

    /** Whether it is JSON: by its name, or from standard input by how it begins. */
    public static boolean isJson(Path file, byte[] bytes) {
        return isStandardInput(file)
                ? text(bytes).stripLeading().startsWith("{")
                : file.toString().toLowerCase(Locale.ROOT).endsWith(".json");
    }

    private static String text(byte[] bytes) {
        return new String(bytes, StandardCharsets.UTF_8);
    }

    /** Whether a file is a SQL schema by its name. */
    public static boolean isSchema(Path file) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(".sql");
    }
}
