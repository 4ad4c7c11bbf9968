package taxiomet.vet;

import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.IntRange;
import taxiomet.charter.Table;

/** What a link means, in a sentence for a person. */
final class LinkSentence {
    private final ForeignKey link;
    private final Table child;
    private final boolean isOwnParent;

    private LinkSentence(Charter charter, ForeignKey link) {
        this.link = link;
        this.child = charter.table(link.child());
        this.isOwnParent = link.parent().equals(link.child());
    }

    static String of(Charter charter, ForeignKey link) {
        LinkSentence sentence = new LinkSentence(charter, link);
        return sentence.upwards() + "; " + sentence.downwards() + "; " + sentence.onDelete() + sentence.onUpdate()
                + (link.isEnforced() ? "" : "; none of it is enforced");
    }

    private String upwards() {
        boolean isRequired = TableMap.isRequired(child, link);
        String by = "by " + String.join(", ", link.columns());
        return "each row of " + link.child() + " points at " + (isRequired ? "exactly one " : "one ")
                + "row of "
                + (isOwnParent ? "its own table" : link.parent())
                + (isRequired ? "" : " or none") + " (" + by + ")";
    }

    private String downwards() {
        IntRange range = TableMap.childrenOf(child, link);
        String count;
        long last = range.most() == IntRange.NO_LIMIT ? range.least() : range.most();
        String rows = last == 1 ? "row" : "rows";
        if (range.most() == IntRange.NO_LIMIT) {
            count = range.least() == 0 ? "any number of" : "at least " + range.least();
        } else if (range.least() == range.most()) {
            count = "exactly " + range.least();
        } else {
            count = range.least() == 0 ? "at most " + range.most() : "from " + range.least() + " to " + range.most();
        }
        return "each row of " + link.parent() + " has " + count + " " + rows + " of " + link.child();
    }

    private String onDelete() {
        String deleting = "deleting one of " + link.parent() + " ";
        String them = " them";
        return switch (link.onDelete().name()) {
            case NO_ACTION, RESTRICT -> deleting + "that has some is refused";
            case CASCADE -> deleting + "deletes" + them;
            case SET_NULL -> deleting + "leaves them without one" + listed(link.onDelete());
            case SET_DEFAULT -> deleting + "gives them the default" + listed(link.onDelete());
        };
    }

    private static String listed(Action action) {
        return action.columns().isEmpty() ? "" : " (" + String.join(", ", action.columns()) + ")";
    }

    private String onUpdate() {
        return switch (link.onUpdate().name()) {
            case NO_ACTION, RESTRICT -> "";
            case CASCADE -> "; they follow when it changes its key";
            case SET_NULL -> "; they lose it when it changes its key";
            case SET_DEFAULT -> "; they get the default when it changes its key";
        };
    }
}
