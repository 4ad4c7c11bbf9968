package taxiomet.work;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * Numbers that stand for values, which nobody can tell from them who has not the secret: the first 64 bits of HMAC-SHA-256 (RFC 2104) under
 * a key that is derived from the secret for one purpose. It serves one thread at a time.
 */
public final class KeyedHash {
    private static final String HMAC = "HmacSHA256";

    private final Secret secret;
    private final String purpose;
    private Mac mac;

    /** @param purpose hashes for another one have nothing in common with these */
    public KeyedHash(Secret secret, String purpose) {
        this.secret = secret;
        this.purpose = purpose;
    }

    /** Made when the first hash is asked for: it takes a tenth of a second. */
    private Mac mac() {
        if (mac == null) {
            try {
                Mac keyed = Mac.getInstance(HMAC);
                ByteBuffer key = ByteBuffer.allocate(Secret.LONGS * Long.BYTES);
                for (long part : secret.longs()) {
                    key.putLong(part);
                }
                keyed.init(new SecretKeySpec(key.array(), HMAC));
                keyed.init(new SecretKeySpec(keyed.doFinal(purpose.getBytes(StandardCharsets.UTF_8)), HMAC));
                mac = keyed;
            } catch (GeneralSecurityException e) {
                throw new IllegalStateException("every Java has " + HMAC, e);
            }
        }
        return mac;
    }

    /** The hash of a text. */
    public synchronized long of(String text) {
        return first(mac().doFinal(text.getBytes(StandardCharsets.UTF_8)));
    }

    /** The hash of some numbers in their order. */
    public synchronized long of(long... numbers) {
        ByteBuffer bytes = ByteBuffer.allocate(numbers.length * Long.BYTES);
        for (long number : numbers) {
            bytes.putLong(number);
        }
        return first(mac().doFinal(bytes.array()));
    }

    private static long first(byte[] hash) {
        return ByteBuffer.wrap(hash).getLong();
    }
}
