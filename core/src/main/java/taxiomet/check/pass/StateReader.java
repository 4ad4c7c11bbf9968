package taxiomet.check.pass;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.LongSupplier;
import java.util.function.LongUnaryOperator;
import taxiomet.spill.LongSpool;
import taxiomet.spill.PackedBytes;
import taxiomet.spill.Partitions;
import taxiomet.spill.SortedSpool;

/** Reads what a {@link StateWriter} wrote, and adds it to the state that is here. */
public final class StateReader implements StateExchange {
    private static final long LONGEST_TEXT = 1 << 20;

    private final LongSupplier in;
    private final LongUnaryOperator refs;

    /**
     * @param in gives the longs one after the other
     * @param refs gives the name that a row has here to the one that it had there
     */
    public StateReader(LongSupplier in, LongUnaryOperator refs) {
        this.in = in;
        this.refs = refs;
    }

    @Override
    public long count(long own) {
        return own + in.getAsLong();
    }

    private boolean hasNext() {
        return in.getAsLong() == 1;
    }

    private long[] read(int length, int refAt) {
        long[] record = new long[length];
        for (int i = 0; i < length; i++) {
            record[i] = in.getAsLong();
        }
        if (refAt >= 0) {
            record[refAt] = refs.applyAsLong(record[refAt]);
        }
        return record;
    }

    @Override
    public void partitions(Partitions records, int length, int refAt) {
        for (int partition = 0; partition < Partitions.COUNT; partition++) {
            while (hasNext()) {
                long[] record = read(length, refAt);
                if (length == 2) {
                    records.add(partition, record[0], record[1]);
                } else {
                    records.add(partition, record[0], record[1], record[2]);
                }
            }
        }
    }

    @Override
    public void records(Partitions records, int refAt) {
        for (int partition = 0; partition < Partitions.COUNT; partition++) {
            while (hasNext()) {
                records.addRecord(partition, read((int) in.getAsLong(), refAt));
            }
        }
    }

    @Override
    public void longs(LongSpool records, int length, int refAt) {
        while (hasNext()) {
            for (long value : read(length, refAt)) {
                records.add(value);
            }
        }
    }

    @Override
    public void pairs(SortedSpool pairs, boolean areRefs) {
        while (hasNext()) {
            long[] pair = read(2, areRefs ? 0 : NONE);
            pairs.add(pair[0], pair[1]);
        }
    }

    @Override
    public void tally(Map<Long, Long> counts) {
        while (hasNext()) {
            long number = in.getAsLong();
            counts.merge(number, in.getAsLong(), Long::sum);
        }
    }

    @Override
    public List<String> texts(Collection<String> own) {
        List<String> texts = new ArrayList<>();
        for (long left = in.getAsLong(); left > 0; left--) {
            texts.add(text());
        }
        return texts;
    }

    private String text() {
        long length = in.getAsLong();
        if (length < 0 || length > LONGEST_TEXT) {
            throw new IllegalArgumentException("a text of " + length + " bytes is no part of a state");
        }
        return new String(PackedBytes.read(in, (int) length), StandardCharsets.UTF_8);
    }

    @Override
    public void log(FaultLog log) {
        List<String> reasons = texts(List.of());
        while (hasNext()) {
            long[] pair = read(2, 0);
            if (reasons.isEmpty()) {
                log.add(pair[0], pair[1]);
            } else {
                log.add(pair[0], reasons.get((int) pair[1]));
            }
        }
    }
}
