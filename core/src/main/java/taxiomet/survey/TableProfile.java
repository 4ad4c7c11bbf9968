package taxiomet.survey;

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
    final boolean[] isAscending;
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
        for (int column = 0; column < columns.size(); column++) {
            isAscending[column] = profiler.columns().get(column).isAscending();
        }
        this.rows = rows;
        this.malformed = malformed;
    }

    int width() {
        return columns.size();
    }

    String name() {
        return table.name();
    }
}
