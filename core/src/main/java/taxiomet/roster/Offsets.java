package taxiomet.roster;

import java.util.Arrays;

/** Where rows stand, one after the other. */
final class Offsets {
    private static final int FIRST_ROOM = 1 << 10;

    private long[] offsets = new long[FIRST_ROOM];
    private int size;

    void add(long offset) {
        if (size == offsets.length) {
            offsets = Arrays.copyOf(offsets, size + size / 2);
        }
        offsets[size++] = offset;
    }

    long get(int place) {
        return offsets[place];
    }

    int size() {
        return size;
    }
}
