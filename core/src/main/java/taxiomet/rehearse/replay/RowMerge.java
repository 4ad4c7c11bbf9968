package taxiomet.rehearse.replay;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Key;
import taxiomet.finding.RefusalKind;
import taxiomet.personal.Pseudonyms;
import taxiomet.proposal.Change;
import taxiomet.proposal.Change.Combination;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.KeyLookup;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.Unread;

/**
 * Merging and renumbering, each a series of statements that counts as one change (R1). To merge: for each link that points at the
 * table, the children of the row that goes are pointed at the one that stays; two that would then share a key are merged in turn;
 * the row goes; the one that stays is filled. To renumber: one update where all links that point at the row cascade; otherwise a new row
 * is made, the children are pointed at it, and the old one goes.
 */
final class RowMerge {
    private final Replay replay;
    private final ReachedRows rows;
    /** Rows that are going: their merge is not through. */
    private final Set<ReachedRow> underWay = new HashSet<>();

    RowMerge(Replay replay, ReachedRows rows) {
        this.replay = replay;
        this.rows = rows;
    }

    /** Gives how many rows the change names. */
    int merge(Change.Merge merge) {
        ReachedTable table = rows.table(merge.table());
        Optional<ReachedRow> goes = find(table, merge.goes(), merge.origin());
        Optional<ReachedRow> stays = find(table, merge.stays(), merge.origin());
        if (goes.isPresent() && goes.equals(stays)) {
            throw new ProposalException(
                    merge.origin().place(), "`goes` and `stays` are the same row", "name two rows that are one");
        }
        if (goes.isPresent() && stays.isPresent()) {
            merge(goes.get(), stays.get(), merge, Map.of(), merge.fills() ? Combination.FIRST : Combination.STAYER);
        }
        return 2;
    }

    /**
     * @param combine how columns are combined
     * @param otherwise how those are that it does not name
     */
    private void merge(
            ReachedRow goes,
            ReachedRow stays,
            Change.Merge merge,
            Map<String, Combination> combine,
            Combination otherwise) {
        ReachedTable table = goes.table;
        underWay.add(goes);
        for (ReachedLink link : table.linksIn) {
            point(link, goes, stays, merge);
        }
        underWay.remove(goes);
        Object[] whole = combined(goes, stays, combine, otherwise);
        if (goes.isGone) {
            return;
        }
        replay.runDelete(table, List.of(goes));
        if (!java.util.Arrays.equals(whole, stays.values) && !stays.isGone) {
            replay.runUpdate(table, List.of(stays), assigner(row -> whole, ChangeReader.allColumns(table)));
        }
    }

    /** Points the children of one row at the other, those at once that can be. */
    private void point(ReachedLink link, ReachedRow from, ReachedRow to, Change.Merge merge) {
        Object key = link.parents.keyOf(from.values);
        if (key == null) {
            return;
        }
        List<ReachedRow> free = new ArrayList<>();
        for (ReachedRow child : link.childrenOf(key)) {
            Optional<ReachedRow> twin = twinOf(link, child, pointed(link, child, to));
            if (twin.isEmpty()) {
                free.add(child);
            } else {
                mergeChildren(child, twin.get(), merge);
            }
        }
        if (!free.isEmpty()) {
            replay.runUpdate(link.child, free, assigner(child -> pointed(link, child, to), link.childColumns));
        }
    }

    private void mergeChildren(ReachedRow child, ReachedRow twin, Change.Merge merge) {
        Map<String, Combination> combine =
                merge.combine().get(child.table.table().name());
        // Where a circle of links leads back to rows that are being merged, nothing says which comes first.
        if (combine == null || underWay.contains(child) || underWay.contains(twin)) {
            replay.refuse(
                    RefusalKind.NOT_COMBINED,
                    child.table,
                    child.table.table().keys().get(0).name(),
                    child);
            return;
        }
        merge(child, twin, merge, combine, Combination.STAYER);
    }

    private static Object[] pointed(ReachedLink link, ReachedRow child, ReachedRow to) {
        Object[] values = child.values.clone();
        for (int i = 0; i < link.childColumns.length; i++) {
            Object part = to.values[link.parent.slotOf(link.parentColumns[i])];
            values[link.child.slotOf(link.childColumns[i])] = link.child
                    .codec(link.childColumns[i])
                    .assign(link.parent.codec(link.parentColumns[i]).operand(part));
        }
        return values;
    }

    /** Another row that has a key which a row would get. */
    private static Optional<ReachedRow> twinOf(ReachedLink link, ReachedRow child, Object[] values) {
        for (Key key : RowJudge.keysOf(link.child)) {
            KeyLookup lookup = link.child.lookup(key);
            Object wanted = lookup.keyOf(values);
            if (wanted != null && !wanted.equals(lookup.keyOf(child.values))) {
                for (ReachedRow other : link.child.find(lookup, wanted)) {
                    if (!other.equals(child)) {
                        return Optional.of(other);
                    }
                }
            }
        }
        return Optional.empty();
    }

    private static Object[] combined(
            ReachedRow goes, ReachedRow stays, Map<String, Combination> combine, Combination otherwise) {
        Object[] values = stays.values.clone();
        ReachedTable table = stays.table;
        for (int column = 0; column < table.width(); column++) {
            int slot = table.slotOf(column);
            Combination how = combine.getOrDefault(table.column(column).name(), otherwise);
            values[slot] = combined(how, stays.values[slot], goes.values[slot], table.codec(column));
        }
        return values;
    }

