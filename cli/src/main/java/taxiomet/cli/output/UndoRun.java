package taxiomet.cli.output;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.DigestInputStream;
import java.security.DigestOutputStream;
import java.util.List;
import taxiomet.charters.proposals.UndoReader;
import taxiomet.charters.proposals.UndoReader.Edit;
import taxiomet.charters.proposals.UndoReader.FileUndo;
import taxiomet.reports.OutputException;
import taxiomet.reports.WholeOutput;
import taxiomet.reports.words.Counted;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.Packing;
import taxiomet.work.ContentHash;

/** Goes back from the files that a rehearsal wrote to those that it read. */
public final class UndoRun {
    private static final int PIECE = 1 << 16;

    private final Path undoFile;
    private final Path into;

    public UndoRun(Path undoFile, Path into) {
        this.undoFile = undoFile;
        this.into = into;
    }

    /** Writes the files as they were read into a new folder, whole or not at all; tells what was written. */
    public String run() {
        List<FileUndo> files = new UndoReader(undoFile).read();
        Path from = undoFile.toAbsolutePath().getParent();
        try (WholeOutput output = new WholeOutput(into)) {
            Files.createDirectory(output.draft());
            for (FileUndo file : files) {
                Path target = placeIn(output.draft(), file.place());
                if (!target.startsWith(output.draft())) {
                    throw new SourceException(
                            undoFile.toString(), "it names a file outside its folder: " + file.place(), "");
                }
                Files.createDirectories(target.getParent());
                goBack(file, from.resolve(file.place()), target);
            }
            return into + " (" + Counted.of(files.size(), "file") + " as read before the rehearsal)"
                    + OutputFolder.complete(output);
        } catch (IOException e) {
            throw OutputException.of(into.toString(), e);
        }
    }

    private Path placeIn(Path folder, String place) {
        try {
            return folder.resolve(place).normalize();
        } catch (InvalidPathException e) {
            throw new SourceException(
                    undoFile.toString(), "it names a file that cannot be: " + place, "it was changed");
        }
    }

    private void goBack(FileUndo undo, Path copy, Path target) throws IOException {
        ContentHash ofCopy = new ContentHash();
        ContentHash ofOriginal = new ContentHash();
        Packing packing = Packing.of(copy);
        try (InputStream in = new DigestInputStream(
                        packing.unpack(new BufferedInputStream(Files.newInputStream(copy))), ofCopy.digest());
                OutputStream file = new BufferedOutputStream(Files.newOutputStream(target));
                OutputStream out = new DigestOutputStream(packing.pack(file), ofOriginal.digest())) {
            long at = 0;
            for (Edit edit : undo.edits()) {
                copy(in, out, edit.at() - at, copy);
                skip(in, edit.remove(), copy);
                out.write(edit.put());
                at = edit.at() + edit.remove();
            }
            in.transferTo(out);
        } catch (NoSuchFileException e) {
            throw new SourceException(
                    copy.toString(),
                    "there is no such file",
                    "the undo works on the files beside it, as the rehearsal wrote them");
        }
        if (!ofCopy.hex().equals(undo.copySha256())) {
            throw changed(copy);
        }
        if (!ofOriginal.hex().equals(undo.originalSha256())) {
            throw new SourceException(
                    undoFile.toString(), "the undo of " + undo.place() + " does not lead back", "it was changed");
        }
    }

    private static SourceException changed(Path copy) {
        return new SourceException(
                copy.toString(), "the file is not as the rehearsal wrote it", "undo works on untouched copies only");
    }

    private static void copy(InputStream in, OutputStream out, long count, Path file) throws IOException {
        byte[] piece = new byte[PIECE];
        long left = count;
        if (left < 0) {
            throw changed(file);
        }
        while (left > 0) {
            int read = in.readNBytes(piece, 0, (int) Math.min(PIECE, left));
            if (read == 0) {
                throw changed(file);
            }
            out.write(piece, 0, read);
            left -= read;
        }
    }

    private static void skip(InputStream in, long count, Path file) throws IOException {
        copy(in, OutputStream.nullOutputStream(), count, file);
    }
}
