package taxiomet.rehearse;

import java.util.BitSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.InQuery;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charter.Total;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;

/**
 * Decides which columns of the rows reached are kept: all of tables that may be written; of tables whose rows can only go, their keys
 * and links, what conditions ask for, and what is added up.
 */
final class ColumnsKept {
    private final ReachedRows rows;
    private final Set<ReachedTable> deleted = new LinkedHashSet<>();
    private final Set<ReachedTable> written = new LinkedHashSet<>();

    private ColumnsKept(ReachedRows rows) {
        this.rows = rows;
    }

    static void decide(ReachedRows rows, Proposal proposal, boolean all) {
        ColumnsKept kept = new ColumnsKept(rows);
        for (Change change : proposal.changes()) {
            boolean isDelete = change instanceof Change.Delete || change instanceof Change.DeleteListed;
            (isDelete ? kept.deleted : kept.written).add(rows.table(change.table()));
            if (change instanceof Change.Merge || change instanceof Change.Renumber) {
                kept.addAllBelow(rows.table(change.table()));
            }
        }
        kept.spread();
        for (ReachedTable table : rows.tables()) {
            BitSet columns = new BitSet();
            if (all || kept.written.contains(table)) {
                columns.set(0, table.width());
            } else {
                kept.addNeeded(table, columns, proposal);
            }
            table.keep(columns.stream().toArray());
        }
    }

    /** Whatever points at a row that is merged or renumbered is written, and so on. */
    private void addAllBelow(ReachedTable table) {
        for (ReachedLink link : table.linksIn) {
            if (written.add(link.child)) {
                addAllBelow(link.child);
            }
        }
    }

    /** Follows actions from table to table, whatever their rows. */
    private void spread() {
        boolean grows = true;
        while (grows) {
            grows = false;
            for (ReachedLink link : rows.links()) {
                ActionName onDelete = link.link.onDelete().name();
                ActionName onUpdate = link.link.onUpdate().name();
                if (deleted.contains(link.parent)) {
                    if (onDelete == ActionName.CASCADE) {
                        grows |= deleted.add(link.child);
                    } else if (ReachedLink.acts(onDelete)) {
                        grows |= written.add(link.child);
                    }
                }
                if (written.contains(link.parent) && ReachedLink.acts(onUpdate)) {
                    grows |= written.add(link.child);
                }
            }
        }
    }

    private void addNeeded(ReachedTable reached, BitSet columns, Proposal proposal) {
        Table table = reached.table();
        for (Key key : table.keys()) {
            add(columns, table.indexesOf(key.columns()));
        }
        reached.linksOut.forEach(link -> add(columns, link.childColumns));
        reached.linksIn.forEach(link -> add(columns, link.parentColumns));
        for (Total total : table.totals()) {
            add(columns, total.value().columnsRead());
        }
        for (ReachedTable below : rows.tables()) {
            for (Total total : below.table().totals()) {
                for (ParentValue value : total.value().parentsRead()) {
                    List<ReachedLink> way = below.way(value.links());
                    if (way.get(way.size() - 1).parent == reached) {
                        columns.set(value.column());
                    }
                }
            }
        }
        for (Change change : proposal.changes()) {
            if (change instanceof Change.DeleteListed listed && listed.table().equals(table.name())) {
                add(columns, table.indexesOf(listed.columns()));
            } else if (change instanceof Change.Delete delete) {
                addRead(delete.where(), delete.table(), table, columns);
            } else if (change instanceof Change.Update update) {
                addRead(update.where(), update.table(), table, columns);
            }
        }
    }

    private static void addRead(Optional<Expression> where, String of, Table table, BitSet columns) {
        if (where.isEmpty()) {
            return;
        }
        if (of.equals(table.name())) {
            add(columns, where.get().columnsRead());
        }
        for (InQuery query : where.get().queries()) {
            if (query.table().equals(table.name())) {
                columns.set(query.column());
                query.where().ifPresent(condition -> add(columns, condition.columnsRead()));
            }
        }
    }

    private static void add(BitSet columns, int[] some) {
        for (int column : some) {
            columns.set(column);
        }
    }
}
