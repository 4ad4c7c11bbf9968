package taxiomet.check.pass;

import java.nio.charset.StandardCharsets;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.LongConsumer;
import taxiomet.spill.LongSpool;
import taxiomet.spill.PackedBytes;
import taxiomet.spill.Partitions;
import taxiomet.spill.SortedSpool;

/**
 * Writes states, as longs. A count is one long. Records have a 1 before each and a 0 behind the last, those by partitions partition by
 * partition; one that says its length has it behind the 1. Texts are their number, then each the number of its bytes in UTF-8 and
 * these bytes, eight in a long, the first the lowest. A log is its reasons as texts, then its pairs.
 */
public final class StateWriter implements StateExchange {
    private final LongConsumer out;

    /** @param out gets the longs one after the other */
    public StateWriter(LongConsumer out) {
        this.out = out;
    }

    @Override
    public long count(long own) {
        out.accept(own);
        return own;
    }

    @Override
    public void partitions(Partitions records, int length, int refAt) {
        for (int partition = 0; partition < Partitions.COUNT; partition++) {
            writeAll(records.read(partition), length);
        }
    }

    private void writeAll(LongSpool.Reader reader, int length) {
        while (reader != null && reader.hasNext()) {
            out.accept(1);
            for (int i = 0; i < length; i++) {
                out.accept(reader.next());
            }
        }
        out.accept(0);
    }

    @Override
    public void records(Partitions records, int refAt) {
        for (int partition = 0; partition < Partitions.COUNT; partition++) {
            LongSpool.Reader reader = records.read(partition);
            while (reader != null && reader.hasNext()) {
                long length = reader.next();
                out.accept(1);
                out.accept(length);
                for (long i = 0; i < length; i++) {
                    out.accept(reader.next());
                }
            }
            out.accept(0);
        }
    }

    @Override
    public void longs(LongSpool records, int length, int refAt) {
        writeAll(records.read(), length);
    }

    @Override
    public void pairs(SortedSpool pairs, boolean areRefs) {
        SortedSpool.Reader reader = pairs.read();
        while (reader.next()) {
            out.accept(1);
            out.accept(reader.first());
            out.accept(reader.second());
        }
        out.accept(0);
    }

    @Override
    public void tally(Map<Long, Long> counts) {
        counts.forEach((number, count) -> {
            out.accept(1);
            out.accept(number);
            out.accept(count);
        });
        out.accept(0);
    }

    @Override
    public List<String> texts(Collection<String> own) {
        out.accept(own.size());
        own.forEach(this::write);
        return List.copyOf(own);
    }

    private void write(String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        out.accept(utf8.length);
        PackedBytes.write(utf8, 0, utf8.length, out);
    }

    @Override
    public void log(FaultLog log) {
        texts(log.reasonsAsNumbered());
        pairs(log.rows(), true);
    }
}
