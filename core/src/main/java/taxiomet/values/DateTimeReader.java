package taxiomet.values;

import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/**
 * date, time and timestamps as ISO 8601 and SQL write them: {@code 2023-02-05} or {@code 20230205}, T or a blank,
 * {@code 09:30}, {@code 09:30:15}, {@code 09:30:15.25}, and for a timestamp with time zone Z or an offset ({@code +01},
 * {@code +0130}, {@code +01:30}; without one it is UTC).
 */
final class DateTimeReader extends MomentReader {
    static final long MICROS_PER_SECOND = 1_000_000L;
    static final long MICROS_PER_DAY = 86_400L * MICROS_PER_SECOND;
    private static final int MAX_OFFSET_MINUTES = 14 * 60;
    private static final int COMPACT_DATE = 8;
    /** {@code 0000-00-} and {@code 00:00:00} as words, and where their marks stand. */
    private static final long YEAR_AND_MONTH = 0x2D30302D30303030L;

    private static final long HYPHENS = 0xFF0000FF00000000L;
    private static final long TIME_OF_DAY = 0x30303A30303A3030L;
    private static final long COLONS = 0x0000FF0000FF0000L;
    private static final int MARCH_FIRST_OF_YEAR_0 = 719_468;

    private static final int MONTH_BITS = 10;
    private static final int USUAL_DATE = 10;

    /** Months met before, as the words that spell them, each where its hash says; the same few come again and again. */
    private final long[] months = new long[1 << MONTH_BITS];

    private final long[] firstDays = new long[1 << MONTH_BITS];
    private final int[] daysOfMonth = new int[1 << MONTH_BITS];

    // Where the parse of the current cell stands.
    private byte[] bytes;
    private int at;
    private int end;
    private boolean odd;

    DateTimeReader(ColumnType type) {
        super(type);
    }

