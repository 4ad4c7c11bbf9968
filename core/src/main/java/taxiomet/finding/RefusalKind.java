package taxiomet.finding;

/** Why a change is refused. */
public enum RefusalKind {
    TYPE_MISMATCH("type mismatch"),
    GENERATED_ALWAYS("column numbered by the database alone"),
    NULL_NOT_ALLOWED("null not allowed"),
    VALUE_NOT_ALLOWED("value not allowed"),
    PATTERN_NOT_MET("pattern not met"),
    WRONG_LENGTH("wrong length"),
    BROKEN_RULE("broken rule"),
    KEY_TAKEN("key taken"),
    STILL_REFERENCED("rows still point at it"),
    NO_PARENT("no such parent"),
    HALF_NULL_LINK("half-null link"),
    NOT_COMBINED("two rows would share a key"),
    TWO_VALUES("two values for one cell"),
    TOO_DEEP("deeper than the server follows"),
    CIRCULAR("cascade that comes back");

    private final String words;

    RefusalKind(String words) {
        this.words = words;
    }

    /** What the place of a refusal names in the charter. */
    public FindingKind.Place place() {
        return switch (this) {
            case KEY_TAKEN, NOT_COMBINED -> FindingKind.Place.KEY;
            case STILL_REFERENCED, NO_PARENT, HALF_NULL_LINK, TOO_DEEP, CIRCULAR -> FindingKind.Place.LINK;
            case BROKEN_RULE -> FindingKind.Place.RULE;
            default -> FindingKind.Place.COLUMN;
        };
    }

    /** The kind as messages and results name it. */
    public String words() {
        return words;
    }
}
