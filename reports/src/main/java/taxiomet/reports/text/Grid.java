package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import taxiomet.reports.words.CellText;

/**
 * Rows of cells in columns that line up, without lines between them. Nothing is cut: where there is no room, texts go on in the next line,
 * and where columns cannot stand side by side, the cells of a row stand under one another, each behind its heading.
 */
public final class Grid {
    /** In a cell: what follows begins a line of its own. */
    public static final char NEXT_LINE = '\n';

    private static final int GAP = 2;
    private static final int LEAST_TEXT = 14;
    private static final int LEAST_KEPT = 40;
    private static final int LEAST_LAST = 24;
    private static final int STACKED_INDENT = 4;

    private final List<Column> columns = new ArrayList<>();
    private final List<List<Cell>> rows = new ArrayList<>();

    /** How a column gives way where lines are too long. */
    public enum Kind {
        /** Aligned to the right, and never made narrower. */
        NUMBER,
        TEXT,
        /** Keys and values at fault: broken only where they are long. */
        KEPT
    }

    public record Column(String head, Kind kind) {
        public boolean isNumber() {
            return kind == Kind.NUMBER;
        }
    }

    public record Cell(String text, Style style) {
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

    /** One with the same columns, and no rows. */
    Grid empty() {
        Grid other = new Grid();
        other.columns.addAll(columns);
        return other;
    }

    void addColumn(String head, Kind kind) {
        columns.add(new Column(head, kind));
    }

    void addRow(List<Cell> cells) {
        rows.add(List.copyOf(cells));
    }

    /** Its columns. */
    public List<Column> columns() {
        return List.copyOf(columns);
    }

    /** Its rows, each with a cell for each column. */
    public List<List<Cell>> rows() {
        return List.copyOf(rows);
    }

    /** The lines, each starting with {@code indent} blanks and at most {@code width} wide where words and keys allow it. */
    List<String> lines(int indent, int width, boolean hasColor) {
        int room = width - indent;
        int[] widths = widths(columns.size(), room);
        boolean hasRemarks = columns.get(columns.size() - 1).head().isEmpty()
                && columns.stream().anyMatch(column -> !column.head().isEmpty());
        boolean isBelow = sum(widths) > room && hasRemarks;
        if (isBelow) {
            widths = widths(columns.size() - 1, room);
        }
        if (sum(widths) > room) {
            return stacked(indent, width, hasColor);
        }
        int[] fitting = widths;
        List<String> lines = new ArrayList<>();
        List<Cell> heads = columns.stream()
                .map(column -> new Cell(column.head(), Style.FAINT))
                .toList();
        if (heads.stream().anyMatch(head -> !head.text().isEmpty())) {
            addLines(heads, fitting, indent, hasColor, lines);
        }
        for (List<Cell> row : rows) {
            addLines(row, fitting, indent, hasColor, lines);
            Cell remark = row.get(columns.size() - 1);
            if (isBelow && !remark.text().isEmpty()) {
                int below = indent + widthOfNumbers(fitting);
                broken(remark.text(), width - below)
                        .forEach(part ->
                                lines.add(" ".repeat(below) + remark.style().apply(part, hasColor)));
            }
        }
        return lines;
    }

    /** What the numbers take that stand before the first text. */
    private int widthOfNumbers(int[] widths) {
        int taken = 0;
        for (int i = 0; i < widths.length && columns.get(i).isNumber(); i++) {
            taken += widths[i] + GAP;
        }
        return taken;
    }

    private static int sum(int[] widths) {
        return Arrays.stream(widths).sum() + GAP * (widths.length - 1);
    }

    private static int widthOf(String text) {
        int widest = 0;
        for (String line : text.split(String.valueOf(NEXT_LINE), -1)) {
            widest = Math.max(widest, CellText.width(line));
        }
        return widest;
    }

