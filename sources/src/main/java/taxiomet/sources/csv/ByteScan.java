package taxiomet.sources.csv;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.Scan;
import taxiomet.sources.file.ByteInput;
import taxiomet.sources.file.PlaceIndex;

/**
 * A pass over the bytes of a table. Readers take chunks of a fixed size as they come. A chunk holds the rows that begin in it;
 * whether a line break before it ends a row, or stands inside quotes, is only known when the chunk before it has been taken
 * apart. So a reader supposes that it does, takes its chunk apart, and compares with the {@link Joints joint}
 * once that is known: hardly ever must it be done again.
 */
final class ByteScan implements Scan {
    /** So much is loaded behind a chunk for the end of its last row. */
    private static final int OVERLAP = 1 << 12;

    /** So many bytes may be looked at a second time behind quotes left open before a file is given up. */
    private static final long MAX_READ_AGAIN = 1L << 30;

    private final List<CsvPart> parts;
    private final List<CsvFields> fields;
    private final List<Joints> joints;
    private final RefRanges wanted;
    private final int width;
    private final int chunkSize;

    private int part;
    private int chunk;
    private long number;
    private OpenPart open;
    private final List<OpenPart> opened = new ArrayList<>();

    /**
     * @param joints of each part; filled in by the first pass
     */
    ByteScan(
            List<CsvPart> parts,
            List<CsvFields> fields,
            List<Joints> joints,
            RefRanges wanted,
            int width,
            int chunkSize) {
        this.parts = parts;
        this.fields = fields;
        this.joints = joints;
        this.wanted = wanted;
        this.width = width;
        this.chunkSize = chunkSize;
    }

    /** A part that is being read, until its last chunk has been. */
    private static final class OpenPart {
        final int part;
        final ByteInput input;
        int readers;
        boolean isAllTaken;

        OpenPart(int part, ByteInput input) {
            this.part = part;
            this.input = input;
        }
    }

    /** A chunk that a reader has taken. */
    private record Claim(OpenPart open, int chunk, long number) {
        int part() {
            return open.part;
        }

        ByteInput input() {
            return open.input;
        }
    }

    private synchronized Claim claim() throws IOException {
        while (part < parts.size()) {
            if (open == null) {
                open = new OpenPart(part, parts.get(part).openBytes());
                opened.add(open);
            }
            if (isPartEnded()) {
                open.isAllTaken = true;
                OpenPart ended = open;
                part++;
                chunk = 0;
                open = null;
                endIfRead(ended);
                continue;
            }
            int next = chunk++;
            if (isWanted(part, next)) {
                open.readers++;
                return new Claim(open, next, number++);
            }
        }
        return null;
    }

    private synchronized void release(OpenPart read) {
        read.readers--;
        endIfRead(read);
    }

    private void endIfRead(OpenPart read) {
        if (read.isAllTaken && read.readers == 0) {
            closeQuietly(read.input);
            opened.remove(read);
            parts.get(read.part).requireUnchanged();
            parts.get(read.part).endFirstPass(joints.get(read.part).emptyLines());
        }
    }

    private boolean isPartEnded() throws IOException {
        long start = offsetOf(part, chunk);
        long end = open.input.end();
        if (end >= 0) {
            return chunk > 0 && start >= end;
        }
        // Nobody knows yet where a compressed part ends: there is a chunk when there is a byte of it.
        return chunk > 0 && open.input.read(start, new byte[1], 0, 1) == 0;
    }

    private long offsetOf(int ofPart, int ofChunk) {
        return parts.get(ofPart).firstOffset() + (long) ofChunk * chunkSize;
    }

    private boolean isWanted(int ofPart, int ofChunk) {
        Joints known = joints.get(ofPart);
        if (!known.isKnown(ofChunk + 1)) {
            return true;
        }
        return wanted.meets(
                RowRef.of(ofPart, known.row(ofChunk)), RowRef.of(ofPart, Math.max(1, known.row(ofChunk + 1)) - 1));
    }

    @Override
    public BatchReader reader() {
        return new ChunkReader();
    }

    @Override
    public synchronized void close() {
        // Something is open only when reading was given up.
        opened.forEach(left -> closeQuietly(left.input));
        opened.clear();
    }

    private static void closeQuietly(ByteInput input) {
        try {
            input.close();
        } catch (IOException e) {
            // Only read from: nothing is lost.
            return;
        }
    }

    private final class ChunkReader implements BatchReader {
        private final RowBatch batch = new RowBatch(width);
        private final Chunk loaded;
        private RowSplitter splitter;
        private int splitterPart = -1;

        ChunkReader() {
            loaded = new Chunk(fields.get(0).form());
        }

