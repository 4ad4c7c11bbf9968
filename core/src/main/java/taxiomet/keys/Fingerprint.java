package taxiomet.keys;

import taxiomet.values.Words;
import taxiomet.work.Secret;

/**
 * 128-bit fingerprints of bytes and of pairs of longs, under the secret of a run, which is made anew in each, so that nobody can prepare
 * values that share one. Each half is a chain of products of its own: sixteen bytes are mixed with the secret and multiplied, and the
 * upper and lower half of the product are joined. Of a billion different values, two share a fingerprint with a probability
 * of about 1e-20.
 */
final class Fingerprint {
    /** Set in the first half of every fingerprint: it tells them from keys that are values themselves. */
    static final long BIT = Long.MIN_VALUE;

    private final long[] longs;
    private long high;
    private long low;

    /** @param secret of the run */
    Fingerprint(Secret secret) {
        longs = secret.longs();
    }

    /** Both halves of a product, joined. */
    private static long fold(long a, long b) {
        return a * b ^ Math.multiplyHigh(a, b);
    }

    /**
     * Takes the fingerprint of some bytes.
     *
     * @param bytes goes on for {@link taxiomet.values.CellColumn#PADDING} bytes behind them
     * @param kind another number for what must never equal, though its bytes do
     */
    void ofBytes(byte[] bytes, int start, int length, int kind) {
        long first = longs[0] ^ length;
        long second = longs[1] ^ (long) kind << 32 ^ length;
        int at = start;
        int left = length;
        while (left > 16) {
            long a = Words.at(bytes, at);
            long b = Words.at(bytes, at + 8);
            first = fold(a ^ longs[2] ^ first, b ^ longs[3]);
            second = fold(a ^ longs[4], b ^ longs[5] ^ second);
            at += 16;
            left -= 16;
        }
        long a = left >= 8 ? Words.at(bytes, at) : first(Words.at(bytes, at), left);
        long b = left > 8 ? first(Words.at(bytes, at + 8), left - 8) : 0;
        first = fold(a ^ longs[2] ^ first, b ^ longs[3]);
        second = fold(a ^ longs[4], b ^ longs[5] ^ second);
        finish(first, second);
    }

    /** The first {@code count} bytes of a word, 0 to 8. */
    private static long first(long word, int count) {
        return count == 8 ? word : word & (1L << 8 * count) - 1;
    }

    /** Takes the fingerprint of two longs; {@code kind} as for {@link #ofBytes}. */
    void ofPair(long a, long b, int kind) {
        finish(fold(a ^ longs[2] ^ longs[0], b ^ longs[3] ^ kind), fold(a ^ longs[4] ^ kind, b ^ longs[5] ^ longs[1]));
    }

    /** Adds two longs to the fingerprint at hand, which depends on the order. */
    void add(long a, long b) {
        finish(
                fold(a ^ longs[2] ^ high, b ^ longs[3] ^ Long.rotateLeft(low, 32)),
                fold(a ^ longs[4] ^ low, b ^ longs[5] ^ Long.rotateLeft(high, 32)));
    }

    private void finish(long first, long second) {
        high = fold(first ^ longs[6], second ^ longs[0] | 1) | BIT;
        low = fold(second ^ longs[7], first ^ longs[1] | 1);
    }

    long high() {
        return high;
    }

    long low() {
        return low;
    }
}
