package taxiomet.sources.csv;

import java.io.IOException;
import java.util.Arrays;
import java.util.Optional;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.SingleByteText;
import taxiomet.values.CellColumn;

/**
 * A piece of a part in memory, as UTF-8, with its {@link Marks}. Places are counted in the array, offsets in the part; they differ by
 * more than the beginning where another encoding was turned into UTF-8.
 */
final class Chunk {
    private final Optional<SingleByteText> encoding;
    private final Marks marks;
    private byte[] bytes = new byte[0];
    private int length;
    /** Where the texts end that were put behind the bytes of the part; 0 when there are none. */
    private int addedTo;

    private byte[] raw = new byte[0];
    private ByteInput in;
    private long start;
    private long nextOffset;
    private boolean isAtEnd;
    /** Whether each byte of the part is one byte here. */
    private boolean isStraight;

    /** A place whose offset is known, to count on from. */
    private int knownPlace;

    private long knownOffset;

    /** @param form of the bytes loaded */
    Chunk(ByteForm form) {
        this.encoding = form.singleByte();
        this.marks = new Marks(form.delimiter(), form.quote());
    }

    /** Loads bytes from an offset on; fewer when the part ends before. */
    void load(ByteInput from, long offset, int count) throws IOException {
        in = from;
        start = offset;
        nextOffset = offset;
        length = 0;
        addedTo = 0;
        isStraight = true;
        isAtEnd = false;
        knownPlace = 0;
        knownOffset = offset;
        marks.clear();
        append(count);
    }

    /** Loads as much again as there is already; false when the part has ended. */
    boolean extend() throws IOException {
        if (isAtEnd) {
            return false;
        }
        append(Math.max(1, (int) Math.min(nextOffset - start, 1 << 24)));
        return true;
    }

    private void append(int most) throws IOException {
        int before = length;
        int count = in.end() < 0 ? most : (int) Math.max(1, Math.min(most, in.end() - nextOffset));
        if (encoding.isEmpty()) {
            ensureRoom(count);
            int read = in.read(nextOffset, bytes, length, count);
            took(read, count);
            length += read;
        } else {
            if (raw.length < count) {
                raw = new byte[count];
            }
            int read = in.read(nextOffset, raw, 0, count);
            took(read, count);
            ensureRoom(SingleByteText.room(read));
            length = encoding.get().write(raw, read, bytes, length);
            isStraight &= length - before == read;
        }
        Arrays.fill(bytes, length, length + CellColumn.PADDING, (byte) 0);
        marks.find(bytes, before, length);
    }

    private void took(int read, int count) {
        nextOffset += read;
        isAtEnd = read < count || nextOffset == in.end();
    }

    private void ensureRoom(int count) {
        long needed = (long) length + count + CellColumn.PADDING;
        if (needed > Integer.MAX_VALUE - 8) {
            throw new OutOfMemoryError("a row of more than two billion bytes");
        }
        if (bytes.length < needed) {
            bytes = Arrays.copyOf(bytes, (int) needed);
        }
    }

    /** Puts more bytes behind those of the part, for cells that do not stand there as they are meant; gives their place. */
    int addText(byte[] text, int count) {
        int place = Math.max(length, addedTo) + CellColumn.PADDING;
        if (bytes.length < place + count + CellColumn.PADDING) {
            bytes = Arrays.copyOf(bytes, Math.max(place + count + CellColumn.PADDING, bytes.length / 2 * 3));
        }
        System.arraycopy(text, 0, bytes, place, count);
        addedTo = place + count;
        return place;
    }

    byte[] bytes() {
        return bytes;
    }

    int length() {
        return length;
    }

    Marks marks() {
        return marks;
    }

    /** Whether the part ends where the bytes end. */
    boolean isAtEnd() {
        return isAtEnd;
    }

    /** The offset of a place, which may be the end. Asked for ascending places it takes one pass in all. */
    long offsetOf(int place) {
        if (isStraight) {
            return start + place;
        }
        if (place < knownPlace) {
            knownPlace = 0;
            knownOffset = start;
        }
        while (knownPlace < place) {
            knownOffset += (bytes[knownPlace++] & 0xC0) == 0x80 ? 0 : 1;
        }
        return knownOffset;
    }

    /** The place of an offset; the end for one that lies beyond. */
    int placeOf(long offset) {
        if (offset >= nextOffset) {
            return length;
        }
        if (isStraight) {
            return (int) (offset - start);
        }
        int place = 0;
        for (long at = start; ; place++) {
            if ((bytes[place] & 0xC0) != 0x80 && at++ == offset) {
                return place;
            }
        }
    }

    /** Where the first line begins whose break lies behind all bytes here; the end of the part when there is none. */
    long offsetOfLineBehind() throws IOException {
        byte[] block = new byte[1 << 16];
        long offset = nextOffset;
        while (true) {
            int count = in.read(offset, block, 0, block.length);
            for (int i = 0; i < count; i++) {
                if (block[i] == '\n') {
                    return offset + i + 1;
                }
                if (block[i] == '\r') {
                    boolean isPair = in.read(offset + i + 1, block, 0, 1) == 1 && block[0] == '\n';
                    return offset + i + (isPair ? 2 : 1);
                }
            }
            offset += count;
            in.forgetBefore(offset);
            if (count < block.length) {
                return offset;
            }
        }
    }
}