    /** Of the first columns: as wide as the texts where there is room for that; otherwise the widest give way first. */
    private int[] widths(int count, int room) {
        int[] widths = new int[count];
        int[] least = new int[count];
        for (int i = 0; i < widths.length; i++) {
            widths[i] = widthOf(columns.get(i).head());
            for (List<Cell> row : rows) {
                widths[i] = Math.max(widths[i], widthOf(row.get(i).text()));
            }
            least[i] = Math.min(widths[i], leastWidth(i));
        }
        int total = sum(widths);
        while (total > room) {
            int widest = -1;
            for (int i = 0; i < widths.length; i++) {
                if (widths[i] > least[i] && (widest < 0 || widths[i] > widths[widest])) {
                    widest = i;
                }
            }
            if (widest < 0) {
                return widths;
            }
            widths[widest]--;
            total--;
        }
        return widths;
    }

    private int leastWidth(int column) {
        return switch (columns.get(column).kind()) {
            case NUMBER -> Integer.MAX_VALUE;
            case KEPT -> LEAST_KEPT;
            case TEXT ->
                column == columns.size() - 1
                        ? LEAST_LAST
                        : Math.max(LEAST_TEXT, widthOf(columns.get(column).head()));
        };
    }

    private void addLines(List<Cell> cells, int[] widths, int indent, boolean hasColor, List<String> lines) {
        List<List<String>> parts = new ArrayList<>();
        int height = 0;
        for (int i = 0; i < widths.length; i++) {
            parts.add(broken(cells.get(i).text(), widths[i]));
            height = Math.max(height, parts.get(i).size());
        }
        for (int line = 0; line < height; line++) {
            List<Cell> texts = new ArrayList<>();
            for (int i = 0; i < widths.length; i++) {
                List<String> part = parts.get(i);
                texts.add(new Cell(
                        line < part.size() ? part.get(line) : "", cells.get(i).style()));
            }
            lines.add(line(texts, widths, indent, hasColor));
        }
    }

    private static List<String> broken(String text, int width) {
        List<String> lines = new ArrayList<>();
        for (String line : text.split(String.valueOf(NEXT_LINE), -1)) {
            lines.addAll(Paragraph.lines(line, 0, Math.max(1, width)));
        }
        return lines;
    }

    private String line(List<Cell> cells, int[] widths, int indent, boolean hasColor) {
        StringBuilder line = new StringBuilder(" ".repeat(indent));
        StringBuilder gap = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            String text = cells.get(i).text();
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

    /** The cells of each row under one another; numbers in one line before the others. */
    private List<String> stacked(int indent, int width, boolean hasColor) {
        List<String> lines = new ArrayList<>();
        int inner = indent + STACKED_INDENT;
        for (List<Cell> row : rows) {
            List<String> numbers = new ArrayList<>();
            for (int i = 0; i < columns.size() && columns.get(i).isNumber(); i++) {
                if (!row.get(i).text().isEmpty()) {
                    numbers.add(columns.get(i).head() + " " + row.get(i).text());
                }
            }
            if (!numbers.isEmpty()) {
                Paragraph.lines(String.join(", ", numbers), indent, width)
                        .forEach(line ->
                                lines.add(" ".repeat(indent) + Style.FAINT.apply(line.substring(indent), hasColor)));
            }
            boolean isFirst = numbers.isEmpty();
            int leading = (int) columns.stream().takeWhile(Column::isNumber).count();
            for (int i = leading; i < columns.size(); i++) {
                Cell cell = row.get(i);
                if (cell.text().isEmpty()) {
                    continue;
                }
                String head = columns.get(i).head();
                int at = isFirst ? indent : inner;
                isFirst = false;
                int left = head.isEmpty() ? at : at + CellText.width(head) + 1;
                boolean isBeside = width - left >= LEAST_TEXT;
                List<String> parts = broken(cell.text(), width - (isBeside ? left : at));
                for (int line = 0; line < parts.size(); line++) {
                    String before = head.isEmpty() || !isBeside || line > 0
                            ? " ".repeat(isBeside ? left : at)
                            : " ".repeat(at) + Style.FAINT.apply(head, hasColor) + " ";
                    if (line == 0 && !isBeside && !head.isEmpty()) {
                        lines.add(" ".repeat(at) + Style.FAINT.apply(head, hasColor));
                    }
                    lines.add(before + cell.style().apply(parts.get(line), hasColor));
                }
            }
        }
        return lines;
    }
}
