package taxiomet.sources.json;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.util.Arrays;

/** Cuts a stream into runs of whole lines, and numbers the rows: lines that hold anything but blanks. */
final class LineCursor implements Closeable {
    private final InputStream in;
    private final int runBytes;
    private byte[] rest = new byte[0];
    private boolean isAtEnd;
    private long row;
    private long line;
    private long offset;
    private long emptyLines;

    /**
     * Some whole lines.
     *
     * @param length how many of the bytes they take
     * @param row the number of the first row among them
     * @param line the number of the first line
     * @param offset where they begin, in bytes without any compression
     */
    @SuppressWarnings("ArrayRecordComponent")
    record Run(byte[] bytes, int length, long row, long line, long offset) {}

    /**
     * @param in stands at the beginning of a line
     * @param row the number of the row that begins there or later
     * @param line the number of that line
     * @param offset the place of that line
     * @param runBytes about how many bytes a run takes; more where a line is longer
     */
    LineCursor(InputStream in, long row, long line, long offset, int runBytes) {
        this.in = in;
        this.row = row;
        this.line = line;
        this.offset = offset;
        this.runBytes = runBytes;
    }

    /** The next lines; null when there are no more. */
    Run next() throws IOException {
        byte[] bytes = Arrays.copyOf(rest, Math.max(runBytes, rest.length * 2));
        int length = rest.length;
        int end = 0;
        while (end == 0) {
            if (length == bytes.length) {
                if (length >= ObjectReader.LONGEST_LINE) {
                    throw new IOException(
                            "line " + line + " is longer than " + ObjectReader.LONGEST_LINE / (1 << 20) + " MB");
                }
                bytes = Arrays.copyOf(bytes, bytes.length * 2);
            }
            int count = isAtEnd ? -1 : in.readNBytes(bytes, length, bytes.length - length);
            isAtEnd |= count < bytes.length - length;
            length += Math.max(count, 0);
            end = isAtEnd ? length : lastEnd(bytes, length);
            if (length == 0) {
                return null;
            }
        }
        rest = Arrays.copyOfRange(bytes, end, length);
        Run run = new Run(bytes, end, row, line, offset);
        number(bytes, end);
        offset += end;
        return run;
    }

    private static int lastEnd(byte[] bytes, int length) {
        for (int i = length; i > 0; i--) {
            if (bytes[i - 1] == '\n') {
                return i;
            }
        }
        return 0;
    }

    private void number(byte[] bytes, int length) {
        boolean isEmpty = true;
        for (int i = 0; i < length; i++) {
            byte b = bytes[i];
            if (b == '\n') {
                line++;
                row += isEmpty ? 0 : 1;
                emptyLines += isEmpty ? 1 : 0;
                isEmpty = true;
            } else {
                isEmpty &= isBlank(b);
            }
        }
        row += isEmpty ? 0 : 1;
    }

    static boolean isBlank(byte b) {
        return b == ' ' || b == '\t' || b == '\r';
    }

    /** How many lines without a row have been passed over. */
    long emptyLines() {
        return emptyLines;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
