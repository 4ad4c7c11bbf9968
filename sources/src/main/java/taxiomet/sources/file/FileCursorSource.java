package taxiomet.sources.file;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;

/** Rows of text in one or several files, each read from its beginning on. */
public abstract class FileCursorSource extends CursorSource {
    private final Path folder;
    private final List<DataFile> files;

    /**
     * @param path a path or a glob from the folder on
     * @throws SourceException when there is no such file
     */
    protected FileCursorSource(Path folder, String path) {
        this.folder = folder;
        this.files = FileParts.find(folder, path).stream().map(DataFile::new).toList();
    }

    /** One of the files. */
    protected final DataFile file(int part) {
        return files.get(part);
    }

    @Override
    public String partName(int part) {
        return file(part).nameFrom(folder);
    }

    @Override
    public final int partCount() {
        return files.size();
    }

    @Override
    public final long bytes() {
        return files.stream().mapToLong(DataFile::size).sum();
    }

    @Override
    protected final RowBatch batchOf(int width) {
        return new RowBatch(width);
    }

    @Override
    protected final void requireUnchanged() {
        files.forEach(DataFile::requireUnchanged);
    }

    @Override
    protected final SourceException refused(Exception e) {
        return new SourceException(partName(0), "it cannot be read (" + e.getMessage() + ")", "");
    }

    @Override
    protected final Cursor open(int[] wanted, Object place) throws IOException {
        return open(0, wanted, place);
    }

    @Override
    protected abstract Cursor open(int part, int[] wanted, Object place) throws IOException;

    @Override
    public final void close() {
        // Files are open only while they are read.
    }
}
