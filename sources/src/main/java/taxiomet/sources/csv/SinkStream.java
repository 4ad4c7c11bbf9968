package taxiomet.sources.csv;

import java.io.OutputStream;
import taxiomet.rows.TableRewriter.ByteSink;

/** Hands on to a sink what is written. */
final class SinkStream extends OutputStream {
    private final ByteSink sink;

    SinkStream(ByteSink sink) {
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
