package taxiomet.spill;

import java.util.Arrays;

/** Where rows stand, one after the other. */
public final class Offsets {
    private static final int FIRST_ROOM = 1 << 10;

    private long[] offsets = new long[FIRST_ROOM];
    private int size;

    public void add(long offset) {
        if (size == offsets.length) {
            offsets = Arrays.copyOf(offsets, size + size / 2);
        }
        offsets[size++] = offset;
    }

    public long get(int place) {
        return offsets[place];
    }

    public int size() {
        return size;
    }
}
