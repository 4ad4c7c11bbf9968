package taxiomet.check.pass;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import taxiomet.charter.Table;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.work.Secret;

/** One reading of a table for some checks, and how far it has come. */
public final class TablePass {
    private final Table table;
    private final Supplier<Scan> source;
    private final int[] columns;
    private final List<? extends RowCheck> checks;
    private final Optional<FaultLog> malformedLog;
    private final Secret secret;
    private final List<TablePass> parents = new ArrayList<>();
    private final Runnable onEnd;

    private Scan scan;
    private long turn;
    private int readers;
    private boolean isExhausted;
    private boolean isEnded;
    private long rows;
    private long malformed;

    /**
     * @param source begins the pass over the columns that the checks read, in their order
     * @param columns places of the columns that the checks read
     * @param malformedLog gets malformed rows; empty where they do not matter
     * @param secret of the run
     * @param onEnd is called once, when all rows have been looked at and settled
     */
    public TablePass(
            Table table,
            Supplier<Scan> source,
            int[] columns,
            List<? extends RowCheck> checks,
            Optional<FaultLog> malformedLog,
            Secret secret,
            Runnable onEnd) {
        this.table = table;
        this.source = source;
        this.columns = columns.clone();
        this.checks = List.copyOf(checks);
        this.malformedLog = malformedLog;
        this.secret = secret;
        this.onEnd = onEnd;
    }

    /**
     * A reading of a table that has been read before, for some checks alone.
     *
     * @param wanted which rows; others may come too
     */
    public static TablePass again(
            Table table, TableSource source, List<? extends RowCheck> checks, RefRanges wanted, Secret secret) {
        int[] columns = checks.stream()
                .flatMapToInt(check -> Arrays.stream(check.columns()))
                .sorted()
                .distinct()
                .toArray();
        return new TablePass(
                table, () -> source.scan(columns, wanted), columns, checks, Optional.empty(), secret, () -> {});
    }

    /** Rows of this table are looked at only when all of the other have been settled. */
    public void waitFor(TablePass parent) {
        parents.add(parent);
    }

    Table table() {
        return table;
    }

    /** A reader for one more thread; empty when there is nothing left to read. */
    synchronized Optional<Scan.BatchReader> enter() {
        if (isExhausted) {
            return Optional.empty();
        }
        if (scan == null) {
            scan = source.get();
        }
        readers++;
        return Optional.of(scan.reader());
    }

    /** A thread has found that there is nothing left to read; the last of them ends the pass. */
    synchronized boolean leave() {
        isExhausted = true;
        readers--;
        if (readers > 0) {
            return false;
        }
        scan.close();
        onEnd.run();
        isEnded = true;
        return true;
    }

    synchronized boolean isEnded() {
        return isEnded;
    }

    boolean areParentsEnded() {
        // No streams for what is done for each batch: they take longer to compile than they run.
        for (TablePass parent : parents) {
            if (!parent.isEnded()) {
                return false;
            }
        }
        return true;
    }

    TypedBatch newBatch() {
        BitSet valued = new BitSet();
        for (RowCheck check : checks) {
            if (check.readsValues()) {
                for (int column : check.columns()) {
                    valued.set(column);
                }
            }
        }
        return new TypedBatch(table, columns, valued, secret);
    }

    List<BatchCheck> newChecks() {
        List<BatchCheck> all = new ArrayList<>();
        checks.forEach(check -> all.add(check.onThread()));
        return all;
    }

    synchronized boolean isTurnOf(long number) {
        return turn == number;
    }

    /** Ends the turn of a batch whose rows have been settled. */
    synchronized void endTurn(RowBatch batch) {
        if (!batch.malformed().isEmpty() && malformedLog.isPresent()) {
            for (RowBatch.MalformedRow row : batch.malformed()) {
                malformedLog.get().add(row.ref(), row.reason());
            }
        }
        rows += batch.size() + batch.malformed().size();
        malformed += batch.malformed().size();
        turn++;
    }

    /** How many rows were read, malformed ones among them. */
    public long rows() {
        return rows;
    }

    /** How many of them were malformed. */
    public long malformed() {
        return malformed;
    }

    /** Lets go of what is open, in case the reading was given up. */
    synchronized void close() {
        if (scan != null) {
            scan.close();
        }
    }
}
