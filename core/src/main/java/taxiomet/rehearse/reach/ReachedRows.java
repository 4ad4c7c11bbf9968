package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.rows.RowRef;

/**
 * All rows that a proposal reaches, as they were read and, over that, as they are in the current replay (C1). What a statement does
 * can be undone; so can a whole replay.
 */
public final class ReachedRows {
    private static final long BEHIND_ALL = RowRef.of(ReachedTable.NEW_PART, 1);

    private final Charter charter;
    private final List<ReachedTable> tables = new ArrayList<>();
    private final List<ReachedLink> links = new ArrayList<>();
    private final List<Step> journal = new ArrayList<>();
    private final List<ReachedRow> touched = new ArrayList<>();
    private long nextPosition = BEHIND_ALL;
    private long misses;

    /** How to take back what was done to a row. */
    private interface Step {
        void takeBack();
    }

    private record Deleted(ReachedRow row, Effect lastEffect) implements Step {
        @Override
        public void takeBack() {
            row.table.putBack(row);
            row.version--;
            row.lastEffect = lastEffect;
        }
    }

    private record Made(ReachedRow row) implements Step {
        @Override
        public void takeBack() {
            row.table.forget(row);
        }
    }

    @SuppressWarnings("ArrayRecordComponent")
    private record Rewritten(ReachedRow row, Object[] values, long position, int statement, Effect lastEffect)
            implements Step {
        @Override
        public void takeBack() {
            row.table.replace(row, values);
            row.position = position;
            row.version--;
            row.statement = statement;
            row.lastEffect = lastEffect;
        }
    }

    /** No rows yet; tables and links of a charter. */
    public ReachedRows(Charter charter) {
        this.charter = charter;
        for (Table table : charter.tables()) {
            tables.add(new ReachedTable(table, tables.size(), this));
        }
        for (ForeignKey link : charter.links()) {
            // No server holds a link for some rows alone: it neither acts nor refuses, and new orphans are findings.
            ForeignKey held = link.where().isEmpty() ? link : link.notEnforced();
            ReachedLink reached = new ReachedLink(held, table(link.child()), table(link.parent()));
            links.add(reached);
            reached.child.linksOut.add(reached);
            reached.parent.linksIn.add(reached);
        }
    }

    /** The rules. */
    public Charter charter() {
        return charter;
    }

    /** All tables, as declared. */
    public List<ReachedTable> tables() {
        return tables;
    }

    /** In the order of declaration over the whole schema. */
    public List<ReachedLink> links() {
        return links;
    }

    /** The table of a name that is known to exist. */
    public ReachedTable table(String name) {
        return tables.get(charter.indexOf(name));
    }

    /** How many rows have been read. */
    public long countRead() {
        return tables.stream().mapToLong(table -> table.rows.size()).sum();
    }

    void miss() {
        misses++;
    }

    /** How often a replay asked for rows that had not been read. */
    public long misses() {
        return misses;
    }

    private void note(ReachedRow row, Step step) {
        journal.add(step);
        if (!row.isTouched) {
            row.isTouched = true;
            touched.add(row);
        }
    }

    /** Has a row go. */
    public void delete(ReachedRow row) {
        note(row, new Deleted(row, row.lastEffect));
        row.table.takeOut(row);
        row.version++;
    }

    /** Gives a row other values, by its slots; it stands behind all others from now on (P1). */
    public void write(ReachedRow row, Object[] values, int statement) {
        note(row, new Rewritten(row, row.values, row.position, row.statement, row.lastEffect));
        row.table.replace(row, values);
        row.position = nextPosition++;
        row.version++;
        row.statement = statement;
    }

    /** Makes a row, with values by the slots of its table. */
    public ReachedRow insert(ReachedTable table, Object[] values, int statement) {
        ReachedRow row = table.addNew(values);
        note(row, new Made(row));
        row.position = nextPosition++;
        row.statement = statement;
        return row;
    }

    /** Where the journal stands, for {@link #undoTo}. */
    public int mark() {
        return journal.size();
    }

    /** Takes back everything since a mark, the last first. */
    public void undoTo(int mark) {
        for (int i = journal.size() - 1; i >= mark; i--) {
            journal.remove(i).takeBack();
        }
    }

    /** Every row is as it was read again. */
    public void reset() {
        undoTo(0);
        touched.forEach(row -> {
            row.isTouched = false;
            row.startedIn = 0;
            row.atStart = null;
            row.lastEffect = null;
        });
        touched.clear();
        nextPosition = BEHIND_ALL;
        misses = 0;
    }

    /** How the rows stand after a replay: what it takes to go back there when others have been tried. */
    public static final class Standing {
        private final List<Stood> rows = new ArrayList<>();
        private final long nextPosition;

        private Standing(long nextPosition) {
            this.nextPosition = nextPosition;
        }
    }

    /** How one row stood. */
    @SuppressWarnings("ArrayRecordComponent")
    private record Stood(
            ReachedRow row,
            Object[] values,
            boolean isGone,
            long position,
            int version,
            int statement,
            Effect lastEffect) {
        Stood(ReachedRow row) {
            this(row, row.values, row.isGone, row.position, row.version, row.statement, row.lastEffect);
        }
    }

    /** How the rows stand now. */
    public Standing standing() {
        Standing standing = new Standing(nextPosition);
        touched.stream().filter(row -> !row.isNew()).forEach(row -> standing.rows.add(new Stood(row)));
        tables.forEach(table -> table.newRows().forEach(row -> standing.rows.add(new Stood(row))));
        return standing;
    }

    /** Has the rows stand as they stood, whatever replays came between. */
    public void restore(Standing standing) {
        reset();
        for (Stood stood : standing.rows) {
            ReachedRow row = stood.row();
            if (row.isNew()) {
                row.values = stood.values();
                row.table.addBack(row);
                note(row, new Made(row));
            } else {
                note(row, new Rewritten(row, row.values, row.position, row.statement, row.lastEffect));
                row.table.replace(row, stood.values());
            }
            if (stood.isGone()) {
                note(row, new Deleted(row, row.lastEffect));
                row.table.takeOut(row);
            }
            row.position = stood.position();
            row.version = stood.version();
            row.statement = stood.statement();
            row.lastEffect = stood.lastEffect();
        }
        nextPosition = standing.nextPosition;
    }

    /** Rows that were written, made or deleted in the current replay, those undone among them. */
    public List<ReachedRow> touched() {
        return touched;
    }
}
