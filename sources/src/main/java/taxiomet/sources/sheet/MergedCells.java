package taxiomet.sources.sheet;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.charter.place.SheetRows.Area;

/** Cells of a sheet that are shown as one: the first of them holds what is shown, and the others nothing. */
final class MergedCells {
    /** More in one sheet are not kept. */
    static final int MOST = 10_000;

    private static final int NAMED = 3;
    private static final int LETTERS = 26;

    private MergedCells() {}

    private static String letters(int column) {
        String last = String.valueOf((char) ('A' + column % LETTERS));
        return column < LETTERS ? last : letters(column / LETTERS - 1) + last;
    }

    private static boolean touches(Area merged, Area area) {
        return merged.lastRow() >= area.firstRow()
                && merged.firstRow() <= area.lastRow()
                && merged.lastColumn() >= area.firstColumn()
                && merged.firstColumn() <= area.lastColumn();
    }

    private static String words(Area merged) {
        return letters(merged.firstColumn()) + merged.firstRow() + ":" + letters(merged.lastColumn())
                + merged.lastRow();
    }

    /** What is to be said of those that touch an area, as a clause; empty where none does. */
    static Optional<String> remark(List<Area> all, Area area) {
        List<Area> touching = all.stream()
                .filter(each -> touches(each, area))
                .sorted(Comparator.comparingLong(Area::firstRow).thenComparingInt(Area::firstColumn))
                .toList();
        if (touching.isEmpty()) {
            return Optional.empty();
        }
        String named = touching.stream().limit(NAMED).map(MergedCells::words).collect(Collectors.joining(", "));
        int others = touching.size() - NAMED;
        return Optional.of("cells are merged in " + named + (others > 0 ? " and " + others + " other places" : "")
                + ": the first of them holds the value, the others are null");
    }
}
