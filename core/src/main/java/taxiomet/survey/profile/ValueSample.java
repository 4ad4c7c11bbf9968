package taxiomet.survey.profile;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.stream.IntStream;
import taxiomet.survey.profile.ColumnProfile.CommonValue;
import taxiomet.values.CellColumn;

/**
 * The different values of a column as hashes: all of them, with how many rows have each and how it is written, while they are few; then only
 * those whose hashes end with zeros, more and more zeros. Two samples are comparable: a value that is in one at its level is in the other if
 * that column holds it. Samples of the parts of a column can be brought together.
 */
public final class ValueSample {
    private static final int FIRST_SLOTS = 64;
    private static final int LEAST_ROWS = 8;
    private static final Comparator<CommonValue> COMMONEST_FIRST =
            Comparator.comparingLong(CommonValue::rows).reversed().thenComparing(CommonValue::value);

    private final int capacity;
    /** Hashes; 0 where a slot is free. */
    private long[] slots = new long[FIRST_SLOTS];

    private int size;
    private int level;
    /** Whether each value is spelled in one way, as far as all values are here. */
    private boolean haveOneSpelling = true;
    /** Of each value the rows, and where its text begins and how long it is; only while all values are here. */
    private int[] rows = new int[FIRST_SLOTS];

    private int[] starts = new int[FIRST_SLOTS];
    private int[] lengths = new int[FIRST_SLOTS];
    private byte[] texts = new byte[256];
    private int textEnd;
    /** All hashes, and of each level how many of them are of it; null before anybody asks for them. */
    private long[] byLevel;

    private int[] levelEnds;
    /** What many rows have, once not all values are here any more. */
    private HeavyValues heavy;

    /** @param capacity how many values are kept at most */
    ValueSample(int capacity) {
        this.capacity = capacity;
    }

    /**
     * Counts a value once more.
     *
     * @param hash of the value; not 0
     */
    void add(long hash, byte[] bytes, int start, int length) {
        if (heavy != null) {
            heavy.count(hash);
        }
        if (!wouldHold(hash)) {
            return;
        }
        int slot = slotOf(hash);
        if (slots[slot] == 0) {
            insert(slot, hash, 1, bytes, start, length);
        } else if (level == 0) {
            rows[slot]++;
            haveOneSpelling &= isSpelled(slot, bytes, start, length);
        }
    }

    /** Counts a value once more that has been added as it is written now. */
    void addAgain(long hash) {
        if (heavy != null) {
            heavy.count(hash);
        } else {
            rows[slotOf(hash)]++;
        }
    }

    private boolean isSpelled(int slot, byte[] bytes, int start, int length) {
        return lengths[slot] == length
                && Arrays.equals(bytes, start, start + length, texts, starts[slot], starts[slot] + length);
    }

    /**
     * Counts the values of some rows of a batch.
     *
     * @param hashes of the values of all its rows
     * @param some places of those that count
     * @param count how many of them there are
     */
    void addAll(long[] hashes, int[] some, int count, CellColumn cells) {
        byte[] bytes = cells.bytes();
        for (int i = 0; i < count; i++) {
            int row = some[i];
            long hash = hashes[row];
            if (level > 0 && !wouldHold(hash)) {
                if (!heavy.isEmpty()) {
                    heavy.count(hash);
                }
            } else {
                addPlain(hash, bytes, cells.start(row), cells.length(row));
            }
        }
    }

    /** What is written as usual is written otherwise only by more or fewer bytes. */
    private void addPlain(long hash, byte[] bytes, int start, int length) {
        int slot = slotOf(hash);
        if (slots[slot] == 0 || level > 0) {
            add(hash, bytes, start, length);
        } else {
            rows[slot]++;
            haveOneSpelling &= lengths[slot] == length;
        }
    }

    private void insert(int slot, long hash, int count, byte[] bytes, int start, int length) {
        slots[slot] = hash;
        if (level == 0) {
            rows[slot] = count;
            starts[slot] = textEnd;
            lengths[slot] = length;
            if (textEnd + length > texts.length) {
                texts = Arrays.copyOf(texts, Math.max(texts.length * 2, textEnd + length));
            }
            System.arraycopy(bytes, start, texts, textEnd, length);
            textEnd += length;
        }
        size++;
        if (size > capacity) {
            thinOut(level + 1);
        } else if (size > slots.length / 2) {
            rehash(slots.length * 2);
        }
    }

