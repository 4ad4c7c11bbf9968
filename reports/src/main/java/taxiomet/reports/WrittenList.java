package taxiomet.reports;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import taxiomet.work.ContentHash;

/**
 * The list of what this program wrote into a folder, kept in the folder: a line for each file with a stamp of what stands in it, so that a file
 * that somebody else laid there, or wrote in, is known. A stamp is SHA-256 over the length and what a file holds; of one beyond 8 MB over its
 * first and its last 4 MB.
 */
final class WrittenList {
    static final String FILE = ".taxiomet-written";

    private static final String HEAD = "# What taxiomet wrote here; nothing else is replaced by --force.";
    private static final int END = 1 << 22;
    private static final long MOST = 64L << 20;

    /** From the path of a file in the folder, its parts joined by slashes, to its stamp. */
    private final Map<String, String> stamps;

    private WrittenList(Map<String, String> stamps) {
        this.stamps = stamps;
    }

    /** Whether a folder has one. */
    static boolean isIn(Path folder) {
        return Files.isRegularFile(folder.resolve(FILE), LinkOption.NOFOLLOW_LINKS);
    }

    /** Writes the list of all that stands in a folder. */
    static void write(Path folder) throws IOException {
        List<String> lines = new ArrayList<>(List.of(HEAD));
        for (Path file : files(folder)) {
            lines.add(stampOf(file) + "  " + nameOf(folder, file));
        }
        Files.write(folder.resolve(FILE), lines);
    }

    /** The list of a folder; one of nothing where it has none. */
    static WrittenList of(Path folder) throws IOException {
        Map<String, String> stamps = new HashMap<>();
        Path list = folder.resolve(FILE);
        if (isIn(folder) && Files.size(list) <= MOST) {
            for (String line : new String(Files.readAllBytes(list), StandardCharsets.UTF_8).split("\n")) {
                int gap = line.indexOf("  ");
                if (gap > 0 && !line.startsWith("#")) {
                    stamps.put(line.substring(gap + 2), line.substring(0, gap));
                }
            }
            stamps.put(FILE, stampOf(list));
        }
        return new WrittenList(stamps);
    }

    /** Whether a file stands as it was written. */
    boolean has(Path folder, Path file) throws IOException {
        String stamp = stamps.get(nameOf(folder, file));
        return stamp != null && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS) && stamp.equals(stampOf(file));
    }

    /** What stands in a folder and is no folder, or is one in which nothing stands; links are not followed. */
    static List<Path> files(Path folder) throws IOException {
        List<Path> files = new ArrayList<>();
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path each : all.sorted().toList()) {
                if (!Files.isDirectory(each, LinkOption.NOFOLLOW_LINKS) || (!each.equals(folder) && isEmpty(each))) {
                    files.add(each);
                }
            }
        }
        return files;
    }

    private static boolean isEmpty(Path folder) throws IOException {
        try (Stream<Path> content = Files.list(folder)) {
            return content.findAny().isEmpty();
        }
    }

    static String nameOf(Path folder, Path file) {
        StringBuilder name = new StringBuilder();
        folder.relativize(file)
                .forEach(part -> name.append(name.isEmpty() ? "" : "/").append(part));
        return name.toString();
    }

    private static String stampOf(Path file) throws IOException {
        if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
            return "folder";
        }
        ContentHash hash = new ContentHash();
        MessageDigest digest = hash.digest();
        long length = Files.size(file);
        digest.update(Long.toString(length).getBytes(StandardCharsets.UTF_8));
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            byte[] piece = new byte[(int) Math.min(END, length)];
            in.readFully(piece);
            digest.update(piece);
            long from = Math.max(piece.length, length - END);
            byte[] last = new byte[(int) Math.max(0, length - from)];
            in.seek(from);
            in.readFully(last);
            digest.update(last);
        }
        return hash.hex();
    }
}
