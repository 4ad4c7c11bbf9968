package taxiomet.reports.xlsx;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.regex.Pattern;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.values.ValueReader;

/**
 * What a cell of a table becomes in a workbook. A number that is written as numbers are becomes one; one with leading zeros, a sign
 * before it or more digits than a workbook keeps stays text. Dates that a workbook can count become dates. It serves one thread.
 */
final class CellValue {
    /** A workbook reckons with so many digits. */
    private static final int MOST_DIGITS = 15;
    /** No cell can hold more characters than this. */
    static final int LONGEST = 32_767;

    private static final Pattern NUMBER = Pattern.compile("-?(0|[1-9][0-9]*)([.,][0-9]+)?");
    /** A workbook takes 1900 for a leap year: earlier days would be off by one. */
    private static final LocalDate FIRST_DAY = LocalDate.of(1900, 3, 1);

    private static final LocalDate LAST_DAY = LocalDate.of(9999, 12, 31);
    private static final long MICROS_OF_MILLI = 1_000;

    private final Column column;
    private final ValueReader reader;

    CellValue(Column column) {
        this.column = column;
        this.reader = ValueReader.of(column);
    }

    /** A {@link BigDecimal}, {@link LocalDate} or {@link LocalDateTime}, or the text itself; null for null. */
    Object of(String text) {
        if (text == null || column.isPersonal()) {
            return text;
        }
        return switch (column.type().family()) {
            case EXACT_NUMBER, APPROXIMATE_NUMBER -> number(text);
            case MOMENT -> moment(text);
            default -> text;
        };
    }

    private Object number(String text) {
        char point = column.decimalComma() ? ',' : '.';
        char other = column.decimalComma() ? '.' : ',';
        boolean isPlain = text.length() <= MOST_DIGITS + 2
                && text.indexOf(other) < 0
                && NUMBER.matcher(text).matches();
        if (!isPlain) {
            return text;
        }
        BigDecimal number = new BigDecimal(text.replace(point, '.'));
        boolean isNegativeZero = number.signum() == 0 && text.startsWith("-");
        return number.precision() > MOST_DIGITS || isNegativeZero ? text : number;
    }

    private Object moment(String text) {
        if (!text.strip().equals(text) || !reader.accepts(text)) {
            return text;
        }
        long micros = reader.high();
        LocalDateTime moment = LocalDateTime.ofEpochSecond(
                Math.floorDiv(micros, 1_000_000L), (int) Math.floorMod(micros, 1_000_000L) * 1_000, ZoneOffset.UTC);
        LocalDate day = moment.toLocalDate();
        if (day.isBefore(FIRST_DAY) || day.isAfter(LAST_DAY)) {
            return text;
        }
        if (column.type().name() == ColumnType.Name.DATE) {
            return day;
        }
        return Math.floorMod(micros, MICROS_OF_MILLI) == 0 ? moment.truncatedTo(ChronoUnit.MILLIS) : text;
    }

    /** A text as a cell can hold it: what no file of this kind may hold is written out, and a very long one is cut, which it says. */
    static String safe(String text) {
        StringBuilder safe = null;
        for (int i = 0; i < text.length(); ) {
            int point = text.codePointAt(i);
            boolean isHeld = point == '\n'
                    || point == '\t'
                    || (point >= ' ' && point < 0x7F)
                    || (point >= 0xA0 && !isUnfit(point));
            if (!isHeld && safe == null) {
                safe = new StringBuilder(text.substring(0, i));
            }
            if (safe != null) {
                if (isHeld) {
                    safe.appendCodePoint(point);
                } else {
                    safe.append("\\u{").append(Integer.toHexString(point)).append('}');
                }
            }
            i += Character.charCount(point);
        }
        String whole = safe == null ? text : safe.toString();
        if (whole.length() <= LONGEST) {
            return whole;
        }
        String note = " ... (" + text.codePointCount(0, text.length()) + " characters)";
        int end = LONGEST - note.length();
        return whole.substring(0, Character.isHighSurrogate(whole.charAt(end - 1)) ? end - 1 : end) + note;
    }

    /** Halves of characters, marks that turn the line round, and what is no character at all. */
    private static boolean isUnfit(int point) {
        int type = Character.getType(point);
        return type == Character.SURROGATE || type == Character.FORMAT || (point & 0xFFFE) == 0xFFFE;
    }
}
