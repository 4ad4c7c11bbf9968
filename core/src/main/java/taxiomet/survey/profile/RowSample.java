package taxiomet.survey.profile;

import java.util.Arrays;

/** All rows of a table that have one of some values of a column, as hashes of all their cells; 0 stands for null. */
public final class RowSample {
    /** So many rows tell whether those of a table have their parents in another. */
    private static final int MOST_COMPARED = 600;

    private static final int MOST_IN_VAIN = 120;

    private final int capacity;
    private final int width;
    private final int lead;
    private long[] cells;
    private int rows;
    private int level;
    /** The keys last asked for, with their columns and their level: the same ones are asked for by one child after the other. */
    private HashSlots keys;

    private int[] keyColumns;
    private long keyMask;

    /**
     * @param width how many columns the table has
     * @param lead the column by whose values rows are chosen
     * @param capacity how many rows are kept at most
     */
    RowSample(int width, int lead, int capacity) {
        this.width = width;
        this.lead = lead;
        this.capacity = capacity;
        this.cells = new long[width * 64];
    }

    /**
     * Adds the rows of a batch.
     *
     * @param columns the hashes of each
     * @param count how many rows there are
     */
    void addAll(long[][] columns, int count) {
        long[] hashes = columns[lead];
        long[] row = new long[width];
        long mask = (1L << level) - 1;
        for (int r = 0; r < count; r++) {
            long hash = hashes[r];
            if ((hash & mask) == 0 && hash != 0) {
                for (int c = 0; c < width; c++) {
                    row[c] = columns[c][r];
                }
                add(row, 0);
                mask = (1L << level) - 1;
            }
        }
    }

    private void add(long[] from, int at) {
        long hash = from[at + lead];
        if (rows == capacity) {
            thinOut();
            if (rows == capacity || (hash & (1L << level) - 1) != 0) {
                return;
            }
        }
        if ((rows + 1) * width > cells.length) {
            cells = Arrays.copyOf(cells, cells.length * 2);
        }
        System.arraycopy(from, at, cells, rows * width, width);
        rows++;
    }

    /** Adds the rows of another part of the table. */
    void merge(RowSample other) {
        if (other.level > level) {
            level = other.level - 1;
            thinOutOnce();
        }
        for (int r = 0; r < other.rows; r++) {
            long hash = other.cells[r * width + lead];
            if ((hash & (1L << level) - 1) == 0) {
                add(other.cells, r * width);
            }
        }
    }

    private void thinOut() {
        while (rows == capacity && level < 60) {
            thinOutOnce();
        }
    }

    private void thinOutOnce() {
        level++;
        long mask = (1L << level) - 1;
        int kept = 0;
        for (int r = 0; r < rows; r++) {
            if ((cells[r * width + lead] & mask) == 0) {
                System.arraycopy(cells, r * width, cells, kept * width, width);
                kept++;
            }
        }
        rows = kept;
    }

    public int rows() {
        return rows;
    }

    /** Whether the sample is the whole table, but for rows with a null in the column. */
    public boolean isWhole() {
        return level == 0;
    }

    /**
     * How many rows of this sample have values, and how many of these have the values of some row of another table's: both are led by one
     * of the columns, so that what is in the one at the level of both is in the other if that table holds it.
     *
     * @param columns places here, none of whose cells is null in a row that counts; one of them is the lead
     * @param other led by the column there that goes with the lead here
     * @param otherColumns places there, in the order of {@code columns}
     */
    public Coverage coverageBy(int[] columns, RowSample other, int[] otherColumns) {
        long mask = (1L << Math.max(level, other.level)) - 1;
        HashSlots there = other.keysAt(otherColumns, mask);
        int counted = 0;
        int covered = 0;
        for (int r = 0; r < rows && counted < (covered == 0 ? MOST_IN_VAIN : MOST_COMPARED); r++) {
            long key = (cells[r * width + lead] & mask) == 0 ? keyOf(r, columns) : 0;
            if (key != 0) {
                counted++;
                covered += there.holds(key) ? 1 : 0;
            }
        }
        return new Coverage(counted, covered);
    }

    /** The hashes of a column, nulls left out. */
    long[] hashesOf(int column) {
        long[] hashes = new long[rows];
        int count = 0;
        for (int r = 0; r < rows; r++) {
            long cell = cells[r * width + column];
            if (cell != 0) {
                hashes[count++] = cell;
            }
        }
        return Arrays.copyOf(hashes, count);
    }

    /** How many rows have a value of a column that can be looked up in a sample of keys, and how many of these are in it. */
    public Coverage coverageBy(int column, ValueSample keys) {
        int counted = 0;
        int covered = 0;
        for (int r = 0; r < rows && counted < (covered == 0 ? MOST_IN_VAIN : MOST_COMPARED); r++) {
            long cell = cells[r * width + column];
            if (cell != 0 && keys.wouldHold(cell)) {
                counted++;
                covered += keys.holds(cell) ? 1 : 0;
            }
        }
        return new Coverage(counted, covered);
    }

    /** How many rows were looked at, and how many of them were found in another sample. */
    public record Coverage(int rows, int covered) {
        public double share() {
            return rows == 0 ? 0 : (double) covered / rows;
        }
    }

    /** One long for the values of each row whose lead is in the sample at a level, rows with a null left out. */
    private synchronized HashSlots keysAt(int[] columns, long mask) {
        if (keys == null || keyMask != mask || !Arrays.equals(keyColumns, columns)) {
            keys = new HashSlots(rows);
            keyColumns = columns;
            keyMask = mask;
            for (int r = 0; r < rows; r++) {
                long key = (cells[r * width + lead] & mask) == 0 ? keyOf(r, columns) : 0;
                if (key != 0) {
                    keys.add(key);
                }
            }
        }
        return keys;
    }

    /** The values of a row as one long; 0 where one is null. */
    private long keyOf(int row, int[] columns) {
        long key = 17;
        for (int column : columns) {
            long cell = cells[row * width + column];
            if (cell == 0) {
                return 0;
            }
            key = (key ^ cell) * 0x9E3779B97F4A7C15L;
            key ^= key >>> 32;
        }
        return key == 0 ? 1 : key;
    }

    /**
     * How many rows beyond the first there are of the values of some columns; rows with a null in one of them do not count.
     *
     * @param most where to stop counting
     */
    public int excess(int[] columns, int most) {
        HashSlots seen = new HashSlots(rows);
        int excess = 0;
        for (int r = 0; r < rows && excess <= most; r++) {
            long key = keyOf(r, columns);
            excess += key != 0 && !seen.add(key) ? 1 : 0;
        }
        return excess;
    }
}
