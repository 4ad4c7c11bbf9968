package taxiomet.sources.file;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.function.LongConsumer;

/** An uncompressed file, as long as it was when it was opened first. */
public final class PlainInput implements ByteInput {
    private final FileChannel channel;
    private final long size;
    private final LongConsumer onRead;

    public PlainInput(Path file, long size, LongConsumer onRead) throws IOException {
        this.channel = FileChannel.open(file, StandardOpenOption.READ);
        this.size = size;
        this.onRead = onRead;
    }

    @Override
    public int read(long from, byte[] target, int offset, int count) throws IOException {
        int wanted = (int) Math.max(0, Math.min(count, size - from));
        ByteBuffer buffer = ByteBuffer.wrap(target, offset, wanted);
        while (buffer.hasRemaining()) {
            int read = channel.read(buffer, from + buffer.position() - offset);
            if (read < 0) {
                throw new IOException("the file is shorter than it was");
            }
        }
        onRead.accept(wanted);
        return wanted;
    }

    @Override
    public long end() {
        return size;
    }

    @Override
    public void forgetBefore(long place) {
        // A file can be read at any place again.
    }

    @Override
    public void close() throws IOException {
        channel.close();
    }
}
