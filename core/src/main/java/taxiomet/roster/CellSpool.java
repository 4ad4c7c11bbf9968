package taxiomet.roster;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
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

    private final LongSpool longs;
    private LongSpool.Reader reader;
    private long behindLast = -1;
    private int runs;

    CellSpool(SpillFolder folder) {
        this.longs = new LongSpool(folder, BLOCK);
    }

    /** Adds a row, and gives where it stands. */
    long add(List<String> cells) {
        long place = longs.size();
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        for (String cell : cells) {
            if (cell == null) {
                writeLength(bytes, -1);
            } else {
                byte[] utf8 = cell.getBytes(StandardCharsets.UTF_8);
                writeLength(bytes, utf8.length);
                bytes.write(utf8, 0, utf8.length);
            }
        }
        byte[] all = bytes.toByteArray();
        longs.add(all.length);
        PackedBytes.write(all, 0, all.length, longs::add);
        return place;
    }

    private static void writeLength(ByteArrayOutputStream bytes, int length) {
        for (int shift = 24; shift >= 0; shift -= 8) {
            bytes.write(length >>> shift);
        }
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
            int size = 0;
            for (int i = 0; i < LENGTH_BYTES; i++) {
                size = size << 8 | all[at++] & 0xFF;
            }
            if (size < 0) {
                cells.add(null);
            } else {
                cells.add(new String(all, at, size, StandardCharsets.UTF_8));
                at += size;
            }
        }
        return cells;
    }

    @Override
    public void close() {
        longs.close();
    }
}
