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
    private long[] sortedKeys;
    private int[] sortedColumns;
    private long sortedMask;

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

    /** Adds rows that stand one behind the other. */
    void addAll(long[] rowCells, int count) {
        long mask = (1L << level) - 1;
        for (int at = 0; at < count * width; at += width) {
            long hash = rowCells[at + lead];
            if ((hash & mask) == 0 && hash != 0) {
                add(rowCells, at);
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
        addAll(other.cells, other.rows);
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
        long[] there = other.sortedKeysAt(otherColumns, mask);
        int counted = 0;
        int covered = 0;
        for (int r = 0; r < rows && counted < (covered == 0 ? MOST_IN_VAIN : MOST_COMPARED); r++) {
            long key = (cells[r * width + lead] & mask) == 0 ? keyOf(r, columns) : 0;
            if (key != 0) {
                counted++;
                covered += Arrays.binarySearch(there, key) >= 0 ? 1 : 0;
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

    /** The keys last asked for are kept: the same ones are asked for by one child after the other. */
    private synchronized long[] sortedKeysAt(int[] columns, long mask) {
        if (sortedKeys == null || sortedMask != mask || !Arrays.equals(sortedColumns, columns)) {
            sortedKeys = keysAt(columns, mask);
            Arrays.sort(sortedKeys);
            sortedColumns = columns;
            sortedMask = mask;
        }
        return sortedKeys;
    }

    /** One long for the values of each row whose lead is in the sample at a level, rows with a null left out. */
    private long[] keysAt(int[] columns, long mask) {
        long[] keys = new long[rows];
        int count = 0;
        for (int r = 0; r < rows; r++) {
            if ((cells[r * width + lead] & mask) == 0) {
                long key = keyOf(r, columns);
                if (key != 0) {
                    keys[count++] = key;
                }
            }
        }
        return Arrays.copyOf(keys, count);
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
        long[] slots = new long[Integer.highestOneBit(Math.max(16, rows)) * 4];
        int mask = slots.length - 1;
        int excess = 0;
        for (int r = 0; r < rows && excess <= most; r++) {
            long key = keyOf(r, columns);
            if (key == 0) {
                continue;
            }
            int slot = (int) (key >>> 16) & mask;
            while (slots[slot] != 0 && slots[slot] != key) {
                slot = slot + 1 & mask;
            }
            if (slots[slot] == key) {
                excess++;
            }
            slots[slot] = key;
        }
        return excess;
    }
}
