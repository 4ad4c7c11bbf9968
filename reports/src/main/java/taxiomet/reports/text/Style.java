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

    /** What stands before and behind the numbers of a colour. */
    static final String CODE_START = "\u001B[";

    static final char CODE_END = 'm';

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
        return hasColor && !code.isEmpty() && !text.isEmpty()
                ? CODE_START + code + CODE_END + text + CODE_START + "0" + CODE_END
                : text;
    }
}
