package taxiomet.sources.file;

import io.airlift.compress.MalformedInputException;
import io.airlift.compress.zstd.ZstdInputStream;
import io.airlift.compress.zstd.ZstdOutputStream;
import java.io.FilterInputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.Locale;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/** How a file is compressed, as the ending of its name says. */
public enum Packing {
    NONE,
    GZIP,
    ZSTD;

    private static final int BUFFER = 1 << 16;

    public static Packing of(Path file) {
        String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
        return name.endsWith(".gz") ? GZIP : name.endsWith(".zst") ? ZSTD : NONE;
    }

    /** The bytes without the compression. */
    public InputStream unpack(InputStream packed) throws IOException {
        return switch (this) {
            case NONE -> packed;
            case GZIP -> new GZIPInputStream(packed, BUFFER);
            case ZSTD -> new ZstdStream(packed);
        };
    }

    /** Compresses what is written; closing it leaves the stream below open. */
    public OutputStream pack(OutputStream out) throws IOException {
        OutputStream open = new Unclosed(out);
        return switch (this) {
            case NONE -> open;
            case GZIP -> new GZIPOutputStream(open, BUFFER);
            case ZSTD -> new ZstdOutputStream(open);
        };
    }

    private static final class Unclosed extends FilterOutputStream {
        Unclosed(OutputStream out) {
            super(out);
        }

        @Override
        public void write(byte[] bytes, int offset, int length) throws IOException {
            out.write(bytes, offset, length);
        }

        @Override
        public void close() throws IOException {
            flush();
        }
    }

    /** Tells of bad data as streams do. */
    private static final class ZstdStream extends FilterInputStream {
        ZstdStream(InputStream packed) {
            super(new ZstdInputStream(packed));
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            try {
                return super.read(target, offset, length);
            } catch (MalformedInputException e) {
                throw new IOException(e.getMessage(), e);
            }
        }
    }
}
