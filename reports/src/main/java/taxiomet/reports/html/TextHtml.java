package taxiomet.reports.html;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import taxiomet.finding.ResultComparison;
import taxiomet.reports.text.CompareText;
import taxiomet.reports.text.ResultText;

/** A result as a page, in the words of its text. */
public final class TextHtml {
    private TextHtml() {}

    /**
     * Writes a page.
     *
     * @param result makes the text of the result
     * @param made when the result was made, and of what
     * @throws taxiomet.reports.OutputException when the file cannot be written
     */
    public static void write(ResultText.Maker result, String made, Path file) {
        write(result, made, "", file);
    }

    /** The same, each of whose headings begins a sheet of paper when it is printed. */
    public static void writeSheets(ResultText.Maker result, String made, Path file) {
        write(result, made, "sheets", file);
    }

    /**
     * A comparison of results as a page, with a picture of how it went on.
     *
     * @param steps from each result to the next, at least one
     */
    public static void writeTrend(List<ResultComparison> steps, String made, Path file) {
        write(paper -> new CompareText(steps, paper), made, "", TrendChart.of(steps), file);
    }

    private static void write(ResultText.Maker result, String made, String css, Path file) {
        write(result, made, css, "", file);
    }

    private static void write(ResultText.Maker result, String made, String css, String chart, Path file) {
        HtmlPaper paper = new HtmlPaper();
        result.of(paper).write();
        Page.write(
                "blocks.jte",
                Map.of("page", paper.page(), "shell", Shell.of("", made), "css", css, "chart", chart),
                file);
    }
}
