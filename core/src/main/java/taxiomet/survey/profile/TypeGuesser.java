package taxiomet.survey.profile;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/**
 * Guesses the type that a column is meant to have from what was counted of its values.
 *
 * @param counts how many values there are of each class, by its place
 * @param examples some of them
 * @param texts how their texts are
 * @param numbers which numbers there are, and how they are written
 * @param valueCount all values
 * @param plainTruths how many words for true and false are written as a database would
 */
@SuppressWarnings({"ArrayRecordComponent", "EnumOrdinal"}) // the profiler's own counts, only to be read
record TypeGuesser(
        long[] counts,
        ClassExamples examples,
        TextMeasures texts,
        NumberMeasures numbers,
        long valueCount,
        long plainTruths) {
    private static final int LEAST_CODES_IN_TEN = 2;
    /** One value of so many at least makes a type worth a thought. */
    private static final long LEAST_OF_TYPE = 6;

    long count(ValueClass... classes) {
        long sum = 0;
        for (ValueClass each : classes) {
            sum += counts[each.ordinal()];
        }
        return sum;
    }

    /** How many rows may break what is meant for all of them. */
    private static long tolerated(long rows) {
        return rows < 20 ? 0 : Math.max(Math.min(3, rows / 15), rows / 100);
    }

    TypeGuess guess() {
        long n = valueCount;
        long whole = count(ValueClass.WHOLE);
        long decimal = whole + count(ValueClass.DECIMAL);
        boolean haveOneLength = texts.shortest() == texts.longest() && texts.longest() > 1;
        boolean isCode = whole > 0
                && numbers.leadingZeros() > 0
                && (haveOneLength || numbers.leadingZeros() * 10 >= whole * LEAST_CODES_IN_TEN);
        if (n == 0) {
            return text("");
        }
        if (!isCode && fits(whole, n)) {
            return guess(integer(), null, false, n - whole, List.of(ValueClass.WHOLE));
        }
        if (!isCode && fits(decimal, n) && decimal > whole) {
            return guess(numeric(), null, false, n - decimal, List.of(ValueClass.WHOLE, ValueClass.DECIMAL));
        }
        long comma = whole + count(ValueClass.DECIMAL_COMMA);
        if (!isCode && fits(comma, n) && comma > whole) {
            return guess(numeric(), null, true, n - comma, List.of(ValueClass.WHOLE, ValueClass.DECIMAL_COMMA));
        }
        long floating = decimal + count(ValueClass.FLOATING);
        if (!isCode && fits(floating, n) && floating > decimal) {
            return guess(
                    ColumnType.of(Name.DOUBLE),
                    null,
                    false,
                    n - floating,
                    List.of(ValueClass.WHOLE, ValueClass.DECIMAL, ValueClass.FLOATING));
        }
        long truth = count(ValueClass.TRUTH) + numbers.zerosAndOnes();
        if (fits(truth, n) && count(ValueClass.TRUTH) > 0 && plainTruths * 2 < count(ValueClass.TRUTH)) {
            return text("words for yes and no, taken for texts");
        }
        if (fits(truth, n) && count(ValueClass.TRUTH) > 0) {
            return guess(
                    ColumnType.of(Name.BOOLEAN), null, false, n - truth, List.of(ValueClass.TRUTH, ValueClass.WHOLE));
        }
        Optional<TypeGuess> moment = moment(n);
        if (moment.isPresent()) {
            return moment.get();
        }
        if (fits(count(ValueClass.UUID), n)) {
            return guess(ColumnType.of(Name.UUID), null, false, n - count(ValueClass.UUID), List.of(ValueClass.UUID));
        }
        return text(isCode && whole * 2 > n ? TypeGuess.CODES : "");
    }

    /** The guess when the column is of a type that another has, where more than a few of its values are of it. */
    Optional<TypeGuess> guessAs(TypeGuess another) {
        Collection<ValueClass> fitting = classesOf(another);
        long fit = count(fitting.toArray(new ValueClass[0]));
        if (fit * LEAST_OF_TYPE < valueCount || fitting.isEmpty()) {
            return Optional.empty();
        }
        ColumnType type = another.type().isInteger() ? integer() : another.type();
        return Optional.of(guess(type, another.format().orElse(null), false, valueCount - fit, fitting));
    }

    private ColumnType integer() {
        return ColumnType.of(
                numbers.leastWhole() >= Short.MIN_VALUE && numbers.greatestWhole() <= Short.MAX_VALUE
                        ? Name.SMALLINT
                        : numbers.leastWhole() >= Integer.MIN_VALUE && numbers.greatestWhole() <= Integer.MAX_VALUE
                                ? Name.INTEGER
                                : Name.BIGINT);
    }

    private Optional<TypeGuess> moment(long n) {
        long date = count(ValueClass.DATE);
        if (fits(date, n)) {
            return Optional.of(guess(ColumnType.of(Name.DATE), null, false, n - date, List.of(ValueClass.DATE)));
        }
        long points = count(ValueClass.DATE_DAY_FIRST_POINTS);
        if (fits(points, n)) {
            return Optional.of(guess(
                    ColumnType.of(Name.DATE),
                    "d.M.yyyy",
                    false,
                    n - points,
                    List.of(ValueClass.DATE_DAY_FIRST_POINTS)));
        }
        long days = count(ValueClass.DATE_DAY_FIRST_SLASHES);
        if (fits(days, n)) {
            return Optional.of(guess(
                    ColumnType.of(Name.DATE), "d/M/yyyy", false, n - days, List.of(ValueClass.DATE_DAY_FIRST_SLASHES)));
        }
        long months = days + count(ValueClass.DATE_MONTH_FIRST);
        if (fits(months, n) && months > days) {
            return Optional.of(guess(
                    ColumnType.of(Name.DATE),
                    "M/d/yyyy",
                    false,
                    n - months,
                    List.of(ValueClass.DATE_MONTH_FIRST, ValueClass.DATE_DAY_FIRST_SLASHES)));
        }
        long stamps = date + count(ValueClass.TIMESTAMP);
        if (fits(stamps, n)) {
            return Optional.of(guess(
                    ColumnType.of(Name.TIMESTAMP),
                    null,
                    false,
                    n - stamps,
                    List.of(ValueClass.DATE, ValueClass.TIMESTAMP)));
        }
        long zoned = stamps + count(ValueClass.TIMESTAMP_WITH_TIME_ZONE);
        if (fits(zoned, n)) {
            return Optional.of(guess(
                    ColumnType.of(Name.TIMESTAMP_WITH_TIME_ZONE),
                    null,
                    false,
                    n - zoned,
                    List.of(ValueClass.DATE, ValueClass.TIMESTAMP, ValueClass.TIMESTAMP_WITH_TIME_ZONE)));
        }
        long times = count(ValueClass.TIME);
        return fits(times, n)
                ? Optional.of(guess(ColumnType.of(Name.TIME), null, false, n - times, List.of(ValueClass.TIME)))
                : Optional.empty();
    }

    private static boolean fits(long count, long n) {
        return count > 0 && n - count <= tolerated(n);
    }

    private ColumnType numeric() {
        long wholes = numbers.mostWholeDigits();
        if (numbers.greatestWhole() != Long.MIN_VALUE) {
            wholes = Math.max(
                    wholes,
                    Math.max(
                            Long.toString(Math.abs(numbers.leastWhole())).length(),
                            Long.toString(Math.abs(numbers.greatestWhole())).length()));
        }
        long precision = Math.min(1000, Math.max(1, wholes + numbers.mostScale()));
        return ColumnType.parse("numeric(" + precision + "," + Math.min(numbers.mostScale(), precision) + ")")
                .orElseThrow();
    }

    private ColumnType textType() {
        return TypeGuess.text(texts.longest());
    }

    private TypeGuess text(String reason) {
        return new TypeGuess(textType(), Optional.empty(), false, 0, List.of(), textType(), reason);
    }

    private TypeGuess guess(
            ColumnType type, String format, boolean decimalComma, long misfits, Collection<ValueClass> fitting) {
        return new TypeGuess(
                type,
                Optional.ofNullable(format),
                decimalComma,
                misfits,
                examples.ofOthers(fitting).stream().limit(3).toList(),
                misfits == 0 ? type : textType(),
                "");
    }

    /** The classes of values that are of a type. */
    private static Collection<ValueClass> classesOf(TypeGuess guess) {
        ColumnType type = guess.type();
        if (type.isInteger()) {
            return List.of(ValueClass.WHOLE);
        }
        return switch (type.name()) {
            case UUID -> List.of(ValueClass.UUID);
            case DATE -> guess.format().isEmpty() ? List.of(ValueClass.DATE) : List.of();
            default -> List.of();
        };
    }
}
