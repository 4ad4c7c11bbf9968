package taxiomet.spill;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;

/** One temporary file of longs that several spools may share; made when the first long goes to it. */
final class SpillFile implements AutoCloseable {
    private final SpillFolder folder;
    private FileChannel channel;
    private long size;

    SpillFile(SpillFolder folder) {
        this.folder = folder;
    }

    /** Writes longs at the end of the file and gives the place of the first, counted in longs. */
    long append(long[] values, int count) {
        if (channel == null) {
            channel = folder.newFile();
        }
        long place = size;
        try {
            ByteBuffer bytes = ByteBuffer.allocate(count * Long.BYTES);
            bytes.asLongBuffer().put(values, 0, count);
            long offset = place * Long.BYTES;
            while (bytes.hasRemaining()) {
                offset += channel.write(bytes, offset);
            }
        } catch (IOException e) {
            throw new SpillException(folder.place(), e);
        }
        size += count;
        return place;
    }

    /** Reads {@code count} longs from a place into the front of {@code values}. */
    void read(long place, long[] values, int count) {
        try {
            ByteBuffer bytes = ByteBuffer.allocate(count * Long.BYTES);
            long offset = place * Long.BYTES;
            while (bytes.hasRemaining()) {
                int read = channel.read(bytes, offset);
                if (read < 0) {
                    throw new IOException("a file is shorter than what was written to it");
                }
                offset += read;
            }
            bytes.flip().asLongBuffer().get(values, 0, count);
        } catch (IOException e) {
            throw new SpillException(folder.place(), e);
        }
    }

    @Override
    public void close() {
        if (channel != null) {
            try {
                channel.close();
            } catch (IOException e) {
                throw new SpillException(folder.place(), e);
            }
            channel = null;
        }
    }
}
