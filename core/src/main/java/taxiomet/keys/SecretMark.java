package taxiomet.keys;

import taxiomet.work.Secret;

/** Tells whether two secrets are the same, without telling what they are: the fingerprint of a known value under each. */
public final class SecretMark {
    private static final int KIND = 7;

    private SecretMark() {}

    /** The mark of a secret, in hexadecimal digits. */
    public static String of(Secret secret) {
        Fingerprint mark = new Fingerprint(secret);
        mark.ofPair(0, 0, KIND);
        return Long.toHexString(mark.high()) + Long.toHexString(mark.low());
    }
}
