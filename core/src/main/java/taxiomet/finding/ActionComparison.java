package taxiomet.finding;

import java.util.List;

/**
 * One proposal under each action that a link could have.
 *
 * @param link name of the link
 * @param event {@code on delete} or {@code on update}
 * @param entries one for each action
 */
public record ActionComparison(String title, String link, String event, List<Entry> entries) {
    public ActionComparison {
        entries = List.copyOf(entries);
    }

    /**
     * The proposal under one action.
     *
     * @param action in the words of SQL
     * @param isDeclared whether the charter has it
     */
    public record Entry(String action, boolean isDeclared, RehearsalResult result) {}
}
