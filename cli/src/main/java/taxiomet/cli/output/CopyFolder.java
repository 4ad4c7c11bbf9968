package taxiomet.cli.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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

/** The folder that {@code --into} names: tables as they would be, and how to go back. */
public final class CopyFolder {
    static final String UNDO = "undo.json";
    public static final String CHARTER = "charter.yaml";

    private final Path folder;

    public CopyFolder(Path folder) {
        this.folder = folder;
    }

    /** Refuses, before anything is read, what could not be written afterwards. */
    public void requireFree(Outputs outputs) {
        OutputFolder.requireFree(outputs, "--into", folder, "tables of a rehearsal");
    }

    /** Writes a folder with a charter alone: no row changes, and all are read where they stand. */
    public String writeCharter(Charter charter, Provenance provenance) {
        String others;
        try (WholeOutput output = new WholeOutput(folder)) {
            Files.createDirectory(output.draft());
            new UndoJson(output.draft().resolve(UNDO), provenance, charter.name()).close();
            CharterOutput.write(
                    charter, folder.toAbsolutePath(), Map.of(), output.draft().resolve(CHARTER));
            others = OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + CHARTER + ", which accepts what is borne)" + others;
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
        String others;
        try (WholeOutput output = new WholeOutput(folder)) {
            Files.createDirectory(output.draft());
            TableFiles files = new TableFiles(folder, output.draft(), List.of(UNDO, CHARTER));
            List<Table> asWritten = new ArrayList<>();
            try (UndoJson undo = new UndoJson(output.draft().resolve(UNDO), provenance, charter.name())) {
                for (Table table : charter.tables()) {
                    RowEdits edits = rehearsal.edits(table.name());
                    if (rehearsal.source(table.name()) instanceof TableRewriter rewriter
                            && table.rows() instanceof DelimitedFiles rows
                            && (!edits.isEmpty() || isWhole)) {
                        int parts = rehearsal.source(table.name()).partCount();
                        for (int part = 0; part < parts; part++) {
                            files.write(rewriter, part, edits, Optional.of(undo));
                        }
                        tables++;
                        asWritten.add(table.withRows(files.rowsOf(rows, rewriter, parts)));
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
            others = OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(folder.toString(), e);
        }
        return folder + " (" + tables + (tables == 1 ? " table" : " tables") + " as they would be, " + CHARTER + ", "
                + UNDO + ")" + others;
    }
}
