package taxiomet.survey;

import java.util.Arrays;
import java.util.List;

/** What one table holds, with the samples that keys and links are looked for in. */
final class TableProfile {
    final FoundTable table;
    final List<ColumnProfile> columns;
    final List<HashSample> hashes;
    final List<RowSample> rowSamples;
    final double[] averageLengths;
    final long[] leastWhole;
    final long[] greatestWhole;
    /** Where the whole numbers of a column lie; null where it does not hold whole numbers. */
    final WholeRange[] ranges;

    final boolean[] isAscending;
    /** Whether whole numbers of a column are all days without hyphens, such as 20240229. */
    final boolean[] isDay;

    final long rows;
    final long malformed;

    TableProfile(TableProfiler profiler, long rows, long malformed) {
        this.table = profiler.table();
        this.columns = profiler.columns().stream().map(ColumnProfiler::profile).toList();
        this.hashes = profiler.columns().stream().map(ColumnProfiler::hashes).toList();
        this.rowSamples = profiler.rowSamples();
        this.averageLengths = profiler.columns().stream()
                .mapToDouble(ColumnProfiler::averageLength)
                .toArray();
        this.leastWhole = profiler.columns().stream()
                .mapToLong(ColumnProfiler::leastWhole)
                .toArray();
        this.greatestWhole = profiler.columns().stream()
                .mapToLong(ColumnProfiler::greatestWhole)
                .toArray();
        this.isAscending = new boolean[columns.size()];
        this.isDay = new boolean[columns.size()];
        for (int column = 0; column < columns.size(); column++) {
            isAscending[column] = profiler.columns().get(column).isAscending();
            isDay[column] = profiler.columns().get(column).holdsDays();
        }
        this.rows = rows;
        this.malformed = malformed;
        this.ranges = new WholeRange[columns.size()];
        for (int column = 0; column < columns.size(); column++) {
            if (columns.get(column).guess().type().isInteger()) {
                ranges[column] = range(column);
            }
        }
    }

    private WholeRange range(int column) {
        RowSample sample = rowSamples.get(mostDistinct());
        long[] numbers = Arrays.stream(sample.hashesOf(column))
                .map(Classifier::wholeOf)
                .filter(number -> number >= leastWhole[column] && number <= greatestWhole[column])
                .sorted()
                .toArray();
        return WholeRange.of(numbers, sample.isWhole(), leastWhole[column], greatestWhole[column]);
    }

    int width() {
        return columns.size();
    }

    /** The column with the most different values: rows that are sampled by it are sampled evenly. */
    int mostDistinct() {
        int most = 0;
        for (int column = 1; column < columns.size(); column++) {
            most = columns.get(column).distinct() > columns.get(most).distinct() ? column : most;
        }
        return most;
    }

    String name() {
        return table.name();
    }
}
