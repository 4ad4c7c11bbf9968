package taxiomet.rows;

import java.nio.file.Path;
import java.util.Optional;

/** Copies a table, leaving out or changing rows by their references; everything else stays byte for byte as it was read. */
public interface TableRewriter {
    /**
     * Writes one part of the table.
     *
     * @param part its number, 0 for the first
     * @param edits those of the whole table; new rows go behind the last part
     * @param out gets the part as its file holds it, compressed where the file is
     * @param undo is told how to go back, in the order of the part; {@link UndoSink#NONE} where nobody will
     * @return what the part held and what the copy holds; empty where nothing is different, as the copy is the file itself, and where nobody
     *     will go back
     * @throws SourceException when the part cannot be read, has changed, or cannot hold a cell
     */
    Optional<Contents> rewrite(int part, RowEdits edits, ByteSink out, UndoSink undo);

    /** Whether all parts can be written changed: not those in an encoding that is recoded to be read. */
    boolean isRewritable();

    /**
     * Writes what stands before the rows of a part, and some of its rows, byte for byte as they were read.
     *
     * @param part its number, 0 for the first
     * @param rows references of rows of this part alone
     * @param out gets the part as its file holds it, compressed where the file is
     * @throws SourceException when the part cannot be read, or has changed
     */
    void pick(int part, RefCursor rows, ByteSink out);

    /** The place of a part in a folder of copies: below the charter's folder as it is, elsewhere its bare name. */
    Path placeOf(int part);

    /** Takes bytes, wherever they go. */
    @FunctionalInterface
    interface ByteSink {
        void write(byte[] bytes, int offset, int length);
    }

    /** What a part holds, before any compression. */
    record Content(long bytes, String sha256) {}

    /** A part as it was read, and its copy. */
    record Contents(Content original, Content copy) {}

    /** Takes the edits that lead back from the copy to the part as it was read; places count the bytes before any compression. */
    interface UndoSink {
        /**
         * One edit.
         *
         * @param at the place in the copy
         * @param remove how many bytes to take out there
         * @param put what stood there, as it was read
         */
        void edit(long at, long remove, byte[] put);

        /** Nobody will go back: contents need not be told apart. */
        UndoSink NONE = (at, remove, put) -> {};
    }
}
