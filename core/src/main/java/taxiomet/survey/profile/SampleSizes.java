package taxiomet.survey.profile;

import java.util.List;

/**
 * How much is kept of each column and of each table, so that all samples of a survey together take a bounded room however many columns there
 * are. It depends on nothing else: the same tables give the same survey on every machine.
 *
 * @param values how many different values of a column; a power of two
 * @param rowShare which share of the rows that a table would have by itself, above 0 to 1
 */
public record SampleSizes(int values, double rowShare) {
    private static final int MOST_VALUES = 1 << 14;
    private static final int LEAST_VALUES = 1 << 10;
    private static final int VALUES_OF_ALL = 1_600_000;
    private static final int MOST_ROWS = 2048;
    private static final int LEAST_ROWS = 64;
    private static final double CELLS_OF_ALL = 12_000_000;
    private static final int CELLS_OF_TABLE = 1_000_000;

    public static SampleSizes of(List<FoundTable> tables) {
        long columns = 1;
        double cells = 1;
        for (FoundTable table : tables) {
            int width = table.columns().size();
            columns += width;
            cells += (double) rowsByItself(width) * width * width;
        }
        long values = Long.highestOneBit(VALUES_OF_ALL / columns);
        return new SampleSizes(
                (int) Math.max(LEAST_VALUES, Math.min(MOST_VALUES, values)), Math.min(1, CELLS_OF_ALL / cells));
    }

    private static int rowsByItself(int width) {
        return Math.min(MOST_ROWS, CELLS_OF_TABLE / Math.max(1, width * width));
    }

    /** How many rows a sample of a table of so many columns has, at most. */
    int rows(int width) {
        return Math.max(LEAST_ROWS, (int) (rowsByItself(width) * rowShare));
    }
}
