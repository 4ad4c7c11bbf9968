package taxiomet.work;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The SHA-256 by which contents are told apart: of files, of what is declared. */
public final class ContentHash {
    private final MessageDigest digest;

    public ContentHash() {
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** The digest itself, for streams. */
    public MessageDigest digest() {
        return digest;
    }

    /** The hash of all that was added, in hexadecimal digits; the next begins anew. */
    public String hex() {
        return HexFormat.of().formatHex(digest.digest());
    }
}
