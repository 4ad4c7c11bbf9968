package taxiomet.sources;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.FileParts;

/** How the files of a charter stand, so that it is seen when one of them changes, comes or goes. */
public final class FilesWatched {
    private FilesWatched() {}

    /** When a file was written last, and how long it is; null where it is not there. */
    public record Stand(long modified, long size) {}

    /**
     * How a charter and the files of its tables stand now.
     *
     * @param charterFile the charter's own file
     * @param charter null where it cannot be read
     */
    public static Map<Path, Stand> now(Path charterFile, Charter charter) {
        Map<Path, Stand> stands = new TreeMap<>();
        stands.put(charterFile, standOf(charterFile));
        if (charter != null) {
            for (Table table : charter.tables()) {
                for (Path file : files(table)) {
                    stands.put(file, standOf(file));
                }
            }
        }
        return stands;
    }

    private static List<Path> files(Table table) {
        try {
            return FileParts.find(table.rows().folder(), table.rows().path());
        } catch (SourceException e) {
            return List.of(table.rows().folder().resolve(table.rows().path()));
        }
    }

    private static Stand standOf(Path file) {
        try {
            BasicFileAttributes attributes = Files.readAttributes(file, BasicFileAttributes.class);
            return new Stand(attributes.lastModifiedTime().toMillis(), attributes.size());
        } catch (IOException e) {
            return null;
        }
    }

    /** The names of the files that stand otherwise. */
    public static List<String> changed(Map<Path, Stand> before, Map<Path, Stand> now) {
        Set<Path> all = new LinkedHashSet<>(before.keySet());
        all.addAll(now.keySet());
        List<String> names = new ArrayList<>();
        for (Path file : all) {
            if (!Objects.equals(before.get(file), now.get(file))) {
                names.add(file.getFileName().toString());
            }
        }
        return names;
    }
}
