package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonPointer;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;
import taxiomet.charter.place.JsonLines;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.RowQueue;

/** A table in one or several files with one JSON object in each line. */
public final class JsonLinesSource implements SplittableSource {
    private final JsonLines rows;
    private final List<String> columns;
    private final List<JsonPointer> pointers;
    private final List<JsonPart> parts = new ArrayList<>();
    private final Set<String> unknown = Collections.synchronizedSet(new TreeSet<>());
    private final int runBytes;

    private JsonLinesSource(JsonLines rows, List<String> columns, int runBytes) {
        this.rows = rows;
        this.columns = List.copyOf(columns);
        this.runBytes = runBytes;
        this.pointers = columns.stream().map(column -> pointer(rows, column)).toList();
        FileParts.find(rows.folder(), rows.path()).forEach(path -> parts.add(new JsonPart(path)));
    }

    /**
     * Opens the files of a table.
     *
     * @param columns names of the columns wanted
     * @param runBytes about how many bytes are taken apart at once
     * @throws SourceException when a file is not there or cannot be read, or a pointer is none
     */
    public static JsonLinesSource open(JsonLines rows, List<String> columns, int runBytes) {
        return new JsonLinesSource(rows, columns, runBytes);
    }

    private static JsonPointer pointer(JsonLines rows, String column) {
        JsonPointer pointer = JsonPointer.compile(rows.pointerOf(column));
        if (pointer.matches()) {
            throw new SourceException(
                    rows.path(), "the pointer of column `" + column + "` is the row itself", "name a field, as in /id");
        }
        return pointer;
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return parts.get(part).file.nameFrom(rows.folder());
    }

    @Override
    public int partCount() {
        return parts.size();
    }

    /** The fields at the top that no column is read from. */
    @Override
    public Undeclared undeclared() {
        synchronized (unknown) {
            return new Undeclared("field", new TreeSet<>(unknown));
        }
    }

    @Override
    public long bytes() {
        return parts.stream().mapToLong(part -> part.file.size()).sum();
    }

    private ObjectReader reader(int[] wanted) {
        List<JsonPointer> some = Arrays.stream(wanted).mapToObj(pointers::get).toList();
        List<String> declared = pointers.stream()
                .map(JsonPointer::getMatchingProperty)
                .distinct()
                .toList();
        return new ObjectReader(some, unknown, declared);
    }

    @Override
    public Scan scan(int[] wanted, RefRanges ranges) {
        return new LinesScan(wanted.clone());
    }

    /** Lines begin behind line feeds, wherever they stand; compressed parts are one piece each. */
    @Override
    public List<Split> splits(long bytes) {
        List<Split> splits = new ArrayList<>();
        for (int number = 0; number < parts.size(); number++) {
            JsonPart part = parts.get(number);
            try {
                long from = part.firstOffset();
                long next = part.file.isPlain() ? part.lineFrom(from + bytes) : Long.MAX_VALUE;
                while (next < part.file.size()) {
                    splits.add(new Split(number, from, next));
                    from = next;
                    next = part.lineFrom(from + bytes);
                }
                splits.add(new Split(number, from, Long.MAX_VALUE));
            } catch (IOException e) {
                part.file.requireUnchanged();
                throw part.file.unreadable(e);
            }
        }
        return splits;
    }

    @Override
    public SplitScan scan(int[] wanted, Split split) {
        return new PieceScan(wanted.clone(), split);
    }

    /** A run of lines that one thread has taken. */
    private record Taken(LineCursor.Run run, int part, long number) {}

    /** Takes the objects of one run after the other apart. */
    private final class RunReader implements Scan.BatchReader {
        private final ObjectReader objects;
        private final RowBatch batch;
        private final Supplier<Taken> runs;

        /** @param runs gives the next; null behind the last */
        RunReader(int[] wanted, Supplier<Taken> runs) {
            this.objects = reader(wanted);
            this.batch = new RowBatch(wanted.length);
            this.runs = runs;
        }

        @Override
        public RowBatch next() {
            Taken taken = runs.get();
            if (taken == null) {
                return null;
            }
            batch.clear();
            objects.read(taken.run(), taken.part(), row -> true, batch);
            batch.setNumber(taken.number());
            return batch;
        }

        @Override
        public void close() {
            // The scan holds what is open.
        }
    }

    /** A pass over one piece, whose rows and lines are numbered from 1. */
    private final class PieceScan implements SplitScan {
        private final int[] wanted;
        private final int number;
        private final JsonPart part;
        private final LineCursor lines;
        private long run;

