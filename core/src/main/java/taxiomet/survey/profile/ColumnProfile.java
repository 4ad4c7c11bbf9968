package taxiomet.survey.profile;

import java.util.List;
import java.util.Optional;

/**
 * What one column holds.
 *
 * @param values cells that are not null
 * @param nulls cells that are
 * @param emptyTexts empty texts among the values
 * @param distinct how many different values there are; about, unless {@code distinctIsExact}
 * @param guess the type that the column seems to be meant to have
 * @param shortest characters of the shortest value; 0 without values
 * @param longest characters of the longest value
 * @param least the least value as written: of numbers, dates and times by value, otherwise of texts by code point; empty
 *     without values
 * @param greatest the greatest one
 * @param commonest some of the values that stand more than once, the commonest first
 * @param remarks what strikes the eye, as clauses: padding, mixed case, values that seem to stand for nothing
 */
public record ColumnProfile(
        String name,
        long values,
        long nulls,
        long emptyTexts,
        long distinct,
        boolean distinctIsExact,
        TypeGuess guess,
        long shortest,
        long longest,
        Optional<String> least,
        Optional<String> greatest,
        List<CommonValue> commonest,
        List<String> remarks) {
    public ColumnProfile {
        commonest = List.copyOf(commonest);
        remarks = List.copyOf(remarks);
    }

    ColumnProfile withGuess(TypeGuess another) {
        return new ColumnProfile(
                name,
                values,
                nulls,
                emptyTexts,
                distinct,
                distinctIsExact,
                another,
                shortest,
                longest,
                least,
                greatest,
                commonest,
                remarks);
    }

    /** A value and in how many rows it stands. */
    public record CommonValue(String value, long rows, boolean isExact) {}
}
