package taxiomet.sources.csv;

/** What makes a row malformed, as clauses. */
final class RowFault {
    static final String NUL = "a NUL character";
    static final String QUOTE_INSIDE = "a quote inside a field that does not begin with one";
    static final String NOT_IN_ENCODING = "bytes that are not valid in the file's encoding";
    static final String NEVER_CLOSED = "a quote that is never closed";
    static final String BEHIND_QUOTE = "more characters behind a closing quote";
    static final String TOO_LONG = "a field of more than " + CsvPart.MAX_FIELD + " characters (was a quote left open?)";

    private RowFault() {}

    static String wrongCount(int fields, int expected) {
        return fields + (fields == 1 ? " field" : " fields") + " where the table has " + expected;
    }
}
