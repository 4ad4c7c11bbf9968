package taxiomet.check.alike;

import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;

/**
 * What is known of each row while the table is read: for each column of a rule a few codes, and the row's reference. Values that agree
 * but for a slip have the same codes; of two values that are a slip apart at least one of three codes is the same, since each is made of
 * a third of the alphabet.
 *
 * <p>A record has three longs for each column, and the reference: the first two codes of 32 bits each; the third, and the number of
 * letters; which letters there are, a bit for each. All are zero where there is no value. Of what is no text all codes are one.
 */
final class LooseRows implements AutoCloseable {
    static final int LONGS_OF_COLUMN = 3;
    static final int CODES = 3;

    private static final int BLOCK = 1 << 14;
    private static final long LOW = 0xFFFF_FFFFL;
    private static final int CHUNK = 1 << 20;

    private final int columns;
    private final LongSpool spool;
    private final MemoryBudget budget;
    private long[][] chunks;
    private int chunkLength;
    private long taken;

    LooseRows(int columns, SpillFolder spill, MemoryBudget budget) {
        this.columns = columns;
        this.budget = budget;
        this.spool = new LongSpool(spill, BLOCK);
    }

    /** How many longs a record has. */
    int length() {
        return lengthFor(columns);
    }

    /** How many longs a record of so many columns has. */
    static int lengthFor(int columns) {
        return columns * LONGS_OF_COLUMN + 1;
    }

    LongSpool spool() {
        return spool;
    }

    long size() {
        return spool.size() / length();
    }

    /** Writes the codes of a value, or that there is none, into a record. */
    static void encode(LooseValue value, long[] record, int at) {
        if (value == null) {
            record[at] = 0;
            record[at + 1] = 0;
            record[at + 2] = 0;
        } else if (!value.isText()) {
            long hash =
                    value.turned() != 0 ? KeyTable.hash(value.turned(), 1) : KeyTable.hash(value.high(), value.low());
            long half = hash & LOW | 1;
            record[at] = half << 32 | half;
            record[at + 1] = half << 32;
            record[at + 2] = hash | 1;
        } else {
            encode(value.words(), record, at);
        }
    }

    private static void encode(String words, long[] record, int at) {
        int[] codes = new int[CODES];
        long letters = 0;
        int count = 0;
        for (int i = 0; i < words.length(); i++) {
            char c = words.charAt(i);
            if (c != ' ') {
                int mixed = (int) (KeyTable.hash(c, 0) >>> 20);
                // A sum does not ask for the order of letters: words may stand in any, and two letters be turned round.
                codes[c % CODES] += mixed | 1;
                letters |= 1L << (c & 63);
                count++;
            }
        }
        record[at] = (codes[0] & LOW) << 32 | codes[1] & LOW;
        record[at + 1] = (codes[2] & LOW) << 32 | count;
        record[at + 2] = letters;
    }

    /** One of the three codes of a column; zero where it has no value, or no letter of that third. */
    static long code(long[] record, int column, int which) {
        int at = column * LONGS_OF_COLUMN;
        return switch (which) {
            case 0 -> record[at] >>> 32;
            case 1 -> record[at] & LOW;
            default -> record[at + 1] >>> 32;
        };
    }

    /** All codes of a column as one; it says nothing where there is no value. */
    static long whole(long[] record, int column) {
        int at = column * LONGS_OF_COLUMN;
        return KeyTable.hash(record[at], record[at + 1]);
    }

    static boolean hasValue(long[] record, int column) {
        return record[column * LONGS_OF_COLUMN + 2] != 0;
    }

    static boolean isWhole(long[] one, long[] other, int column) {
        int at = column * LONGS_OF_COLUMN;
        return one[at] == other[at] && one[at + 1] == other[at + 1];
    }

    /** Whether two texts with other codes may be a slip or a few apart. */
    static boolean mayBeNear(long[] one, long[] other, int column) {
        int at = column * LONGS_OF_COLUMN;
        int letters = (int) (one[at + 1] & LOW);
        int others = (int) (other[at + 1] & LOW);
        int most = LooseText.slips(Math.min(letters, others));
        return Math.abs(letters - others) <= most && Long.bitCount(one[at + 2] ^ other[at + 2]) <= 2 * most;
    }

    long ref(long[] record) {
        return record[length() - 1];
    }

    /** All rows have been added: they will be asked for one by one, and stand in memory if there is room. */
    void ready() {
        chunkLength = CHUNK / length() * length();
        long bytes = spool.size() * Long.BYTES;
        if (!budget.tryTake(bytes)) {
            return;
        }
        taken = bytes;
        long longs = spool.size();
        chunks = new long[(int) ((longs + chunkLength - 1) / chunkLength)][];
        LongSpool.Reader reader = spool.read();
        for (int i = 0; i < chunks.length; i++) {
            long[] chunk = new long[(int) Math.min(chunkLength, longs - (long) i * chunkLength)];
            for (int j = 0; j < chunk.length; j++) {
                chunk[j] = reader.next();
            }
            chunks[i] = chunk;
        }
    }

    /** Copies a record, 0 for the first. */
    void get(long number, long[] record) {
        long place = number * length();
        if (chunks != null) {
            System.arraycopy(chunks[(int) (place / chunkLength)], (int) (place % chunkLength), record, 0, length());
            return;
        }
        LongSpool.Reader reader = spool.read(place, place + length(), length());
        for (int i = 0; i < record.length; i++) {
            record[i] = reader.next();
        }
    }

    @Override
    public void close() {
        chunks = null;
        budget.giveBack(taken);
        taken = 0;
        spool.close();
    }
}
