package taxiomet.work;

import java.security.SecureRandom;
import java.util.Arrays;

/**
 * Eight odd longs that nobody outside a run knows, so that nobody can prepare values that share a fingerprint. Whoever checks a piece
 * of the same tables elsewhere needs the same.
 */
public final class Secret {
    /** How many longs it has. */
    public static final int LONGS = 8;

    private final long[] longs;

    private Secret(long[] longs) {
        this.longs = longs;
    }

    /** A new one. */
    public static Secret random() {
        return new Secret(
                new SecureRandom().longs(LONGS).map(value -> value | 1).toArray());
    }

    /**
     * One that was given away before.
     *
     * @param longs as {@link #longs} gave them
     * @throws IllegalArgumentException when they are none
     */
    public static Secret of(long... longs) {
        if (longs.length != LONGS || Arrays.stream(longs).anyMatch(value -> (value & 1) == 0)) {
            throw new IllegalArgumentException("a secret has " + LONGS + " odd longs");
        }
        return new Secret(longs.clone());
    }

    /** A copy of its longs. */
    public long[] longs() {
        return longs.clone();
    }

    /** Nothing of what it holds. */
    @Override
    public String toString() {
        return "secret";
    }
}
