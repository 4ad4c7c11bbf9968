package taxiomet.vet;

import java.util.List;
import taxiomet.charter.Severity;

/**
 * What the review of a charter has to say about one declaration.
 *
 * @param kind what is wrong or doubtful, or worth knowing
 * @param severity an error makes later answers worthless; a warning is probably not meant; a note is worth knowing
 * @param path the keys that lead to the declaration in the charter, such as tables, hive, foreign_keys, hive_apiary
 * @param problem what there is to say, as a clause
 * @param remedy the way out, as a clause; may be empty
 */
public record Judgement(Kind kind, Severity severity, List<String> path, String problem, String remedy) {
    /** What a review looks for. */
    public enum Kind {
        RULE_NOT_READ("rule not read"),
        DEFAULT_NOT_FITTING("default does not fit"),
        NUMBERED_WITH_DEFAULT("numbered, with a default"),
        NO_PRIMARY_KEY("no primary key"),
        TABLE_APART("table apart"),
        NEEDLESS_KEY("needless key"),
        PAIR_MAY_REPEAT("pair may repeat"),
        LIKENESS_SAYS_LITTLE("likeness says little"),
        NUMBER_AS_TEXT("number as text"),
        POINTS_AT_NO_KEY("points at no key"),
        WRONG_WAY_ROUND("wrong way round"),
        NEVER_EQUAL("types never equal"),
        TYPES_DIFFER("types differ"),
        NULL_NOT_ALLOWED("null not allowed"),
        NO_DEFAULT("no default"),
        SAID_TWICE("said twice"),
        ONE_TO_ONE("one to one"),
        HALF_NULL_POSSIBLE("half-null possible"),
        NOT_ENFORCED("not enforced"),
        CIRCLE_OF_NEED("circle of need"),
        CIRCLE_OF_CASCADES("circle of cascades"),
        FAR_REACH("far-reaching delete"),
        CASCADE_OVER_TOTALS("cascade over totals"),
        CASCADE_FROM_CODES("cascade from codes"),
        CASCADE_OVER_OPTIONAL("cascade over an optional link"),
        TWO_ROADS("two roads"),
        NOT_TAKEN("not taken by the server"),
        NOT_THERE("not in the database"),
        OTHERWISE_THERE("otherwise in the database"),
        NOT_HELD_THERE("not held by the database"),
        ONLY_THERE("only in the database"),
        /** Of the file that the charter was read from, not of a declaration. */
        REMARK("remark");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        /** The kind as messages and results name it. */
        public String words() {
            return words;
        }
    }

    public Judgement {
        path = List.copyOf(path);
    }
}
