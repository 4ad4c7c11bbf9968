package taxiomet.charters.sql;

import java.util.Locale;
import java.util.Set;

/**
 * The words that SQL keeps for itself: those that PostgreSQL 18 takes for the name of a table or a column only in quotes (its
 * documentation, appendix C, "reserved" with and without "can be function or type"). Every other word is a name wherever a name can
 * stand.
 */
public final class SqlWords {
    private static final Set<String> RESERVED = Set.of(
            ("all analyse analyze and any array as asc asymmetric both case cast check collate column constraint create"
                            + " current_catalog current_date current_role current_time current_timestamp current_user default"
                            + " deferrable desc distinct do else end except false fetch for foreign from grant group having in"
                            + " initially intersect into lateral leading limit localtime localtimestamp not null offset on only or"
                            + " order placing primary references returning select session_user some symmetric system_user table"
                            + " then to trailing true union unique user using variadic when where window with"
                            + " authorization binary collation concurrently cross current_schema freeze full ilike inner is isnull"
                            + " join left like natural notnull outer overlaps right similar tablesample verbose")
                    .split(" "));

    /** Reserved words that stand in a condition for something other than a column. */
    private static final Set<String> SPEAKING = Set.of(
            "all",
            "and",
            "any",
            "array",
            "case",
            "cast",
            "collate",
            "current_catalog",
            "current_date",
            "current_role",
            "current_schema",
            "current_time",
            "current_timestamp",
            "current_user",
            "default",
            "distinct",
            "false",
            "ilike",
            "in",
            "is",
            "isnull",
            "like",
            "localtime",
            "localtimestamp",
            "not",
            "notnull",
            "null",
            "or",
            "select",
            "session_user",
            "similar",
            "some",
            "symmetric",
            "asymmetric",
            "system_user",
            "true",
            "user");

    private SqlWords() {}

    /** Whether a word is a name only in quotes. */
    public static boolean isReserved(String word) {
        return RESERVED.contains(word.toLowerCase(Locale.ROOT));
    }

    /** Whether a reserved word says something in a condition, so that it cannot be meant for a column even where there is one. */
    public static boolean isSpeaking(String word) {
        return SPEAKING.contains(word.toLowerCase(Locale.ROOT));
    }
}
