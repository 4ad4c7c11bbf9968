package taxiomet.keys;

import java.util.Arrays;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Partitions;

/**
 * Many pairs of longs, spread by their hash over buckets while they come, and put into a table bucket by bucket when all are
 * there: what the pairs of one bucket need of it fits into a core's own cache, where pairs as they come would miss it with every one. Which
 * pairs came more than once is known only then.
 */
final class PairBuckets {
    private static final int BUCKETS = Partitions.COUNT;
    private static final int BLOCK = 1 << 9;
    private static final long BLOCK_BYTES = (long) BLOCK * Long.BYTES;
    /** Slots for each pair, in eighths. */
    private static final int SLOTS_IN_EIGHTHS = 11;

    private static final long MOST_PAIRS_IN_BUCKET = 1 << 28;
    private static final long MOST_SLOTS = 1 << 29;

    private final MemoryBudget budget;
    /** For each bucket its blocks, each full of pairs but the last. */
    private long[][][] blocks = new long[BUCKETS][0][];

    private final int[] blockCounts = new int[BUCKETS];
    /** How many longs of each bucket's last block are taken. */
    private final int[] taken = new int[BUCKETS];

    private long size;
    private long bytes;

    /** Once sealed: all pairs in the order of their hashes, with linear probing. Two zeros mark a free slot. */
    private long[] table;

    private boolean hasZeros;
    /** Nobody asks for it: it keeps loads that only warm the cache from being left out as useless. Threads may race for it. */
    @SuppressWarnings("UnusedVariable")
    private long touched;

    PairBuckets(MemoryBudget budget) {
        this.budget = budget;
        Arrays.fill(taken, BLOCK);
    }

    /** The first slot, of so many, where a pair may stand: the greater its hash, the further behind. */
    private static int slotOf(long hash, int slots) {
        return (int) ((hash >>> 32) * slots >>> 32);
    }

    /** Adds a pair, whether it is there already or not; false when there is no room. */
    boolean add(long high, long low) {
        int bucket = Partitions.of(KeyTable.hash(high, low));
        int at = taken[bucket];
        if (at == BLOCK) {
            if (!addBlock(bucket)) {
                return false;
            }
            at = 0;
        }
        long[] block = blocks[bucket][blockCounts[bucket] - 1];
        block[at] = high;
        block[at + 1] = low;
        taken[bucket] = at + 2;
        size++;
        return true;
    }

    /** Adds the first of some pairs until there is no room; gives how many. */
    int addFirst(long[] highs, long[] lows, int count) {
        int added = 0;
        while (added < count && add(highs[added], lows[added])) {
            added++;
        }
        return added;
    }

    private boolean addBlock(int bucket) {
        int count = blockCounts[bucket];
        if ((long) count * BLOCK / 2 >= MOST_PAIRS_IN_BUCKET || !budget.tryTake(BLOCK_BYTES)) {
            return false;
        }
        if (count == blocks[bucket].length) {
            blocks[bucket] = Arrays.copyOf(blocks[bucket], Math.max(8, count * 2));
        }
        blocks[bucket][count] = new long[BLOCK];
        blockCounts[bucket]++;
        bytes += BLOCK_BYTES;
        taken[bucket] = 0;
        return true;
    }

    /** How many pairs have been added; once sealed, how many different ones. */
    long size() {
        return size;
    }

    private int pairsIn(int bucket) {
        int count = blockCounts[bucket];
        return count == 0 ? 0 : (count - 1) * (BLOCK / 2) + taken[bucket] / 2;
    }

    private static long slotsFor(long pairs) {
        return pairs * SLOTS_IN_EIGHTHS / 8 + 1;
    }

