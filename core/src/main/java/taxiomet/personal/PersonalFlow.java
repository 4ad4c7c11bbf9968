package taxiomet.personal;

import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.work.Secret;

/**
 * What changes compute from personal values is personal: a column that is assigned what such a value comes to holds it afterwards, and so do the
 * columns that links join to it.
 */
public final class PersonalFlow {
    private PersonalFlow() {}

    /**
     * The charter in which all columns are called personal that hold personal values, or what was computed from them, before the changes or
     * afterwards.
     *
     * @param charter in which those are called so that say so
     */
    public static Charter through(Charter charter, List<Change> changes) {
        Charter now = overLinks(charter);
        Optional<Charter> more = assigned(now, changes);
        while (more.isPresent()) {
            now = overLinks(more.get());
            more = assigned(now, changes);
        }
        return now;
    }

    private static Charter overLinks(Charter charter) {
        return new Pseudonyms(charter, Secret.random()).charter();
    }

    /** With the columns that are assigned what is personal; empty when all of them are called so. */
    private static Optional<Charter> assigned(Charter charter, List<Change> changes) {
        Set<List<String>> more = new HashSet<>();
        for (Change change : changes) {
            Table table = charter.table(change.table());
            if (change instanceof Change.Update update) {
                update.assignments().forEach((column, input) -> {
                    if (isPersonal(charter, table, input)
                            && !table.column(column).isPersonal()) {
                        more.add(List.of(table.name(), column));
                    }
                });
            }
        }
        return more.isEmpty()
                ? Optional.empty()
                : Optional.of(charter.withPersonal((table, column) -> more.contains(List.of(table, column))
                        || charter.table(table).column(column).isPersonal()));
    }

    private static boolean isPersonal(Charter charter, Table table, Input input) {
        return input instanceof Input.Computed computed && charter.readsPersonal(table, computed.value());
    }
}
