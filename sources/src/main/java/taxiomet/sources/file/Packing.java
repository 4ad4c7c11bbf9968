package taxiomet.sources.file;

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
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/** How a file is compressed, as the ending of its name says. */
public enum Packing {
    NONE,
    GZIP,
    ZSTD,
    /** An archive with one file in it. */
    ZIP;

    private static final int BUFFER = 1 << 16;

    public static Packing of(Path file) {
        String name = file.getFileName().toString().toLowerCase(Locale.ROOT);
        return name.endsWith(".gz") ? GZIP : name.endsWith(".zst") ? ZSTD : name.endsWith(".zip") ? ZIP : NONE;
    }

    /** The bytes without the compression. */
    public InputStream unpack(InputStream packed) throws IOException {
        return switch (this) {
            case NONE -> packed;
            case GZIP -> new GZIPInputStream(packed, BUFFER);
            case ZSTD -> new ZstdStream(packed);
            case ZIP -> new OnlyEntry(packed);
        };
    }

    /** Compresses what is written; closing it leaves the stream below open. */
    public OutputStream pack(OutputStream out) throws IOException {
        OutputStream open = new Unclosed(out);
        return switch (this) {
            case NONE -> open;
            case GZIP -> new GZIPOutputStream(open, BUFFER);
            case ZSTD -> new ZstdOutputStream(open);
            case ZIP -> {
                ZipOutputStream zip = new ZipOutputStream(open);
                zip.putNextEntry(new ZipEntry("rows.csv"));
                yield zip;
            }
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

    /** The file in an archive that has no other; folders, and what some programs put in for themselves, do not count. */
    private static final class OnlyEntry extends FilterInputStream {
        private final ZipInputStream zip;
        private boolean isAtEnd;

        OnlyEntry(InputStream packed) throws IOException {
            super(new ZipInputStream(packed));
            zip = (ZipInputStream) in;
            if (!goToFile()) {
                throw new IOException("it is no zip archive, or there is no file in it");
            }
        }

        private boolean goToFile() throws IOException {
            try {
                ZipEntry entry = zip.getNextEntry();
                while (entry != null
                        && (entry.isDirectory()
                                || entry.getName().startsWith("__MACOSX/")
                                || entry.getName().matches("(?:.*/)?\\.[^/]*"))) {
                    entry = zip.getNextEntry();
                }
                return entry != null;
            } catch (IllegalArgumentException e) {
                throw new IOException("it is no sound zip archive", e);
            }
        }

        @Override
        public int read() throws IOException {
            byte[] one = new byte[1];
            return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
        }

        @Override
        public int read(byte[] target, int offset, int length) throws IOException {
            int count = isAtEnd ? -1 : zip.read(target, offset, length);
            if (count < 0 && !isAtEnd) {
                isAtEnd = true;
                if (goToFile()) {
                    throw new IOException("there are several files in it; unpack it, and name them");
                }
            }
            return count;
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
            } catch (RuntimeException e) {
                // Of what is no sound frame, or asks for a window larger than the 8 MB that are given, it tells in
                // several ways.
                throw new IOException("it is no sound zstd file (" + e.getMessage() + ")", e);
            }
        }
    }
}
