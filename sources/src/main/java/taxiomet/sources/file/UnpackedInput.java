package taxiomet.sources.file;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayDeque;
import java.util.Arrays;

/** A stream, decompressed by a thread of its own, some blocks ahead of its readers. */
public final class UnpackedInput implements ByteInput {
    private static final int BLOCK = 1 << 18;
    private static final int BLOCKS_AHEAD = 8;

    private final InputStream in;
    private final Thread unpacking = new Thread(this::unpack, "decompression");
    /** Blocks in their order; all but the last are full. */
    private final ArrayDeque<byte[]> blocks = new ArrayDeque<>();

    private long firstPlace;
    private long produced;
    private long wantedTo;
    private long end = -1;
    private IOException failure;
    private boolean isClosed;

    public UnpackedInput(InputStream in) {
        this.in = in;
        unpacking.setDaemon(true);
        unpacking.start();
    }

    private void unpack() {
        try {
            while (awaitRoom()) {
                byte[] block = in.readNBytes(BLOCK);
                add(block);
                if (block.length < BLOCK) {
                    return;
                }
            }
        } catch (IOException e) {
            fail(e);
        } catch (RuntimeException | OutOfMemoryError e) {
            fail(new IOException(e.getMessage(), e));
        }
    }

    private synchronized boolean awaitRoom() {
        while (!isClosed && produced - firstPlace >= (long) BLOCK * BLOCKS_AHEAD && wantedTo <= produced) {
            await();
        }
        return !isClosed;
    }

    private synchronized void add(byte[] block) {
        if (block.length > 0) {
            blocks.add(block);
            produced += block.length;
        }
        if (block.length < BLOCK) {
            end = produced;
        }
        notifyAll();
    }

    private synchronized void fail(IOException e) {
        failure = e;
        notifyAll();
    }

    /** Waits until something has changed, once: whoever calls it looks again whether that was it. */
    @SuppressWarnings("WaitNotInLoop")
    private void await() {
        try {
            wait();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            isClosed = true;
        }
    }

    @Override
    public synchronized int read(long from, byte[] target, int offset, int count) throws IOException {
        long to = from + count;
        wantedTo = Math.max(wantedTo, to);
        notifyAll();
        while (produced < to && end < 0 && failure == null && !isClosed) {
            await();
        }
        if (failure != null) {
            throw failure;
        }
        if (isClosed) {
            throw new IOException("reading was given up");
        }
        if (from < firstPlace) {
            // What was forgotten lay in the middle of a row: whoever asks will find that no row of his own begins here.
            Arrays.fill(target, offset, offset + count, (byte) ' ');
            return (int) Math.min(count, Math.max(0, produced - from));
        }
        int copied = 0;
        long place = firstPlace;
        for (byte[] block : blocks) {
            int start = (int) Math.max(0, Math.min(block.length, from - place));
            int stop = (int) Math.max(start, Math.min(block.length, to - place));
            System.arraycopy(block, start, target, offset + copied, stop - start);
            copied += stop - start;
            place += block.length;
        }
        return copied;
    }

    @Override
    public synchronized long end() {
        return end;
    }

    @Override
    public synchronized void forgetBefore(long place) {
        while (!blocks.isEmpty() && firstPlace + blocks.peek().length <= place) {
            firstPlace += blocks.poll().length;
        }
        notifyAll();
    }

    @Override
    public void close() throws IOException {
        synchronized (this) {
            isClosed = true;
            notifyAll();
        }
        in.close();
    }
}
