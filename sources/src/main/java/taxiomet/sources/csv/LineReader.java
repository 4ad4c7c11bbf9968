package taxiomet.sources.csv;

import java.io.FilterReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.Reader;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.Charset;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/**
 * Decodes a file and remembers where its lines begin: since the row at hand in characters, to go back there, and in bytes, to
 * find rows again. Bytes that are not valid in the encoding become {@link #INVALID}, one for each faulty sequence.
 */
final class LineReader extends Reader {
    /** A surrogate on its own, which no decoder gives for valid bytes. */
    static final char INVALID = '\uDFFF';

    /** How many bytes are decoded at once when all is read, and when single rows are looked for. */
    static final int BLOCK = 1 << 15;

    static final int SMALL_BLOCK = 1 << 12;

    private final InputStream in;
    private final CharsetDecoder decoder;
    private final Charset encoding;
    private final int blockBytes;
    private final ByteBuffer bytes;
    private boolean isAtEnd;

    /** Decoded characters that may be asked for again; the first of them is character {@code windowStart}. */
    private char[] window;

    private long windowStart;
    private int windowLength;
    private int served;

    /** Beginnings of lines in characters, as a queue; the first of them is that of line {@code firstLine}. */
    private long[] lineStarts = new long[64];

    private int firstStart;
    private int startCount = 1;
    private long firstLine;
    private boolean endsInReturn;

    /** The block decoded last and the one before: where they begin in characters and bytes. */
    private final Block[] blocks = {new Block(), new Block()};

    private long bytesTaken;

    private static final class Block {
        long firstChar = Long.MAX_VALUE;
        long firstByte;
        long endChar;
        boolean isClean;
    }

    /**
     * @param in stands at the beginning of a line, behind any byte order mark
     * @param offset how many bytes of the file stand before it
     * @param line the number of that line
     * @param block how many bytes to decode at once
     */
    LineReader(InputStream in, Charset encoding, long offset, long line, int block) {
        this.blockBytes = block;
        this.bytes = ByteBuffer.allocate(block).flip();
        this.window = new char[2 * block];
        this.in = in;
        this.encoding = encoding;
        this.decoder = encoding.newDecoder()
                .onMalformedInput(CodingErrorAction.REPORT)
                .onUnmappableCharacter(CodingErrorAction.REPORT);
        this.bytesTaken = offset;
        this.firstLine = line;
    }

    @Override
    public int read(char[] target, int offset, int length) throws IOException {
        while (served == windowLength) {
            if (!decodeBlock()) {
                return -1;
            }
        }
        int count = Math.min(length, windowLength - served);
        System.arraycopy(window, served, target, offset, count);
        served += count;
        return count;
    }

    /** Decodes some more bytes; false at the end of the file. */
    private boolean decodeBlock() throws IOException {
        if (isAtEnd) {
            return false;
        }
        dropForgotten();
        bytes.compact();
        int count = in.read(bytes.array(), bytes.position(), bytes.remaining());
        isAtEnd = count < 0;
        bytes.position(bytes.position() + Math.max(count, 0)).flip();
        if (window.length - windowLength < blockBytes + 2) {
            window = Arrays.copyOf(window, window.length * 2);
        }
        Block block = blocks[0];
        blocks[0] = blocks[1];
        blocks[1] = block;
        block.firstChar = windowStart + windowLength;
        block.firstByte = bytesTaken;
        block.isClean = true;
        CharBuffer target = CharBuffer.wrap(window, windowLength, window.length - windowLength);
        int before = bytes.position();
        CoderResult result = decoder.decode(bytes, target, isAtEnd);
        while (result.isError()) {
            block.isClean = false;
            target.put(INVALID);
            bytes.position(bytes.position() + result.length());
            result = decoder.decode(bytes, target, isAtEnd);
        }
        bytesTaken += bytes.position() - before;
        int from = windowLength;
        windowLength = target.position();
        block.endChar = windowStart + windowLength;
        findLines(from);
        return !isAtEnd || windowLength > from;
    }

    /** Lets go of the characters before the first line that is remembered. */
    private void dropForgotten() {
        int forgotten = (int) Math.min(served, lineStarts[firstStart] - windowStart);
        if (forgotten > windowLength / 2) {
            System.arraycopy(window, forgotten, window, 0, windowLength - forgotten);
            windowLength -= forgotten;
            windowStart += forgotten;
            served -= forgotten;
        }
    }

