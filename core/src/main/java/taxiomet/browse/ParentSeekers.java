package taxiomet.browse;

import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.finding.TraceResult.LinkState;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.TypedBatch;
import taxiomet.work.RunContext;

/** Seeks the parents of rows, in one pass a table however many links lead to it. */
final class ParentSeekers {
    /** So many rows with one key are looked at by rules; a key of a parent should have one. */
    private static final int MOST_PARENTS = 50;

    private final Charter charter;
    private final RunContext context;
    private final Map<List<Object>, KeySeeker> seekers = new LinkedHashMap<>();

    ParentSeekers(Charter charter, RunContext context) {
        this.charter = charter;
        this.context = context;
    }

    void addTo(TablePass pass) {
        seekers.forEach((name, seeker) -> pass.add(charter.table((String) name.get(0)), seeker));
    }

    /** The parent of a row that is not malformed over a link, as far as its own values say; it is known when the pass is through. */
    ParentSought seek(RowAtHand row, ForeignKey link) {
        TypedBatch batch = row.typed().orElseThrow();
        RowFilter filter = RowFilter.of(link.where());
        if (filter != null) {
            filter.start(batch);
            if (!filter.holds(0)) {
                return new ParentSought(link, LinkState.NOT_FOR_THIS_ROW, Optional.empty());
            }
        }
        List<LinkParts.Part> parts = LinkParts.of(charter, link, context.secret());
        KeyEncoder whole = parts.get(0).child();
        whole.start(batch);
        whole.look(0);
        LinkState judged = judged(whole, link.match());
        if (judged != LinkState.MISSING) {
            return new ParentSought(link, judged, Optional.empty());
        }
        LinkParts.Part part =
                parts.stream().filter(each -> isPartOf(row, each)).findFirst().orElseThrow();
        RowKey key = row.key(part.child()).orElseThrow();
        return new ParentSought(link, judged, Optional.of(seeker(link, part).want(key)));
    }

    /** Missing means that the parent is to be sought. */
    private static LinkState judged(KeyEncoder whole, Match match) {
        if (whole.isAllNull()) {
            return LinkState.NULL;
        } else if (whole.nulls() > 0 && match == Match.SIMPLE) {
            return LinkState.HALF_NULL;
        } else if (whole.nulls() > 0 && match == Match.FULL) {
            return LinkState.HALF_NULL_REFUSED;
        }
        return whole.illTyped() > 0 ? LinkState.ILL_TYPED : LinkState.MISSING;
    }

    /** Whether a row's columns of a part are all that are not null. */
    private static boolean isPartOf(RowAtHand row, LinkParts.Part part) {
        return row.key(part.child()).isPresent()
                && Arrays.stream(part.open())
                        .allMatch(column -> row.row().values().get(column) == null);
    }

    private KeySeeker seeker(ForeignKey link, LinkParts.Part part) {
        Table parent = charter.table(link.parent());
        KeyEncoder encoder = part.parent();
        List<Object> name = List.of(parent.name(), Arrays.toString(encoder.columns()), encoder.forms());
        return seekers.computeIfAbsent(
                name,
                key -> new KeySeeker(
                        parent, encoder, new int[0], null, MOST_PARENTS, Optional.empty(), context.budget()));
    }
}
