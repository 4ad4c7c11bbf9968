package taxiomet.survey.profile;

/** What a cell looks like, before its column's type is known. */
public enum ValueClass {
    /** An optional sign and digits, within bigint. */
    WHOLE,
    /** A number with a point, or a whole one beyond bigint. */
    DECIMAL,
    /** A number with an exponent, or NaN or Infinity. */
    FLOATING,
    /** A number with a decimal comma. */
    DECIMAL_COMMA,
    /** A word for true or false that is not a number. */
    TRUTH,
    DATE,
    /** A date as 31.12.2023. */
    DATE_DAY_FIRST_POINTS,
    /** A date as 31/12/2023, or one that could be read either way. */
    DATE_DAY_FIRST_SLASHES,
    /** A date as 12/31/2023. */
    DATE_MONTH_FIRST,
    TIMESTAMP,
    TIMESTAMP_WITH_TIME_ZONE,
    TIME,
    UUID,
    TEXT
}
