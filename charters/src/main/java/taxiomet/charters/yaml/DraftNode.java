package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** A piece of a charter's document in the making, for readers of other files that declare the same. */
public final class DraftNode {
    private final int line;
    private final int column;
    private final List<Entry> entries;
    private final List<Node> elements;

    private DraftNode(int line, int column, List<Entry> entries, List<Node> elements) {
        this.line = line;
        this.column = column;
        this.entries = entries;
        this.elements = elements;
    }

    /** A mapping that was declared at a place (line and column from 1). */
    public static DraftNode map(int line, int column) {
        return new DraftNode(line, column, new ArrayList<>(), null);
    }

    public static DraftNode list(int line, int column) {
        return new DraftNode(line, column, null, new ArrayList<>());
    }

    private static Scalar scalar(int line, int column, String text) {
        return new Scalar(line, column, Scalar.Kind.TEXT, text);
    }

    /** Adds an entry to a mapping. */
    public void put(int atLine, int atColumn, String key, String value) {
        entries.add(new Entry(scalar(atLine, atColumn, key), scalar(atLine, atColumn, value)));
    }

    public void put(int atLine, int atColumn, String key, DraftNode value) {
        entries.add(new Entry(scalar(atLine, atColumn, key), value.node()));
    }

    /** Adds an element to a list. */
    public void add(int atLine, int atColumn, String text) {
        elements.add(scalar(atLine, atColumn, text));
    }

    Node node() {
        return entries == null ? new ListNode(line, column, elements) : new MapNode(line, column, entries);
    }
}
