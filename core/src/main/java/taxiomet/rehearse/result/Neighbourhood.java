package taxiomet.rehearse.result;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.Expression.ChildrenValue;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.KeyLookup;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowGatherer;
import taxiomet.rows.RowsKept;
import taxiomet.rows.TableSource;

/**
 * The rows among which the findings change as they do among all: those that the proposal changes, those that share a key with them
 * before or after, their parents and their children. A row that stands in it without its own parents may be found at fault, but then it
 * is so before and after.
 */
final class Neighbourhood {
    private final ReachedRows rows;
    private final RowGatherer gatherer;
    private boolean isBounded = true;

    Neighbourhood(ReachedRows rows, RowGatherer gatherer) {
        this.rows = rows;
        this.gatherer = gatherer;
    }

    /**
     * Reads the rows.
     *
     * @return false when all rows have to be checked: a change may make or break a ring, a partial match, a rule over parents or children, or a likeness, far away
     */
    boolean gather() {
        for (ReachedTable table : rows.tables()) {
            for (ReachedRow row : table.changedRows()) {
                addAround(row);
            }
            table.madeRows().forEach(this::addAround);
        }
        if (isBounded) {
            gatherer.gather();
            rows.tables().forEach(this::addParentsOfRules);
        }
        return isBounded;
    }

    /** The rows of each table, as they were read. */
    Map<String, TableSource> rows(Map<String, TableSource> sources) {
        Map<String, TableSource> kept = new LinkedHashMap<>();
        for (ReachedTable table : rows.tables()) {
            ReachedRow[] reached = table.rows.inOrder();
            long[] refs = new long[reached.length];
            for (int i = 0; i < refs.length; i++) {
                refs[i] = reached[i].ref;
            }
            kept.put(
                    table.table().name(), new RowsKept(sources.get(table.table().name()), refs));
        }
        return kept;
    }

    /** The values of a row before and after, one of them alone where it goes or is made. */
    private static List<Object[]> versions(ReachedRow row) {
        List<Object[]> versions = new ArrayList<>(2);
        if (!row.isNew()) {
            versions.add(row.original);
        }
        if (!row.isGone) {
            versions.add(row.values);
        }
        return versions;
    }

    /** The keys of a row before and after, null among them; none where it is the same. */
    private static Set<Object> keysLostOrTaken(ReachedRow row, KeyLookup lookup) {
        List<Object[]> versions = versions(row);
        Set<Object> keys = new HashSet<>();
        versions.forEach(values -> keys.add(lookup.keyOf(values)));
        return versions.size() == 2 && keys.size() == 1 && !keys.contains(null) ? Set.of() : keys;
    }

    private void addAround(ReachedRow row) {
        ReachedTable table = row.table;
        for (Key key : table.table().keys()) {
            KeyLookup lookup = table.lookup(key);
            for (Object found : keysLostOrTaken(row, lookup)) {
                isBounded &= found != null || !key.nullsAreEqual();
                want(table, lookup, found);
            }
        }
        for (ReachedLink link : table.linksIn) {
            for (Object key : keysLostOrTaken(row, link.parents)) {
                want(link.child, link.children, key);
                want(table, link.parents, key);
                isBounded &= !isFarReaching(link);
            }
        }
        for (ReachedLink link : table.linksOut) {
            for (Object key : keysLostOrTaken(row, link.children)) {
                want(link.parent, link.parents, key);
                isBounded &= !isFarReaching(link);
                if (link.link.children().isPresent()) {
                    want(table, link.children, key);
                }
            }
        }
        isBounded &= !isReadByRules(row) && !isAddedUpByRules(row) && !isComparedLoosely(row);
    }

    private static void want(ReachedTable table, KeyLookup lookup, Object key) {
        if (key != null) {
            table.want(lookup, key);
        }
    }

    private static boolean isFarReaching(ReachedLink link) {
        return link.link.isAcyclic() || (link.isMatchPartial() && link.childColumns.length > 1);
    }

    /** Whether a rule of another row may read what changes in a row. */
    private boolean isReadByRules(ReachedRow row) {
        for (ReachedTable child : rows.tables()) {
            for (Rule rule : child.table().rules()) {
                for (ParentValue value : rule.condition().parentsRead()) {
                    List<ReachedLink> way = child.way(value.links());
                    for (int i = 0; i < way.size(); i++) {
                        if (way.get(i).parent == row.table && isReadChanged(row, way, i, value.column())) {
                            return true;
                        }
                    }
                }
            }
        }
        return false;
    }

    /** Whether a row's own rule asks for its children, or that of a parent may add up what changes in it. */
    private boolean isAddedUpByRules(ReachedRow row) {
        for (ReachedTable table : rows.tables()) {
            for (Rule rule : table.table().rules()) {
                List<ChildrenValue> figures = rule.condition().childrenRead();
                boolean isOwn = table == row.table && !figures.isEmpty();
                if (isOwn
                        || figures.stream()
                                .anyMatch(figure ->
                                        figure.child().equals(row.table.table().name()))) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Whether a row may be, or have been, like any other of its table. */
    private static boolean isComparedLoosely(ReachedRow row) {
        return row.table.table().alike().stream()
                .flatMap(rule -> rule.columns().stream())
                .anyMatch(column -> row.isNew()
                        || row.isGone
                        || isChanged(row, row.table.table().indexOf(column)));
    }

    private static boolean isChanged(ReachedRow row, int column) {
        int slot = row.table.slotOf(column);
        return slot >= 0 && !CellCodec.isSame(row.values[slot], row.original[slot]);
    }

    private static boolean isReadChanged(ReachedRow row, List<ReachedLink> way, int step, int column) {
        BitSet read = new BitSet();
        for (int parentColumn : way.get(step).parentColumns) {
            read.set(parentColumn);
        }
        if (step + 1 == way.size()) {
            read.set(column);
        } else {
            for (int childColumn : way.get(step + 1).childColumns) {
                read.set(childColumn);
            }
        }
        return row.isNew() || row.isGone || read.stream().anyMatch(place -> isChanged(row, place));
    }

    /** The parents, step by step, that the rules of changed rows read. */
    private void addParentsOfRules(ReachedTable table) {
        if (!table.isChanged()) {
            return;
        }
        for (Rule rule : table.table().rules()) {
            for (ParentValue value : rule.condition().parentsRead()) {
                for (ReachedLink link : table.way(value.links())) {
                    link.child.rows.forEach(row -> want(link.parent, link.parents, link.children.keyOf(row.original)));
                    for (ReachedRow row : link.child.present()) {
                        want(link.parent, link.parents, link.children.keyOf(row.values));
                    }
                    gatherer.gather();
                }
            }
        }
    }
}
