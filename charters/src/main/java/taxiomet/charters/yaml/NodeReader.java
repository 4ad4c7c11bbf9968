package taxiomet.charters.yaml;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonLocation;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import com.fasterxml.jackson.dataformat.yaml.YAMLParser;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.yaml.snakeyaml.error.Mark;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Makes a tree of a YAML or JSON document. All scalars keep their text: {@code NO}, {@code 010} and {@code 12:30} are texts. */
public final class NodeReader {
    private static final int MAX_DEPTH = 40;
    /** Anchors can repeat a part of a document; a document that grows beyond this through them is refused. */
    private static final int MAX_NODES = 200_000;

    private final Problems problems;
    private final JsonParser parser;
    private final String what;
    private final Map<String, Node> anchors = new HashMap<>();
    private final IdentityHashMap<Node, Integer> sizes = new IdentityHashMap<>();
    private int nodes;

    /** The document ends the reading: what is wrong has been noted. */
    private static final class Unreadable extends Exception {
        private static final long serialVersionUID = 1;
    }

    private NodeReader(Problems problems, JsonParser parser, String what) {
        this.what = what;
        this.problems = problems;
        this.parser = parser;
    }

    /**
     * The tree; null, with problems noted, when there is none.
     *
     * @param what the document is called in messages, and the key that it begins with: charter or proposal
     */
    public static Node read(byte[] bytes, boolean isJson, Problems problems, String what) {
        String text;
        try {
            text = StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
        } catch (CharacterCodingException e) {
            problems.form(
                    new Scalar(1, 1, Scalar.Kind.NULL, ""),
                    "the " + what + " is not text in UTF-8",
                    "save it as UTF-8");
            return null;
        }
        if (text.startsWith("\uFEFF")) {
            text = text.substring(1);
        }
        JsonFactory factory = isJson ? new JsonFactory() : new YAMLFactory();
        try (JsonParser parser = factory.createParser(text)) {
            NodeReader reader = new NodeReader(problems, parser, what);
            return reader.readDocument();
        } catch (JsonProcessingException e) {
            if (e.getCause() instanceof MarkedYAMLException marked && marked.getProblemMark() != null) {
                Mark mark = marked.getProblemMark();
                problems.form(
                        new Scalar(mark.getLine() + 1, mark.getColumn() + 1, Scalar.Kind.NULL, ""),
                        "this is not YAML (" + firstLine(marked.getProblem()) + ")",
                        "check indentation, quotes and colons");
                return null;
            }
            JsonLocation at = e.getLocation();
            String reason = firstLine(e.getOriginalMessage());
            problems.form(
                    new Scalar(
                            at == null ? 1 : at.getLineNr(), at == null ? 1 : at.getColumnNr(), Scalar.Kind.NULL, ""),
                    "this is not " + (isJson ? "JSON" : "YAML") + " (" + reason + ")",
                    isJson ? "check commas, quotes and brackets" : "check indentation, quotes and colons");
            return null;
        } catch (Unreadable e) {
            return null;
        } catch (IOException e) {
            throw new IllegalStateException("a text in memory cannot be read", e);
        }
    }

    private static String firstLine(String message) {
        String line = message == null ? "" : message.lines().findFirst().orElse("");
        // Words that a parser met may be anybody's values.
        String told = line.replaceAll("\\(Non-standard.*", "").replaceAll("'[^']{3,}'", "a word");
        return Problems.shortened(told.strip());
    }

    private Node readDocument() throws IOException, Unreadable {
        if (parser.nextToken() == null) {
            problems.form(
                    new Scalar(1, 1, Scalar.Kind.NULL, ""),
                    "the " + what + " is empty",
                    "begin it with `" + what + ": 1`");
            return null;
        }
        Node root = readNode(1);
        if (parser.nextToken() != null) {
            problems.form(here(Scalar.Kind.NULL), "a second document begins here", "keep one " + what + " in a file");
        }
        return root;
    }

    private Scalar here(Scalar.Kind kind) throws IOException {
        JsonLocation at = parser.currentTokenLocation();
        String text = parser.currentToken() == null || parser.currentToken().isStructStart() ? "" : parser.getText();
        return new Scalar(at.getLineNr(), at.getColumnNr(), kind, text == null ? "" : text);
    }

    private Node readNode(int depth) throws IOException, Unreadable {
        Scalar place = here(Scalar.Kind.TEXT);
        if (depth > MAX_DEPTH) {
            problems.form(place, "nested deeper than any " + what + " (" + MAX_DEPTH + " levels)", "");
            throw new Unreadable();
        }
        if (parser instanceof YAMLParser yaml && yaml.isCurrentAlias()) {
            return aliased(place);
        }
        Object anchor = parser.getObjectId();
        int before = nodes;
        count(1, place);
        JsonToken token = parser.currentToken();
        Node node = switch (token) {
            case START_OBJECT -> readMap(place, depth);
            case START_ARRAY -> readList(place, depth);
            case VALUE_NULL -> here(Scalar.Kind.NULL);
            case VALUE_TRUE, VALUE_FALSE -> here(Scalar.Kind.TRUTH);
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> here(Scalar.Kind.NUMBER);
            default -> here(Scalar.Kind.TEXT);
        };
        if (anchor != null) {
            anchors.put(anchor.toString(), node);
            sizes.put(node, nodes - before);
        }
        return node;
    }

    private Node aliased(Scalar place) throws IOException, Unreadable {
        Node node = anchors.get(place.text());
        if (node == null) {
            problems.unknown(place, Kind.FORM, "there is no anchor", place.text(), anchors.keySet());
            throw new Unreadable();
        }
        count(sizes.get(node), place);
        return node;
    }

    private void count(int more, Scalar place) throws Unreadable {
        nodes += more;
        if (nodes > MAX_NODES) {
            problems.form(place, "anchors make this document larger than any " + what, "write out what they repeat");
            throw new Unreadable();
        }
    }

    private MapNode readMap(Scalar place, int depth) throws IOException, Unreadable {
        List<Entry> entries = new ArrayList<>();
        Map<String, Scalar> keys = new HashMap<>();
        while (parser.nextToken() != JsonToken.END_OBJECT) {
            Scalar key = here(Scalar.Kind.TEXT);
            parser.nextToken();
            Node value = readNode(depth + 1);
            Scalar first = keys.putIfAbsent(key.text(), key);
            if (first == null) {
                entries.add(new Entry(key, value));
            } else {
                problems.form(
                        key,
                        "the key `" + key.text() + "` stands here twice, first in line " + first.line(),
                        "keep one of them");
            }
        }
        return new MapNode(place.line(), place.column(), entries);
    }

    private ListNode readList(Scalar place, int depth) throws IOException, Unreadable {
        List<Node> elements = new ArrayList<>();
        while (parser.nextToken() != JsonToken.END_ARRAY) {
            elements.add(readNode(depth + 1));
        }
        return new ListNode(place.line(), place.column(), elements);
    }
}
