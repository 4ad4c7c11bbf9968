package taxiomet.reports.csv;

import java.util.regex.Pattern;

/** Keeps a spreadsheet from taking a cell for a formula. */
final class SafeCell {
    /** What spreadsheets reckon with, and the wide forms that some of them take for the same. */
    private static final String STARTS_OF_FORMULAS = "=+-@\uFF1D\uFF0B\uFF0D\uFF20";

    private static final Pattern NUMBER = Pattern.compile("[+-]?[0-9]+([.,][0-9]+)?([eE][+-]?[0-9]+)?");

    private SafeCell() {}

    /** The text, with an apostrophe before it where a spreadsheet would reckon with it; plain numbers stay as they are. */
    static String of(String text) {
        if (text == null || text.isEmpty()) {
            return text;
        }
        int start = 0;
        while (start < text.length() && isPassedOver(text.charAt(start))) {
            start++;
        }
        boolean startsOddly = "\t\r\n".indexOf(text.charAt(0)) >= 0;
        boolean isFormula = start < text.length() && STARTS_OF_FORMULAS.indexOf(text.charAt(start)) >= 0;
        boolean isNumber = isFormula && NUMBER.matcher(text.substring(start)).matches();
        return startsOddly || (isFormula && !isNumber) ? "'" + text : text;
    }

    /** Whether a program may pass over a sign at the beginning of a cell: blanks, and what cannot be seen. */
    private static boolean isPassedOver(char c) {
        int type = Character.getType(c);
        return Character.isWhitespace(c)
                || Character.isSpaceChar(c)
                || type == Character.FORMAT
                || type == Character.CONTROL
                || c == '\uFEFF'
                || c == '\u200B';
    }
}
