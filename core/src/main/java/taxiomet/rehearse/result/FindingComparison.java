package taxiomet.rehearse.result;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import taxiomet.charter.Key;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.FindingKind;
import taxiomet.rehearse.reach.ReachedLink;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowGatherer;
import taxiomet.rows.BorrowedSource;
import taxiomet.rows.TableSource;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/**
 * Which findings a proposal adds and mends: by a check of all rows before and after or, where it changes few, of the rows near them
 * alone.
 */
public final class FindingComparison implements AutoCloseable {
    private static final CheckOptions CHECKING = new CheckOptions(Set.of(), 0, 0);

    private final ReachedRows rows;
    private final Map<String, TableSource> sources;
    private final RowGatherer gatherer;
    private final RunContext context;
    /** Which rows were at fault before may be many. */
    private final SpillFolder spill;

    private FindingRowsSeen allBefore;

    /** @param sources the rows of all tables as they were read, by name */
    public FindingComparison(
            ReachedRows rows, Map<String, TableSource> sources, RowGatherer gatherer, RunContext context) {
        this.rows = rows;
        this.sources = sources;
        this.gatherer = gatherer;
        this.context = context;
        this.spill = new SpillFolder(context.temporary(), context.budget());
    }

    /** Checks all rows as they were read; what that shows of keys and links spares the replays look-ups. */
    public void checkAllBefore() {
        try (CheckRun check = check(sources, context)) {
            allBefore = new FindingRowsSeen(check, rows, sources, spill);
            noteUniqueKeys(check);
            noteSoundLinks(check);
        }
    }

    /** Compares the rows as they stand now with those that were read. */
    public void compare(int examples, ResultBuilder builder) {
        if (rows.tables().stream().noneMatch(ReachedTable::isChanged)) {
            return;
        }
        Map<String, TableSource> read = sources;
        FindingRowsSeen before = allBefore;
        if (before == null) {
            Neighbourhood near = new Neighbourhood(rows, gatherer);
            read = near.gather() ? near.rows(sources) : sources;
            try (CheckRun check = check(read, context)) {
                before = new FindingRowsSeen(check, rows, sources, spill);
            }
        }
        Map<String, TableSource> overlays = new LinkedHashMap<>();
        boolean hasNewRows = false;
        for (ReachedTable table : rows.tables()) {
            OverlaySource overlay = new OverlaySource(read.get(table.table().name()), table);
            overlays.put(table.table().name(), overlay);
            hasNewRows |= overlay.hasNewRows();
        }
        RunContext after = hasNewRows ? context.onOneThread() : context;
        try (CheckRun check = check(overlays, after)) {
            FindingRowsSeen then = new FindingRowsSeen(check, rows, overlays, spill);
            builder.setFindings(then.without(before, examples), before.without(then, examples));
        }
    }

    private CheckRun check(Map<String, TableSource> of, RunContext by) {
        return CheckRun.start(
                rows.charter().withComparableLinks(), CHECKING, table -> new BorrowedSource(of.get(table.name())), by);
    }

    /** Where no duplicates were found, a key has one row alone: others need not be looked for. */
    private void noteUniqueKeys(CheckRun check) {
        for (ReachedTable table : rows.tables()) {
            for (Key key : table.table().keys()) {
                boolean hasDuplicates = check.result().findings().stream()
                        .anyMatch(finding -> finding.kind() == FindingKind.DUPLICATE
                                && finding.table().equals(table.table().name())
                                && finding.at().equals(key.name()));
                if (!hasDuplicates && key.where().isEmpty()) {
                    table.lookup(key).setUniqueAsRead();
                }
            }
        }
    }

    private void noteSoundLinks(CheckRun check) {
        for (ReachedLink link : rows.links()) {
            boolean isSound = link.link.where().isEmpty()
                    && check.result().links().stream()
                            .anyMatch(found -> found.child().equals(link.link.child())
                                    && found.name().equals(link.link.name())
                                    && found.orphans() == 0);
            if (isSound) {
                link.setSoundAsRead();
            }
        }
    }

    @Override
    public void close() {
        spill.close();
    }
}
