package taxiomet.sources.file;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.concurrent.TimeUnit;

/** What a file looked like when it was opened; a file that looks different has changed. */
public record FileStamp(long size, long modifiedNanos, int firstBytes) {
    private static final int FIRST_BYTES = 4_096;

    public static FileStamp of(Path file) throws IOException {
        byte[] first;
        try (InputStream in = Files.newInputStream(file)) {
            first = in.readNBytes(FIRST_BYTES);
        }
        long modified = Files.getLastModifiedTime(file).to(TimeUnit.NANOSECONDS);
        return new FileStamp(Files.size(file), modified, Arrays.hashCode(first));
    }

    public boolean isSameAs(FileStamp other) {
        return size == other.size && modifiedNanos == other.modifiedNanos && firstBytes == other.firstBytes;
    }
}
