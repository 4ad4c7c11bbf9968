package taxiomet.sources.csv;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.rows.ColumnNames;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowEdits;
import taxiomet.rows.RowRef;
import taxiomet.rows.RowSink;
import taxiomet.rows.Scan;
import taxiomet.rows.SourceException;
import taxiomet.rows.Split;
import taxiomet.rows.SplittableSource;
import taxiomet.rows.TableRewriter;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.Packing;
import taxiomet.sources.file.RowQueue;
import taxiomet.sources.file.SinkStream;

/** A table in one or several delimited text files.  */
public final class CsvTableSource implements SplittableSource, TableRewriter {
    /** So many bytes, and what is made of them, stay in a core's own cache. */
    public static final int USUAL_CHUNK = 1 << 18;

    private final List<String> columns;
    private final List<CsvPart> parts;
    private final List<String> partNames;
    /** For each part, for each of its fields, the place of its column in {@link #columns}; -1 for one not declared. */
    private final List<int[]> fieldMaps = new ArrayList<>();

    private final Set<String> undeclared = new LinkedHashSet<>();
    private final DelimitedFiles format;
    private final ByteForm form;
    private final int chunkBytes;
    private final boolean tellsNames;
    private final List<Joints> joints = new ArrayList<>();

    private CsvTableSource(
            ByteForm form, List<String> columns, List<CsvPart> parts, int chunkBytes, boolean tellsNames) {
        DelimitedFiles rows = form.declared();
        this.format = rows;
        this.form = form;
        this.chunkBytes = chunkBytes;
        this.tellsNames = tellsNames;
        this.columns = List.copyOf(columns);
        this.parts = List.copyOf(parts);
        this.partNames =
                parts.stream().map(part -> nameIn(rows.folder(), part.file())).toList();
        for (CsvPart part : parts) {
            List<String> names =
                    part.header() != null ? part.header() : rows.header().orElse(columns);
            fieldMaps.add(fieldMap(part, names));
            joints.add(new Joints(part.firstOffset(), part.header() != null));
        }
    }

    /**
     * Opens the files of a table.
     *
     * @param columns names of the columns wanted
     * @param chunkBytes how many bytes a thread takes in one go, at least 1; {@link #USUAL_CHUNK}
     * @throws SourceException when a file is not there, cannot be read, or lacks a column
     */
    public static CsvTableSource open(DelimitedFiles rows, List<String> columns, int chunkBytes) {
        return open(rows, columns, chunkBytes, true);
    }

    /** @param tellsNames whether messages may tell what a header names; where there is none, these are values */
    public static CsvTableSource open(DelimitedFiles rows, List<String> columns, int chunkBytes, boolean tellsNames) {
        ByteForm form = new ByteForm(rows);
        List<CsvPart> parts = new ArrayList<>();
        for (Path file : FileParts.find(rows.folder(), rows.path())) {
            parts.add(new CsvPart(form, file, parts.size()));
        }
        return new CsvTableSource(form, columns, parts, chunkBytes, tellsNames);
    }

    private static String nameIn(Path folder, Path file) {
        return file.startsWith(folder) ? folder.relativize(file).toString() : file.toString();
    }

    private int[] fieldMap(CsvPart part, List<String> names) {
        for (String column : columns) {
            int count = Collections.frequency(names, column);
            if (count == 0) {
                throw missing(part, names, column);
            } else if (count > 1) {
                throw new SourceException(
                        part.file() + ":1",
                        "the header names column `" + column + "` " + count + " times",
                        "rename all but one of them, or name the columns in the charter (`header: [...]`)");
            }
        }
        int[] map = new int[names.size()];
        for (int field = 0; field < map.length; field++) {
            map[field] = columns.indexOf(names.get(field));
            if (map[field] < 0) {
                undeclared.add(names.get(field));
            }
        }
        return map;
    }

    private SourceException missing(CsvPart part, List<String> names, String column) {
        return new SourceException(
                part.file() + ":1",
                "the header does not name column `" + column + "`"
                        + (tellsNames ? ColumnNames.near(column, names) : ""),
                (tellsNames
                                ? "it names " + ColumnNames.listed(names)
                                : "it has " + names.size() + (names.size() == 1 ? " name" : " names"))
                        + "; check `delimiter` and the columns of the charter"
                        + (tellsNames ? "" : ", and whether it is a header at all"));
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return partNames.get(part);
    }

    @Override
    public int partCount() {
        return parts.size();
    }

    @Override
    public Undeclared undeclared() {
        return Undeclared.columns(undeclared);
    }

    @Override
    public long bytes() {
        return parts.stream().mapToLong(CsvPart::size).sum();
    }

    @Override
    public Scan scan(int[] wanted, RefRanges rows) {
        List<CsvFields> fields = new ArrayList<>();
        for (int part = 0; part < parts.size(); part++) {
            fields.add(fieldsOf(part, wanted));
        }
        return new ByteScan(parts, fields, joints, rows, wanted.length, chunkBytes);
    }

    /** Parts that are compressed or recoded are one piece each. */
    @Override
    public List<Split> splits(long bytes) {
        List<Split> splits = new ArrayList<>();
        for (CsvPart part : parts) {
            if (part.isPlain()) {
                splits.addAll(SplitReader.cut(part, fieldsOf(part.number(), new int[0]), bytes));
            } else {
                splits.add(new Split(part.number(), part.firstOffset(), Long.MAX_VALUE));
            }
        }
        return splits;
    }

