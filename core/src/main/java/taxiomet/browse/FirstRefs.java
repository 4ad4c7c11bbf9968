package taxiomet.browse;

import java.util.Arrays;

/** The least of some references: the rows that stand first. */
final class FirstRefs {
    private final int most;
    private long[] refs = new long[0];
    private int size;

    /** @param most how many are kept */
    FirstRefs(int most) {
        this.most = most;
    }

    void add(long ref) {
        if (most == 0) {
            return;
        }
        if (size >= 2 * most) {
            keepLeast();
        }
        if (size == refs.length) {
            refs = Arrays.copyOf(refs, Math.min(2 * most, size * 2 + 4));
        }
        refs[size++] = ref;
    }

    private void keepLeast() {
        Arrays.sort(refs, 0, size);
        size = Math.min(size, most);
    }

    void addAll(FirstRefs others) {
        for (int i = 0; i < others.size; i++) {
            add(others.refs[i]);
        }
    }

    /** Ascending. */
    long[] refs() {
        keepLeast();
        return Arrays.copyOf(refs, size);
    }
}
