package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;

/** Breaks sentences into lines. */
public final class Paragraph {
    private Paragraph() {}

    /** Lines of at most {@code width} columns where words allow it, each starting with {@code indent} blanks. */
    public static List<String> lines(String text, int indent, int width) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.split(" ", -1)) {
            if (line.length() > 0 && indent + CellText.width(line.toString()) + 1 + CellText.width(word) > width) {
                lines.add(" ".repeat(indent) + line);
                line.setLength(0);
            }
            line.append(line.length() > 0 ? " " : "").append(word);
        }
        lines.add(" ".repeat(indent) + line);
        return lines;
    }
}