    @Override
    public SplitScan scan(int[] wanted, Split split) {
        return new SplitReader(
                parts.get(split.part()), fieldsOf(split.part(), wanted), split, wanted.length, chunkBytes);
    }

    /** For each field of a part, the place of its column in a batch of the columns wanted. */
    private CsvFields fieldsOf(int part, int[] wanted) {
        int[] inBatch = new int[columns.size()];
        Arrays.fill(inBatch, -1);
        for (int i = 0; i < wanted.length; i++) {
            inBatch[wanted[i]] = i;
        }
        return new CsvFields(
                form,
                Arrays.stream(fieldMaps.get(part))
                        .map(column -> column < 0 ? -1 : inBatch[column])
                        .toArray());
    }

    @Override
    public void fetch(RefCursor refs, int[] wanted, RowSink sink) {
        RowQueue queue = new RowQueue(refs);
        while (!queue.isEmpty()) {
            CsvPart part = parts.get(queue.part());
            CsvFields fields = fieldsOf(part.number(), wanted);
            new RowPicker(part, fields, wanted.length, sink).pick(queue);
        }
    }

    @Override
    public Optional<Contents> rewrite(int number, RowEdits edits, ByteSink out, UndoSink undo) {
        CsvPart part = parts.get(number);
        try {
            return rewrite(part, edits, new SinkStream(out), undo);
        } catch (IOException e) {
            part.requireUnchanged();
            throw part.unreadable(e);
        }
    }

    private Optional<Contents> rewrite(CsvPart part, RowEdits edits, OutputStream out, UndoSink undo)
            throws IOException {
        int number = part.number();
        boolean isLast = number == parts.size() - 1;
        Map<Long, RowEdits.RowEdit> own = edits.rows().subMap(RowRef.of(number, 0), RowRef.of(number + 1, 0));
        part.requireUnchanged();
        if (own.isEmpty() && (!isLast || edits.newRows().isEmpty())) {
            Files.copy(part.file(), out);
            part.requireUnchanged();
            return Optional.empty();
        }
        if (form.isRecoded()) {
            throw new SourceException(
                    part.file().toString(),
                    "a file in " + part.encoding()
                            + (form.areExchanged() ? " with a delimiter or quote beyond ASCII" : "")
                            + " cannot be written changed",
                    form.areExchanged()
                            ? "write it with another delimiter and quote first"
                            : "convert it to UTF-8 first");
        }
        int[] all = new int[columns.size()];
        Arrays.setAll(all, i -> i);
        Contents contents;
        try (OutputStream packed = Packing.of(part.file()).pack(out);
                ByteInput in = part.openBytesAgain()) {
            PartRewriter rewriter = new PartRewriter(part, in, fieldsOf(number, all), all.length, packed, undo);
            for (Map.Entry<Long, RowEdits.RowEdit> edit : own.entrySet()) {
                rewriter.edit(RowRef.row(edit.getKey()), edit.getValue());
            }
            rewriter.finish(isLast ? edits.newRows() : List.of());
            contents = rewriter.contents();
        }
        part.requireUnchanged();
        return undo == UndoSink.NONE ? Optional.empty() : Optional.of(contents);
    }

    @Override
    public boolean isRewritable() {
        return !form.isRecoded();
    }

    @Override
    public void pick(int number, RefCursor rows, ByteSink out) {
        CsvPart part = parts.get(number);
        int[] all = new int[columns.size()];
        Arrays.setAll(all, i -> i);
        part.requireUnchanged();
        try (OutputStream packed = Packing.of(part.file()).pack(new SinkStream(out));
                ByteInput in = part.openBytesAgain()) {
            PartRewriter rewriter =
                    new PartRewriter(part, in, fieldsOf(number, all), all.length, packed, UndoSink.NONE);
            rewriter.pickHeader();
            for (long ref = rows.next(); ref != RefCursor.END; ref = rows.next()) {
                rewriter.pick(RowRef.row(ref));
            }
        } catch (IOException e) {
            part.requireUnchanged();
            throw part.unreadable(e);
        }
        part.requireUnchanged();
    }

    @Override
    public Path placeOf(int part) {
        Path folder = format.folder().toAbsolutePath().normalize();
        Path file = parts.get(part).file().toAbsolutePath().normalize();
        return file.startsWith(folder) ? folder.relativize(file) : file.getFileName();
    }

    @Override
    public List<String> likelyCells(long ref, String raw) {
        int[] map = fieldMaps.get(RowRef.part(ref));
        String[] fields = raw.split(Pattern.quote(String.valueOf(format.delimiter())), -1);
        String[] cells = new String[columns.size()];
        for (int field = 0; field < Math.min(fields.length, map.length); field++) {
            if (map[field] >= 0) {
                String cell = fields[field].strip();
                boolean isQuoted = cell.length() > 1
                        && cell.charAt(0) == format.quote()
                        && cell.charAt(cell.length() - 1) == format.quote();
                String inner = isQuoted ? cell.substring(1, cell.length() - 1) : cell;
                cells[map[field]] = inner.isEmpty() ? null : inner;
            }
        }
        return Arrays.asList(cells);
    }

    @Override
    public long bytesRead() {
        long sum = 0;
        for (CsvPart part : parts) {
            sum += part.bytesRead();
        }
        return sum;
    }

    @Override
    public long emptyLines() {
        return parts.stream().mapToLong(CsvPart::emptyLines).sum();
    }

    @Override
    public void close() {
        // Files are open only while they are read.
    }
}
