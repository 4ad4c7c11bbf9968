package taxiomet.sources.parquet;

import java.util.Arrays;

/**
 * Small whole numbers as Parquet has them: runs of one number, and groups of eight packed bit by bit (Parquet's encoding {@code RLE}, which
 * levels and places in a dictionary are written in). In one class, and taken apart page by page: the library's way, number by number, took
 * three times as long for all of a table.
 */
final class HybridInts {
    private static final int MOST_BITS = 32;

    private HybridInts() {}

    /**
     * Takes numbers apart.
     *
     * @param width how many bits each has, 0 to 32
     * @param into gets the first {@code count}
     * @throws IllegalArgumentException when there are fewer, or they are no numbers
     */
    static void read(byte[] bytes, int from, int to, int width, int[] into, int count) {
        if (width < 0 || width > MOST_BITS) {
            throw new IllegalArgumentException("numbers of " + width + " bits");
        }
        int at = from;
        int done = 0;
        while (done < count) {
            int header = 0;
            int shift = 0;
            int next;
            do {
                require(at < to && shift < Integer.SIZE);
                next = bytes[at++];
                header |= (next & 0x7F) << shift;
                shift += 7;
            } while (next < 0);
            if ((header & 1) == 0) {
                int length = Math.min(header >>> 1, count - done);
                int size = (width + 7) / 8;
                require(length > 0 && at + size <= to);
                int value = 0;
                for (int i = 0; i < size; i++) {
                    value |= (bytes[at++] & 0xFF) << (8 * i);
                }
                Arrays.fill(into, done, done + length, value);
                done += length;
            } else {
                long numbers = (header >>> 1) * 8L;
                require(numbers > 0);
                int length = (int) Math.min(numbers, count - done);
                // The last group may be cut where nothing follows.
                require(((long) length * width + 7) / 8 <= to - at);
                unpack(bytes, at, width, into, done, length);
                done += length;
                at = (int) Math.min(to, at + numbers * width / 8);
            }
        }
    }

    private static void unpack(byte[] bytes, int from, int width, int[] into, int start, int count) {
        long mask = width == MOST_BITS ? 0xFFFFFFFFL : (1L << width) - 1;
        long held = 0;
        int bits = 0;
        int at = from;
        for (int i = start; i < start + count; i++) {
            while (bits < width) {
                held |= (bytes[at++] & 0xFFL) << bits;
                bits += 8;
            }
            into[i] = (int) (held & mask);
            held >>>= width;
            bits -= width;
        }
    }

    private static void require(boolean isTrue) {
        if (!isTrue) {
            throw new IllegalArgumentException("a page ends too early, or its levels are none");
        }
    }
}
