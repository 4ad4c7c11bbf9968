package taxiomet.check.pass;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.function.Function;

/** The order in which tables are read. */
public final class ParentsFirst {
    private ParentsFirst() {}

    /**
     * Parents before their children where circles allow it, otherwise in the order given.
     *
     * @param parents of a table; it may be among them itself
     */
    public static <T> List<T> order(List<T> tables, Function<T, Collection<T>> parents) {
        List<T> open = new ArrayList<>(tables);
        List<T> ordered = new ArrayList<>();
        while (!open.isEmpty()) {
            T next = open.stream()
                    .filter(table -> parents.apply(table).stream()
                            .noneMatch(parent -> !parent.equals(table) && open.contains(parent)))
                    .findFirst()
                    .orElse(open.get(0));
            open.remove(next);
            ordered.add(next);
        }
        return ordered;
    }
}
