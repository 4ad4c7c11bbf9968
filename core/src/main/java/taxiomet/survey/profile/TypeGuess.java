package taxiomet.survey.profile;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.ColumnType;

/**
 * The type that a column seems to be meant to have.
 *
 * @param type the narrowest type that holds all values but {@code misfits}
 * @param format how its dates are written, where that is not the usual way
 * @param decimalComma whether its numbers have a decimal comma
 * @param misfits values that are not of the type
 * @param examples some of them
 * @param holdsAll the narrowest type that holds every value: the same, when there are no misfits
 * @param reason what speaks for a wider type than the values need; empty where nothing does
 */
public record TypeGuess(
        ColumnType type,
        Optional<String> format,
        boolean decimalComma,
        long misfits,
        List<String> examples,
        ColumnType holdsAll,
        String reason) {
    private static final long MOST_CHARACTERS = 10_000_000;

    public TypeGuess {
        examples = List.copyOf(examples);
    }

    static final String CODES = "numbers with leading zeros: codes, taken for texts";

    /** The text type for values of so many characters at most. */
    public static ColumnType text(long longest) {
        return longest == 0
                ? ColumnType.of(ColumnType.Name.TEXT)
                : ColumnType.parse("varchar(" + Math.min(longest, MOST_CHARACTERS) + ")")
                        .orElseThrow();
    }
}