    private int slotOf(long hash) {
        int mask = slots.length - 1;
        int slot = (int) (hash >>> 20) & mask;
        while (slots[slot] != 0 && slots[slot] != hash) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    private void thinOut(int to) {
        if (heavy == null) {
            heavy = heaviest();
        }
        level = to;
        rows = new int[0];
        starts = rows;
        lengths = rows;
        texts = new byte[0];
        rehash(slots.length);
        if (size > capacity) {
            thinOut(to + 1);
        }
    }

    /** The values that most rows have, if these are many. */
    private HeavyValues heaviest() {
        HeavyValues some = new HeavyValues();
        int[] sorted = rows.clone();
        Arrays.sort(sorted);
        int least = Math.max(LEAST_ROWS, sorted[Math.max(0, sorted.length - HeavyValues.MOST)]);
        for (int slot = 0; slot < slots.length; slot++) {
            if (slots[slot] != 0 && rows[slot] >= least) {
                some.put(slots[slot], rows[slot], texts, starts[slot], lengths[slot], true);
            }
        }
        return some;
    }

    private void rehash(int length) {
        long[] oldSlots = slots;
        int[] oldRows = rows;
        int[] oldStarts = starts;
        int[] oldLengths = lengths;
        slots = new long[length];
        if (level == 0) {
            rows = new int[length];
            starts = new int[length];
            lengths = new int[length];
        }
        size = 0;
        long mask = (1L << level) - 1;
        for (int old = 0; old < oldSlots.length; old++) {
            long hash = oldSlots[old];
            if (hash != 0 && (hash & mask) == 0) {
                int slot = slotOf(hash);
                slots[slot] = hash;
                size++;
                if (level == 0) {
                    rows[slot] = oldRows[old];
                    starts[slot] = oldStarts[old];
                    lengths[slot] = oldLengths[old];
                }
            }
        }
    }

    /** Adds the values of another part of the column. */
    void merge(ValueSample other) {
        if (other.level > level) {
            thinOut(other.level);
        }
        haveOneSpelling &= other.haveOneSpelling;
        if (heavy != null) {
            heavy.merge(other.heavy != null ? other.heavy : other.heaviest());
        }
        long mask = (1L << level) - 1;
        for (int there = 0; there < other.slots.length; there++) {
            long hash = other.slots[there];
            if (hash == 0 || (hash & mask) != 0) {
                continue;
            }
            int slot = slotOf(hash);
            boolean isCounted = level == 0;
            if (slots[slot] == 0) {
                insert(
                        slot,
                        hash,
                        isCounted ? other.rows[there] : 0,
                        other.texts,
                        isCounted ? other.starts[there] : 0,
                        isCounted ? other.lengths[there] : 0);
                mask = (1L << level) - 1;
            } else if (isCounted) {
                rows[slot] += other.rows[there];
                haveOneSpelling &= isSpelled(slot, other.texts, other.starts[there], other.lengths[there]);
            }
        }
    }

    boolean isExact() {
        return level == 0;
    }

    /** How many different values there are; about, unless it is exact. */
    long distinct() {
        return (long) size << level;
    }

    /**
     * The share of the values at hand, at the level of both, that another column has; empty when there are none.
     *
     * @param most how many of them are looked at, which are as good as chosen at random
     */
    public OptionalDouble coverageBy(ValueSample other, int most) {
        int mine = Math.min(most, ends()[Math.max(level, other.level)]);
        int covered = 0;
        for (int i = 0; i < mine; i++) {
            covered += other.holds(byLevel[i]) ? 1 : 0;
        }
        return mine == 0 ? OptionalDouble.empty() : OptionalDouble.of((double) covered / mine);
    }

    /** Puts the hashes in order once all are here: those of a level stand in front of those that are of lower ones alone. */
    private synchronized int[] ends() {
        if (byLevel == null) {
            int[] end = new int[Long.SIZE + 1];
            for (long hash : slots) {
                end[hash == 0 ? Long.SIZE : Long.numberOfTrailingZeros(hash)]++;
            }
            end[Long.SIZE] = 0;
            for (int of = Long.SIZE - 1; of >= 0; of--) {
                end[of] += end[of + 1];
            }
            long[] ordered = new long[size];
            int[] next = Arrays.copyOfRange(end, 1, end.length);
            for (long hash : slots) {
                if (hash != 0) {
                    ordered[next[Long.numberOfTrailingZeros(hash)]++] = hash;
                }
            }
            levelEnds = end;
            byLevel = ordered;
        }
        return levelEnds;
    }

    /** Whether a value is one of those that the sample was made of, if the column has it. */
    boolean wouldHold(long hash) {
        return (hash & (1L << level) - 1) == 0;
    }

    boolean holds(long hash) {
        return slots[slotOf(hash)] != 0;
    }

    /** All values with their rows, if all are here, and each is spelled in one way. */
    Optional<KnownValues> known() {
        if (!isExact() || !haveOneSpelling) {
            return Optional.empty();
        }
        int[] used = IntStream.range(0, slots.length)
                .filter(slot -> slots[slot] != 0)
                .boxed()
                .sorted(Comparator.comparingInt((Integer slot) -> -rows[slot])
                        .thenComparing((a, b) -> Arrays.compareUnsigned(
                                texts, starts[a], starts[a] + lengths[a], texts, starts[b], starts[b] + lengths[b])))
                .mapToInt(Integer::intValue)
                .toArray();
        CellColumn cells = new CellColumn(used.length);
        for (int slot : used) {
            cells.add(texts, starts[slot], lengths[slot]);
        }
        return Optional.of(new KnownValues(
                cells, Arrays.stream(used).map(slot -> rows[slot]).toArray()));
    }

    /** The values that most rows have, the commonest first; where there are too many different ones, of those that many had from early on. */
    List<CommonValue> commonest(int most) {
        if (heavy != null) {
            List<CommonValue> values = new ArrayList<>();
            heavy.forEach((hash, count, text, isExact) ->
                    values.add(new CommonValue(new String(text, StandardCharsets.UTF_8), count, isExact)));
            values.sort(COMMONEST_FIRST);
            return values.subList(0, Math.min(most, values.size()));
        }
        List<Integer> used = new ArrayList<>();
        int[] sorted = rows.clone();
        Arrays.sort(sorted);
        int least = sorted[Math.max(0, sorted.length - most)];
        for (int slot = 0; slot < slots.length; slot++) {
            if (slots[slot] != 0 && rows[slot] >= least) {
                used.add(slot);
            }
        }
        return used.stream()
                .map(slot -> new CommonValue(
                        new String(texts, starts[slot], lengths[slot], StandardCharsets.UTF_8), rows[slot], true))
                .sorted(COMMONEST_FIRST)
                .limit(most)
                .toList();
    }
}
