package taxiomet.cli.terminal;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.OutputStream;

/**
 * Standard output. A reader that has seen enough ({@code | head}) is no fault; a disk that is full is, and ends with a
 * message and a status of its own.
 */
public final class StandardOutput extends FilterOutputStream {
    private static final int BUFFER = 1 << 15;

    private final byte[] buffer = new byte[BUFFER];
    private int buffered;
    private boolean isClosedByReader;
    private boolean isLost;

    public StandardOutput(OutputStream out) {
        super(out);
    }

    @Override
    public void write(int b) {
        write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) {
        if (length > BUFFER - buffered) {
            flush();
        }
        if (length > BUFFER) {
            send(bytes, offset, length);
        } else {
            System.arraycopy(bytes, offset, buffer, buffered, length);
            buffered += length;
        }
    }

    @Override
    public void flush() {
        send(buffer, 0, buffered);
        buffered = 0;
    }

    private void send(byte[] bytes, int offset, int length) {
        if (length == 0 || isClosedByReader || isLost) {
            return;
        }
        try {
            out.write(bytes, offset, length);
        } catch (IOException e) {
            isClosedByReader = String.valueOf(e.getMessage()).contains("Broken pipe");
            if (!isClosedByReader) {
                isLost = true;
                System.err.println("taxiomet: standard output cannot be written (" + e.getMessage() + ")");
            }
        }
    }

    /** Whether something could not be written that somebody waits for. */
    public boolean isLost() {
        return isLost;
    }
}
