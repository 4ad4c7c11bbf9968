package taxiomet.spill;

import java.util.function.LongConsumer;
import java.util.function.LongSupplier;

/** Bytes as longs: eight in each, the first the lowest, zeros behind the last. How many there are stands elsewhere. */
public final class PackedBytes {
    private PackedBytes() {}

    /** Packs {@code length} bytes from {@code start} on. */
    public static void write(byte[] bytes, int start, int length, LongConsumer out) {
        int end = start + length;
        for (int i = start; i < end; i += Long.BYTES) {
            long packed = 0;
            for (int j = Math.min(i + Long.BYTES, end) - 1; j >= i; j--) {
                packed = packed << Byte.SIZE | bytes[j] & 0xFFL;
            }
            out.accept(packed);
        }
    }

    /** Unpacks {@code length} bytes to {@code start} and behind. */
    public static void read(LongSupplier in, byte[] bytes, int start, int length) {
        long packed = 0;
        for (int i = 0; i < length; i++) {
            packed = i % Long.BYTES == 0 ? in.getAsLong() : packed >>> Byte.SIZE;
            bytes[start + i] = (byte) packed;
        }
    }

    /** Unpacks bytes into an array of their own. */
    public static byte[] read(LongSupplier in, int length) {
        byte[] bytes = new byte[length];
        read(in, bytes, 0, length);
        return bytes;
    }
}
