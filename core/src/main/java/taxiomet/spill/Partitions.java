package taxiomet.spill;

/**
 * Records of longs, put into partitions by the hash of a key, so that all records of one key stand in one partition and a
 * partition fits into memory where the whole does not.
 */
public final class Partitions implements AutoCloseable {
    /** How many partitions there are: at 256 a partition of a billion keys holds four million. */
    public static final int COUNT = 256;

    private static final int BUFFER = 1_536;

    private final LongSpool[] spools = new LongSpool[COUNT];
    private final SpillFile file;

    public Partitions(SpillFolder folder) {
        this.file = new SpillFile(folder);
    }

    /** The partition for a hash: its top bits, since tables in memory use the low ones. */
    public static int of(long hash) {
        return (int) (hash >>> 56);
    }

    /** Adds one record of three longs to the partition. */
    public void add(int partition, long a, long b, long c) {
        LongSpool spool = spools[partition];
        if (spool == null) {
            spool = new LongSpool(file, BUFFER);
            spools[partition] = spool;
        }
        spool.add(a);
        spool.add(b);
        spool.add(c);
    }

    /** How many records a partition holds. */
    public long size(int partition) {
        return spools[partition] == null ? 0 : spools[partition].size() / 3;
    }

    /** The records of a partition in the order added; null when it has none. */
    public LongSpool.Reader read(int partition) {
        return spools[partition] == null ? null : spools[partition].read();
    }

    @Override
    public void close() {
        file.close();
    }
}
