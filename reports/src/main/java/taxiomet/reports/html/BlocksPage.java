package taxiomet.reports.html;

import java.util.List;

/**
 * What a page shows that has the words of a text: what it is about and the answer, some lines, then its parts.
 *
 * @param css how the answer looks
 * @param figures lines that stand with the answer
 */
public record BlocksPage(String about, String answer, String css, List<List<Span>> figures, List<Block> blocks) {
    /** A piece of text and how it looks. */
    public record Span(String text, String css) {}

    /**
     * A part: a heading, a sentence, or a table.
     *
     * @param kind heading, sentence or table
     * @param css how far it is moved in
     * @param spans of a heading or sentence
     * @param heads of a table; none where its columns speak for themselves
     * @param rows of a table
     */
    public record Block(String kind, String css, List<Span> spans, List<Head> heads, List<List<Cell>> rows) {}

    /** The head of a column. */
    public record Head(String text, String css) {}

    /**
     * A cell.
     *
     * @param lines what stands in it, line by line
     * @param width of a bar beside its number, as a part of 100; empty for none
     */
    public record Cell(List<List<Span>> lines, String css, String width) {}
}
