package taxiomet.check.link;

import java.util.Arrays;
import java.util.List;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.rows.Suspicion.WithoutParent;
import taxiomet.work.Secret;

/**
 * One link with the tables and columns of both ends.
 *
 * @param forms in which the values of both ends are compared
 */
record LinkEnds(ForeignKey link, Table child, Table parent, List<KeyForm> forms, Secret secret) {
    LinkEnds {
        forms = List.copyOf(forms);
    }

    KeyEncoder ofChild() {
        return new KeyEncoder(child.indexesOf(link.columns()), forms, secret);
    }

    KeyEncoder ofParent() {
        return new KeyEncoder(parent.indexesOf(link.parentColumns()), forms, secret);
    }

    RowFilter filter() {
        return RowFilter.of(link.where());
    }

    /** Places of the child's columns. */
    List<Integer> places() {
        return Arrays.stream(child.indexesOf(link.columns())).boxed().toList();
    }

    /** What a child's row without a parent is suspected of. */
    WithoutParent withoutParent() {
        List<Integer> parentPlaces =
                Arrays.stream(parent.indexesOf(link.parentColumns())).boxed().toList();
        return new WithoutParent(places(), parent.name(), parentPlaces);
    }
}
