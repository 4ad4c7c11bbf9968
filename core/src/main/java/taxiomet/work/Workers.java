package taxiomet.work;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicReference;

/** Several threads that do the same work, each its part of it, the calling one among them. */
public final class Workers {
    private final AtomicReference<Throwable> failure = new AtomicReference<>();

    private Workers() {}

    /** What each of the threads does. */
    @FunctionalInterface
    public interface Work {
        /** @param all to be asked whether to go on */
        void run(Workers all);
    }

    /** Runs the work to its end; what a thread throws is thrown here, when all have stopped. */
    public static void run(int threads, String name, Work work) {
        Workers workers = new Workers();
        List<Thread> helpers = new ArrayList<>();
        for (int i = 1; i < threads; i++) {
            Thread helper = new Thread(() -> workers.take(work), name + " " + i);
            helper.setDaemon(true);
            helper.start();
            helpers.add(helper);
        }
        workers.take(work);
        helpers.forEach(Workers::join);
        Throwable thrown = workers.failure.get();
        if (thrown instanceof Error error) {
            throw error;
        } else if (thrown != null) {
            throw (RuntimeException) thrown;
        }
    }

    /** Whether one of them has thrown something: the others need not go on. */
    public boolean haveFailed() {
        return failure.get() != null;
    }

    private void take(Work work) {
        try {
            work.run(this);
        } catch (RuntimeException | Error e) {
            failure.compareAndSet(null, e);
        }
    }

    private static void join(Thread helper) {
        boolean isInterrupted = false;
        while (helper.isAlive()) {
            try {
                helper.join();
            } catch (InterruptedException e) {
                isInterrupted = true;
            }
        }
        if (isInterrupted) {
            Thread.currentThread().interrupt();
        }
    }
}
