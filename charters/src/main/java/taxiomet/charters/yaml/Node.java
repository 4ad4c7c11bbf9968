package taxiomet.charters.yaml;

import java.util.List;

/** A piece of a document with the place where it stands (line and column from 1). */
public sealed interface Node {
    int line();

    int column();

    /** What this is, as a message names it. */
    String words();

    /** Keys and values in their order; every key once. */
    record MapNode(int line, int column, List<Entry> entries) implements Node {
        public MapNode {
            entries = List.copyOf(entries);
        }

        @Override
        public String words() {
            return "a mapping";
        }
    }

    /** One key of a mapping and its value. */
    record Entry(Scalar key, Node value) {}

    record ListNode(int line, int column, List<Node> elements) implements Node {
        public ListNode {
            elements = List.copyOf(elements);
        }

        @Override
        public String words() {
            return "a list";
        }
    }

    /** @param text as written; for a null what stands for it, which may be nothing */
    record Scalar(int line, int column, Kind kind, String text) implements Node {
        public enum Kind {
            TEXT,
            NUMBER,
            TRUTH,
            NULL
        }

        public boolean isNull() {
            return kind == Kind.NULL;
        }

        @Override
        public String words() {
            return isNull() && text.isEmpty() ? "nothing" : "`" + Problems.shortened(text) + "`";
        }
    }
}
