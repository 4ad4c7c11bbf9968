package taxiomet.reports.words;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import taxiomet.finding.ResultComparison;

/** How a comparison of results is told. */
public final class CompareWords {
    private static final DateTimeFormatter MINUTE =
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm", Locale.ROOT).withZone(ZoneOffset.UTC);

    /** Said of two results whose rows nobody can tell. */
    public static final String UNDER_OTHER_KEYS =
            "The two results were kept under different keys: counts are compared, and rows are not, for nobody can tell which"
                    + " are the same.";

    private CompareWords() {}

    /** What it came to, as a clause. */
    public static String answer(ResultComparison comparison) {
        List<String> parts = new ArrayList<>();
        long come = comparison.newFaults();
        long gone = comparison.goneFaults();
        if (come > 0) {
            parts.add(Counted.of(come, "new fault"));
        } else if (comparison.newFindings() > 0) {
            parts.add(Counted.of(comparison.newFindings(), "new finding"));
        }
        if (gone > 0) {
            parts.add(Counted.of(gone, "fault") + " no more");
        }
        return parts.isEmpty() ? "nothing new" : Counted.listed(parts);
    }

    /** How it stood and stands, in a sentence. */
    public static String standing(ResultComparison comparison) {
        long accepted = comparison.later().accepted();
        return "rows at fault: " + Counted.grouped(comparison.earlier().faultyRows()) + " on "
                + moment(comparison.earlier().made()) + ", "
                + Counted.grouped(comparison.later().faultyRows()) + " on "
                + moment(comparison.later().made())
                + (comparison.areRowsKnown()
                        ? "; found before and still there: " + Counted.grouped(comparison.still())
                        : "")
                + (accepted > 0 ? "; accepted: " + Counted.grouped(accepted) : "");
    }

    /** A moment, to the minute, in UTC; the day alone where it is midnight. */
    public static String moment(Instant moment) {
        String minute = MINUTE.format(moment);
        return minute.endsWith(" 00:00") ? minute.substring(0, minute.length() - " 00:00".length()) : minute;
    }
}
