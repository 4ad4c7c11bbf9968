package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import taxiomet.charter.place.FieldPointer;
import taxiomet.charter.place.JsonLines;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.Sniffed;

/** Finds out which fields the objects of a file have: those of the first lines, nested ones under the names of their way. */
public final class FieldSniffer {
    private static final int FIRST_BYTES = 1 << 20;
    private static final int DEEPEST = 8;
    private static final int MOST_FIELDS = 2_000;

    private final Map<String, String> pointers = new LinkedHashMap<>();
    private final TreeSet<String> lists = new TreeSet<>();

    private FieldSniffer() {}

    /**
     * Looks at the beginning of a file.
     *
     * @throws SourceException when it cannot be read, or has no object with a field in it
     */
    public static Sniffed sniff(Path path) {
        FileParts.requireFile(path);
        DataFile file = new DataFile(path);
        FieldSniffer sniffer = new FieldSniffer();
        try (LineCursor lines = new LineCursor(file.open(0), 1, 1, 0, FIRST_BYTES)) {
            LineCursor.Run run = lines.next();
            if (run != null) {
                sniffer.look(run);
            }
        } catch (IOException e) {
            throw file.unreadable(e);
        }
        return sniffer.sniffed(path);
    }

    private void look(LineCursor.Run run) {
        int start = 0;
        while (start < run.length()) {
            int end = start;
            while (end < run.length() && run.bytes()[end] != '\n') {
                end++;
            }
            try (JsonParser parser = new JsonFactory().createParser(run.bytes(), start, end - start)) {
                if (parser.nextToken() == JsonToken.START_OBJECT) {
                    lookAtObject(parser, "", "", 1);
                }
            } catch (IOException e) {
                // A malformed row: the survey counts it.
            }
            start = end + 1;
        }
    }

    private void lookAtObject(JsonParser parser, String name, String pointer, int depth) throws IOException {
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            String field = parser.currentName();
            String here = name.isEmpty() ? field : name + "_" + field;
            String way = pointer + FieldPointer.to(field);
            JsonToken token = parser.nextToken();
            if (token == JsonToken.START_OBJECT && depth < DEEPEST) {
                lookAtObject(parser, here, way, depth + 1);
            } else if (token == JsonToken.START_ARRAY || token == JsonToken.START_OBJECT) {
                lists.add(way);
                parser.skipChildren();
            } else if (pointers.size() < MOST_FIELDS) {
                pointers.putIfAbsent(here, way);
            }
        }
    }

    private Sniffed sniffed(Path path) {
        if (pointers.isEmpty()) {
            throw new SourceException(
                    path.toString(), "no line of it holds a JSON object with fields", "name a file of JSON lines");
        }
        Map<String, String> nested = new LinkedHashMap<>();
        Path whole = path.toAbsolutePath();
        JsonLines plain = new JsonLines(whole.getParent(), whole.getFileName().toString(), Map.of());
        pointers.forEach((name, pointer) -> {
            if (!plain.pointerOf(name).equals(pointer)) {
                nested.put(name, pointer);
            }
        });
        List<String> remarks = lists.isEmpty()
                ? List.of()
                : List.of("lists are passed over: "
                        + String.join(", ", lists.stream().limit(5).toList()) + (lists.size() > 5 ? ", ..." : ""));
        return new Sniffed(
                new JsonLines(plain.folder(), plain.path(), nested),
                "json lines",
                List.copyOf(pointers.keySet()),
                remarks);
    }
}
