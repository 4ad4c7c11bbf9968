package taxiomet.sources.sheet;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import taxiomet.charter.place.SheetRows.Area;

/**
 * Cells of a sheet that are shown as one: the first of them holds what is shown, and the others nothing.
 *
 * @param firstRow 1 for the first of the sheet
 * @param firstColumn 0 for A
 */
record Merged(long firstRow, int firstColumn, long lastRow, int lastColumn) {
    /** More in one sheet are not kept. */
    static final int MOST = 10_000;

    private static final int NAMED = 3;
    private static final int LETTERS = 26;
    private static final Pattern RANGE = Pattern.compile("([A-Z]{1,3})([0-9]{1,7}):([A-Z]{1,3})([0-9]{1,7})");

    /** Those of a range such as {@code A2:A5}; empty where the text is none. */
    static Optional<Merged> of(String range) {
        Matcher parts = RANGE.matcher(range.strip().toUpperCase(Locale.ROOT));
        return parts.matches()
                ? Optional.of(new Merged(
                        Long.parseLong(parts.group(2)),
                        column(parts.group(1)),
                        Long.parseLong(parts.group(4)),
                        column(parts.group(3))))
                : Optional.empty();
    }

    private static int column(String letters) {
        int column = 0;
        for (int i = 0; i < letters.length(); i++) {
            column = column * LETTERS + letters.charAt(i) - 'A' + 1;
        }
        return column - 1;
    }

    private static String letters(int column) {
        String last = String.valueOf((char) ('A' + column % LETTERS));
        return column < LETTERS ? last : letters(column / LETTERS - 1) + last;
    }

    private boolean touches(Area area) {
        return lastRow >= area.firstRow()
                && firstRow <= area.lastRow()
                && lastColumn >= area.firstColumn()
                && firstColumn <= area.lastColumn();
    }

    private String words() {
        return letters(firstColumn) + firstRow + ":" + letters(lastColumn) + lastRow;
    }

    /** What is to be said of those that touch an area, as a clause; empty where none does. */
    static Optional<String> remark(List<Merged> all, Area area) {
        List<Merged> touching = all.stream()
                .filter(each -> each.touches(area))
                .sorted(Comparator.comparingLong(Merged::firstRow).thenComparingInt(Merged::firstColumn))
                .toList();
        if (touching.isEmpty()) {
            return Optional.empty();
        }
        String named = touching.stream().limit(NAMED).map(Merged::words).collect(Collectors.joining(", "));
        int others = touching.size() - NAMED;
        return Optional.of("cells are merged in " + named + (others > 0 ? " and " + others + " other places" : "")
                + ": the first of them holds the value, the others are null");
    }
}
