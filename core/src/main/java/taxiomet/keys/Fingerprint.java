package taxiomet.keys;

import java.security.SecureRandom;
import taxiomet.values.Words;

/**
 * 128-bit fingerprints of bytes and of pairs of longs, under a secret that is made anew in each run, so that nobody can prepare
 * values that share one. Each half is a chain of products of its own: sixteen bytes are mixed with the secret and multiplied, and the
 * upper and lower half of the product are joined. Of a billion different values, two share a fingerprint with a probability
 * of about 1e-20.
 */
final class Fingerprint {
    /** Set in the first half of every fingerprint: it tells them from keys that are values themselves. */
    static final long BIT = Long.MIN_VALUE;

    private static final long[] SECRET = secret();

    private long high;
    private long low;

    private static long[] secret() {
        SecureRandom random = new SecureRandom();
        long[] secret = new long[8];
        for (int i = 0; i < secret.length; i++) {
            secret[i] = random.nextLong() | 1;
        }
        return secret;
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
        long first = SECRET[0] ^ length;
        long second = SECRET[1] ^ (long) kind << 32 ^ length;
        int at = start;
        int left = length;
        while (left > 16) {
            long a = Words.at(bytes, at);
            long b = Words.at(bytes, at + 8);
            first = fold(a ^ SECRET[2] ^ first, b ^ SECRET[3]);
            second = fold(a ^ SECRET[4], b ^ SECRET[5] ^ second);
            at += 16;
            left -= 16;
        }
        long a = left >= 8 ? Words.at(bytes, at) : first(Words.at(bytes, at), left);
        long b = left > 8 ? first(Words.at(bytes, at + 8), left - 8) : 0;
        first = fold(a ^ SECRET[2] ^ first, b ^ SECRET[3]);
        second = fold(a ^ SECRET[4], b ^ SECRET[5] ^ second);
        finish(first, second);
    }

    /** The first {@code count} bytes of a word, 0 to 8. */
    private static long first(long word, int count) {
        return count == 8 ? word : word & (1L << 8 * count) - 1;
    }

    /** Takes the fingerprint of two longs; {@code kind} as for {@link #ofBytes}. */
    void ofPair(long a, long b, int kind) {
        finish(
                fold(a ^ SECRET[2] ^ SECRET[0], b ^ SECRET[3] ^ kind),
                fold(a ^ SECRET[4] ^ kind, b ^ SECRET[5] ^ SECRET[1]));
    }

    /** Adds two longs to the fingerprint at hand, which depends on the order. */
    void add(long a, long b) {
        finish(
                fold(a ^ SECRET[2] ^ high, b ^ SECRET[3] ^ Long.rotateLeft(low, 32)),
                fold(a ^ SECRET[4] ^ low, b ^ SECRET[5] ^ Long.rotateLeft(high, 32)));
    }

    private void finish(long first, long second) {
        high = fold(first ^ SECRET[6], second ^ SECRET[0] | 1) | BIT;
        low = fold(second ^ SECRET[7], first ^ SECRET[1] | 1);
    }

    long high() {
        return high;
    }

    long low() {
        return low;
    }
}
