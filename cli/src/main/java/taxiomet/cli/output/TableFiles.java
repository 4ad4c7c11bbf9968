package taxiomet.cli.output;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collection;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.reports.OutputException;
import taxiomet.reports.json.UndoJson;
import taxiomet.rows.RefCursor;
import taxiomet.rows.RowEdits;
import taxiomet.rows.TableRewriter;
import taxiomet.rows.TableRewriter.Content;
import taxiomet.rows.TableRewriter.Contents;
import taxiomet.rows.TableRewriter.UndoSink;

/** Files of tables in a folder, each where it stood below the charter's folder. */
final class TableFiles {
    private final Path folder;
    private final Path draft;
    private final Set<Path> places = new HashSet<>();

    /**
     * @param folder where they will stand in the end
     * @param draft where they are written for now
     * @param others names of what else stands there
     */
    TableFiles(Path folder, Path draft, Collection<String> others) {
        this.folder = folder;
        this.draft = draft;
        others.forEach(name -> places.add(Path.of(name)));
    }

    /** Where the rows of a table stand in the folder: a glob stays one. */
    DelimitedFiles rowsOf(DelimitedFiles rows, TableRewriter rewriter, int parts) {
        Path path = Path.of(rows.path()).normalize();
        boolean isInside = !path.isAbsolute() && !path.startsWith("..");
        Path place = parts == 1 ? rewriter.placeOf(0) : isInside ? path : path.getFileName();
        return rows.at(folder.toAbsolutePath(), place.toString().replace('\\', '/'));
    }

    /** A file that does not exist yet, in a folder that does. */
    Path newFile(Path place) throws IOException {
        if (!places.add(place)) {
            throw new OutputException(
                    folder.toString(),
                    "two files would stand in the same place, " + place,
                    "give one of them another name");
        }
        Path target = draft.resolve(place);
        Files.createDirectories(target.getParent());
        return target;
    }

    /**
     * Writes a part of a table with edits.
     *
     * @param undo is told how to go back; empty where nobody will
     */
    void write(TableRewriter rewriter, int part, RowEdits edits, Optional<UndoJson> undo) throws IOException {
        Path place = rewriter.placeOf(part);
        boolean[] isBegun = new boolean[1];
        UndoSink back = undo.isEmpty()
                ? UndoSink.NONE
                : (at, remove, put) -> unchecked(() -> {
                    if (!isBegun[0]) {
                        undo.get().begin(place.toString());
                        isBegun[0] = true;
                    }
                    undo.get().edit(at, remove, put);
                });
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(newFile(place)))) {
            Optional<Contents> contents = rewriter.rewrite(
                    part, edits, (bytes, offset, length) -> unchecked(() -> out.write(bytes, offset, length)), back);
            if (contents.isPresent() && isBegun[0]) {
                Content copy = contents.get().copy();
                Content original = contents.get().original();
                undo.get().end(copy.bytes(), copy.sha256(), original.bytes(), original.sha256());
            }
        } catch (UncheckedIOException e) {
            throw e.getCause();
        }
    }

    /** Writes some rows of a part, and what stands before its rows. */
    void pick(TableRewriter rewriter, int part, RefCursor rows) throws IOException {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(newFile(rewriter.placeOf(part))))) {
            rewriter.pick(part, rows, (bytes, offset, length) -> unchecked(() -> out.write(bytes, offset, length)));
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
