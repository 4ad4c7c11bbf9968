package taxiomet.sources.json;

import com.fasterxml.jackson.core.JsonParseException;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.exc.StreamConstraintsException;
import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.charter.place.FieldPointer;
import taxiomet.charter.place.JsonItems;
import taxiomet.charter.place.JsonLines;
import taxiomet.rows.RowBatch;
import taxiomet.rows.SourceException;
import taxiomet.rows.Undeclared;
import taxiomet.sources.file.DataFile;
import taxiomet.sources.file.FileCursorSource;
import taxiomet.sources.json.ItemWay.Field;
import taxiomet.sources.json.ItemWay.Node;
import taxiomet.values.CellColumn;

/** Elements of lists in documents, or in lines, of JSON. One element of the outermost list, or one line, stands in memory at a time. */
public final class JsonItemsSource extends FileCursorSource {
    private static final int MOST_UNKNOWN = 1_000;

    private final JsonItems rows;
    private final List<String> columns;
    private final List<Field> fields;
    private final List<String> steps;
    /** Whether each value of a file is an element of its own, and not the way to one. */
    private final boolean areLines;

    private final Set<String> unknown = new TreeSet<>();
    private final Set<String> known = new TreeSet<>();

    private JsonItemsSource(JsonItems rows, List<String> columns) {
        super(rows.folder(), rows.path());
        this.rows = rows;
        this.columns = List.copyOf(columns);
        this.fields = columns.stream()
                .map(column -> Field.parse(rows.pointerOf(column)))
                .toList();
        this.steps = FieldPointer.steps(rows.items());
        this.areLines = JsonLines.isNamedSo(rows.path());
        fields.stream()
                .filter(field -> field.up() == 0 && !field.steps().isEmpty())
                .forEach(field -> known.add(field.steps().get(0)));
    }

    /**
     * Opens the files of a table.
     *
     * @param columns names of the columns wanted
     * @throws SourceException when a file is not there
     */
    public static JsonItemsSource open(JsonItems rows, List<String> columns) {
        return new JsonItemsSource(rows, columns);
    }

    @Override
    public List<String> columns() {
        return columns;
    }

    @Override
    public String partName(int part) {
        return super.partName(part) + (rows.items().isEmpty() ? "" : ", " + rows.items());
    }

    /** Fields of the rows that no column is read from. */
    @Override
    public Undeclared undeclared() {
        synchronized (unknown) {
            return new Undeclared("field", new TreeSet<>(unknown));
        }
    }

    @Override
    protected Cursor open(int part, int[] wanted, Object place) throws IOException {
        try {
            return new ItemCursor(part, wanted);
        } catch (IOException e) {
            throw unreadable(part, e);
        }
    }

    private SourceException unreadable(int part, IOException e) {
        DataFile file = file(part);
        file.requireUnchanged();
        if (e instanceof JsonParseException broken) {
            return new SourceException(
                    partName(part) + ", line " + broken.getLocation().getLineNr() + ", column "
                            + broken.getLocation().getColumnNr(),
                    "no JSON there (" + ObjectReader.said(broken) + ")",
                    "correct it: what stands behind cannot be told");
        } else if (e instanceof StreamConstraintsException) {
            return new SourceException(
                    partName(part), "it is nested too deeply, or has a text or a number that is too long", "");
        }
        return file.unreadable(e);
    }

    /** Goes over the rows of one file. */
    private final class ItemCursor implements Cursor {
        private final int part;
        private final Field[] wanted;
        private final String[] cells;
        private final JsonParser parser;
        /** How many steps lead to the list whose elements are read one by one. */
        private int taken;

        private boolean isInList;
        private boolean isAtEnd;
        private int index;
        private final Deque<Node> ready = new ArrayDeque<>();
        private Node row;
        private String fault;
        private long line;

        ItemCursor(int part, int[] wanted) throws IOException {
            this.part = part;
            this.wanted = new Field[wanted.length];
            this.cells = new String[wanted.length];
            for (int i = 0; i < wanted.length; i++) {
                this.wanted[i] = fields.get(wanted[i]);
            }
            parser = ObjectReader.JSON.createParser(file(part).open(0));
        }

        @Override
        public boolean next() throws IOException {
            try {
                while (ready.isEmpty() && !isAtEnd) {
                    readMore();
                }
            } catch (IOException e) {
                throw unreadable(part, e);
            }
            row = ready.poll();
            fault = row == null ? null : look();
            return row != null;
        }

