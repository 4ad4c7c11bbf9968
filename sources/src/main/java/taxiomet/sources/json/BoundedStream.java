package taxiomet.sources.json;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** The first bytes of a stream, as though it ended behind them. */
final class BoundedStream extends FilterInputStream {
    private long left;

    /** @param bytes how many of them */
    BoundedStream(InputStream in, long bytes) {
        super(in);
        this.left = bytes;
    }

    @Override
    public int read() throws IOException {
        int value = left > 0 ? super.read() : -1;
        left -= value < 0 ? 0 : 1;
        return value;
    }

    @Override
    public int read(byte[] target, int offset, int length) throws IOException {
        int count = left > 0 ? super.read(target, offset, (int) Math.min(length, left)) : length == 0 ? 0 : -1;
        left -= Math.max(count, 0);
        return count;
    }
}
