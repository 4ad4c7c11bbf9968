package taxiomet.cli.output;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.cli.terminal.UsageException;
import taxiomet.rehearse.Rehearsal;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.json.Provenance;
import taxiomet.reports.json.UndoJson;
import taxiomet.rows.RowEdits;
import taxiomet.rows.TableRewriter;
import taxiomet.rows.TableRewriter.Content;
import taxiomet.rows.TableRewriter.Contents;

/** The folder that {@code --into} names: tables as they would be, and how to go back. */
public final class CopyFolder {
    static final String UNDO = "undo.json";
    public static final String CHARTER = "charter.yaml";

    private final Path folder;
    private final boolean isForced;

    /** @param isForced whether a folder that a rehearsal wrote is replaced */
    public CopyFolder(Path folder, boolean isForced) {
        this.folder = folder;
        this.isForced = isForced;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree() {
        OutputFolder.requireFree(
                "--into", folder, "tables of a rehearsal", each -> Files.isRegularFile(each.resolve(UNDO)), isForced);
    }

    /**
     * Writes the folder, whole or not at all: the tables, the way back, and a charter that reads the tables written from here and all
     * others where they stand.
     *
     * @param isWhole whether tables are written, too, in which nothing changes
     * @return what was written, in words
     */
    public String write(Charter charter, Rehearsal rehearsal, boolean isWhole, Provenance provenance) {
        int tables = 0;
        try (WholeOutput output = new WholeOutput(folder)) {
            Files.createDirectory(output.draft());
            Set<Path> places = new HashSet<>(Set.of(Path.of(UNDO), Path.of(CHARTER)));
            List<Table> asWritten = new ArrayList<>();
            try (UndoJson undo = new UndoJson(output.draft().resolve(UNDO), provenance, charter.name())) {
                for (Table table : charter.tables()) {
                    RowEdits edits = rehearsal.edits(table.name());
                    if (rehearsal.source(table.name()) instanceof TableRewriter rewriter
                            && table.rows() instanceof DelimitedFiles files
                            && (!edits.isEmpty() || isWhole)) {
                        int parts = rehearsal.source(table.name()).partCount();
                        for (int part = 0; part < parts; part++) {
                            requireNew(places, rewriter.placeOf(part));
                            write(rewriter, part, edits, output.draft(), undo);
                        }
                        tables++;
                        asWritten.add(table.withRows(rowsOf(files, rewriter, parts)));
                    } else if (edits.isEmpty()) {
                        asWritten.add(table);
                    } else {
                        throw new UsageException(
                                "--into " + folder + ": rows of table " + table.name()
                                        + " would change, and they stand in "
                                        + table.rows().path()
                                        + ", which is not written: only delimited text is; --write-sql writes a script instead");
                    }
                }
            }
            CharterOutput.write(
                    charter.with(asWritten),
                    folder.toAbsolutePath(),
                    Map.of(
                            List.of(),
                            List.of(
                                    "Tables as they would be after a rehearsal; the others are read where they stand.")),
                    output.draft().resolve(CHARTER));
            output.complete();
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + tables + (tables == 1 ? " table" : " tables") + " as they would be, " + CHARTER + ", "
                + UNDO + ")";
    }

    /** Where the rows of a table stand in the folder: a glob stays one. */
    private DelimitedFiles rowsOf(DelimitedFiles rows, TableRewriter rewriter, int parts) {
        Path path = Path.of(rows.path()).normalize();
        boolean isInside = !path.isAbsolute() && !path.startsWith("..");
        Path place = parts == 1 ? rewriter.placeOf(0) : isInside ? path : path.getFileName();
        return rows.at(folder.toAbsolutePath(), place.toString().replace('\\', '/'));
    }

    private void requireNew(Set<Path> places, Path place) {
        if (!places.add(place)) {
            throw new OutputException(
                    folder.toString(),
                    "two files would stand in the same place, " + place,
                    "give one of them another name");
        }
    }

    private static void write(TableRewriter rewriter, int part, RowEdits edits, Path into, UndoJson undo)
            throws IOException {
        Path place = rewriter.placeOf(part);
        Path target = into.resolve(place);
        Files.createDirectories(target.getParent());
        boolean[] isBegun = new boolean[1];
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(target))) {
            Optional<Contents> contents = rewriter.rewrite(
                    part,
                    edits,
                    (bytes, offset, length) -> unchecked(() -> out.write(bytes, offset, length)),
                    (at, remove, put) -> unchecked(() -> {
                        if (!isBegun[0]) {
                            undo.begin(place.toString());
                            isBegun[0] = true;
                        }
                        undo.edit(at, remove, put);
                    }));
            if (contents.isPresent() && isBegun[0]) {
                Content copy = contents.get().copy();
                Content original = contents.get().original();
                undo.end(copy.bytes(), copy.sha256(), original.bytes(), original.sha256());
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    private interface Writing {
        void run() throws IOException;
    }

    private static void unchecked(Writing writing) {
        try {
            writing.run();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