        private void readMore() throws IOException {
            if (isInList) {
                if (parser.nextToken() == JsonToken.END_ARRAY) {
                    leaveList();
                } else {
                    take(index++, steps.subList(taken, steps.size()));
                }
            } else if (parser.nextToken() == null) {
                isAtEnd = true;
            } else if (areLines) {
                take(-1, steps);
            } else {
                taken = 0;
                descend();
            }
        }

        /** Goes from a value of the file down to the first list on the way. */
        private void descend() throws IOException {
            while (true) {
                JsonToken token = parser.currentToken();
                boolean isEnd = taken == steps.size();
                if (token == JsonToken.START_ARRAY && (isEnd || steps.get(taken).equals(ItemWay.EACH))) {
                    taken += isEnd ? 0 : 1;
                    isInList = true;
                    index = 0;
                    return;
                } else if (isEnd) {
                    take(-1, List.of());
                    passOver();
                    return;
                } else if (token != JsonToken.START_OBJECT || !goTo(steps.get(taken))) {
                    if (token == JsonToken.START_ARRAY) {
                        parser.skipChildren();
                    }
                    passOver();
                    return;
                }
                taken++;
            }
        }

        /** Goes to the value of a field of the object at hand; false where it has none, and has ended. */
        private boolean goTo(String field) throws IOException {
            while (parser.nextToken() != JsonToken.END_OBJECT) {
                boolean isIt = parser.currentName().equals(field);
                parser.nextToken();
                if (isIt) {
                    return true;
                }
                parser.skipChildren();
            }
            return false;
        }

        private void leaveList() throws IOException {
            isInList = false;
            passOver();
        }

        /** Reads to the end of the value of the file that all of this stands in. */
        private void passOver() throws IOException {
            while (!parser.getParsingContext().inRoot()) {
                parser.nextToken();
            }
        }

        private void take(int place, List<String> rest) throws IOException {
            line = parser.currentTokenLocation().getLineNr();
            Node element = new Node(JsonTree.read(parser, ObjectReader.LONGEST_LINE), place, null);
            // An element that is a list itself is a row, too, where no step leads on.
            List<Node> found = rest.isEmpty() && place >= 0 && taken == steps.size() && !endsInEach()
                    ? List.of(element)
                    : ItemWay.rows(element, rest);
            ready.addAll(found);
        }

        private boolean endsInEach() {
            return !steps.isEmpty() && steps.get(steps.size() - 1).equals(ItemWay.EACH);
        }

        @Override
        public Object place() {
            return null;
        }

        @Override
        public long line() {
            return line;
        }

        @Override
        public long emptyLines() {
            return 0;
        }

        @Override
        public String fault() {
            return fault;
        }

        /** Reads the cells of the row, and says what is wrong with it; null where nothing is. */
        private String look() {
            if (!(row.value() instanceof Map) && !known.isEmpty()) {
                return "an object is expected, not " + JsonTree.words(row.value());
            }
            for (int i = 0; i < wanted.length; i++) {
                if (row.up(wanted[i].up()) == null) {
                    return "a column is to be read " + wanted[i].up()
                            + " steps out of the row, beyond the outermost list: what is there is not kept";
                }
                cells[i] = wanted[i].of(row);
                if (cells[i] != null && ObjectReader.hasHalfPair(cells[i])) {
                    return "a text holds half of a surrogate pair, which is no character";
                }
            }
            return null;
        }

        @Override
        public String raw() {
            String text = String.valueOf(JsonTree.text(row.value()));
            return text.length() <= RowBatch.MalformedRow.MOST_RAW
                    ? text
                    : text.substring(0, RowBatch.MalformedRow.MOST_RAW);
        }

        @Override
        public long addTo(RowBatch batch) {
            long bytes = 0;
            for (int i = 0; i < wanted.length; i++) {
                CellColumn column = batch.column(i);
                if (cells[i] == null) {
                    column.addNull();
                } else {
                    column.add(cells[i]);
                    bytes += cells[i].length();
                }
            }
            if (row.value() instanceof Map<?, ?> object) {
                note(object);
            }
            return bytes;
        }

        private void note(Map<?, ?> object) {
            synchronized (unknown) {
                for (Object name : object.keySet()) {
                    if (unknown.size() < MOST_UNKNOWN && !known.contains(name)) {
                        unknown.add((String) name);
                    }
                }
            }
        }

        @Override
        public void close() {
            try {
                parser.close();
            } catch (IOException e) {
                throw unreadable(part, e);
            }
        }
    }
}
