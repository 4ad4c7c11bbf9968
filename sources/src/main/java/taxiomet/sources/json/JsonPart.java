package taxiomet.sources.json;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Arrays;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.PlaceIndex;

/** One file of the table. */
final class JsonPart {
    private static final int MARK = 3;

    final DataFile file;
    final PlaceIndex places = new PlaceIndex();
    boolean isRead;
    long emptyLines;

    JsonPart(Path path) {
        file = new DataFile(path);
    }

    /** Where the first line begins: behind a byte order mark. */
    int firstOffset() throws IOException {
        try (var in = file.open(0)) {
            byte[] first = in.readNBytes(MARK);
            return Arrays.equals(first, new byte[] {(byte) 0xEF, (byte) 0xBB, (byte) 0xBF}) ? MARK : 0;
        }
    }

    /** Where the first line begins at a place or behind it. */
    long lineFrom(long place) throws IOException {
        if (place >= file.size()) {
            return file.size();
        }
        try (var in = new BufferedInputStream(file.open(place - 1))) {
            long at = place;
            for (int b = in.read(); b >= 0 && b != '\n'; b = in.read()) {
                at++;
            }
            return at;
        }
    }

    /** The lines from a place of {@link #places} on; all of them for a negative one. */
    LineCursor linesFrom(int place, int runBytes) throws IOException {
        if (place >= 0) {
            long offset = places.offset(place);
            return new LineCursor(file.open(offset), places.row(place), places.line(place), offset, runBytes);
        }
        int first = firstOffset();
        return new LineCursor(file.open(first), 1, 1, first, runBytes);
    }
}
