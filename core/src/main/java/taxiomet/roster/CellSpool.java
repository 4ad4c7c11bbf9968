package taxiomet.roster;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.spill.LongSpool;
import taxiomet.spill.PackedBytes;
import taxiomet.spill.SpillFolder;

/**
 * Rows of cells on disk, found again by where they stand. A row is its number of bytes, then these, eight in a long; in them each cell is
 * its number of bytes in four, -1 for null, and itself in UTF-8.
 */
final class CellSpool implements AutoCloseable {
    private static final int BLOCK = 1 << 16;
    private static final int SHORT_RUN = 32;
    private static final int LONG_RUN = 1 << 12;
    private static final int RUNS_BEFORE_LONG = 3;
    private static final int LENGTH_BYTES = 4;

    private static final byte[] NOTHING = {};

    private final LongSpool longs;
    private byte[] bytes = new byte[1 << 10];
    private int size;
    private LongSpool.Reader reader;
    private long behindLast = -1;
    private int runs;

    CellSpool(SpillFolder folder) {
        this.longs = new LongSpool(folder, BLOCK);
    }

    /** Adds a row, and gives where it stands. */
    long add(List<String> cells) {
        long place = longs.size();
        size = 0;
        for (String cell : cells) {
            byte[] utf8 = cell == null ? NOTHING : cell.getBytes(StandardCharsets.UTF_8);
            if (bytes.length < size + LENGTH_BYTES + utf8.length) {
                bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, size + LENGTH_BYTES + utf8.length));
            }
            int length = cell == null ? -1 : utf8.length;
            for (int shift = 24; shift >= 0; shift -= 8) {
                bytes[size++] = (byte) (length >>> shift);
            }
            System.arraycopy(utf8, 0, bytes, size, utf8.length);
            size += utf8.length;
        }
        longs.add(size);
        PackedBytes.write(bytes, 0, size, longs::add);
        return place;
    }

    /** The row that stands somewhere. Nothing may be added any more. */
    List<String> at(long place) {
        if (place != behindLast || reader == null) {
            // Rows that come in their order are read in long runs, others one by one.
            reader = longs.read(place, longs.size(), SHORT_RUN);
            runs = 0;
        } else if (++runs == RUNS_BEFORE_LONG) {
            reader = longs.read(place, longs.size(), LONG_RUN);
        }
        int length = (int) reader.next();
        byte[] all = PackedBytes.read(reader::next, length);
        behindLast = place + 1 + (length + Long.BYTES - 1) / Long.BYTES;
        List<String> cells = new ArrayList<>();
        int at = 0;
        while (at < length) {
            int own = 0;
            for (int i = 0; i < LENGTH_BYTES; i++) {
                own = own << 8 | all[at++] & 0xFF;
            }
            if (own < 0) {
                cells.add(null);
            } else {
                cells.add(new String(all, at, own, StandardCharsets.UTF_8));
                at += own;
            }
        }
        return cells;
    }

    @Override
    public void close() {
        longs.close();
    }
}
