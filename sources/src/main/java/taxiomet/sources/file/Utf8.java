package taxiomet.sources.file;

import taxiomet.values.Words;

/** Which bytes are UTF-8 (RFC 3629): neither overlong forms nor surrogates, and nothing beyond U+10FFFF. */
public final class Utf8 {
    private static final long HIGH_BITS = 0x8080808080808080L;

    private Utf8() {}

    /** Whether no byte from one place to another, exclusive, is beyond ASCII. */
    public static boolean isAscii(byte[] bytes, int from, int to) {
        long seen = 0;
        int at = from;
        for (; at + Long.BYTES <= to; at += Long.BYTES) {
            seen |= Words.at(bytes, at);
        }
        for (; at < to; at++) {
            seen |= bytes[at];
        }
        return (seen & HIGH_BITS) == 0;
    }

    /** Whether all bytes from one place to another, exclusive, are UTF-8. */
    public static boolean isValid(byte[] bytes, int from, int to) {
        int at = from;
        while (at < to) {
            if (at + Long.BYTES <= to && (Words.at(bytes, at) & HIGH_BITS) == 0) {
                at += Long.BYTES;
                continue;
            }
            int length = lengthAt(bytes, at, to);
            if (length == 0) {
                return false;
            }
            at += length;
        }
        return true;
    }

    /** How many bytes the character at a place has, 1 to 4; 0 when there is none. */
    public static int lengthAt(byte[] bytes, int at, int to) {
        int first = bytes[at];
        if (first >= 0) {
            return 1;
        }
        first &= 0xFF;
        int length = first < 0xC2 ? 0 : first < 0xE0 ? 2 : first < 0xF0 ? 3 : first < 0xF5 ? 4 : 0;
        if (length == 0 || at + length > to) {
            return 0;
        }
        int second = bytes[at + 1] & 0xFF;
        int least = first == 0xE0 ? 0xA0 : first == 0xF0 ? 0x90 : 0x80;
        int most = first == 0xED ? 0x9F : first == 0xF4 ? 0x8F : 0xBF;
        if (second < least || second > most) {
            return 0;
        }
        for (int i = 2; i < length; i++) {
            if ((bytes[at + i] & 0xC0) != 0x80) {
                return 0;
            }
        }
        return length;
    }

    /** How many UTF-16 units the bytes take: one for each character, two for one of four bytes. */
    public static int units(byte[] bytes, int from, int to) {
        int units = 0;
        for (int at = from; at < to; at++) {
            units += (bytes[at] & 0xC0) == 0x80 ? 0 : (bytes[at] & 0xF8) == 0xF0 ? 2 : 1;
        }
        return units;
    }
}
