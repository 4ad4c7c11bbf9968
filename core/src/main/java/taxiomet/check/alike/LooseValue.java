package taxiomet.check.alike;

import java.time.LocalDate;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.keys.ColumnKeys;
import taxiomet.keys.KeyForm;
import taxiomet.keys.TypedBatch;
import taxiomet.values.Placeholders;
import taxiomet.values.TypedColumn;

/**
 * A value as it is compared loosely.
 *
 * @param raw a text as it was written; empty for other types, and for a long text
 * @param words its words ({@link LooseText}); empty likewise
 * @param high first half of what two equal values share that are no texts, or long
 * @param low second half
 * @param turned the same for both dates that differ in the order of day and month; of other values nothing
 */
record LooseValue(String raw, String words, long high, long low, long turned) {
    /** Longer texts, in bytes, are prose: they agree when they are equal. */
    private static final int LONGEST = 1_000;

    private static final int MONTHS = 12;
    private static final int DAYS = 32;
    private static final long MICROS_PER_DAY = 86_400_000_000L;

    boolean isText() {
        return !words.isEmpty();
    }

    /** The value of a row; null where there is none, or one that stands for nothing, or is not of its type. */
    static LooseValue of(TypedBatch batch, int column, int row) {
        TypedColumn cells = batch.column(column);
        if (!cells.isValue(row)) {
            return null;
        }
        Column declared = cells.column();
        if (declared.type().isText() && cells.cells().length(row) <= LONGEST) {
            String text = cells.text(row);
            String words = LooseText.of(text);
            return words.isEmpty() || Placeholders.standsForNothing(text) ? null : new LooseValue(text, words, 0, 0, 0);
        }
        boolean isMoment = isMoment(declared.type());
        if (isMoment && Placeholders.standsForNothing(cells.text(row))) {
            return null;
        }
        ColumnKeys keys = batch.keys(column, KeyForm.of(declared));
        long turned = isMoment ? turned(cells.high(row)) : 0;
        return new LooseValue("", "", keys.highs()[row], keys.lows()[row], turned);
    }

    private static boolean isMoment(ColumnType type) {
        return switch (type.name()) {
            case DATE, TIMESTAMP, TIMESTAMP_WITH_TIME_ZONE -> true;
            default -> false;
        };
    }

    /** Year, the lesser and the greater of day and month, and what there is of a day's time. */
    private static long turned(long microseconds) {
        LocalDate date = LocalDate.ofEpochDay(Math.floorDiv(microseconds, MICROS_PER_DAY));
        int dayOfMonth = date.getDayOfMonth();
        int month = date.getMonthValue();
        if (dayOfMonth > MONTHS || dayOfMonth == month) {
            return 0;
        }
        long inYear = (long) Math.min(dayOfMonth, month) * DAYS + Math.max(dayOfMonth, month);
        long days = date.getYear() * (long) (DAYS * DAYS) + inYear;
        return days * MICROS_PER_DAY + Math.floorMod(microseconds, MICROS_PER_DAY);
    }

    /** In what way it agrees with another of its column; neither may be null. */
    Manner compare(LooseValue other) {
        if (!isText()) {
            boolean isSame = high == other.high && low == other.low;
            return isSame ? Manner.EQUAL : turned != 0 && turned == other.turned ? Manner.TURNED : Manner.DIFFERENT;
        }
        if (raw.equals(other.raw)) {
            return Manner.EQUAL;
        }
        String joined = LooseText.joined(words);
        String others = LooseText.joined(other.words);
        if (joined.equals(others)) {
            return Manner.SPELLED;
        }
        String sorted = LooseText.sorted(words);
        String othersSorted = LooseText.sorted(other.words);
        if (sorted.equals(othersSorted)) {
            return Manner.REORDERED;
        }
        int most = LooseText.slips(Math.min(joined.length(), others.length()));
        boolean isNear = most > 0
                && Slips.areDigitsAlike(joined, others)
                && (Slips.between(joined, others, most) <= most || Slips.between(sorted, othersSorted, most) <= most);
        return isNear ? Manner.SLIP : Manner.DIFFERENT;
    }
}
