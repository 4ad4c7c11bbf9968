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
import taxiomet.charter.place.DatabaseAddress;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.charter.place.RowsPlace;
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
                for (Path file : of(table.rows())) {
                    stands.put(file, standOf(file));
                }
            }
        }
        return stands;
    }

    /** The files that rows stand in; none for those on a server. */
    public static List<Path> of(RowsPlace place) {
        if (place instanceof DatabaseRows rows) {
            DatabaseAddress address = rows.database().address();
            return address.isOfServer() ? List.of() : List.of(rows.folder().resolve(address.place()));
        }
        try {
            return FileParts.find(place.folder(), place.path());
        } catch (SourceException e) {
            if (place.path().indexOf('\0') >= 0) {
                return List.of();
            }
            return List.of(place.folder().resolve(place.path()));
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
