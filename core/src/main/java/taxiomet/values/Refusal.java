package taxiomet.values;

/** The rule that a cell breaks when it is not of its column's type (DESIGN.md, section 5). */
public enum Refusal {
    EMPTY_TEXT("an empty text (\"\"), which only a text column can hold"),
    NOT_A_WHOLE_NUMBER("not a whole number"),
    NOT_A_NUMBER("not a number"),
    HAS_A_FRACTION("written with a fraction or an exponent, which an integer cannot hold"),
    OUT_OF_RANGE("out of the type's range"),
    WOULD_BE_ROUNDED("more digits after the point than the type holds: it would be rounded"),
    TOO_MANY_DIGITS("more digits before the point than the type holds"),
    NOT_A_BOOLEAN("not true or false"),
    NOT_A_DATE("not a date in the form 2023-02-05 or 20230205"),
    HAS_A_TIME("a date with a time of day"),
    NO_SUCH_DAY("a day that no calendar has"),
    NOT_A_TIME("not a time in the form 09:30 or 09:30:15.25"),
    NO_SUCH_TIME("a time that no clock shows"),
    NOT_A_TIMESTAMP("not a date and time in the form 2023-02-05 09:30:15"),
    TOO_PRECISE("more digits of a second than the type holds"),
    HAS_A_ZONE("a time zone, which a timestamp without one cannot hold"),
    NOT_IN_FORMAT("not in the format that the column declares"),
    NOT_A_UUID("not a uuid"),
    TOO_LONG("more characters than the type holds");

    private final String words;

    Refusal(String words) {
        this.words = words;
    }

    /** The rule as a person reads it, to follow the value. */
    public String words() {
        return words;
    }
}
