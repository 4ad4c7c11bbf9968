package taxiomet.sources.file;

import java.io.OutputStream;
import taxiomet.rows.TableRewriter.ByteSink;

/** Hands on to a sink what is written. */
public final class SinkStream extends OutputStream {
    private final ByteSink sink;

    public SinkStream(ByteSink sink) {
        this.sink = sink;
    }

    @Override
    public void write(int b) {
        sink.write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) {
        sink.write(bytes, offset, length);
    }
}
