package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.place.FieldPointer;
import taxiomet.charter.place.JsonItems;
import taxiomet.rows.SourceException;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.FileParts;
import taxiomet.sources.file.Sniffed;

/** Finds the lists in the beginning of a file: each is a table, with the column of the element that it stands in by which that is known. */
public final class ListSniffer {
    private static final int FIRST_BYTES = 1 << 20;
    private static final int DEEPEST = 8;
    private static final int MOST_LISTS = 100;
    private static final int MOST_FIELDS = 500;

    private ListSniffer() {}

    /**
     * A list that was found.
     *
     * @param name of the field that it is the value of, with those above it; empty for the document itself
     */
    public record FoundList(String name, Sniffed rows) {}

    /** What values at one place look like, all of them together. */
    private static final class Shape {
        private final Map<String, Shape> fields = new LinkedHashMap<>();
        private Shape elements;
        private boolean isScalar;
    }

    /**
     * The lists of a file.
     *
     * @param withOuter whether the outermost are among them, and not only those inside their elements
     * @throws SourceException when it cannot be read, or is no JSON from its beginning on
     */
    public static List<FoundList> sniff(Path path, boolean withOuter) {
        FileParts.requireFile(path);
        DataFile file = new DataFile(path);
        Shape document = new Shape();
        boolean isAny = false;
        try (JsonParser parser = ObjectReader.JSON.createParser(file.open(0))) {
            try {
                while (parser.nextToken() != null && parser.currentLocation().getByteOffset() < FIRST_BYTES) {
                    isAny = true;
                    look(parser, document, 0);
                }
            } catch (IOException e) {
                // What stands behind is the reading's affair, as long as there was something.
                if (!isAny) {
                    throw e;
                }
            }
        } catch (IOException e) {
            throw new SourceException(path.toString(), "it is no JSON (" + firstLine(e) + ")", "name another file");
        }
        List<FoundList> found = new ArrayList<>();
        Path whole = path.toAbsolutePath();
        // Each line of a file of lines is one element, which is read as such.
        new Finding(whole, found, withOuter).find(document, "", "", Optional.empty(), withOuter ? 0 : 1);
        return found;
    }

    private static String firstLine(IOException e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("");
    }

    private static void look(JsonParser parser, Shape shape, int depth) throws IOException {
        JsonToken token = parser.currentToken();
        if (parser.currentLocation().getByteOffset() > FIRST_BYTES) {
            return;
        }
        if (token == JsonToken.START_OBJECT) {
            while (parser.nextToken() != JsonToken.END_OBJECT && parser.currentToken() != null) {
                String name = parser.currentName();
                parser.nextToken();
                if (depth < DEEPEST && (shape.fields.size() < MOST_FIELDS || shape.fields.containsKey(name))) {
                    look(parser, shape.fields.computeIfAbsent(name, n -> new Shape()), depth + 1);
                } else {
                    parser.skipChildren();
                }
                if (parser.currentLocation().getByteOffset() > FIRST_BYTES) {
                    return;
                }
            }
        } else if (token == JsonToken.START_ARRAY) {
            shape.elements = shape.elements == null ? new Shape() : shape.elements;
            while (parser.nextToken() != JsonToken.END_ARRAY && parser.currentToken() != null) {
                look(parser, shape.elements, depth + 1);
                if (parser.currentLocation().getByteOffset() > FIRST_BYTES) {
                    return;
                }
            }
        } else if (token != JsonToken.VALUE_NULL) {
            shape.isScalar = true;
        }
    }

    /** The element that a list stands in: the column by which it is known, and how many steps out it is. */
    private record Outer(String column, String field, int steps) {
        Outer further(int more) {
            return new Outer(column, field, steps + more);
        }
    }

    /** Makes tables of lists. */
    private static final class Finding {
        private final Path file;
        private final List<FoundList> found;
        private final boolean withOuter;

        Finding(Path file, List<FoundList> found, boolean withOuter) {
            this.file = file;
            this.found = found;
            this.withOuter = withOuter;
        }

        /** @param elements how many elements of lists it stands in */
        void find(Shape shape, String name, String way, Optional<Outer> outer, int elements) {
            if (found.size() >= MOST_LISTS) {
                return;
            }
            if (shape.elements != null) {
                Shape element = shape.elements;
                if (withOuter || elements > 0) {
                    addTable(element, name, way, outer);
                }
                Optional<Outer> within = known(element, name).or(() -> outer.map(far -> far.further(2)));
                findInside(element, name, way + "/" + ItemWay.EACH, within, elements + 1);
            } else {
                Optional<Outer> within = !withOuter && way.isEmpty() ? known(shape, "") : outer;
                findInside(shape, name, way, within, elements);
            }
        }

        private void findInside(Shape shape, String name, String way, Optional<Outer> outer, int elements) {
            shape.fields.forEach((field, inside) -> find(
                    inside,
                    name.isEmpty() ? field : name + "_" + field,
                    way + FieldPointer.to(field),
                    outer.map(far -> far.further(1)),
                    elements));
        }

        /** The first field of an element that is named like a key, else the first. */
        private Optional<Outer> known(Shape element, String name) {
            List<String> scalars = element.fields.entrySet().stream()
                    .filter(field -> field.getValue().isScalar)
                    .map(Map.Entry::getKey)
                    .toList();
            return scalars.stream()
                    .filter(field ->
                            field.matches("(?i)(.*[_-])?(id|no|nr|code|key|number|uuid)|.*[a-z](Id|No|Code|Key)"))
                    .findFirst()
                    .or(() -> scalars.stream().findFirst())
                    .map(field -> new Outer((name.isEmpty() ? stem() : name) + "_" + field, field, 0));
        }

        private String stem() {
            return file.getFileName().toString().replaceFirst("\\..*$", "");
        }

        private void addTable(Shape element, String name, String way, Optional<Outer> outer) {
            Map<String, String> fields = new LinkedHashMap<>();
            Map<String, String> columns = new LinkedHashMap<>();
            // From an element of the list one step leads to the list, and another to what it is in.
            outer.ifPresent(far -> columns.put(far.column, (far.steps + 1) + FieldPointer.to(far.field)));
            addScalars(element, "", "", columns);
            if (element.isScalar && element.fields.isEmpty()) {
                columns.put(name.isEmpty() ? "value" : name.replaceFirst("^.*_", ""), "0");
            }
            boolean isOwn = columns.size() > (outer.isPresent() ? 1 : 0);
            if (!isOwn) {
                return;
            }
            JsonItems plain = new JsonItems(file.getParent(), file.getFileName().toString(), way, Map.of());
            columns.forEach((column, pointer) -> {
                if (!plain.pointerOf(column).equals(pointer)) {
                    fields.put(column, pointer);
                }
            });
            found.add(new FoundList(
                    name,
                    new Sniffed(
                            new JsonItems(plain.folder(), plain.path(), way, fields),
                            "json",
                            List.copyOf(columns.keySet()),
                            List.of())));
        }

        private static void addScalars(Shape shape, String name, String way, Map<String, String> columns) {
            shape.fields.forEach((field, inside) -> {
                String here = name.isEmpty() ? field : name + "_" + field;
                String pointer = way + FieldPointer.to(field);
                if (inside.isScalar) {
                    columns.putIfAbsent(here, pointer);
                }
                if (inside.elements == null) {
                    addScalars(inside, here, pointer, columns);
                }
            });
        }
    }
}
