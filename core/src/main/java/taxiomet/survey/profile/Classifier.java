package taxiomet.survey.profile;

import com.dynatrace.hash4j.hashing.Hasher64;
import com.dynatrace.hash4j.hashing.Hashing;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.values.TypedColumn;
import taxiomet.values.ValueReader;

/** Tells what a cell looks like, and gives a hash that is the same for the same value however it is spelled. */
public final class Classifier {
    private static final Hasher64 HASHER = Hashing.xxh3_64();
    private static final int LONGEST_SHAPE = 80;
    /** Longer than any moment, and as long as the shortest uuid. */
    private static final int LONGEST_MOMENT = 32;

    /** Tells moments from numbers. */
    private static final long OF_MOMENTS = 7;

    private static final long FIRST = 0x9E3779B97F4A7C15L;
    private static final long SECOND = 0xBF58476D1CE4E5B9L;
    /** The inverse of each, modulo 2 to the 64th. */
    private static final long UNDO_FIRST = 0xF1DE83E19937733DL;

    private static final long UNDO_SECOND = 0x96DE1B173F119089L;

    private final ValueReader whole = reader(Name.BIGINT, null, false);
    private final ValueReader numeric = reader(Name.NUMERIC, null, false);
    private final ValueReader floating = reader(Name.DOUBLE, null, false);
    private final ValueReader comma = reader(Name.NUMERIC, null, true);
    private final ValueReader truth = reader(Name.BOOLEAN, null, false);
    private final ValueReader date = reader(Name.DATE, null, false);
    private final ValueReader points = reader(Name.DATE, "d.M.yyyy", false);
    private final ValueReader daySlashes = reader(Name.DATE, "d/M/yyyy", false);
    private final ValueReader monthSlashes = reader(Name.DATE, "M/d/yyyy", false);
    private final ValueReader timestamp = reader(Name.TIMESTAMP, null, false);
    private final ValueReader zoned = reader(Name.TIMESTAMP_WITH_TIME_ZONE, null, false);
    private final ValueReader time = reader(Name.TIME, null, false);
    private final ValueReader uuid = reader(Name.UUID, null, false);

    private long hash;
    private long high;
    private long low;

    private static ValueReader reader(Name type, String format, boolean decimalComma) {
        Column plain = Column.of("cell", ColumnType.of(type));
        return ValueReader.of(new Column(
                plain.name(),
                plain.type(),
                false,
                Optional.empty(),
                plain.values(),
                Optional.empty(),
                plain.comparison(),
                Optional.ofNullable(format),
                decimalComma,
                Optional.empty(),
                plain.generated(),
                plain.isWordInteger(),
                plain.notesGaps(),
                false,
                plain.severity()));
    }

    /** A hash of the value last classified: equal values of numbers, dates and uuids have one whatever their spelling. */
    long hash() {
        return hash;
    }

    /** The value of a number, date or time last classified, as {@link TypedColumn} has it. */
    long high() {
        return high;
    }

    long low() {
        return low;
    }

    ValueClass classify(byte[] bytes, int start, int length) {
        ValueClass found = shape(bytes, start, length);
        if (found == ValueClass.TEXT || found == ValueClass.TRUTH) {
            hash = HASHER.hashBytesToLong(bytes, start, length);
        } else {
            hash = hashOf(found, high, low);
        }
        return found;
    }

    /** What {@link #hash} is of a value that a reader has read, and that is of a class other than texts. */
    static long hashOf(ValueClass found, long high, long low) {
        return found == ValueClass.WHOLE
                ? mix(high)
                : mix(mix(high) + 31 * low + (found.compareTo(ValueClass.DATE) >= 0 ? OF_MOMENTS : 0));
    }

    /**
     * The same for some rows of a batch.
     *
     * @param rows places of these
     * @param count how many of them there are
     * @param hashes gets the hash of each at its row's place; never 0
     */
    static void hashAll(ValueClass found, long[] highs, long[] lows, int[] rows, int count, long[] hashes) {
        boolean isWhole = found == ValueClass.WHOLE;
        for (int i = 0; i < count; i++) {
            int row = rows[i];
            hashes[row] = notZero(isWhole ? mix(highs[row]) : hashOf(found, highs[row], lows[row]));
        }
    }

    /** 0 is kept for null. */
    static long notZero(long hash) {
        return hash == 0 ? 1 : hash;
    }

    /** The whole number that a hash is of, where it is one of a whole number: those are only mixed, and nothing of them is lost. */
    static long wholeOf(long hash) {
        long mixed = (hash ^ hash >>> 32) * UNDO_SECOND;
        mixed = (mixed ^ mixed >>> 29 ^ mixed >>> 58) * UNDO_FIRST;
        return mixed ^ mixed >>> 32;
    }

    /** The days since 1970 that a hash is of, where it is one of a date. */
    static long dayOf(long hash) {
        return wholeOf(wholeOf(hash) - OF_MOMENTS);
    }

    private static long mix(long value) {
        long mixed = (value ^ value >>> 32) * FIRST;
        mixed = (mixed ^ mixed >>> 29) * SECOND;
        return mixed ^ mixed >>> 32;
    }

