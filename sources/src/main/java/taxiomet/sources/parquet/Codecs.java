package taxiomet.sources.parquet;

import io.airlift.compress.Decompressor;
import io.airlift.compress.lz4.Lz4Decompressor;
import io.airlift.compress.snappy.SnappyDecompressor;
import io.airlift.compress.zstd.ZstdDecompressor;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.compression.CompressionCodecFactory;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;

/**
 * Unpacks pages, each up to a limit: what a page says of its size is not believed. A column's page is gone with its next one: pages have some
 * millions of bytes, and new room for each cost a tenth of a check.
 */
final class Codecs implements CompressionCodecFactory {
    /** How many bytes a page may unpack to; usual ones have one million. */
    private static final int LARGEST_PAGE = 256 << 20;

    private final Deque<byte[]> free = new ArrayDeque<>();
    private final List<Unpacking> lent = new ArrayList<>();

    @Override
    public BytesInputCompressor getCompressor(CompressionCodecName codec) {
        throw new UnsupportedOperationException("nothing is written");
    }

    @Override
    public BytesInputDecompressor getDecompressor(CompressionCodecName codec) {
        Unpacking unpacking = new Unpacking(
                switch (codec) {
                    case UNCOMPRESSED -> Codecs::copy;
                    case GZIP -> Codecs::gunzip;
                    case SNAPPY -> with(new SnappyDecompressor());
                    case ZSTD -> with(new ZstdDecompressor());
                    case LZ4_RAW -> with(new Lz4Decompressor());
                    default ->
                        throw new IllegalArgumentException("pages are compressed by " + codec
                                + "; those by snappy, gzip, zstd and lz4_raw can be read");
                });
        lent.add(unpacking);
        return unpacking;
    }

    /** The columns that pages were unpacked for have been read. */
    void takeBack() {
        lent.forEach(unpacking -> free.add(unpacking.page));
        lent.clear();
    }

    @Override
    public void release() {
        // Nothing is held outside the heap.
    }

    /** Unpacks bytes, and gives how many they are; not more than a size. */
    private interface Unpack {
        int unpack(ByteBuffer packed, byte[] page, int size) throws IOException;
    }

    private static int copy(ByteBuffer packed, byte[] page, int size) {
        int length = Math.min(packed.remaining(), size);
        packed.get(page, 0, length);
        return length;
    }

    private static Unpack with(Decompressor codec) {
        return (packed, page, size) -> {
            ByteBuffer into = ByteBuffer.wrap(page, 0, size);
            codec.decompress(packed, into);
            return into.position();
        };
    }

    private static int gunzip(ByteBuffer packed, byte[] page, int size) throws IOException {
        byte[] bytes = new byte[packed.remaining()];
        packed.get(bytes);
        try (InputStream in = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
            return in.readNBytes(page, 0, size);
        }
    }

    private final class Unpacking implements BytesInputDecompressor {
        private final Unpack how;
        private byte[] page;

        Unpacking(Unpack how) {
            this.how = how;
            this.page = free.isEmpty() ? new byte[0] : free.removeLast();
        }

        @Override
        public BytesInput decompress(BytesInput packed, int size) throws IOException {
            unpack(packed.toInputStream().slice((int) packed.size()), size);
            return BytesInput.from(page, 0, size);
        }

        private void unpack(ByteBuffer packed, int size) throws IOException {
            if (size < 0 || size > LARGEST_PAGE) {
                throw new IOException("a page says that it unpacks to " + size + " bytes, and " + (LARGEST_PAGE >> 20)
                        + " MB is the most that is read");
            }
            if (page.length < size) {
                page = new byte[size];
            }
            int length = how.unpack(packed, page, size);
            if (length != size) {
                throw new IOException("a page has " + length + " bytes, and should have " + size);
            }
        }

        @Override
        public void decompress(ByteBuffer packed, int packedSize, ByteBuffer into, int size) throws IOException {
            unpack(packed.slice(packed.position(), packedSize), size);
            into.put(page, 0, size);
        }

        @Override
        public void release() {
            // Nothing is held outside the heap.
        }
    }
}
