package taxiomet.sources.file;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.SeekableByteChannel;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.atomic.AtomicLong;
import taxiomet.rows.SourceException;

/** A file as it was when it was opened first: what is read of it is counted, and a change is noticed. */
public final class DataFile {
    private final Path path;
    private final Packing packing;
    private final FileStamp stamp;
    private final AtomicLong bytesRead = new AtomicLong();

    /** @throws SourceException when it cannot be read */
    public DataFile(Path path) {
        this.path = path;
        this.packing = Packing.of(path);
        try {
            this.stamp = FileStamp.of(path);
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    public Path path() {
        return path;
    }

    /** What the file is called in messages: the way to it from a folder that it stands in, else its whole path. */
    public String nameFrom(Path folder) {
        return path.startsWith(folder) ? folder.relativize(path).toString() : path.toString();
    }

    /** How many bytes the file has, compressed as it is. */
    public long size() {
        return stamp.size();
    }

    /** Whether rows can be read at any place, since they are not compressed. */
    public boolean isPlain() {
        return packing == Packing.NONE;
    }

    /** How many bytes of the file have been read since {@link #startCount}. */
    public long bytesRead() {
        return bytesRead.get();
    }

    /** A pass begins. */
    public void startCount() {
        bytesRead.set(0);
    }

    /** Counts bytes that were read some other way. */
    public void count(long bytes) {
        bytesRead.addAndGet(bytes);
    }

    /** The bytes from a place on, without any compression. */
    public InputStream open(long offset) throws IOException {
        SeekableByteChannel channel = Files.newByteChannel(path);
        boolean isOpen = false;
        try {
            InputStream in;
            if (isPlain()) {
                channel.position(offset);
                in = new Counting(Channels.newInputStream(channel));
            } else {
                in = packing.unpack(new Counting(Channels.newInputStream(channel)));
                in.skipNBytes(offset);
            }
            isOpen = true;
            return in;
        } finally {
            if (!isOpen) {
                channel.close();
            }
        }
    }

    private final class Counting extends FilterInputStream {
        Counting(InputStream in) {
            super(in);
        }

        @Override
        public int read() throws IOException {
            int value = super.read();
            count(value < 0 ? 0 : 1);
            return value;
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            int read = super.read(target, offset, length);
            count(Math.max(read, 0));
            return read;
        }
    }

    /** @throws SourceException when the file looks otherwise than it did */
    public void requireUnchanged() {
        try {
            if (!FileStamp.of(path).isSameAs(stamp)) {
                throw changed();
            }
        } catch (IOException e) {
            throw unreadable(e);
        }
    }

    /** What to say of a file that is not what it was. */
    public SourceException changed() {
        return new SourceException(
                path.toString(), "the file changed while it was being read", "check again when nobody writes to it");
    }

    /** What to say of a file that cannot be read. */
    public SourceException unreadable(IOException cause) {
        if (!isPlain() && !(cause instanceof FileSystemException)) {
            return new SourceException(
                    path.toString(),
                    "the file cannot be decompressed (" + FileParts.reason(cause) + ")",
                    "check that it is whole, and that its ending (.gz, .zst) says what it is");
        }
        return FileParts.unreadable(path, cause);
    }
}
