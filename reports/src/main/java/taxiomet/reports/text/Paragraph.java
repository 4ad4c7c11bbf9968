package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import taxiomet.reports.words.CellText;

/** Breaks sentences into lines. */
public final class Paragraph {
    private Paragraph() {}

    /** Lines of at most {@code width} columns, each starting with {@code indent} blanks; a word that is longer goes on in the next line. */
    public static List<String> lines(String text, int indent, int width) {
        return lines(text, indent, indent, width);
    }

    /** How far the second and later lines of a headline are moved in. */
    static final int HANGING = 4;

    /** The first line of a result: what it is about, and the answer. */
    static List<String> answer(String about, String answer, Style style, boolean hasColor, int width) {
        String line = Style.STRONG.apply(CellText.escaped(about), hasColor) + ": " + style.apply(answer, hasColor);
        return lines(line, 0, HANGING, width);
    }

    /** The same with another indent from the second line on. */
    public static List<String> lines(String text, int indent, int hanging, int width) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        int taken = 0;
        boolean isEmpty = true;
        for (String word : text.split(" ", -1)) {
            int room = width - (lines.isEmpty() ? indent : hanging);
            int wide = CellText.width(word);
            if (!isEmpty && taken + 1 + wide > room) {
                lines.add(" ".repeat(lines.isEmpty() ? indent : hanging) + line);
                line.setLength(0);
                taken = 0;
                isEmpty = true;
                room = width - hanging;
            }
            String rest = word;
            while (isEmpty && CellText.width(rest) > Math.max(1, room)) {
                String start = CellText.start(rest, Math.max(1, room));
                lines.add(" ".repeat(lines.isEmpty() ? indent : hanging) + start);
                rest = rest.substring(start.length());
                room = width - hanging;
            }
            line.append(isEmpty ? "" : " ").append(rest);
            taken += (isEmpty ? 0 : 1) + CellText.width(rest);
            isEmpty = false;
        }
        lines.add(" ".repeat(lines.isEmpty() ? indent : hanging) + line);
        return lines;
    }
}