    private void findLines(int from) {
        boolean afterReturn = endsInReturn;
        for (int i = from; i < windowLength; i++) {
            char c = window[i];
            if (c == '\n' && afterReturn) {
                // The second half of CR LF: the line begins behind it.
                lineStarts[firstStart + startCount - 1]++;
                afterReturn = false;
            } else if (c <= '\r') {
                afterReturn = c == '\r';
                if (c == '\n' || afterReturn) {
                    addLineStart(windowStart + i + 1);
                }
            } else {
                afterReturn = false;
            }
        }
        endsInReturn = afterReturn;
    }

    private void addLineStart(long start) {
        if (firstStart + startCount == lineStarts.length) {
            if (firstStart > lineStarts.length / 2) {
                System.arraycopy(lineStarts, firstStart, lineStarts, 0, startCount);
            } else {
                lineStarts = Arrays.copyOfRange(lineStarts, firstStart, firstStart + lineStarts.length * 2);
            }
            firstStart = 0;
        }
        lineStarts[firstStart + startCount++] = start;
    }

    /** Forgets everything before a line: it will not be asked for again. */
    void forgetBefore(long line) {
        int lines = (int) Math.min(line - firstLine, startCount - 1L);
        if (lines > 0) {
            firstStart += lines;
            startCount -= lines;
            firstLine += lines;
        }
    }

    /** The place in the file, in bytes, of a line that has not been forgotten; -1 when it is not known. */
    long offsetOf(long line) {
        int index = (int) (line - firstLine);
        if (index < 0 || index >= startCount) {
            return -1;
        }
        long start = lineStarts[firstStart + index];
        for (Block block : blocks) {
            if (block.isClean && start >= block.firstChar && start <= block.endChar && block.firstChar >= windowStart) {
                return block.firstByte
                        + encodedLength((int) (block.firstChar - windowStart), (int) (start - windowStart));
            }
        }
        return -1;
    }

    /** A line that has not been forgotten, as far as it has been decoded, without its end; so many characters of it at most. */
    String text(long line, int most) {
        int index = (int) (line - firstLine);
        if (index < 0 || index >= startCount) {
            return "";
        }
        int at = (int) (lineStarts[firstStart + index] - windowStart);
        StringBuilder text = new StringBuilder();
        for (int points = 0; at < windowLength && points < most; points++) {
            char c = window[at++];
            if (c == '\n' || c == '\r') {
                break;
            }
            text.append(c == INVALID ? '\uFFFD' : c);
            if (Character.isHighSurrogate(c) && at < windowLength && window[at] != INVALID) {
                text.append(window[at++]);
            }
        }
        return text.toString();
    }

    private long encodedLength(int from, int to) {
        if (encoding.equals(StandardCharsets.UTF_16LE) || encoding.equals(StandardCharsets.UTF_16BE)) {
            return 2L * (to - from);
        } else if (!encoding.equals(StandardCharsets.UTF_8)) {
            return to - from;
        }
        long length = 0;
        for (int i = from; i < to; i++) {
            char c = window[i];
            // Each half of a surrogate pair stands for two of its four bytes.
            length += c < 0x80 ? 1 : c < 0x800 || Character.isSurrogate(c) ? 2 : 3;
        }
        return length;
    }

    /**
     * Goes to the beginning of a line that has not been forgotten, or of the one behind all that was read.
     *
     * @return false when the file has no such line, or nothing in it
     */
    boolean goTo(long line) throws IOException {
        while (line - firstLine >= startCount) {
            served = windowLength;
            forgetBefore(firstLine + startCount - 1L);
            // Nor will the beginning of the line at hand be asked for again: it may be as long as the file.
            lineStarts[firstStart] = windowStart + windowLength;
            if (!decodeBlock()) {
                return false;
            }
        }
        // A return at the end of a block may have its line feed still to come.
        if (endsInReturn && !isAtEnd) {
            decodeBlock();
        }
        served = (int) (lineStarts[firstStart + (int) (line - firstLine)] - windowStart);
        return served < windowLength || !isAtEnd;
    }

    /** How many characters lie between a line and the last one decoded. */
    long charactersSince(long line) {
        int index = (int) (line - firstLine);
        return index >= startCount || index < 0 ? 0 : windowStart + windowLength - lineStarts[firstStart + index];
    }

    /** The reader as a library may have it: several CSV readers follow one another on it, and must not close it. */
    Reader shared() {
        return new FilterReader(this) {
            @Override
            public void close() {
                // It is closed by whoever opened it.
            }
        };
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}