    private static Object combined(Combination how, Object stays, Object goes, CellCodec codec) {
        if (how == Combination.STAYER || goes == null || goes instanceof Unread) {
            return stays;
        }
        if (stays == null) {
            return goes;
        }
        if (how == Combination.FIRST || stays instanceof Unread) {
            return stays;
        }
        if (how == Combination.SUM) {
            return sum(codec, stays, goes);
        }
        int order = compare(stays, goes);
        return (how == Combination.LEAST) == (order <= 0) ? stays : goes;
    }

    private static Object sum(CellCodec codec, Object one, Object other) {
        if (one instanceof Double a) {
            return codec.assign(a + (Double) other);
        }
        return codec.assign(((BigDecimal) codec.operand(one)).add((BigDecimal) codec.operand(other)));
    }

    @SuppressWarnings({"unchecked", "rawtypes"})
    private static int compare(Object one, Object other) {
        return ((Comparable) one).compareTo(other);
    }

    /** Gives how many rows the change names. */
    int renumber(Change.Renumber renumber) {
        ReachedTable table = rows.table(renumber.table());
        Optional<ReachedRow> row = find(table, renumber.from(), renumber.origin());
        if (row.isEmpty()) {
            return 1;
        }
        int[] columns = table.table().indexesOf(table.table().namingKey());
        Object[] values = row.get().values.clone();
        for (int i = 0; i < columns.length; i++) {
            Object value = table.codec(columns[i]).parse(renumber.to().get(i));
            if (value instanceof Unread) {
                replay.refuse(
                        RefusalKind.TYPE_MISMATCH,
                        table,
                        table.column(columns[i]).name(),
                        row.get());
                return 1;
            }
            values[table.slotOf(columns[i])] = value;
        }
        boolean cascades = table.linksIn.stream()
                .filter(link -> ReachedLink.meet(link.parentColumns, columns))
                .allMatch(link -> link.link.isEnforced() && link.link.onUpdate().name() == ActionName.CASCADE);
        if (cascades) {
            replay.runUpdate(table, List.of(row.get()), assigner(r -> values, columns));
        } else {
            replace(row.get(), values, columns, renumber);
        }
        return 1;
    }

    /** A new row, the children pointed at it, and the old one gone; other unique keys move when it is. */
    private void replace(ReachedRow row, Object[] values, int[] keyColumns, Change.Renumber renumber) {
        ReachedTable table = row.table;
        Object[] first = values.clone();
        for (Key key : RowJudge.keysOf(table)) {
            int[] own = table.table().indexesOf(key.columns());
            if (!key.isPrimary() && !ReachedLink.meet(own, keyColumns)) {
                for (int column : own) {
                    if (!table.table().isRequired(table.column(column).name())) {
                        first[table.slotOf(column)] = null;
                    }
                }
            }
        }
        replay.runInsert(table, Collections.singletonList(first));
        ReachedRow made = table.newRows().get(table.newRows().size() - 1);
        Change.Merge asMerge =
                new Change.Merge(renumber.origin(), renumber.table(), renumber.from(), renumber.to(), false, Map.of());
        for (ReachedLink link : table.linksIn) {
            if (ReachedLink.meet(link.parentColumns, keyColumns)) {
                point(link, row, made, asMerge);
            }
        }
        if (!row.isGone) {
            replay.runDelete(table, List.of(row));
        }
        if (!java.util.Arrays.equals(first, values) && !made.isGone) {
            replay.runUpdate(table, List.of(made), assigner(r -> values, ChangeReader.allColumns(table)));
        }
    }

    /** The row of a key; empty while it has not been read. */
    private Optional<ReachedRow> find(ReachedTable table, List<String> key, Origin origin) {
        List<String> names = table.table().namingKey();
        int[] columns = table.table().indexesOf(names);
        if (columns.length != key.size() || columns.length == 0) {
            throw new ProposalException(
                    origin.place(),
                    "the key of " + table.table().name() + " has " + columns.length + " columns"
                            + (columns.length == 0 ? "" : " (" + String.join(", ", names) + ")"),
                    columns.length == 0 ? "declare a key for the table" : "give each a value, as a list");
        }
        Object[] parts = new Object[columns.length];
        for (int i = 0; i < parts.length; i++) {
            parts[i] = table.codec(columns[i]).parse(key.get(i));
        }
        KeyLookup lookup = table.lookup(table.table().keys().get(0));
        Object wanted = lookup.keyOfParts(parts);
        Collection<ReachedRow> found = wanted == null ? List.of() : table.find(lookup, wanted);
        if (found.isEmpty() && rows.misses() == 0) {
            throw new ProposalException(
                    origin.place(),
                    "no row of " + table.table().name() + " has the key " + shown(table, columns, key),
                    "correct the key");
        }
        if (found.size() > 1 && rows.misses() == 0) {
            throw new ProposalException(
                    origin.place(),
                    found.size() + " rows of " + table.table().name() + " have the key " + shown(table, columns, key),
                    "mend the duplicates first");
        }
        return found.stream().findFirst();
    }

    private static String shown(ReachedTable table, int[] columns, List<String> key) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < columns.length; i++) {
            parts.add(Pseudonyms.hidden(table.column(columns[i]), key.get(i)));
        }
        return String.join(", ", parts);
    }

    private interface ValuesOf {
        Object[] of(ReachedRow row);
    }

    private static ChangeReader.Assigner assigner(ValuesOf values, int[] columns) {
        return new ChangeReader.Assigner() {
            @Override
            public Object[] values(ReachedRow row) {
                return values.of(row);
            }

            @Override
            public int[] columnsSet() {
                return columns.clone();
            }
        };
    }
}
