package taxiomet.survey.profile;

import java.util.List;

/**
 * How much is kept of each column and of each table, so that all samples of a survey together take a bounded room however many columns there
 * are. It depends on nothing else: the same tables give the same survey on every machine.
 *
 * @param values how many different values of a column; a power of two
 * @param rowShare how many rows a table of one column may have, were there no other bounds
 */
public record SampleSizes(int values, int rowShare) {
    private static final int MOST_VALUES = 1 << 14;
    private static final int LEAST_VALUES = 1 << 10;
    private static final int VALUES_OF_ALL = 1_600_000;
    private static final int MOST_ROWS = 2048;
    private static final int LEAST_ROWS = 64;
    private static final int CELLS_OF_ALL = 8_000_000;
    private static final int CELLS_OF_TABLE = 1_000_000;

    public static SampleSizes of(List<FoundTable> tables) {
        long columns = 1;
        long squares = 1;
        for (FoundTable table : tables) {
            long width = table.columns().size();
            columns += width;
            squares += width * width;
        }
        long values = Long.highestOneBit(VALUES_OF_ALL / columns);
        return new SampleSizes(
                (int) Math.max(LEAST_VALUES, Math.min(MOST_VALUES, values)), (int) (CELLS_OF_ALL / squares));
    }

    /** How many rows a sample of a table of so many columns has, at most. */
    int rows(int width) {
        int mostOfTable = CELLS_OF_TABLE / Math.max(1, width * width);
        return Math.max(LEAST_ROWS, Math.min(MOST_ROWS, Math.min(rowShare, mostOfTable)));
    }
}
