package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;

/** Rows of cells in columns that line up, without lines between them. */
final class Grid {
    private static final int GAP = 2;
    private static final int LEAST_WIDTH = 8;
    private static final int LEAST_KEPT_WIDTH = 36;
    /** How narrow the last column may become, whose text goes on in the next line: at first, and when room is short. */
    private static final int[] LEAST_LAST_WIDTHS = {24, 14, 14};

    private final List<Column> columns = new ArrayList<>();
    private final List<List<Cell>> rows = new ArrayList<>();

    /** How a column gives way where lines are too long. */
    enum Kind {
        /** Aligned to the right, and never made narrower. */
        NUMBER,
        TEXT,
        /** Made narrower than most values are only when nothing else can be. */
        KEPT
    }

    record Column(String head, Kind kind) {
        boolean isNumber() {
            return kind == Kind.NUMBER;
        }
    }

    record Cell(String text, Style style) {
        static Cell of(String text) {
            return new Cell(text, Style.PLAIN);
        }
    }

    /** A grid of texts whose columns speak for themselves. */
    static Grid withoutHeads(int columns) {
        Grid grid = new Grid();
        for (int i = 0; i < columns; i++) {
            grid.addColumn("", Kind.TEXT);
        }
        return grid;
    }

    void addColumn(String head, Kind kind) {
        columns.add(new Column(head, kind));
    }

    void addRow(List<Cell> cells) {
        rows.add(List.copyOf(cells));
    }

    /**
     * The lines, each starting with {@code indent} blanks and at most {@code width} wide where that can be. What does not fit
     * into a column is cut, but for the last column, which goes on in the next line.
     */
    List<String> lines(int indent, int width, boolean hasColor) {
        int[] widths = widths(width - indent);
        List<String> lines = new ArrayList<>();
        List<Cell> heads = columns.stream()
                .map(column -> new Cell(column.head(), Style.FAINT))
                .toList();
        if (heads.stream().anyMatch(head -> !head.text().isEmpty())) {
            lines.add(line(heads, widths, indent, hasColor));
        }
        int last = columns.size() - 1;
        for (List<Cell> row : rows) {
            Cell whole = row.get(last);
            int room = Math.max(widths[last], LEAST_WIDTH);
            List<String> parts = Paragraph.lines(whole.text(), 0, room);
            for (int i = 0; i < parts.size(); i++) {
                List<Cell> cells = new ArrayList<>();
                for (int c = 0; c < last; c++) {
                    cells.add(i == 0 ? row.get(c) : Cell.of(""));
                }
                cells.add(new Cell(parts.get(i), whole.style()));
                lines.add(line(cells, widths, indent, hasColor));
            }
        }
        return lines;
    }

    private int[] widths(int room) {
        int[] widths = new int[columns.size()];
        int total = GAP * (columns.size() - 1);
        for (int i = 0; i < widths.length; i++) {
            widths[i] = CellText.width(columns.get(i).head());
            for (List<Cell> row : rows) {
                widths[i] = Math.max(widths[i], CellText.width(row.get(i).text()));
            }
            total += widths[i];
        }
        for (int round = 0; round < LEAST_LAST_WIDTHS.length; round++) {
            total = narrowed(widths, total, room, round);
        }
        return widths;
    }

    /** Takes one character after the other from the widest column that can give one. */
    private int narrowed(int[] widths, int from, int room, int round) {
        int total = from;
        while (total > room) {
            int widest = -1;
            for (int i = 0; i < widths.length; i++) {
                if (widths[i] > leastWidth(i, round) && (widest < 0 || widths[i] > widths[widest])) {
                    widest = i;
                }
            }
            if (widest < 0) {
                return total;
            }
            widths[widest]--;
            total--;
        }
        return total;
    }

    private int leastWidth(int column, int round) {
        boolean isLastRound = round == LEAST_LAST_WIDTHS.length - 1;
        return switch (columns.get(column).kind()) {
            case NUMBER -> Integer.MAX_VALUE;
            case KEPT -> isLastRound ? LEAST_WIDTH : LEAST_KEPT_WIDTH;
            case TEXT -> column == columns.size() - 1 ? LEAST_LAST_WIDTHS[round] : LEAST_WIDTH;
        };
    }

    private String line(List<Cell> cells, int[] widths, int indent, boolean hasColor) {
        StringBuilder line = new StringBuilder(" ".repeat(indent));
        StringBuilder gap = new StringBuilder();
        for (int i = 0; i < cells.size(); i++) {
            String text = CellText.cut(cells.get(i).text(), widths[i]);
            String fill = " ".repeat(Math.max(0, widths[i] - CellText.width(text)));
            String styled = cells.get(i).style().apply(text, hasColor);
            if (columns.get(i).isNumber()) {
                gap.append(fill);
                fill = "";
            }
            if (!text.isEmpty()) {
                line.append(gap).append(styled);
                gap.setLength(0);
            }
            gap.append(fill).append(" ".repeat(GAP));
        }
        return line.toString();
    }
}
