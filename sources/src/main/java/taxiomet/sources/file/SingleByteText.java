package taxiomet.sources.file;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Turns text in an encoding of one byte a character into UTF-8. */
public final class SingleByteText {
    private static final int LONGEST = 3;

    /** For each byte its character in UTF-8; a byte that stands for none becomes one that UTF-8 does not know. */
    private final byte[][] characters = new byte[256][];

    private SingleByteText() {}

    /** A table for an encoding; empty when it has more than one byte for some characters, or is not ASCII below 128. */
    public static Optional<SingleByteText> of(Charset encoding) {
        SingleByteText text = new SingleByteText();
        for (int b = 0; b < 256; b++) {
            String character;
            try {
                character = encoding.newDecoder()
                        .onMalformedInput(CodingErrorAction.REPORT)
                        .onUnmappableCharacter(CodingErrorAction.REPORT)
                        .decode(ByteBuffer.wrap(new byte[] {(byte) b}))
                        .toString();
            } catch (CharacterCodingException e) {
                character = null;
            }
            boolean isAscii = character != null && character.length() == 1 && character.charAt(0) == b;
            if ((b < 0x80 && !isAscii) || (character != null && character.length() != 1)) {
                return Optional.empty();
            }
            text.characters[b] =
                    character == null ? new byte[] {(byte) 0xFF} : character.getBytes(StandardCharsets.UTF_8);
        }
        boolean isSingle = encoding.newDecoder().maxCharsPerByte() <= 1.0f
                && encoding.canEncode()
                && encoding.newEncoder().maxBytesPerChar() <= 1.0f;
        return isSingle ? Optional.of(text) : Optional.empty();
    }

    /** How many bytes so many characters take at most. */
    public static int room(int count) {
        return count * LONGEST;
    }

    /**
     * Writes the characters of {@code from} to the target.
     *
     * @return where they end there
     */
    public int write(byte[] from, int count, byte[] target, int offset) {
        int at = offset;
        for (int i = 0; i < count; i++) {
            byte b = from[i];
            if (b >= 0) {
                target[at++] = b;
            } else {
                for (byte part : characters[b & 0xFF]) {
                    target[at++] = part;
                }
            }
        }
        return at;
    }
}
