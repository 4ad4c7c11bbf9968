package taxiomet.reports.text;

import taxiomet.charter.Severity;
import taxiomet.reports.words.CellText;

/** How a piece of text looks on a terminal with colours. */
public enum Style {
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
    public static final String CODE_START = CellText.CODE_START;

    public static final char CODE_END = CellText.CODE_END;

    private final String code;

    Style(String code) {
        this.code = code;
    }

    /** The style of a code as it stands between {@link #CODE_START} and {@link #CODE_END}; plain for one that is none. */
    public static Style ofCode(String code) {
        for (Style style : values()) {
            if (style.code.equals(code)) {
                return style;
            }
        }
        return PLAIN;
    }

    static Style of(Severity severity) {
        return switch (severity) {
            case ERROR -> ERROR;
            case WARNING -> WARNING;
            case NOTE -> NOTE;
        };
    }

    /** The text in this style, where there are colours. */
    public String apply(String text, boolean hasColor) {
        return hasColor && !code.isEmpty() && !text.isEmpty()
                ? CODE_START + code + CODE_END + text + CODE_START + "0" + CODE_END
                : text;
    }
}
