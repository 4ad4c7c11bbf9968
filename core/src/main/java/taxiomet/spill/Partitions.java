package taxiomet.spill;

/**
 * Records of longs, put into partitions by the hash of a key, so that all records of one key stand in one partition and a
 * partition fits into memory where the whole does not.
 */
public final class Partitions implements AutoCloseable {
    /** How many partitions there are: at 256 a partition of a billion keys holds four million. */
    public static final int COUNT = 256;

    private final LongSpool[] spools = new LongSpool[COUNT];
    private final SpillFile file;
    private final int buffer;

    /** @param folder where partitions go that grow */
    public Partitions(SpillFolder folder) {
        this.file = new SpillFile(folder);
        this.buffer = folder.bufferedLongs();
    }

    /** The partition for a hash: its top bits, since tables in memory use the low ones. */
    public static int of(long hash) {
        return (int) (hash >>> 56);
    }

    /** Adds one record of two longs to the partition; all records of a partition are of one kind. */
    public void add(int partition, long a, long b) {
        LongSpool spool = spool(partition);
        spool.add(a);
        spool.add(b);
    }

    /** Adds one record of three longs to the partition. */
    public void add(int partition, long a, long b, long c) {
        LongSpool spool = spool(partition);
        spool.add(a);
        spool.add(b);
        spool.add(c);
    }

    private LongSpool spool(int partition) {
        LongSpool spool = spools[partition];
        if (spool == null) {
            spool = new LongSpool(file, buffer);
            spools[partition] = spool;
        }
        return spool;
    }

    /** Adds one record of any length to the partition; a partition has either such records or those of three longs. */
    public void addRecord(int partition, long[] record) {
        addRecord(partition, record, record.length);
    }

    /** Adds one record of any length, the first longs of an array. */
    public void addRecord(int partition, long[] record, int length) {
        LongSpool spool = spool(partition);
        spool.add(length);
        for (int i = 0; i < length; i++) {
            spool.add(record[i]);
        }
    }

    /** The next record of any length. */
    public static long[] nextRecord(LongSpool.Reader reader) {
        long[] record = new long[(int) reader.next()];
        for (int i = 0; i < record.length; i++) {
            record[i] = reader.next();
        }
        return record;
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
