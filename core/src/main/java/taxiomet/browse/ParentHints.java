package taxiomet.browse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.finding.Hint;
import taxiomet.finding.TraceResult.LinkState;
import taxiomet.hint.HintFinder;
import taxiomet.work.RunContext;

/** Looks for the parents that may have been meant where there is none. */
final class ParentHints {
    private final Charter charter;
    private final Sources sources;
    private final RunContext context;

    /** A parent that is not there, and the row that misses it. */
    private record Missed(RowAtHand row, ParentSought parent) {
        List<String> cells() {
            List<String> cells = new ArrayList<>();
            for (int column : row.table().indexesOf(parent.link().columns())) {
                cells.add(row.row().values().get(column));
            }
            return cells;
        }
    }

    ParentHints(Charter charter, Sources sources, RunContext context) {
        this.charter = charter;
        this.sources = sources;
        this.context = context;
    }

    /**
     * Adds hints to what a row and its parents miss.
     *
     * @param levels how many of them
     */
    void addTo(RowAtHand row, int levels) {
        Map<ForeignKey, List<Missed>> missed = new LinkedHashMap<>();
        gather(row, levels, missed);
        missed.forEach((link, rows) -> {
            Table parent = charter.table(link.parent());
            context.progress().reading(parent.name());
            HintFinder finder = new HintFinder();
            rows.forEach(each -> finder.ask(each.cells(), each.parent().state() == LinkState.ILL_TYPED));
            finder.look(sources.of(parent), parent.indexesOf(link.parentColumns()));
            rows.forEach(each -> each.parent()
                    .setHint(finder.hintFor(each.cells()).filter(hint -> hint.kind() != Hint.Kind.NOT_OF_ITS_TYPE)));
        });
    }

    private static void gather(RowAtHand row, int levels, Map<ForeignKey, List<Missed>> missed) {
        if (levels == 0 || row.typed().isEmpty()) {
            return;
        }
        for (ParentSought sought : row.parents()) {
            if (sought.state() == LinkState.MISSING || sought.state() == LinkState.ILL_TYPED) {
                missed.computeIfAbsent(sought.link(), link -> new ArrayList<>()).add(new Missed(row, sought));
            }
            sought.parent().ifPresent(parent -> gather(parent, levels - 1, missed));
        }
    }
}