    /**
     * All pairs have been added.
     *
     * @param keeps whether {@link #findMissing} and {@link #contains} will be asked
     * @param repeated gets each pair that came again, as often as it did
     * @return false when there is no room for the table: then nothing has changed
     */
    boolean seal(boolean keeps, KeySet.Sink repeated) {
        long slots = slotsFor(size);
        long needed = 2 * slots * Long.BYTES;
        if (keeps && (slots > MOST_SLOTS || !budget.tryTake(needed))) {
            return false;
        }
        long[] all = keeps ? new long[(int) (2 * slots)] : new long[0];
        for (int bucket = 0; bucket < BUCKETS; bucket++) {
            if (!keeps) {
                int own = (int) (2 * slotsFor(pairsIn(bucket)));
                all = all.length < own ? new long[own] : all;
                Arrays.fill(all, 0);
            }
            fill(all, bucket, keeps ? 0 : 8, repeated);
            blocks[bucket] = null;
        }
        blocks = null;
        table = keeps ? all : null;
        budget.giveBack(bytes);
        bytes = keeps ? needed : 0;
        return true;
    }

    /**
     * Puts the pairs of a bucket into a table.
     *
     * @param bitsInCommon how many bits of their hashes say nothing about where in the table
     */
    private void fill(long[] into, int bucket, int bitsInCommon, KeySet.Sink repeated) {
        int slots = into.length / 2;
        forEachIn(bucket, (high, low) -> {
            int slot = find(into, slotOf(KeyTable.hash(high, low) << bitsInCommon, slots), high, low);
            boolean isZeros = high == 0 && low == 0;
            if (isZeros ? hasZeros : isUsed(into, slot)) {
                size--;
                repeated.accept(high, low);
            }
            hasZeros |= isZeros;
            into[slot] = high;
            into[slot + 1] = low;
        });
    }

    private void forEachIn(int bucket, KeySet.Sink sink) {
        for (int number = 0; number < blockCounts[bucket]; number++) {
            long[] block = blocks[bucket][number];
            int end = number == blockCounts[bucket] - 1 ? taken[bucket] : BLOCK;
            for (int at = 0; at < end; at += 2) {
                sink.accept(block[at], block[at + 1]);
            }
        }
    }

    private static boolean isUsed(long[] in, int slot) {
        return in[slot] != 0 || in[slot + 1] != 0;
    }

    /** The place in the array where a pair stands, or would, if looked for from a slot on. */
    private static int find(long[] in, int firstSlot, long high, long low) {
        int slot = 2 * firstSlot;
        while ((in[slot] != high || in[slot + 1] != low) && isUsed(in, slot)) {
            slot = slot + 2 == in.length ? 0 : slot + 2;
        }
        return slot;
    }

    /** Once sealed, with the table kept. */
    boolean contains(long high, long low) {
        if (high == 0 && low == 0) {
            return hasZeros;
        }
        return isUsed(table, find(table, slotOf(KeyTable.hash(high, low), table.length / 2), high, low));
    }

    /**
     * Finds which of some pairs are not there, as {@link KeySet#findMissing} does. Rows with the same parent often follow one
     * another: a pair like the one before is not looked up.
     *
     * @param firstSlots room for as many longs as there are pairs
     */
    int findMissing(long[] highs, long[] lows, int count, long[] firstSlots, int[] missing) {
        long[] all = table;
        int slots = all.length / 2;
        // First all loads that do not wait for each other, as LongTable does it.
        long sum = 0;
        for (int i = 0; i < count; i++) {
            int slot = slotOf(KeyTable.hash(highs[i], lows[i]), slots);
            firstSlots[i] = slot;
            sum += all[2 * slot];
        }
        touched = sum;
        int found = 0;
        boolean isThere = false;
        for (int i = 0; i < count; i++) {
            long high = highs[i];
            long low = lows[i];
            if (i == 0 || low != lows[i - 1] || high != highs[i - 1]) {
                isThere = high == 0 && low == 0 ? hasZeros : isUsed(all, find(all, (int) firstSlots[i], high, low));
            }
            if (!isThere) {
                missing[found++] = i;
            }
        }
        return found;
    }

    /** Gives all pairs that were added; not once sealed. */
    void forEach(KeySet.Sink sink) {
        for (int bucket = 0; bucket < BUCKETS; bucket++) {
            forEachIn(bucket, sink);
        }
    }

    void close() {
        budget.giveBack(bytes);
        bytes = 0;
        blocks = null;
        table = null;
    }
}