        PieceScan(int[] wanted, Split split) {
            this.wanted = wanted;
            this.number = split.part();
            this.part = parts.get(number);
            try {
                part.file.startCount();
                long from = Math.max(split.from(), part.firstOffset());
                lines = new LineCursor(
                        new BoundedStream(part.file.open(from), split.to() - from), 1, 1, from, runBytes);
            } catch (IOException e) {
                throw part.file.unreadable(e);
            }
        }

        @Override
        public Scan.BatchReader reader() {
            return new RunReader(wanted, this::take);
        }

        private Taken take() {
            synchronized (lines) {
                try {
                    LineCursor.Run taken = lines.next();
                    return taken == null ? null : new Taken(taken, number, run++);
                } catch (IOException e) {
                    part.file.requireUnchanged();
                    throw part.file.unreadable(e);
                }
            }
        }

        @Override
        public long emptyLines() {
            return lines.emptyLines();
        }

        @Override
        public void close() {
            try {
                lines.close();
            } catch (IOException e) {
                throw part.file.unreadable(e);
            }
            part.file.requireUnchanged();
        }
    }

    /** A pass over all files: lines are cut by one thread at a time, objects taken apart by all. */
    private final class LinesScan implements Scan {
        private final int[] wanted;
        private int part;
        private long number;
        private LineCursor lines;

        LinesScan(int[] wanted) {
            this.wanted = wanted;
        }

        @Override
        public Scan.BatchReader reader() {
            return new RunReader(wanted, this::take);
        }

        private synchronized Taken take() {
            while (part < parts.size()) {
                JsonPart current = parts.get(part);
                try {
                    if (lines == null) {
                        current.file.startCount();
                        lines = current.linesFrom(-1, runBytes);
                    }
                    LineCursor.Run run = lines.next();
                    if (run != null) {
                        if (!current.isRead && current.file.isPlain()) {
                            current.places.offer(run.row(), run.line(), run.offset());
                        }
                        return new Taken(run, part, number++);
                    }
                    current.emptyLines = lines.emptyLines();
                    current.isRead = true;
                    close();
                    current.file.requireUnchanged();
                    part++;
                } catch (IOException e) {
                    current.file.requireUnchanged();
                    throw current.file.unreadable(e);
                }
            }
            return null;
        }

        @Override
        public synchronized void close() {
            if (lines != null) {
                try {
                    lines.close();
                } catch (IOException e) {
                    throw parts.get(part).file.unreadable(e);
                } finally {
                    lines = null;
                }
            }
        }
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        ObjectReader objects = reader(wanted);
        RowBatch batch = new RowBatch(wanted.length);
        while (!queue.isEmpty()) {
            int number = queue.part();
            JsonPart part = parts.get(number);
            part.file.requireUnchanged();
            while (queue.hasNextIn(number)) {
                long before = queue.taken();
                fetchFrom(part, number, queue, objects, batch, sink);
                if (queue.taken() == before) {
                    throw part.file.changed();
                }
            }
            part.file.requireUnchanged();
        }
    }

    private void fetchFrom(
            JsonPart part, int number, RowQueue queue, ObjectReader objects, RowBatch batch, RowSink sink) {
        int place = part.file.isPlain() ? part.places.before(queue.row()) : -1;
        try (LineCursor lines = part.linesFrom(place, runBytes)) {
            LineCursor.Run run = lines.next();
            while (run != null && queue.hasNextIn(number)) {
                batch.clear();
                objects.read(
                        run,
                        number,
                        row -> {
                            boolean isNext = queue.isNext(number, row);
                            if (isNext) {
                                queue.take();
                            }
                            return isNext;
                        },
                        batch);
                if (!batch.isEmpty()) {
                    sink.accept(batch);
                }
                if (queue.hasNextIn(number)
                        && part.file.isPlain()
                        && part.places.before(queue.row()) > Math.max(0, place)
                        && part.places.row(part.places.before(queue.row())) > run.row() + RowBatch.ROWS) {
                    return;
                }
                run = lines.next();
            }
        } catch (IOException e) {
            part.file.requireUnchanged();
            throw part.file.unreadable(e);
        }
    }

    @Override
    public long bytesRead() {
        return parts.stream().mapToLong(part -> part.file.bytesRead()).sum();
    }

    @Override
    public long emptyLines() {
        return parts.stream().mapToLong(part -> part.emptyLines).sum();
    }

    @Override
    public void close() {
        // Files are open only while they are read.
    }
}
