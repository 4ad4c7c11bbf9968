package taxiomet.reports.html;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import taxiomet.reports.html.BlocksPage.Block;
import taxiomet.reports.html.BlocksPage.Cell;
import taxiomet.reports.html.BlocksPage.Head;
import taxiomet.reports.html.BlocksPage.Span;
import taxiomet.reports.text.Grid;
import taxiomet.reports.text.Paper;
import taxiomet.reports.text.Style;
import taxiomet.reports.words.CellText;

/** Makes the parts of a page of what a text writes: the words are the same. */
final class HtmlPaper implements Paper {
    private static final int COLUMNS_PER_STEP = 2;
    private static final int MOST_STEPS = 16;
    /** Numbers under these heads have a bar beside them. */
    private static final Set<String> BARRED =
            Set.of("rows", "null", "orphans", "deleted", "changed", "inserted", "headings");

    private final List<Block> blocks = new ArrayList<>();
    private final List<List<Span>> figures = new ArrayList<>();
    private String about = "";
    private String answer = "";
    private String css = "";
    private boolean isInHead = true;
    private boolean isBehindGap;

    BlocksPage page() {
        return new BlocksPage(about, answer, css, figures, blocks);
    }

    @Override
    public boolean hasColor() {
        return true;
    }

    @Override
    public void gap() {
        isInHead = false;
        isBehindGap = true;
    }

    private void add(Block block) {
        boolean isSet = isBehindGap && block.kind().equals("sentence");
        blocks.add(
                isSet
                        ? new Block(
                                block.kind(),
                                (block.css() + " gap").strip(),
                                block.spans(),
                                block.heads(),
                                block.rows())
                        : block);
        isBehindGap = false;
    }

    @Override
    public void answer(String what, String said, Style style) {
        about = CellText.escaped(what);
        answer = said;
        css = style == Style.GOOD ? "good" : style == Style.ERROR || style == Style.WARNING ? "bad" : "";
    }

    @Override
    public void paragraph(String text, int indent, int hanging) {
        List<Span> spans = spans(text);
        if (isInHead) {
            figures.add(spans);
            return;
        }
        boolean isHeading =
                indent == 0 && spans.size() == 1 && spans.get(0).css().equals("s-strong");
        add(new Block(isHeading ? "heading" : "sentence", step(indent), spans, List.of(), List.of()));
    }

    @Override
    public void faint(String text, int indent, int hanging) {
        paragraph(Style.FAINT.apply(text, true), indent, hanging);
    }

    @Override
    public void grid(Grid grid, int indent) {
        isInHead = false;
        List<Head> heads = new ArrayList<>();
        boolean hasHeads =
                grid.columns().stream().anyMatch(column -> !column.head().isEmpty());
        List<Double> greatest = new ArrayList<>();
        for (int i = 0; i < grid.columns().size(); i++) {
            Grid.Column column = grid.columns().get(i);
            if (hasHeads) {
                heads.add(new Head(column.head(), column.isNumber() ? "n" : ""));
            }
            int place = i;
            greatest.add(
                    column.isNumber() && BARRED.contains(column.head())
                            ? grid.rows().stream()
                                    .mapToDouble(row -> number(row.get(place).text()))
                                    .max()
                                    .orElse(0)
                            : 0);
        }
        List<List<Cell>> rows = new ArrayList<>();
        for (List<Grid.Cell> row : grid.rows()) {
            List<Cell> cells = new ArrayList<>();
            for (int i = 0; i < row.size(); i++) {
                cells.add(cell(row.get(i), grid.columns().get(i).isNumber(), greatest.get(i)));
            }
            rows.add(cells);
        }
        add(new Block("table", step(indent), List.of(), heads, rows));
    }

    private static Cell cell(Grid.Cell cell, boolean isNumber, double greatest) {
        List<List<Span>> lines = new ArrayList<>();
        for (String line : cell.text().split(String.valueOf(Grid.NEXT_LINE), -1)) {
            List<Span> spans = new ArrayList<>();
            spans(line)
                    .forEach(span -> spans.add(span.css().isEmpty() ? new Span(span.text(), css(cell.style())) : span));
            lines.add(spans);
        }
        double number = greatest > 0 ? number(cell.text()) : 0;
        return new Cell(
                lines,
                isNumber ? "n" : "",
                number > 0 ? String.format(Locale.ROOT, "%.2f", Math.max(1, 100 * number / greatest)) : "");
    }

    /** The number that a cell shows; 0 where it shows none. */
    private static double number(String text) {
        String digits = text.replaceAll("[^0-9.]", "");
        return digits.matches("[0-9]+(\\.[0-9]+)?") ? Double.parseDouble(digits) : 0;
    }

    private static String step(int indent) {
        int steps = Math.min(MOST_STEPS, (indent + COLUMNS_PER_STEP - 1) / COLUMNS_PER_STEP);
        return steps == 0 ? "" : "in" + steps;
    }

    private static String css(Style style) {
        return style == Style.PLAIN ? "" : "s-" + style.name().toLowerCase(Locale.ROOT);
    }

    /** The pieces of a text with codes of styles in it. */
    static List<Span> spans(String text) {
        List<Span> spans = new ArrayList<>();
        Style style = Style.PLAIN;
        int from = 0;
        int at = text.indexOf(Style.CODE_START);
        while (at >= 0) {
            int end = text.indexOf(Style.CODE_END, at);
            add(spans, text.substring(from, at), style);
            style = Style.ofCode(text.substring(at + Style.CODE_START.length(), end));
            from = end + 1;
            at = text.indexOf(Style.CODE_START, from);
        }
        add(spans, text.substring(from), style);
        return spans;
    }

    private static void add(List<Span> spans, String text, Style style) {
        if (!text.isEmpty()) {
            spans.add(new Span(text, css(style)));
        }
    }
}
