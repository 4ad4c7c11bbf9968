package taxiomet.survey.choice;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Table;
import taxiomet.check.alike.LooseCode;
import taxiomet.keys.KeyTable;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.work.Secret;

/** The first rows of a table, each as codes of the values of some columns: what agrees loosely has one code. */
final class LooseSample {
    private static final int MOST_ROWS = 100_000;
    private static final int FIRST_ROOM = 1_024;
    /** Fewer pairs say nothing about a column. */
    private static final int ENOUGH = 8;

    private final int[] places;
    private long[][] codes;
    private int rows;
    private double[] bits;
    private final Map<List<Integer>, Double> shares = new HashMap<>();

    private LooseSample(int[] places) {
        this.places = places.clone();
        this.codes = new long[places.length][FIRST_ROOM];
    }

    /** @param places of the columns in the table, ascending */
    static LooseSample read(Table table, TableSource source, int[] places, Secret secret) {
        LooseSample sample = new LooseSample(places);
        TypedBatch typed = TypedBatch.ofValues(table, places, secret);
        try (Scan scan = source.scan(places, RefRanges.ALL);
                Scan.BatchReader reader = scan.reader()) {
            for (RowBatch batch = reader.next(); batch != null && sample.rows < MOST_ROWS; batch = reader.next()) {
                typed.read(batch);
                sample.add(typed);
            }
        }
        sample.bits = new double[places.length];
        for (int i = 0; i < places.length; i++) {
            sample.bits[i] = sample.bitsOf(sample.codes[i]);
        }
        return sample;
    }

    private void add(TypedBatch batch) {
        for (int row = 0; row < batch.size() && rows < MOST_ROWS; row++) {
            if (rows == codes[0].length) {
                for (int i = 0; i < codes.length; i++) {
                    codes[i] = Arrays.copyOf(codes[i], rows * 2);
                }
            }
            for (int i = 0; i < codes.length; i++) {
                codes[i][rows] = LooseCode.of(batch, places[i], row);
            }
            rows++;
        }
    }

    private double bitsOf(long[] column) {
        long[] sorted = Arrays.copyOf(column, rows);
        Arrays.sort(sorted);
        double pairs = 0;
        long values = 0;
        for (int from = 0; from < rows; ) {
            int to = from;
            while (to < rows && sorted[to] == sorted[from]) {
                to++;
            }
            if (sorted[from] != LooseCode.NONE) {
                pairs += (double) (to - from) * (to - from - 1);
                values += to - from;
            }
            from = to;
        }
        return values < 2 ? 0 : Math.log(values * (values - 1.0) / Math.max(1, pairs)) / Math.log(2);
    }

    int columns() {
        return places.length;
    }

    int rows() {
        return rows;
    }

    /** The place of a column in the table. */
    int place(int column) {
        return places[column];
    }

    /** How much it says that two rows agree in a column: one bit more halves how many do by chance. */
    double bits(int column) {
        return bits[column];
    }

    /** How unlikely it is, in bits, that of two rows one at least has no value in a column. */
    double bitsOfMissing(int column) {
        long missing = Arrays.stream(codes[column], 0, rows)
                .filter(code -> code == LooseCode.NONE)
                .count();
        double part = (missing + 0.5) / (rows + 1.0);
        return -Math.log(part * (2 - part)) / Math.log(2);
    }

    /** Which part of the rows that have values in some columns share them with another; all of them where hardly a row has. */
    double sharedBy(int[] some) {
        return shares.computeIfAbsent(Arrays.stream(some).boxed().toList(), columns -> share(some));
    }

    private double share(int[] some) {
        long whole = 0;
        long shared = 0;
        try (KeyTable seen = new KeyTable(null)) {
            for (int row = 0; row < rows; row++) {
                long code = code(some, row);
                if (code == LooseCode.NONE) {
                    continue;
                }
                whole++;
                seen.ensureRoom();
                int slot = seen.slotOf(code, 0);
                if (!seen.isUsed(slot)) {
                    seen.insert(slot, code, 0, 1);
                } else {
                    shared += seen.value(slot) == 1 ? 2 : 1;
                    seen.setValue(slot, 2);
                }
            }
        }
        return whole * 4 < rows ? 1 : (double) shared / whole;
    }

    private long code(int[] some, int row) {
        long code = 1;
        for (int column : some) {
            if (codes[column][row] == LooseCode.NONE) {
                return LooseCode.NONE;
            }
            code = KeyTable.hash(code, codes[column][row]);
        }
        return code;
    }

    /** How many rows have the values of an earlier row in some columns. */
    long repeatedBy(int[] some) {
        return holdAgainstFirst(some, (first, row) -> {});
    }

    /** Notes in which other columns rows agree, more often than not, that share some; where few do, nothing is noted. */
    void noteAgreement(int[] some, boolean[] agrees) {
        long[] agree = new long[places.length];
        long[] differ = new long[places.length];
        holdAgainstFirst(some, (first, row) -> {
            for (int column = 0; column < places.length; column++) {
                long one = codes[column][first];
                long other = codes[column][row];
                if (one != LooseCode.NONE && other != LooseCode.NONE) {
                    agree[column] += one == other ? 1 : 0;
                    differ[column] += one == other ? 0 : 1;
                }
            }
        });
        for (int column : some) {
            agree[column] = 0;
        }
        for (int column = 0; column < places.length; column++) {
            agrees[column] |= agree[column] + differ[column] >= ENOUGH && agree[column] >= differ[column];
        }
    }

    private interface Held {
        void against(int first, int row);
    }

    /** Holds rows against the first with the same values in some columns; gives how many there are. */
    private long holdAgainstFirst(int[] some, Held held) {
        long pairs = 0;
        try (KeyTable firsts = new KeyTable(null)) {
            for (int row = 0; row < rows; row++) {
                long code = code(some, row);
                if (code == LooseCode.NONE) {
                    continue;
                }
                firsts.ensureRoom();
                int slot = firsts.slotOf(code, 0);
                if (firsts.isUsed(slot)) {
                    pairs++;
                    held.against((int) firsts.value(slot), row);
                } else {
                    firsts.insert(slot, code, 0, row);
                }
            }
        }
        return pairs;
    }
}
