package taxiomet.survey.count;

/**
 * What was counted about a candidate key.
 *
 * @param rows that were looked at
 * @param excess rows beyond the first of each value
 * @param withNull rows with a null in it
 * @param illTyped rows without a null, but with a value that is not of its column's type
 */
public record CountedKey(long rows, long excess, long withNull, long illTyped) {
    /** Whether every row has the key, and no two have the same. */
    public boolean isExact() {
        return excess + withNull + illTyped == 0;
    }
}