    @Override
    int readAll(CellColumn cells, TypedColumn into) {
        if (type == Name.DATE) {
            return readDates(cells, into);
        }
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        byte[] states = into.states;
        long[] highs = into.highs;
        long[] lows = into.lows;
        boolean keeps = into.keepsValues();
        int seen = 0;
        int usual = type == Name.TIME ? 8 : type == Name.TIMESTAMP ? 19 : -1;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            if (length < 0) {
                states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
                continue;
            }
            int start = (int) (spans[row] >>> 32);
            if (length == usual && readUsual(bytes, start)) {
                if (keeps) {
                    highs[row] = high;
                    lows[row] = 0;
                }
                continue;
            }
            seen |= other(into.readOne(this, bytes, row, start, length));
        }
        return seen;
    }

    private int readDates(CellColumn cells, TypedColumn into) {
        int size = cells.size();
        byte[] bytes = cells.bytes();
        long[] spans = cells.spans(size);
        long[] known = months;
        int[] days = daysOfMonth;
        boolean keeps = into.keepsValues();
        int seen = 0;
        for (int row = 0; row < size; row++) {
            int length = (int) spans[row];
            int start = (int) (spans[row] >>> 32);
            if (length == USUAL_DATE) {
                long word = Words.at(bytes, start);
                int place = placeOf(word);
                if (known[place] == word || learnMonth(word, place)) {
                    long end = Words.at(bytes, start + 2);
                    int tens = (byte) (end >>> 48) - '0';
                    int ones = (byte) (end >>> 56) - '0';
                    int day = tens * 10 + ones;
                    if ((tens | ones | 9 - ones | day - 1 | days[place] - day) >= 0) {
                        if (keeps) {
                            into.highs[row] = (firstDays[place] + day - 1) * MICROS_PER_DAY;
                            into.lows[row] = 0;
                        }
                        continue;
                    }
                }
            }
            if (length < 0) {
                into.states[row] = TypedColumn.NULL;
                seen |= 1 << TypedColumn.NULL;
            } else {
                seen |= other(into.readOne(this, bytes, row, start, length));
            }
        }
        return seen;
    }

    private static int placeOf(long month) {
        return (int) (month * 0x9E3779B97F4A7C15L >>> 64 - MONTH_BITS);
    }

    /** A time as 09:30:15, a timestamp as 2023-02-05 09:30:15 or with T between; anything else is left to {@link #read}. */
    private boolean readUsual(byte[] cell, int start) {
        if (type == Name.TIME) {
            return readUsualTime(cell, start, 0);
        }
        long word = Words.at(cell, start);
        int month = placeOf(word);
        int tens = cell[start + 8] - '0';
        int ones = cell[start + 9] - '0';
        int day = tens * 10 + ones;
        if ((months[month] != word && !learnMonth(word, month))
                || (tens | ones | 9 - ones | day - 1 | daysOfMonth[month] - day) < 0) {
            return false;
        }
        byte between = cell[start + 10];
        long midnight = (firstDays[month] + day - 1) * MICROS_PER_DAY;
        return (between == ' ' || between == 'T') && readUsualTime(cell, start + 11, midnight);
    }

    /** Takes note of a month such as {@code 2023-02-}; false when it is none. */
    private boolean learnMonth(long word, int place) {
        long digits = word ^ YEAR_AND_MONTH;
        if ((digits & HYPHENS) != 0 || !Words.areDigits(digits)) {
            return false;
        }
        int year = (int) ((digits & 0xF) * 1_000
                + (digits >>> 8 & 0xF) * 100
                + (digits >>> 16 & 0xF) * 10
                + (digits >>> 24 & 0xF));
        int month = (int) ((digits >>> 40 & 0xF) * 10 + (digits >>> 48 & 0xF));
        if (year < 1 || month < 1 || month > 12) {
            return false;
        }
        months[place] = word;
        firstDays[place] = epochDay(year, month, 1);
        daysOfMonth[place] = daysIn(year, month);
        return true;
    }

    private boolean readUsualTime(byte[] cell, int start, long midnight) {
        long digits = Words.at(cell, start) ^ TIME_OF_DAY;
        if ((digits & COLONS) != 0 || !Words.areDigits(digits)) {
            return false;
        }
        int hour = (int) ((digits & 0xF) * 10 + (digits >>> 8 & 0xF));
        int minute = (int) ((digits >>> 24 & 0xF) * 10 + (digits >>> 32 & 0xF));
        int second = (int) ((digits >>> 48 & 0xF) * 10 + (digits >>> 56 & 0xF));
        high = midnight + ((hour * 60L + minute) * 60 + second) * MICROS_PER_SECOND;
        return hour < 24 && minute < 60 && second < 60;
    }

    /** Days since 1970-01-01: years are counted from March, so that the leap day is the last of them. */
    private static long epochDay(int year, int month, int day) {
        int years = month > 2 ? year : year - 1;
        int months = month > 2 ? month - 3 : month + 9;
        long leapDays = years / 4 - years / 100 + years / 400;
        return years * 365L + leapDays + (153 * months + 2) / 5 + day - 1 - MARCH_FIRST_OF_YEAR_0;
    }

    @Override
    byte read(byte[] cell, int start, int length) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        bytes = cell;
        at = skipSpaces(cell, start, start + length);
        end = dropSpaces(cell, at, start + length);
        odd = end - at != length;
        high = 0;
        low = 0;
        refusal = null;
        boolean understood = switch (type) {
            case DATE -> readDate(Refusal.NOT_A_DATE) && dateEnds();
            case TIME -> readTime(Refusal.NOT_A_TIME) && ends(Refusal.NOT_A_TIME);
            default -> readTimestamp();
        };
        return understood ? goodUnless(odd) : TypedColumn.BAD;
    }

    private boolean dateEnds() {
        if (at == end) {
            return true;
        }
        boolean time = (bytes[at] == ' ' || bytes[at] == 'T') && end - at > 2 && isDigit(bytes[at + 1]);
        return fail(time ? Refusal.HAS_A_TIME : Refusal.NOT_A_DATE);
    }

    private boolean ends(Refusal otherwise) {
        return at == end || fail(otherwise);
    }

    private boolean readTimestamp() {
        if (!readDate(Refusal.NOT_A_TIMESTAMP)) {
            return false;
        }
        boolean isZoned = type == Name.TIMESTAMP_WITH_TIME_ZONE;
        if (at == end) {
            // A date alone is midnight: sound, and worth a note.
            odd = true;
            return true;
        }
        if (bytes[at] != ' ' && bytes[at] != 'T') {
            return fail(Refusal.NOT_A_TIMESTAMP);
        }
        at++;
        if (!readTime(Refusal.NOT_A_TIMESTAMP)) {
            return false;
        }
        if (at == end) {
            odd |= isZoned;
            return true;
        }
        if (!isZoned) {
            return fail(looksLikeZone() ? Refusal.HAS_A_ZONE : Refusal.NOT_A_TIMESTAMP);
        }
        return readZone() && ends(Refusal.NOT_A_TIMESTAMP);
    }

    private boolean looksLikeZone() {
        int from = bytes[at] == ' ' ? at + 1 : at;
        return from < end && (bytes[from] == 'Z' || bytes[from] == 'z' || bytes[from] == '+' || bytes[from] == '-');
    }

    private boolean readDate(Refusal otherwise) {
        int digits = 0;
        while (at + digits < end && isDigit(bytes[at + digits])) {
            digits++;
        }
        int year;
        int month;
        int day;
        if (digits == COMPACT_DATE) {
            odd = true;
            year = number(at, 4);
            month = number(at + 4, 2);
            day = number(at + 6, 2);
            at += COMPACT_DATE;
        } else if (digits == 4
                && end - at >= 10
                && bytes[at + 4] == '-'
                && bytes[at + 7] == '-'
                && number(at + 5, 2) >= 0
                && number(at + 8, 2) >= 0) {
            year = number(at, 4);
            month = number(at + 5, 2);
            day = number(at + 8, 2);
            at += 10;
        } else {
            return fail(otherwise);
        }
        if (year < 1 || month < 1 || month > 12 || day < 1 || day > daysIn(year, month)) {
            return fail(Refusal.NO_SUCH_DAY);
        }
        high = epochDay(year, month, day) * MICROS_PER_DAY;
        return true;
    }

    private static int daysIn(int year, int month) {
        return switch (month) {
            case 2 -> year % 4 == 0 && (year % 100 != 0 || year % 400 == 0) ? 29 : 28;
            case 4, 6, 9, 11 -> 30;
            default -> 31;
        };
    }

    private boolean readTime(Refusal otherwise) {
        int hour = end - at >= 5 && bytes[at + 2] == ':' ? number(at, 2) : -1;
        int minute = hour >= 0 ? number(at + 3, 2) : -1;
        if (minute < 0) {
            return fail(otherwise);
        }
        at += 5;
        int second = 0;
        long micros = 0;
        if (at < end && bytes[at] == ':') {
            second = end - at >= 3 ? number(at + 1, 2) : -1;
            if (second < 0) {
                return fail(otherwise);
            }
            at += 3;
            if (at < end && bytes[at] == '.') {
                int first = ++at;
                while (at < end && isDigit(bytes[at])) {
                    at++;
                }
                if (at == first) {
                    return fail(otherwise);
                }
                if (at - first > secondDigits) {
                    return fail(Refusal.TOO_PRECISE);
                }
                for (int place = 0; place < 6; place++) {
                    micros = micros * 10 + (first + place < at ? bytes[first + place] - '0' : 0);
                }
            }
        }
        if (hour > 23 || minute > 59 || second > 59) {
            return fail(Refusal.NO_SUCH_TIME);
        }
        high += ((hour * 60L + minute) * 60 + second) * MICROS_PER_SECOND + micros;
        return true;
    }

    private boolean readZone() {
        if (bytes[at] == ' ') {
            at++;
            odd = true;
        }
        byte sign = at < end ? bytes[at] : 0;
        if (sign == 'Z' || sign == 'z') {
            at++;
            return true;
        }
        if (sign != '+' && sign != '-') {
            return fail(Refusal.NOT_A_TIMESTAMP);
        }
        at++;
        int hours = end - at >= 2 ? number(at, 2) : -1;
        at += 2;
        int minutes = 0;
        if (hours >= 0 && at < end) {
            at += bytes[at] == ':' ? 1 : 0;
            minutes = end - at >= 2 ? number(at, 2) : -1;
            at += 2;
        }
        if (hours < 0 || minutes < 0) {
            return fail(Refusal.NOT_A_TIMESTAMP);
        }
        int offset = hours * 60 + minutes;
        if (minutes > 59 || offset > MAX_OFFSET_MINUTES) {
            return fail(Refusal.NO_SUCH_TIME);
        }
        long micros = offset * 60L * MICROS_PER_SECOND;
        high += sign == '+' ? -micros : micros;
        return true;
    }

    /** The digits as a number; -1 when one of them is none. */
    private int number(int from, int digits) {
        int value = 0;
        for (int i = from; i < from + digits; i++) {
            if (!isDigit(bytes[i])) {
                return -1;
            }
            value = value * 10 + (bytes[i] - '0');
        }
        return value;
    }

    private boolean fail(Refusal why) {
        refusal = why;
        return false;
    }
}
