package taxiomet.sources.fixed;

import java.io.BufferedReader;
import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;

/** Lines of text, none of them longer than some: most often a longer one is no line. */
final class BoundedLines implements Closeable {
    private static final int LONGEST = 1 << 20;
    private static final char MARK = '\uFEFF';

    private final BufferedReader reader;
    private long number;

    BoundedLines(InputStream in, String encoding) {
        reader = new BufferedReader(new InputStreamReader(
                in,
                Charset.forName(encoding)
                        .newDecoder()
                        .onMalformedInput(CodingErrorAction.REPORT)
                        .onUnmappableCharacter(CodingErrorAction.REPORT)));
    }

    /** The next line without its end; null when there are no more. */
    String next() throws IOException {
        StringBuilder line = new StringBuilder();
        int c = reader.read();
        if (c < 0) {
            return null;
        }
        number++;
        while (c >= 0 && c != '\n') {
            if (line.length() == LONGEST) {
                throw new IOException("line " + number + " is longer than " + LONGEST + " characters");
            }
            line.append((char) c);
            c = reader.read();
        }
        int end = line.length();
        if (end > 0 && line.charAt(end - 1) == '\r') {
            line.setLength(end - 1);
        }
        return number == 1 && !line.isEmpty() && line.charAt(0) == MARK ? line.substring(1) : line.toString();
    }

    /** The number of the line last given, 1 for the first. */
    long number() {
        return number;
    }

    @Override
    public void close() throws IOException {
        reader.close();
    }
}
