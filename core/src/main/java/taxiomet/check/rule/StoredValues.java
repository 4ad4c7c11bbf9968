package taxiomet.check.rule;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Values of rules' operands as longs, to be kept until their parents' are known, and read back. */
final class StoredValues {
    /** Stands for a value that is not of its column's type. */
    static final Object ILL_TYPED = new Object();

    private static final int NULL = 0;
    private static final int NOT_OF_ITS_TYPE = 1;
    private static final int LONG = 2;
    private static final int DOUBLE = 3;
    private static final int BOOLEAN = 4;
    private static final int TEXT = 5;
    private static final int NUMBER = 6;

    private long[] longs = new long[32];
    private int size;
    private int at;

    void clear() {
        size = 0;
    }

    long[] toArray() {
        return Arrays.copyOf(longs, size);
    }

    void add(long value) {
        if (size == longs.length) {
            longs = Arrays.copyOf(longs, size * 2);
        }
        longs[size++] = value;
    }

    void addAll(long[] some, int from) {
        for (int i = from; i < some.length; i++) {
            add(some[i]);
        }
    }

    /** @param value as {@link taxiomet.expression.Evaluator} has them, null, or {@link #ILL_TYPED} */
    void addValue(Object value) {
        if (value == null) {
            add(NULL);
        } else if (value.equals(ILL_TYPED)) {
            add(NOT_OF_ITS_TYPE);
        } else if (value instanceof Long number) {
            add(LONG);
            add(number);
        } else if (value instanceof Double number) {
            add(DOUBLE);
            add(Double.doubleToRawLongBits(number));
        } else if (value instanceof Boolean truth) {
            add(BOOLEAN);
            add(truth ? 1 : 0);
        } else if (value instanceof BigDecimal number) {
            add(NUMBER);
            add(number.scale());
            addBytes(number.unscaledValue().toByteArray());
        } else {
            add(TEXT);
            addBytes(((String) value).getBytes(StandardCharsets.UTF_8));
        }
    }

    private void addBytes(byte[] bytes) {
        add(bytes.length);
        for (int i = 0; i < bytes.length; i += Long.BYTES) {
            long packed = 0;
            for (int j = i; j < Math.min(i + Long.BYTES, bytes.length); j++) {
                packed |= (bytes[j] & 0xFFL) << 8 * (j - i);
            }
            add(packed);
        }
    }

    /** Reads values from a place on. */
    void read(long[] from, int start) {
        longs = from;
        size = from.length;
        at = start;
    }

    boolean hasNext() {
        return at < size;
    }

    Object next() {
        return switch ((int) longs[at++]) {
            case NULL -> null;
            case NOT_OF_ITS_TYPE -> ILL_TYPED;
            case LONG -> longs[at++];
            case DOUBLE -> Double.longBitsToDouble(longs[at++]);
            case BOOLEAN -> longs[at++] == 1;
            case NUMBER -> {
                int scale = (int) longs[at++];
                yield new BigDecimal(new BigInteger(nextBytes()), scale);
            }
            default -> new String(nextBytes(), StandardCharsets.UTF_8);
        };
    }

    private byte[] nextBytes() {
        byte[] bytes = new byte[(int) longs[at++]];
        for (int i = 0; i < bytes.length; i++) {
            bytes[i] = (byte) (longs[at + i / Long.BYTES] >>> 8 * (i % Long.BYTES));
        }
        at += (bytes.length + Long.BYTES - 1) / Long.BYTES;
        return bytes;
    }
}