        @Override
        public RowBatch next() {
            Claim claim;
            try {
                claim = claim();
            } catch (IOException e) {
                throw parts.get(part).unreadable(e);
            }
            if (claim == null) {
                return null;
            }
            Joints chain = joints.get(claim.part());
            try {
                read(claim, chain);
            } catch (IOException e) {
                RuntimeException failure = failureOf(claim, e);
                chain.fail(failure);
                throw failure;
            } catch (RuntimeException e) {
                chain.fail(e);
                throw e;
            } catch (OutOfMemoryError e) {
                // Whoever waits for the end of this chunk must not wait for ever.
                chain.fail(new IllegalStateException("another thread has no memory left", e));
                throw e;
            }
            release(claim.open());
            batch.setNumber(claim.number());
            return batch;
        }

        private RuntimeException failureOf(Claim claim, IOException e) {
            CsvPart failed = parts.get(claim.part());
            try {
                failed.requireUnchanged();
            } catch (RuntimeException changed) {
                return changed;
            }
            return failed.unreadable(e);
        }

        private void read(Claim claim, Joints chain) throws IOException {
            CsvPart current = parts.get(claim.part());
            if (splitterPart != claim.part()) {
                splitter = new RowSplitter(fields.get(claim.part()), batch);
                splitterPart = claim.part();
            }
            long start = offsetOf(claim.part(), claim.chunk());
            long from = Math.max(current.firstOffset(), start - 2);
            loaded.load(claim.input(), from, (int) (start - from) + chunkSize + OVERLAP);
            int to = loaded.placeOf(start + chunkSize);
            boolean isSupposed = !chain.isKnown(claim.chunk());
            int supposed = 0;
            boolean isSplit = false;
            if (isSupposed) {
                supposed = firstRowFrom(loaded.placeOf(start), to);
                isSplit = supposed >= 0 && splitter.split(loaded, supposed, to, false, false);
            }
            chain.await(claim.chunk());
            long offset = chain.offset(claim.chunk());
            boolean hasHeaderNext = chain.row(claim.chunk()) == 0;
            boolean isRight = isSplit && !hasHeaderNext && loaded.offsetOf(supposed) == offset;
            if (!isRight) {
                if (offset >= start + chunkSize) {
                    // All of it is the inside of a row that began before.
                    splitter.split(loaded, to, to, hasHeaderNext, true);
                    conclude(claim, chain, offset);
                    return;
                }
                splitter.split(loaded, loaded.placeOf(offset), to, hasHeaderNext, true);
            }
            conclude(claim, chain, splitter.endOffset());
        }

        /** Where the first row begins if a line break ends one; -1 when there is none in the chunk. */
        private int firstRowFrom(int place, int to) {
            byte[] bytes = loaded.bytes();
            if (place == 0) {
                return 0;
            }
            Marks marks = loaded.marks();
            for (int mark = marks.firstFrom(place - 1); mark < marks.count(); mark++) {
                int at = marks.places()[mark];
                if (bytes[at] == '\n' || bytes[at] == '\r') {
                    int behind = at + (bytes[at] == '\r' && bytes[at + 1] == '\n' ? 2 : 1);
                    if (behind >= place) {
                        return behind < to ? behind : -1;
                    }
                }
            }
            return -1;
        }

        /** Tells the next chunk where its rows begin, and names the rows of this one. */
        private void conclude(Claim claim, Joints chain, long endOffset) {
            CsvPart current = parts.get(claim.part());
            int next = claim.chunk() + 1;
            long firstRow = Math.max(1, chain.row(claim.chunk()));
            long firstLine = chain.line(claim.chunk());
            if (!chain.isKnown(next)) {
                if (current.keepsPlaces()) {
                    offerPlaces(current.places(), firstRow, firstLine);
                }
                chain.addEmptyLines(splitter.emptyLines());
                if (chain.addReadAgain(splitter.bytesReadAgain()) > MAX_READ_AGAIN) {
                    throw current.tooManyOpenQuotes(firstLine);
                }
                boolean isHeaderNext = chain.row(claim.chunk()) == 0 && splitter.isHeaderNext();
                chain.add(
                        next,
                        endOffset,
                        isHeaderNext ? 0 : firstRow + splitter.records(),
                        firstLine + splitter.lines());
            }
            claim.input().forgetBefore(offsetOf(claim.part(), next) - 2);
            splitter.handOver(claim.part(), firstRow, firstLine);
        }

        private void offerPlaces(PlaceIndex places, long firstRow, long firstLine) {
            for (RowSplitter.Place place : splitter.places()) {
                places.offer(firstRow + place.record(), firstLine + place.line(), place.offset());
            }
        }

        @Override
        public void close() {
            // Inputs are shared, and closed when their last chunk has been read.
        }
    }
}
