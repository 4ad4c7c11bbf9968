package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Optional;
import java.util.PrimitiveIterator;
import java.util.TreeMap;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charter.place.RowsPlace;
import taxiomet.finding.settled.SiftResult.AsideRow;
import taxiomet.keys.RowSet;
import taxiomet.reports.FileNames;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.csv.SiftCsv;
import taxiomet.reports.csv.TableCsv;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.SiftJson;
import taxiomet.reports.json.UndoJson;
import taxiomet.reports.words.Counted;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowEdits;
import taxiomet.rows.RowEdits.RowEdit;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableRewriter;
import taxiomet.rows.TableSource;
import taxiomet.settle.sift.AsideList;
import taxiomet.settle.sift.Mending;
import taxiomet.settle.sift.Sift;

/** The folder that {@code --into} names for a sift: sound rows with a charter, rows that are set aside, and why. */
public final class SiftFolder {
    /** Where the sound rows stand, with a charter that reads them. */
    public static final String SOUND = "sound";

    private static final String ASIDE = "aside";
    private static final String RESULT = "sift.json";

    private final Path folder;
    private final boolean hasMark;

    /**
     * @param hasMark whether lists begin with a byte order mark; tables stay as they were read
     */
    public SiftFolder(Path folder, boolean hasMark) {
        this.folder = folder;
        this.hasMark = hasMark;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree(Outputs outputs) {
        OutputFolder.requireFree(outputs, "--into", folder, "rows of a sift");
    }

    /**
     * Writes the folder, whole or not at all.
     *
     * @param sources the tables as they were read, before anything was mended
     * @return what was written, in words
     */
    public String write(
            Charter charter,
            Sift sift,
            Map<String, TableSource> sources,
            Optional<Mending> mending,
            Provenance provenance) {
        String others;
        try (WholeOutput output = new WholeOutput(folder)) {
            Path draft = output.draft();
            Files.createDirectories(draft.resolve(SOUND));
            if (mending.isPresent()) {
                try (UndoJson undo =
                        new UndoJson(draft.resolve(SOUND).resolve(CopyFolder.UNDO), provenance, charter.name())) {
                    writeSound(charter, sift, sources, mending.get(), Optional.of(undo), draft);
                }
                try (SiftCsv list = SiftCsv.mendings(draft, hasMark)) {
                    mending.get().mends().forEach(list::add);
                }
            } else {
                writeSound(charter, sift, sources, null, Optional.empty(), draft);
            }
            writeAside(charter, sift, sources, draft);
            new SiftJson(
                            sift.result(mending.map(all -> (long) all.mends().size())
                                    .orElse(0L)),
                            provenance)
                    .write(draft.resolve(RESULT));
            others = OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + Counted.of(charter.tables().size(), "table") + " in two parts, " + SiftCsv.REASONS
                + (mending.isPresent() ? ", " + SiftCsv.MENDINGS : "") + ")" + others;
    }

    private static NavigableMap<Long, RowEdit> edits(Table table, RowSet aside, Mending mending) {
        NavigableMap<Long, RowEdit> edits = mending == null ? new TreeMap<>() : mending.edits(table.name());
        aside.forEach(ref -> edits.put(ref, new RowEdit(true, Map.of())));
        return edits;
    }

    private void writeSound(
            Charter charter,
            Sift sift,
            Map<String, TableSource> sources,
            Mending mending,
            Optional<UndoJson> undo,
            Path draft)
            throws IOException {
        TableFiles files = new TableFiles(
                folder.resolve(SOUND), draft.resolve(SOUND), List.of(CopyFolder.CHARTER, CopyFolder.UNDO));
        List<Table> asWritten = new ArrayList<>();
        for (Table table : charter.tables()) {
            TableSource source = sources.get(table.name());
            RowsPlace place;
            if (isCopied(table, source)) {
                TableRewriter rewriter = (TableRewriter) source;
                RowEdits edits = new RowEdits(edits(table, sift.aside(table.name()), mending), List.of());
                for (int part = 0; part < source.partCount(); part++) {
                    files.write(rewriter, part, edits, undo);
                }
                place = files.rowsOf((DelimitedFiles) table.rows(), rewriter, source.partCount());
            } else {
                Path name = plainName(table);
                try (TableCsv csv = new TableCsv(files.newFile(name), false, columns(table))) {
                    int[] all = allColumns(table);
                    sift.sound(table.name()).read(all, batch -> add(batch, csv));
                }
                place = new DelimitedFiles(
                        folder.resolve(SOUND).toAbsolutePath(),
                        name.toString(),
                        ',',
                        '"',
                        "UTF-8",
                        true,
                        Optional.empty(),
                        List.of());
            }
            asWritten.add(table.withRows(place));
        }
        CharterOutput.write(
                charter.with(asWritten),
                folder.resolve(SOUND).toAbsolutePath(),
                Map.of(
                        List.of(),
                        List.of("Rows that obey these rules together; those set aside stand beside this folder.")),
                draft.resolve(SOUND).resolve(CopyFolder.CHARTER));
    }

    private void writeAside(Charter charter, Sift sift, Map<String, TableSource> sources, Path draft)
            throws IOException {
        TableFiles files = new TableFiles(folder.resolve(ASIDE), draft.resolve(ASIDE), List.of());
        AsideList list = new AsideList(charter, sift);
        Files.createDirectories(draft.resolve(ASIDE));
        try (SiftCsv reasons = SiftCsv.reasons(draft, hasMark)) {
            for (Table table : charter.tables()) {
                RowSet aside = sift.aside(table.name());
                if (aside.size() > 0) {
                    writeAside(table, sources.get(table.name()), aside, files);
                }
                boolean isCopied = isCopied(table, sources.get(table.name()));
                RowNumbers numbers = new RowNumbers(isCopied);
                list.forEach(table.name(), row -> reasons.add(row, numbers.next(row)));
            }
        }
    }

    /** Counts rows in the files that they are set aside into: part by part where parts stay apart. */
    private static final class RowNumbers {
        private final boolean areByPart;
        private String part = "";
        private long number;

        RowNumbers(boolean areByPart) {
            this.areByPart = areByPart;
        }

        long next(AsideRow row) {
            if (areByPart && !row.part().equals(part)) {
                part = row.part();
                number = 0;
            }
            return ++number;
        }
    }

    private static void writeAside(Table table, TableSource source, RowSet aside, TableFiles files) throws IOException {
        if (!isCopied(table, source)) {
            try (TableCsv csv = new TableCsv(files.newFile(plainName(table)), false, columns(table))) {
                source.fetch(RefCursor.of(aside.iterator()), allColumns(table), batch -> add(batch, csv));
            }
            return;
        }
        long[] refs = new long[Math.toIntExact(aside.size())];
        PrimitiveIterator.OfLong each = aside.iterator();
        Arrays.setAll(refs, i -> each.nextLong());
        int from = 0;
        while (from < refs.length) {
            int part = RowRef.part(refs[from]);
            int to = from;
            while (to < refs.length && RowRef.part(refs[to]) == part) {
                to++;
            }
            files.pick(
                    (TableRewriter) source,
                    part,
                    RefCursor.of(Arrays.stream(refs, from, to).iterator()));
            from = to;
        }
    }

    /** Whether a table's files are copied byte for byte; all others are written as CSV. */
    private static boolean isCopied(Table table, TableSource source) {
        return table.rows() instanceof DelimitedFiles
                && source instanceof TableRewriter rewriter
                && rewriter.isRewritable();
    }

    private static Path plainName(Table table) {
        return Path.of(FileNames.plain(table.name()) + ".csv");
    }

    private static List<String> columns(Table table) {
        return table.columns().stream().map(Column::name).toList();
    }

    private static int[] allColumns(Table table) {
        return IntStream.range(0, table.columns().size()).toArray();
    }

    private static void add(RowBatch batch, TableCsv csv) {
        for (int row = 0; row < batch.size(); row++) {
            String[] cells = new String[batch.columnCount()];
            for (int i = 0; i < cells.length; i++) {
                cells[i] = batch.column(i).text(row);
            }
            csv.add(Arrays.asList(cells));
        }
        for (RowBatch.MalformedRow row : batch.malformed()) {
            csv.add(List.of(row.raw()));
        }
    }
}
