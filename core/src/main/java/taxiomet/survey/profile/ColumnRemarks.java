package taxiomet.survey.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.LongStream;
import taxiomet.values.Placeholders;

/**
 * What strikes the eye in a column, as clauses.
 *
 * @param guess the type that it seems to have
 * @param counted what was counted of it
 * @param commonest its commonest values, {@link #ENOUGH} of them
 * @param holdsDays whether its numbers are all days without hyphens
 */
record ColumnRemarks(
        TypeGuess guess, TypeGuesser counted, List<ColumnProfile.CommonValue> commonest, boolean holdsDays) {
    static final int ENOUGH = 128;

    /** What stands for nothing is short. */
    private static final int LONGEST_NOTHING = 30;

    private static final int MOST_NOTHINGS = 3;
    private static final int OF_ONE_CASE = 20;
    private static final int SMALL = 1_000;

    List<String> all() {
        TextMeasures texts = counted.texts();
        List<String> remarks = new ArrayList<>();
        if (!guess.reason().isEmpty()) {
            remarks.add(guess.reason());
        }
        if (texts.padded() > 0) {
            remarks.add(texts.padded() + " with blanks at an end");
        }
        if (dateFormats() > 1) {
            remarks.add("dates in mixed formats");
        }
        long fewer = Math.min(texts.upper(), texts.lower());
        if (guess.type().isText() && fewer > 0 && fewer * OF_ONE_CASE <= Math.max(texts.upper(), texts.lower())) {
            remarks.add(fewer + " in another case");
        }
        if (holdsDays) {
            remarks.add("could be dates without hyphens");
        }
        List<String> nothings = commonest.stream()
                .map(ColumnProfile.CommonValue::value)
                .filter(value ->
                        value.length() <= LONGEST_NOTHING && Placeholders.standsForNothing(value) && isStrange(value))
                .limit(MOST_NOTHINGS)
                .toList();
        if (!nothings.isEmpty()) {
            remarks.add("may stand for nothing: " + String.join(", ", nothings));
        }
        return remarks;
    }

    private long dateFormats() {
        return LongStream.of(
                        counted.count(ValueClass.DATE),
                        counted.count(ValueClass.DATE_DAY_FIRST_POINTS),
                        counted.count(ValueClass.DATE_DAY_FIRST_SLASHES, ValueClass.DATE_MONTH_FIRST))
                .filter(n -> n > 0)
                .count();
    }

    /** 0 and 1 are ordinary among small numbers; a placeholder stands apart from the rest. */
    private boolean isStrange(String value) {
        NumberMeasures numbers = counted.numbers();
        String number = value.strip();
        if (!guess.type().family().isNumber() || !number.matches("-?[0-9]+")) {
            return true;
        }
        return (number.equals("0") && numbers.leastWhole() == 0 && numbers.greatestWhole() > SMALL)
                || (number.equals("-1") && numbers.leastWhole() == -1)
                || number.matches("9{3,}");
    }
}
