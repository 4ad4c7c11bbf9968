package taxiomet.sources.file;

import java.io.IOException;

/** The bytes of a part, decompressed, by their places; several threads read at once. */
public interface ByteInput extends AutoCloseable {
    /**
     * Reads bytes from a place on.
     *
     * @return how many; fewer than asked for only at the end
     */
    int read(long from, byte[] target, int offset, int count) throws IOException;

    /** Where the bytes end; -1 while it is not known. */
    long end();

    /** Nothing before this place will be asked for again. */
    void forgetBefore(long place);

    @Override
    void close() throws IOException;
}
