package taxiomet.browse;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.total.RowTotals;
import taxiomet.work.RunContext;

/** The children of all rows at the end of a way of links, over one more link. */
final class ChildrenSought {
    private final List<ForeignKey> way;
    private final Table child;
    private final RowTotals totals;
    private final List<LinkParts.Part> parts;
    private final List<KeySeeker> seekers = new ArrayList<>();
    private final List<ChildrenSought> deeper = new ArrayList<>();
    private final Map<RowAtHand, List<Tally>> tallies = new LinkedHashMap<>();
    private final Map<RowAtHand, List<RowAtHand>> shown = new HashMap<>();

    /** The children of one row. */
    @SuppressWarnings("ArrayRecordComponent")
    record Found(long rows, long[] first, List<Sum> sums) {}

    /**
     * @param way the links that lead there, the highest first; over the last of them children are sought
     * @param most how many of a row's children are named
     */
    ChildrenSought(Charter charter, List<ForeignKey> way, int most, Sources sources, RunContext context) {
        this.way = List.copyOf(way);
        ForeignKey link = link();
        this.child = charter.table(link.child());
        this.totals = sources.totals(child, charter, context);
        this.parts = LinkParts.of(charter, link, context.secret());
        for (LinkParts.Part part : parts) {
            seekers.add(new KeySeeker(
                    child,
                    part.child(),
                    part.open(),
                    RowFilter.of(link.where()),
                    most,
                    Optional.of(totals),
                    context.budget()));
        }
    }

    List<ForeignKey> way() {
        return way;
    }

    ForeignKey link() {
        return way.get(way.size() - 1);
    }

    Table child() {
        return child;
    }

    void addTo(TablePass pass) {
        seekers.forEach(seeker -> pass.add(child, seeker));
    }

    /** The children that are found have theirs sought in turn. */
    ChildrenSought goOnTo(ForeignKey link, Charter charter, int most, Sources sources, RunContext context) {
        List<ForeignKey> longer = new ArrayList<>(way);
        longer.add(link);
        ChildrenSought next = new ChildrenSought(charter, longer, most, sources, context);
        for (KeySeeker seeker : seekers) {
            for (int i = 0; i < next.parts.size(); i++) {
                seeker.goOnTo(next.parts.get(i).parent(), next.seekers.get(i));
            }
        }
        deeper.add(next);
        return next;
    }

    /** What is sought of the children found, link by link. */
    List<ChildrenSought> deeper() {
        return deeper;
    }

    /** Seeks the children of a row. */
    void want(RowAtHand parent) {
        List<Tally> own = new ArrayList<>();
        for (int i = 0; i < parts.size(); i++) {
            KeySeeker seeker = seekers.get(i);
            parent.key(parts.get(i).parent()).ifPresent(key -> own.add(seeker.want(key)));
        }
        tallies.put(parent, own);
    }

    /** The rows whose children were sought. */
    Set<RowAtHand> parents() {
        return tallies.keySet();
    }

    /** The children of a row. */
    Found of(RowAtHand parent) {
        return together(tallies.getOrDefault(parent, List.of()));
    }

    /** All children of all rows at the end of the way. */
    Found all() {
        return together(seekers.stream().map(KeySeeker::all).toList());
    }

    /** The children of a row that have been read to be shown. */
    List<RowAtHand> shown(RowAtHand parent) {
        return shown.getOrDefault(parent, List.of());
    }

    void setShown(RowAtHand parent, List<RowAtHand> children) {
        shown.put(parent, children);
    }

    private Found together(List<Tally> some) {
        List<Sum> sums = new ArrayList<>();
        for (int i = 0; i < totals.size(); i++) {
            int place = i;
            sums.add(new Sum(
                    totals.texts().get(i),
                    some.stream()
                            .map(tally -> tally.sums().get(place).sum())
                            .reduce(BigDecimal.ZERO, BigDecimal::add)));
        }
        return new Found(
                some.stream().mapToLong(Tally::rows).sum(),
                some.stream()
                        .flatMapToLong(tally -> LongStream.of(tally.first()))
                        .sorted()
                        .toArray(),
                sums);
    }
}
