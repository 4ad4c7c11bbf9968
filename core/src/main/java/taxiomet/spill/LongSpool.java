package taxiomet.spill;

import java.util.Arrays;

/** Longs in the order written: the last block of them in memory, those before in a file. */
public final class LongSpool implements AutoCloseable {
    private static final int FIRST_ROOM = 24;
    private static final int READ_CHUNK = 8_192;

    private final SpillFile file;
    private final int blockSize;
    private long[] buffer = new long[0];
    private int buffered;
    private long[] blocks = new long[0];
    private int blockCount;

    /** @param blockSize how many longs stay in memory before they go to a file of their own */
    public LongSpool(SpillFolder folder, int blockSize) {
        this(new SpillFile(folder), blockSize);
    }

    LongSpool(SpillFile file, int blockSize) {
        this.file = file;
        this.blockSize = blockSize;
    }

    /** Adds a long behind those that are there. */
    public void add(long value) {
        if (buffered == buffer.length) {
            makeRoom();
        }
        buffer[buffered++] = value;
    }

    private void makeRoom() {
        if (buffer.length < blockSize) {
            buffer = Arrays.copyOf(buffer, Math.min(blockSize, Math.max(FIRST_ROOM, buffer.length * 2)));
            return;
        }
        if (blockCount == blocks.length) {
            blocks = Arrays.copyOf(blocks, blockCount * 2 + 4);
        }
        blocks[blockCount++] = file.append(buffer, buffered);
        buffered = 0;
    }

    /** How many longs there are. */
    public long size() {
        return inFile() + buffered;
    }

    private long inFile() {
        return (long) blockCount * blockSize;
    }

    /** All longs from the first on. Nothing may be added while they are read. */
    public Reader read() {
        return read(0, size(), READ_CHUNK);
    }

    /** The longs from one on, 0 for the first. */
    public Reader read(long from) {
        return read(from, size(), READ_CHUNK);
    }

    /** The longs from {@code from} (inclusive) to {@code to} (exclusive), read in runs of at most {@code chunk}. */
    public Reader read(long from, long to, int chunk) {
        return new Reader(from, to, chunk);
    }

    /** Goes through a spool once. */
    public final class Reader {
        private final long end;
        private final int chunk;
        private long[] values = new long[0];
        private int at;
        private int loaded;
        private long position;

        private Reader(long from, long end, int chunk) {
            this.position = from;
            this.end = end;
            this.chunk = chunk;
        }

        public boolean hasNext() {
            return at < loaded || position < end;
        }

        public long next() {
            if (at == loaded) {
                load();
            }
            return values[at++];
        }

        private void load() {
            at = 0;
            boolean isBuffered = position >= inFile();
            int inBlock = isBuffered ? (int) (position - inFile()) : (int) (position % blockSize);
            loaded = (int) Math.min(isBuffered ? chunk : Math.min(chunk, blockSize - inBlock), end - position);
            if (values.length < loaded) {
                values = new long[loaded];
            }
            if (isBuffered) {
                System.arraycopy(buffer, inBlock, values, 0, loaded);
            } else {
                file.read(blocks[(int) (position / blockSize)] + inBlock, values, loaded);
            }
            position += loaded;
        }
    }

    @Override
    public void close() {
        buffer = new long[0];
        buffered = 0;
        blockCount = 0;
        file.close();
    }
}
