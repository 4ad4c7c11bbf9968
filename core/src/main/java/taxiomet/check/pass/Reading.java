package taxiomet.check.pass;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;
import taxiomet.charter.Table;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.work.Workers;

/**
 * Reads tables once, with several threads. Each thread takes runs of rows as they come, table after table, reads their values and
 * looks at them; what was seen is settled by one thread at a time, in the order of the rows, so that a result does not
 * depend on how many threads there are.
 */
public final class Reading {
    private final List<TablePass> passes;
    private final int threads;
    private final Watcher watcher;
    private final ReentrantLock lock = new ReentrantLock();
    private final Condition changed = lock.newCondition();
    private Throwable failure;

    /** Is told how far the reading has come, by one thread at a time. */
    public interface Watcher {
        void settled(Table table);
    }

    /** @param passes in an order in which each stands behind those that it waits for */
    public Reading(List<TablePass> passes, int threads, Watcher watcher) {
        this.passes = passes;
        this.threads = threads;
        this.watcher = watcher;
    }

    /** Reads all; what a thread throws is thrown here, when all have stopped. */
    public void run() {
        Workers.run(threads, "reading", all -> work());
        if (failure != null) {
            passes.forEach(TablePass::close);
            if (failure instanceof Error error) {
                throw error;
            }
            throw (RuntimeException) failure;
        }
    }

    private void work() {
        try {
            for (TablePass pass : passes) {
                Optional<Scan.BatchReader> reader = pass.enter();
                if (reader.isPresent() && !work(pass, reader.get())) {
                    return;
                }
            }
        } catch (RuntimeException | Error e) {
            fail(e);
        }
    }

    /** Takes part in one pass; false when the reading has failed elsewhere. */
    private boolean work(TablePass pass, Scan.BatchReader reader) {
        TypedBatch typed = pass.newBatch();
        List<BatchCheck> checks = pass.newChecks();
        try (reader) {
            for (RowBatch batch = reader.next(); batch != null; batch = reader.next()) {
                typed.read(batch);
                if (!awaitParents(pass)) {
                    return false;
                }
                look(checks, typed);
                if (!settle(pass, batch, checks)) {
                    return false;
                }
            }
        }
        leave(pass);
        return true;
    }

    // The loops over checks are methods of their own: as parts of longer ones they would have the compiler spend a
    // tenth
    // of a second on code that runs once for each batch.

    private static void look(List<BatchCheck> checks, TypedBatch typed) {
        for (BatchCheck check : checks) {
            check.look(typed);
        }
    }

    private static void settle(List<BatchCheck> checks) {
        for (BatchCheck check : checks) {
            check.settle();
        }
    }

    private boolean awaitParents(TablePass pass) {
        lock.lock();
        try {
            while (failure == null && !pass.areParentsEnded()) {
                changed.awaitUninterruptibly();
            }
            return failure == null;
        } finally {
            lock.unlock();
        }
    }

    private boolean settle(TablePass pass, RowBatch batch, List<BatchCheck> checks) {
        lock.lock();
        try {
            while (failure == null && !pass.isTurnOf(batch.number())) {
                changed.awaitUninterruptibly();
            }
            if (failure != null) {
                return false;
            }
            settle(checks);
            pass.endTurn(batch);
            watcher.settled(pass.table());
            changed.signalAll();
            return true;
        } finally {
            lock.unlock();
        }
    }

    private void leave(TablePass pass) {
        lock.lock();
        try {
            if (pass.leave()) {
                changed.signalAll();
            }
        } finally {
            lock.unlock();
        }
    }

    private void fail(Throwable e) {
        lock.lock();
        try {
            failure = failure == null ? e : failure;
            changed.signalAll();
        } finally {
            lock.unlock();
        }
    }
}
