package taxiomet.reports.text;

import taxiomet.charter.Severity;

/** How a piece of text looks on a terminal with colours. */
enum Style {
    PLAIN(""),
    STRONG("1"),
    FAINT("2"),
    GOOD("32"),
    ERROR("1;31"),
    WARNING("33"),
    NOTE("36"),
    /** The value at fault. */
    VALUE("35");

    /** Begins the code of a colour; nothing else does that is printed. */
    static final char ESCAPE = '\u001B';

    private final String code;

    Style(String code) {
        this.code = code;
    }

    static Style of(Severity severity) {
        return switch (severity) {
            case ERROR -> ERROR;
            case WARNING -> WARNING;
            case NOTE -> NOTE;
        };
    }

    String apply(String text, boolean hasColor) {
        return hasColor && !code.isEmpty() && !text.isEmpty() ? "\u001B[" + code + "m" + text + "\u001B[0m" : text;
    }
}
