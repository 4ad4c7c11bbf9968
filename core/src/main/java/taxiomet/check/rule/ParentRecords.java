package taxiomet.check.rule;

import java.util.Arrays;
import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;

/**
 * The parents of one partition by their keys; of equal records one is kept, and of different ones with the same key not many more than are
 * looked at.
 *
 * <p>They stand one behind the other in an array: where the next with the same key begins, 0 for none; how many longs it has; these longs.
 */
final class ParentRecords implements AutoCloseable {
    private static final int FIRST_ROOM = 1 << 12;
    private static final int HEAD = 2;

    private final int most;
    private final KeyTable places = new KeyTable(null);
    private long[] longs = new long[FIRST_ROOM];
    /** A place is where the head of a record stands; nothing stands at 0. */
    private int used = 1;

    /**
     * @param records the key of each in its first two longs; null for none
     * @param most how many different ones with one key are looked at
     */
    ParentRecords(LongSpool.Reader records, int most) {
        this.most = most;
        while (records != null && records.hasNext()) {
            add(records);
        }
    }

    private void add(LongSpool.Reader records) {
        int length = (int) records.next();
        int place = used;
        ensureRoom(place + HEAD + length);
        longs[place] = 0;
        longs[place + 1] = length;
        for (int i = 0; i < length; i++) {
            longs[place + HEAD + i] = records.next();
        }
        long high = longs[place + HEAD];
        long low = longs[place + HEAD + 1];
        places.ensureRoom();
        int slot = places.slotOf(high, low);
        if (!places.isUsed(slot)) {
            places.insert(slot, high, low, place);
        } else if (!isAddedTo((int) places.value(slot), place)) {
            return;
        }
        used = place + HEAD + length;
    }

    private void ensureRoom(long room) {
        if (room > Integer.MAX_VALUE - Long.BYTES) {
            throw new OutOfMemoryError("a partition of more than sixteen billion bytes");
        }
        if (longs.length < room) {
            longs = Arrays.copyOf(
                    longs, (int) Math.min(Integer.MAX_VALUE - Long.BYTES, Math.max(room, longs.length * 2L)));
        }
    }

    /** Puts a record behind those with its key, unless one is like it, or there are enough. */
    private boolean isAddedTo(int first, int place) {
        int count = 1;
        int last = first;
        for (int at = first; at != 0; at = next(at)) {
            if (isSame(at, place)) {
                return false;
            }
            last = at;
            count++;
        }
        if (count > most + 1) {
            return false;
        }
        longs[last] = place;
        return true;
    }

    private boolean isSame(int one, int other) {
        return Arrays.equals(longs, start(one), end(one), longs, start(other), end(other));
    }

    /** The place of the first record with a key; 0 for none. */
    int first(long high, long low) {
        int slot = places.slotOf(high, low);
        return places.isUsed(slot) ? (int) places.value(slot) : 0;
    }

    /** The place of the next record with the same key; 0 for none. */
    int next(int place) {
        return (int) longs[place];
    }

    /** The array that all records stand in. */
    long[] longs() {
        return longs;
    }

    /** Where the longs of a record begin, its key first. */
    int start(int place) {
        return place + HEAD;
    }

    /** Where they end, exclusive. */
    int end(int place) {
        return place + HEAD + (int) longs[place + 1];
    }

    @Override
    public void close() {
        places.close();
    }
}
