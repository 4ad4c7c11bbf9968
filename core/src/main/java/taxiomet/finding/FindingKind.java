package taxiomet.finding;

import java.util.Locale;
import taxiomet.charter.Severity;

/** The kinds of fault, in the order in which a steward mends them: what hides other faults first. */
public enum FindingKind {
    RULE_NOT_READ,
    MALFORMED_ROW,
    TYPE_MISMATCH,
    NULL_IN_KEY,
    DUPLICATE,
    ORPHAN,
    HALF_NULL_LINK("half-null link"),
    TOO_FEW_CHILDREN,
    TOO_MANY_CHILDREN,
    OWN_ANCESTOR,
    BROKEN_RULE,
    NULL_NOT_ALLOWED,
    WRONG_LENGTH,
    VALUE_NOT_ALLOWED,
    PATTERN_NOT_MET,
    LIKELY_DOUBLE,
    ODD_SPELLING,
    GAP_IN_KEY;

    private final String words;

    FindingKind() {
        words = name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    FindingKind(String words) {
        this.words = words;
    }

    /** Whether its rows stand in groups: those that share a key, that stand in one ring, or that are like each other. */
    public boolean isGrouped() {
        return this == DUPLICATE || this == OWN_ANCESTOR || this == LIKELY_DOUBLE;
    }

    /** What the place of a finding names in the charter. */
    public enum Place {
        COLUMN,
        KEY,
        LINK,
        RULE,
        TABLE;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** What {@link Finding#at} names; of a rule not read its details say it. */
    public Place place() {
        return switch (this) {
            case NULL_IN_KEY, DUPLICATE -> Place.KEY;
            case ORPHAN, HALF_NULL_LINK, TOO_FEW_CHILDREN, TOO_MANY_CHILDREN, OWN_ANCESTOR -> Place.LINK;
            case BROKEN_RULE, RULE_NOT_READ, LIKELY_DOUBLE -> Place.RULE;
            case MALFORMED_ROW -> Place.TABLE;
            default -> Place.COLUMN;
        };
    }

    /** The kind as messages and results name it. */
    public String words() {
        return words;
    }

    /** Whether it is about declarations or about what is not there, so that there are no rows behind it. */
    public boolean hasNoRows() {
        return this == RULE_NOT_READ || this == GAP_IN_KEY;
    }

    /** The severity of a finding of this kind where the charter declares {@code declared}. */
    public Severity severity(Severity declared) {
        return this == ODD_SPELLING || this == GAP_IN_KEY ? Severity.NOTE : declared;
    }
}
