package taxiomet.reports.markdown;

import taxiomet.reports.words.CellText;

/** Markdown in which no text of the data is markup. */
final class Markdown {
    private static final String MARKUP = "\\`*_[]<>#|&~$";

    private Markdown() {}

    /** A text that stands for itself; what cannot be seen is written out. */
    static String plain(String text) {
        StringBuilder plain = new StringBuilder();
        CellText.escaped(text).codePoints().forEach(c -> {
            if (MARKUP.indexOf(c) >= 0) {
                plain.append('\\');
            }
            plain.appendCodePoint(c);
        });
        return plain.toString();
    }

    /** A line of a table. */
    static String row(String... cells) {
        return "| " + String.join(" | ", cells) + " |";
    }
}
