package taxiomet.survey;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import taxiomet.survey.ColumnProfile.CommonValue;

/**
 * The values of a column with their counts, in bounded room: exact while there are few different ones. When it is full, the rarer half goes,
 * and what comes anew may have been among them: its count may be too low by as much as the greatest that went (lossy counting). Where values
 * hardly repeat, only those that do are counted on.
 */
final class ValueDictionary {
    private static final int MOST = 1 << 12;
    private static final int SLOTS = MOST * 2;
    /** So many times as many values as fit were seen when it was full: fewer, and they hardly repeat. */
    private static final long HARDLY_REPEATED = 2;

    /** 0 where a slot is free. */
    private final long[] hashes = new long[SLOTS];

    private final long[] counts = new long[SLOTS];
    private final long[] missed = new long[SLOTS];
    private final byte[][] texts = new byte[SLOTS][];
    private int size;
    private long mostMissed;
    private long added;
    /** Whether values that are not here are passed over. */
    private boolean isClosed;

    /**
     * Counts a value once more; its bytes are kept when it is new.
     *
     * @param hash of the value, not 0
     * @return whether it was there
     */
    boolean add(long hash, byte[] bytes, int start, int length) {
        int slot = slotOf(hash);
        added++;
        if (hashes[slot] == hash) {
            counts[slot]++;
            return true;
        }
        if (!isClosed) {
            if (size == MOST) {
                dropRare();
                slot = slotOf(hash);
            }
            if (isClosed) {
                return false;
            }
            hashes[slot] = hash;
            counts[slot] = 1;
            missed[slot] = mostMissed;
            texts[slot] = Arrays.copyOfRange(bytes, start, start + length);
            size++;
        }
        return false;
    }

    private int slotOf(long hash) {
        int slot = (int) (hash >>> 24) & SLOTS - 1;
        while (hashes[slot] != hash && hashes[slot] != 0) {
            slot = slot + 1 & SLOTS - 1;
        }
        return slot;
    }

    private void dropRare() {
        long[] sorted = new long[size];
        int n = 0;
        for (int slot = 0; slot < SLOTS; slot++) {
            if (hashes[slot] != 0) {
                sorted[n++] = counts[slot] + missed[slot];
            }
        }
        Arrays.sort(sorted);
        long limit = sorted[size / 2];
        mostMissed = Math.max(mostMissed, limit);
        isClosed = limit <= 1 && added < HARDLY_REPEATED * MOST;
        long[] oldHashes = hashes.clone();
        long[] oldCounts = counts.clone();
        long[] oldMissed = missed.clone();
        byte[][] oldTexts = texts.clone();
        Arrays.fill(texts, null);
        Arrays.fill(hashes, 0);
        size = 0;
        for (int slot = 0; slot < SLOTS; slot++) {
            if (oldHashes[slot] != 0 && oldCounts[slot] + oldMissed[slot] > limit) {
                int free = slotOf(oldHashes[slot]);
                hashes[free] = oldHashes[slot];
                counts[free] = oldCounts[slot];
                missed[free] = oldMissed[slot];
                texts[free] = oldTexts[slot];
                size++;
            }
        }
    }

    /** Values whose count is sure to within a tenth, the commonest first. */
    List<CommonValue> commonest(int most) {
        List<CommonValue> sure = new ArrayList<>();
        for (int slot = 0; slot < SLOTS; slot++) {
            if (hashes[slot] != 0 && missed[slot] * 10 <= counts[slot]) {
                sure.add(new CommonValue(
                        new String(texts[slot], StandardCharsets.UTF_8), counts[slot], missed[slot] == 0));
            }
        }
        sure.sort(Comparator.comparingLong(CommonValue::rows).reversed().thenComparing(CommonValue::value));
        return sure.subList(0, Math.min(most, sure.size()));
    }
}
