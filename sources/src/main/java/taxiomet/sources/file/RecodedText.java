package taxiomet.sources.file;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CharsetEncoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;

/**
 * Text in any encoding, as UTF-8. Each sequence of bytes that is not valid becomes one byte that UTF-8 does not know, so that whoever
 * reads on finds it in its place.
 */
public final class RecodedText extends InputStream {
    private static final int BLOCK = 1 << 14;
    private static final byte INVALID = (byte) 0xFF;
    private static final int MOST_BYTES_A_CHARACTER = 3;

    private final InputStream in;
    private final Consumer<CharBuffer> edit;
    private final CharsetDecoder decoder;
    private final CharsetEncoder encoder = StandardCharsets.UTF_8.newEncoder();
    private final ByteBuffer coded = ByteBuffer.allocate(BLOCK).flip();
    private final CharBuffer characters = CharBuffer.allocate(BLOCK);
    private final ByteBuffer recoded =
            ByteBuffer.allocate(MOST_BYTES_A_CHARACTER * BLOCK + 1).flip();
    private boolean isAtEnd;
    private boolean isFlushed;

    /**
     * @param in stands behind any byte order mark
     * @param edit may exchange characters for others while they pass
     */
    public RecodedText(InputStream in, Charset encoding, Consumer<CharBuffer> edit) {
        this.in = in;
        this.edit = edit;
        this.decoder = encoding.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
    }

    @Override
    public int read(byte[] target, int offset, int count) throws IOException {
        if (count == 0) {
            return 0;
        }
        while (!recoded.hasRemaining()) {
            if (isFlushed) {
                return -1;
            }
            recodeBlock();
        }
        int given = Math.min(count, recoded.remaining());
        recoded.get(target, offset, given);
        return given;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    /** Recodes what one block holds, up to the first sequence that is not valid. */
    private void recodeBlock() throws IOException {
        if (!isAtEnd) {
            load();
        }
        characters.clear();
        CoderResult result = decoder.decode(coded, characters, isAtEnd);
        if (result.isUnderflow() && isAtEnd) {
            decoder.flush(characters);
            isFlushed = true;
        }
        characters.flip();
        edit.accept(characters);
        recoded.clear();
        encoder.reset();
        encoder.encode(characters, recoded, true);
        if (result.isError()) {
            recoded.put(INVALID);
            coded.position(coded.position() + result.length());
        }
        recoded.flip();
    }

    private void load() throws IOException {
        coded.compact();
        int read = in.read(coded.array(), coded.position(), coded.remaining());
        isAtEnd = read < 0 && coded.hasRemaining();
        coded.position(coded.position() + Math.max(read, 0)).flip();
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
