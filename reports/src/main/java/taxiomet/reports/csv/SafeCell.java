package taxiomet.reports.csv;

import java.util.regex.Pattern;

/** Keeps a spreadsheet from taking a cell for a formula. */
final class SafeCell {
    private static final String STARTS_OF_FORMULAS = "=+-@\t\r";
    private static final Pattern NUMBER = Pattern.compile("[+-]?[0-9]+([.,][0-9]+)?([eE][+-]?[0-9]+)?");

    private SafeCell() {}

    /** The text, with an apostrophe before it where a spreadsheet would reckon with it; plain numbers stay as they are. */
    static String of(String text) {
        if (text == null
                || text.isEmpty()
                || STARTS_OF_FORMULAS.indexOf(text.charAt(0)) < 0
                || NUMBER.matcher(text).matches()) {
            return text;
        }
        return "'" + text;
    }
}
