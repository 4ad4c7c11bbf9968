package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.IntStream;
import taxiomet.charter.ForeignKey.Action;

/**
 * A link under match partial (S5): a child row matches a parent row that agrees with it in all of its columns that are not null. Rows
 * are looked for by one column and then compared in the others, since any of them may be null.
 */
public final class PartialMatch {
    private final ReachedLink link;
    private final KeyLookup[] children;
    private final KeyLookup[] parents;

    PartialMatch(ReachedLink link) {
        this.link = link;
        int width = link.childColumns.length;
        this.children = new KeyLookup[width];
        this.parents = new KeyLookup[width];
        for (int i = 0; i < width; i++) {
            children[i] = link.child.lookup(new int[] {link.childColumns[i]}, List.of(link.forms.get(i)));
            parents[i] = link.parent.lookup(new int[] {link.parentColumns[i]}, List.of(link.forms.get(i)));
        }
    }

    /** Whether all of a child's columns are null: then it is not judged. */
    public boolean isEmpty(Object[] child) {
        return link.nullsIn(child) == link.childColumns.length;
    }

    /** Whether a child agrees with a parent in each of its columns that is not null, and one is not. */
    public boolean matches(Object[] child, Object[] parent) {
        boolean isAny = false;
        for (int i = 0; i < children.length; i++) {
            if (child[link.child.slotOf(link.childColumns[i])] != null) {
                Object part = children[i].keyOf(child);
                if (part == null || !Objects.equals(part, parents[i].keyOf(parent))) {
                    return false;
                }
                isAny = true;
            }
        }
        return isAny;
    }

    /** The child rows that match a parent with some values now, in the order in which they stand. */
    public List<ReachedRow> childrenOf(Object[] parent) {
        Set<ReachedRow> found = new LinkedHashSet<>();
        for (int i = 0; i < parents.length; i++) {
            Object part = parents[i].keyOf(parent);
            if (part != null) {
                found.addAll(link.child.find(children[i], part));
            }
        }
        List<ReachedRow> matching = new ArrayList<>(found);
        matching.removeIf(child -> !matches(child.values, parent));
        matching.sort(java.util.Comparator.comparingLong(row -> row.position));
        return matching;
    }

    /**
     * What an action leaves of a child; a null stays null where the parent is changed.
     *
     * @param before the parent's values before
     * @param after the parent's values now; null where it went
     * @return the places, among the link's columns, of those that the action writes
     */
    public int[] columnsWritten(ReachedRow child, Action action, Object[] before, Object[] after) {
        int[] listed = link.columnsSet(action);
        return IntStream.range(0, link.childColumns.length)
                .filter(i -> IntStream.of(listed).anyMatch(column -> column == link.childColumns[i]))
                .filter(i -> after == null
                        || (child.value(link.childColumns[i]) != null
                                && !CellCodec.isSame(
                                        before[link.parent.slotOf(link.parentColumns[i])],
                                        after[link.parent.slotOf(link.parentColumns[i])])))
                .toArray();
    }

    /** The parent rows that a child with some values matches now. */
    public Collection<ReachedRow> parentsOf(Object[] child) {
        for (int i = 0; i < children.length; i++) {
            if (child[link.child.slotOf(link.childColumns[i])] != null) {
                Object part = children[i].keyOf(child);
                if (part == null) {
                    return List.of();
                }
                List<ReachedRow> matching = new ArrayList<>(link.parent.find(parents[i], part));
                matching.removeIf(parent -> !matches(child, parent.values));
                return matching;
            }
        }
        return List.of();
    }
}
