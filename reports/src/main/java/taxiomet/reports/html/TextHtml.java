package taxiomet.reports.html;

import java.nio.file.Path;
import java.util.Map;
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

    private static void write(ResultText.Maker result, String made, String css, Path file) {
        HtmlPaper paper = new HtmlPaper();
        result.of(paper).write();
        Page.write("blocks.jte", Map.of("page", paper.page(), "shell", Shell.of("", made), "css", css), file);
    }
}
