package taxiomet.reports.text;

import java.util.function.Consumer;

/** The lines of a terminal. */
public final class LinePaper implements Paper {
    private final int width;
    private final boolean hasColor;
    private final Consumer<String> out;

    /**
     * @param width of a line, in columns of a terminal
     * @param out takes one line at a time, without its end
     */
    public LinePaper(int width, boolean hasColor, Consumer<String> out) {
        this.width = width;
        this.hasColor = hasColor;
        this.out = out;
    }

    /** Lines that are never broken, without colours. */
    public static LinePaper unbroken(Consumer<String> out) {
        return new LinePaper(1 << 20, false, out);
    }

    @Override
    public boolean hasColor() {
        return hasColor;
    }

    @Override
    public void gap() {
        out.accept("");
    }

    @Override
    public void answer(String about, String answer, Style style) {
        Paragraph.answer(about, answer, style, hasColor, width).forEach(out);
    }

    @Override
    public void paragraph(String text, int indent, int hanging) {
        Paragraph.lines(text, indent, hanging, width).forEach(out);
    }

    @Override
    public void faint(String text, int indent, int hanging) {
        Paragraph.lines(text, indent, hanging, width).forEach(line -> out.accept(Style.FAINT.apply(line, hasColor)));
    }

    @Override
    public void grid(Grid grid, int indent) {
        grid.lines(indent, width, hasColor).forEach(out);
    }
}