    private boolean accepts(ValueReader reader, byte[] bytes, int start, int length) {
        if (!reader.accepts(bytes, start, length)) {
            return false;
        }
        high = reader.high();
        low = reader.low();
        return true;
    }

    private ValueClass shape(byte[] bytes, int start, int length) {
        int from = start;
        int end = start + length;
        while (from < end && bytes[from] == ' ') {
            from++;
        }
        if (from == end || length > LONGEST_SHAPE) {
            return ValueClass.TEXT;
        }
        byte first = bytes[from];
        boolean isDigit = first >= '0' && first <= '9';
        if (isDigit || first == '-' || first == '+' || first == '.' || first == ',') {
            ValueClass number = number(bytes, start, length, from, end);
            return number != null ? number : isDigit ? moment(bytes, start, length, end - from) : ValueClass.TEXT;
        }
        if (end - from >= 32 && accepts(uuid, bytes, start, length)) {
            return ValueClass.UUID;
        }
        if (canBeTruth(first) && truth.accepts(bytes, start, length)) {
            return ValueClass.TRUTH;
        }
        boolean canFloat = ((first | 0x20) == 'n' && (bytes[from + 1] | 0x20) == 'a')
                || ((first | 0x20) == 'i' && (bytes[from + 1] | 0x20) == 'n');
        if (canFloat && end - from >= 3 && floating.accepts(bytes, start, length)) {
            high = floating.high();
            low = 1;
            return ValueClass.FLOATING;
        }
        return ValueClass.TEXT;
    }

    /** Whether a word for true or false may begin so: most texts are told from them by this alone. */
    private static boolean canBeTruth(byte first) {
        int letter = first | 0x20;
        return letter < 'a'
                || letter > 'z'
                || letter == 't'
                || letter == 'f'
                || letter == 'y'
                || letter == 'n'
                || letter == 'o';
    }

    private ValueClass number(byte[] bytes, int start, int length, int from, int end) {
        boolean hasComma = false;
        boolean hasExponent = false;
        for (int i = from; i < end; i++) {
            byte b = bytes[i];
            boolean isPart = (b >= '0' && b <= '9') || b == '.' || b == ' ';
            boolean isSign = b == '-' || b == '+';
            if (isSign && i > from && (bytes[i - 1] | 0x20) != 'e') {
                return null;
            }
            hasComma |= b == ',';
            hasExponent |= (b | 0x20) == 'e';
            if (!isPart && !isSign && b != ',' && (b | 0x20) != 'e') {
                return null;
            }
        }
        if (hasComma) {
            return accepts(comma, bytes, start, length) ? ValueClass.DECIMAL_COMMA : null;
        } else if (hasExponent) {
            boolean isNumber = floating.accepts(bytes, start, length);
            high = floating.high();
            low = 1;
            return isNumber ? ValueClass.FLOATING : null;
        } else if (accepts(whole, bytes, start, length)) {
            return ValueClass.WHOLE;
        }
        return accepts(numeric, bytes, start, length) ? ValueClass.DECIMAL : null;
    }

    /** Whether there is a byte that no date, time or timestamp has. */
    private static boolean hasLetterBut(byte[] bytes, int start, int length) {
        for (int at = start; at < start + length; at++) {
            byte b = bytes[at];
            if ((b < '+' || b > ':') && b != ' ' && b != 'T' && b != 'Z' && b != 't' && b != 'z') {
                return true;
            }
        }
        return false;
    }

    private ValueClass moment(byte[] bytes, int start, int length, int size) {
        if (size < LONGEST_MOMENT && hasLetterBut(bytes, start, length)) {
            return ValueClass.TEXT;
        }
        if (size >= 32 && accepts(uuid, bytes, start, length)) {
            return ValueClass.UUID;
        } else if (size <= 10 && accepts(date, bytes, start, length)) {
            return ValueClass.DATE;
        } else if (size >= 8 && size <= 10 && accepts(points, bytes, start, length)) {
            return ValueClass.DATE_DAY_FIRST_POINTS;
        } else if (size >= 8 && size <= 10 && accepts(monthSlashes, bytes, start, length)) {
            long monthFirst = high;
            boolean isEither = accepts(daySlashes, bytes, start, length);
            high = isEither ? high : monthFirst;
            return isEither ? ValueClass.DATE_DAY_FIRST_SLASHES : ValueClass.DATE_MONTH_FIRST;
        } else if (size >= 8 && size <= 10 && accepts(daySlashes, bytes, start, length)) {
            return ValueClass.DATE_DAY_FIRST_SLASHES;
        } else if (size >= 14 && accepts(timestamp, bytes, start, length)) {
            return ValueClass.TIMESTAMP;
        } else if (size >= 15 && accepts(zoned, bytes, start, length)) {
            return ValueClass.TIMESTAMP_WITH_TIME_ZONE;
        } else if (size <= 15 && accepts(time, bytes, start, length)) {
            return ValueClass.TIME;
        }
        return ValueClass.TEXT;
    }
}
