package taxiomet.browse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import taxiomet.charter.Table;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Scan;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;
import taxiomet.work.Workers;

/** Passes over tables, one for each, for all who look for rows of it at a time. */
final class TablePass {
    private final Map<Table, List<Seeker>> seekers = new LinkedHashMap<>();

    void add(Table table, Seeker seeker) {
        seekers.computeIfAbsent(table, t -> new ArrayList<>()).add(seeker);
    }

    /** Reads each table once, those without anything to look for not at all. */
    void run(Sources sources, RunContext context) {
        seekers.forEach((table, all) -> {
            context.progress().reading(table.name());
            read(table, sources.of(table), all, context);
        });
    }

    private static void read(Table table, TableSource source, List<Seeker> all, RunContext context) {
        int[] columns = all.stream()
                .flatMapToInt(seeker -> IntStream.of(seeker.columns()))
                .distinct()
                .sorted()
                .toArray();
        try (Scan scan = source.scan(columns, RefRanges.ALL)) {
            Workers.run(context.threadsFor(source.bytes()), "seeking", workers -> {
                List<Seeker.OnThread> own = all.stream().map(Seeker::onThread).toList();
                try (Scan.BatchReader reader = scan.reader()) {
                    TypedBatch typed = TypedBatch.ofValues(table, columns, context.secret());
                    RowBatch batch = reader.next();
                    while (batch != null && !workers.haveFailed()) {
                        typed.read(batch);
                        for (Seeker.OnThread seeker : own) {
                            seeker.pass(batch);
                            seeker.look(typed);
                        }
                        batch = reader.next();
                    }
                }
                synchronized (all) {
                    own.forEach(Seeker.OnThread::end);
                }
            });
        }
    }
}
