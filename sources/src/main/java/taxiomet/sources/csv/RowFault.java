package taxiomet.sources.csv;

import taxiomet.sources.file.Utf8;

/** What makes a row malformed, as clauses, and the search for it. */
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

    /**
     * The first character that should not be in a row whose fields can be told apart, field by field; a null word may hold any.
     *
     * @return null when there is none
     */
    static String ofCharacters(byte[] bytes, int start, int end, byte delimiter, byte quote, NullWords nullWords) {
        int place = start;
        while (place <= end) {
            boolean isQuoted = place < end && bytes[place] == quote;
            int from = isQuoted ? place + 1 : place;
            int to = from;
            while (to < end && (isQuoted ? bytes[to] != quote || bytes[to + 1] == quote : bytes[to] != delimiter)) {
                to += isQuoted && bytes[to] == quote ? 2 : 1;
            }
            String fault = isQuoted || !nullWords.isNull(bytes, from, to - from)
                    ? ofField(bytes, from, to, isQuoted, quote)
                    : null;
            if (fault != null) {
                return fault;
            }
            place = to + (isQuoted ? 2 : 1);
        }
        return null;
    }

    private static String ofField(byte[] bytes, int from, int to, boolean isQuoted, byte quote) {
        int at = from;
        while (at < to) {
            int length = Utf8.lengthAt(bytes, at, to);
            if (length == 0) {
                return NOT_IN_ENCODING;
            }
            if (bytes[at] == 0) {
                return NUL;
            }
            if (bytes[at] == quote && !isQuoted) {
                return QUOTE_INSIDE;
            }
            at += length;
        }
        return null;
    }
}
