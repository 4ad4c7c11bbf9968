package taxiomet.load;

import java.util.Map;
import java.util.Optional;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.expression.RowFilter;
import taxiomet.finding.LoadResult.Why;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.values.TypedColumn;

/** One link, asked about each row as it comes: its match type says what nulls mean (ISO/IEC 9075-2, 4.18.3.2). */
final class LinkInLoad {
    private final ForeignKey link;
    private final KeyEncoder whole;
    private final RowFilter filter;
    /** The keys of the parents that are in, by the columns of the link that are not null, as bits; all of them but for a partial match. */
    private final Map<Integer, LoadedKeys> parents;
    /** The link's columns that are not null, as bits, with what makes the key of them. */
    private final Map<Integer, KeyEncoder> parts;

    private final boolean isToItself;

    /** @param parents by the columns that are not null, first column in the lowest bit, and {@code parts} likewise */
    LinkInLoad(ForeignKey link, Map<Integer, KeyEncoder> parts, Map<Integer, LoadedKeys> parents) {
        this.link = link;
        this.parts = parts;
        this.parents = parents;
        this.whole = parts.get((1 << link.columns().size()) - 1);
        this.filter = RowFilter.of(link.where());
        this.isToItself = link.child().equals(link.parent());
    }

    ForeignKey link() {
        return link;
    }

    int[] columns() {
        return RowFilter.columnsOf(whole.columns(), filter);
    }

    void start(TypedBatch batch) {
        parts.values().forEach(part -> part.start(batch));
        if (filter != null) {
            filter.start(batch);
        }
    }

    /** Why a row is refused, none of whose values is ill-typed; {@link Why#PARENT_NOT_IN} whether there is a parent elsewhere or not. */
    Optional<Why> refuses(int row) {
        if (filter != null && !filter.holds(row)) {
            return Optional.empty();
        }
        whole.look(row);
        if (whole.isAllNull() || (whole.nulls() > 0 && link.match() == Match.SIMPLE)) {
            return Optional.empty();
        }
        if (whole.nulls() > 0 && link.match() == Match.FULL) {
            return Optional.of(Why.HALF_NULL);
        }
        int there = 0;
        for (int i = 0; i < link.columns().size(); i++) {
            there |= whole.state(row, i) == TypedColumn.NULL ? 0 : 1 << i;
        }
        KeyEncoder part = parts.get(there);
        LoadedKeys in = parents.get(there);
        part.encode(row);
        long high = part.high();
        long low = part.low();
        boolean isIn = in.contains(high, low) || (isToItself && in.isKeyOf(row, high, low));
        return isIn ? Optional.empty() : Optional.of(Why.PARENT_NOT_IN);
    }
}
