package taxiomet.rehearse;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.Table;

/**
 * A link as it might be declared: what is given takes the place of what the charter says.
 *
 * @param table the table that declares the link
 * @param link its name
 */
public record LinkTrial(
        String table, String link, Optional<Action> onDelete, Optional<Action> onUpdate, Optional<Boolean> isEnforced) {
    /** The charter as it would be. */
    public Charter in(Charter charter) {
        List<Table> tables = new ArrayList<>();
        for (Table each : charter.tables()) {
            tables.add(each.name().equals(table) ? with(each) : each);
        }
        return charter.with(tables);
    }

    private Table with(Table from) {
        List<ForeignKey> links = from.links().stream()
                .map(each -> each.name().equals(link) ? with(each) : each)
                .toList();
        return from.withLinks(links);
    }

    private ForeignKey with(ForeignKey from) {
        return new ForeignKey(
                from.name(),
                from.child(),
                from.columns(),
                from.parent(),
                from.parentColumns(),
                from.match(),
                onDelete.orElse(from.onDelete()),
                onUpdate.orElse(from.onUpdate()),
                from.deferrable(),
                isEnforced.orElse(from.isEnforced()),
                from.where(),
                from.children(),
                from.isAcyclic(),
                from.severity());
    }
}
