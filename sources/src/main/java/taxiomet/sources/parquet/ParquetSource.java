package taxiomet.sources.parquet;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.charter.place.FieldPointer;
import taxiomet.charter.place.ParquetRows;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.FilledReader;
import taxiomet.sources.file.RowQueue;
import taxiomet.sources.file.Sniffed;
import taxiomet.sources.parquet.ParquetPart.Group;

/** A table in one or several Parquet files. */
public final class ParquetSource implements SplittableSource {
    private final ParquetRows rows;
    private final List<String> columns;
    private final List<ParquetPart> parts;

    private ParquetSource(ParquetRows rows, List<String> columns) {
        this.rows = rows;
        this.columns = List.copyOf(columns);
        this.parts = FileParts.find(rows.folder(), rows.path()).stream()
                .map(ParquetPart::new)
                .toList();
        for (int part = 0; part < parts.size(); part++) {
            for (String column : columns) {
                requireColumn(part, column);
            }
        }
    }

    /**
     * Opens the files of a table.
     *
     * @param columns names of the columns wanted
     * @throws SourceException when a file is not there, cannot be read, or lacks a column
     */
    public static ParquetSource open(ParquetRows rows, List<String> columns) {
        return new ParquetSource(rows, columns);
    }

    /**
     * The columns of a file that hold single values.
     *
     * @throws SourceException when it cannot be read, or has no such column
     */
    public static Sniffed sniff(Path path) {
        FileParts.requireFile(path);
        ParquetPart part = new ParquetPart(path);
        Path whole = path.toAbsolutePath();
        Map<String, String> nested = new LinkedHashMap<>();
        List<String> names = new ArrayList<>();
        part.leaves().keySet().forEach(pointer -> {
            String name = String.join("_", FieldPointer.steps(pointer));
            if (pointer.indexOf('/', 1) > 0) {
                nested.put(name, pointer);
            }
            names.add(name);
        });
        if (names.isEmpty()) {
            throw new SourceException(path.toString(), "it has no column of single values", "name another file");
        }
        List<String> remarks = part.lists().isEmpty()
                ? List.of()
                : List.of("lists are passed over: " + String.join(", ", part.lists()));
        return new Sniffed(
                new ParquetRows(whole.getParent(), whole.getFileName().toString(), nested), "parquet", names, remarks);
    }

    private Leaf leaf(int part, String column) {
        return parts.get(part).leaves().get(rows.pointerOf(column));
    }

    private void requireColumn(int number, String column) {
        if (leaf(number, column) != null) {
            return;
        }
        ParquetPart part = parts.get(number);
        String top = FieldPointer.steps(rows.pointerOf(column)).get(0);
        if (part.lists().contains(top)) {
            throw new SourceException(
                    partName(number),
                    "column `" + column + "` holds lists, and a cell is one value",
                    "leave the column out of the charter, or have the list written as a table of its own");
        } else if (part.fields().contains(top)) {
            List<String> inside = part.leaves().keySet().stream()
                    .filter(pointer -> pointer.startsWith(FieldPointer.to(top) + "/"))
                    .toList();
            throw new SourceException(
                    partName(number),
                    "column `" + column + "` is a group of fields, and a cell is one value",
                    "name one of them under `fields`: " + ColumnNames.listed(inside));
        }
        List<String> names = List.copyOf(part.fields());
        throw new SourceException(
                partName(number),
                "there is no column `" + column + "`" + ColumnNames.near(column, names),
                "it has " + ColumnNames.listed(names));
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return parts.get(part).file().nameFrom(rows.folder());
    }

    @Override
    public int partCount() {
        return parts.size();
    }

    /** What the footers of all parts say, the widest type of them. */
    @Override
    public Optional<ColumnFacts> facts(int column) {
        Optional<ColumnFacts> all = Optional.empty();
        for (int part = 0; part < parts.size(); part++) {
            Optional<ColumnFacts> own = parts.get(part).facts(leaf(part, columns.get(column)));
            all = part == 0 ? own : both(all, own);
        }
        return all;
    }

    private static Optional<ColumnFacts> both(Optional<ColumnFacts> one, Optional<ColumnFacts> other) {
        return one.flatMap(a -> other.flatMap(b -> {
            boolean hasNulls = a.hasNulls() || b.hasNulls();
            if (a.type().isWithin(b.type())) {
                return Optional.of(new ColumnFacts(b.type(), hasNulls));
            }
            return b.type().isWithin(a.type()) ? Optional.of(new ColumnFacts(a.type(), hasNulls)) : Optional.empty();
        }));
    }

    @Override
    public Undeclared undeclared() {
        Set<String> others = new TreeSet<>();
        parts.forEach(part -> others.addAll(part.fields()));
        for (int part = 0; part < parts.size(); part++) {
            for (String column : columns) {
                others.remove(leaf(part, column).descriptor().getPath()[0]);
            }
        }
        return Undeclared.columns(others);
    }

    @Override
    public long bytes() {
        return parts.stream().mapToLong(part -> part.file().size()).sum();
    }

    @Override
    public long bytesRead() {
        return parts.stream().mapToLong(part -> part.file().bytesRead()).sum();
    }

    @Override
    public long emptyLines() {
        return 0;
    }

    /** A row group of a part. */
    private record Task(int part, Group group) {}

    private List<Task> tasks() {
        List<Task> tasks = new ArrayList<>();
        for (int part = 0; part < parts.size(); part++) {
            for (Group group : parts.get(part).groups()) {
                tasks.add(new Task(part, group));
            }
        }
        return tasks;
    }

    @Override
    public Scan scan(int[] wanted, RefRanges ranges) {
        List<Task> some = tasks().stream()
                .filter(task -> ranges.meets(
                        RowRef.of(task.part, task.group.firstRow()), RowRef.of(task.part, task.group.endRow() - 1)))
                .toList();
        return new GroupScan(wanted.clone(), some, 0);
    }

    /** Row groups begin where they do: a piece has some whole ones. */
    @Override
    public List<Split> splits(long bytes) {
        List<Split> splits = new ArrayList<>();
        for (int number = 0; number < parts.size(); number++) {
            List<Group> groups = parts.get(number).groups();
            long from = 0;
            for (int i = 1; i < groups.size(); i++) {
                if (groups.get(i).place() - from >= bytes) {
                    splits.add(new Split(number, from, groups.get(i).place()));
                    from = groups.get(i).place();
                }
            }
            splits.add(new Split(number, from, Long.MAX_VALUE));
        }
        return splits;
    }

    @Override
    public SplitScan scan(int[] wanted, Split split) {
        List<Task> some = tasks().stream()
                .filter(task -> task.part == split.part()
                        && task.group.place() >= split.from()
                        && task.group.place() < split.to())
                .toList();
        return new GroupScan(
                wanted.clone(), some, some.isEmpty() ? 0 : some.get(0).group.firstRow() - 1);
    }

    /** A pass over row groups: pages are taken apart by one thread at a time, and looked at by all. */
    private final class GroupScan implements SplitScan {
        private final int[] wanted;
        private final List<Task> tasks;
        /** How many rows stand before those that are numbered from 1. */
        private final long before;

        private final Codecs codecs = new Codecs();
        private int at;
        private GroupCursor cursor;
        private long number;

        GroupScan(int[] wanted, List<Task> tasks, long before) {
            this.wanted = wanted;
            this.tasks = tasks;
            this.before = before;
            parts.forEach(part -> part.file().startCount());
        }

        @Override
        public BatchReader reader() {
            return new FilledReader(RowBatch.ofValues(wanted.length), this::fill);
        }

        private synchronized boolean fill(RowBatch batch) {
            while (at < tasks.size()) {
                Task task = tasks.get(at);
                if (cursor == null) {
                    cursor = new GroupCursor(task, wanted, before, codecs);
                }
                if (cursor.fill(batch)) {
                    batch.setNumber(number++);
                    return true;
                }
                close();
                at++;
                if (at == tasks.size() || tasks.get(at).part != task.part) {
                    parts.get(task.part).file().requireUnchanged();
                }
            }
            return false;
        }

        @Override
        public long emptyLines() {
            return 0;
        }

        @Override
        public synchronized void close() {
            if (cursor != null) {
                cursor.close();
                cursor = null;
            }
        }
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        RowBatch batch = RowBatch.ofValues(wanted.length);
        Codecs codecs = new Codecs();
        while (!queue.isEmpty()) {
            int number = queue.part();
            ParquetPart part = parts.get(number);
            part.file().requireUnchanged();
            Group group = part.groups().stream()
                    .filter(some -> queue.row() < some.endRow())
                    .findFirst()
                    .orElseThrow(part.file()::changed);
            try (GroupCursor cursor = new GroupCursor(new Task(number, group), wanted, 0, codecs)) {
                while (queue.hasNextIn(number) && queue.row() < group.endRow()) {
                    cursor.goTo(queue.row());
                    cursor.take(batch, 1);
                    queue.take();
                    if (batch.isFull()) {
                        sink.accept(batch);
                        batch.clear();
                    }
                }
            }
            part.file().requireUnchanged();
        }
        if (!batch.isEmpty()) {
            sink.accept(batch);
        }
    }

    /** Goes over the rows of one group. */
    private final class GroupCursor implements AutoCloseable {
        private final Task task;
        private final long before;
        private final GroupPages pages;
        private final int rowsAtOnce;
        private long row;

        GroupCursor(Task task, int[] wanted, long before, Codecs codecs) {
            this.task = task;
            this.before = before;
            this.row = task.group.firstRow();
            List<Leaf> leaves = Arrays.stream(wanted)
                    .mapToObj(column -> leaf(task.part, columns.get(column)))
                    .toList();
            this.pages = new GroupPages(parts.get(task.part), task.group, leaves, codecs);
            long each = Math.max(1, task.group.bytes() / Math.max(1, task.group.rows()));
            this.rowsAtOnce = (int) Math.max(1, Math.min(RowBatch.ROWS, RowBatch.BYTES / each));
        }

        /** Takes as many rows as a batch has room for; none when there are no more. */
        boolean fill(RowBatch batch) {
            int count = (int) Math.min(Math.min(rowsAtOnce, batch.room()), task.group.endRow() - row);
            if (count > 0) {
                take(batch, count);
            }
            return count > 0;
        }

        void goTo(long other) {
            pages.pass(other - row);
            row = other;
        }

        void take(RowBatch batch, int count) {
            long bytes = pages.take(batch, count);
            for (int i = 0; i < count; i++) {
                batch.endRow(RowRef.of(task.part, row - before), 0, bytes / count);
                row++;
            }
        }

        @Override
        public void close() {
            pages.close();
        }
    }

    @Override
    public void close() {
        // Files are open only while they are read.
    }
}
