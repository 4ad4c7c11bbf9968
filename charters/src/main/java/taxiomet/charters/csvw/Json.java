package taxiomet.charters.csvw;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charters.yaml.Node;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Ways to ask a JSON document for what may stand in it in several forms. */
final class Json {
    private Json() {}

    /** The value of a key; empty where there is none, or it is null. */
    static Optional<Node> find(MapNode map, String key) {
        return map.entries().stream()
                .filter(entry -> entry.key().text().equals(key))
                .map(Entry::value)
                .filter(node -> !(node instanceof Scalar scalar && scalar.isNull()))
                .findFirst();
    }

    static Optional<String> text(MapNode map, String key) {
        return find(map, key).filter(Scalar.class::isInstance).map(node -> ((Scalar) node).text());
    }

    static Optional<MapNode> map(MapNode map, String key) {
        return find(map, key).filter(MapNode.class::isInstance).map(MapNode.class::cast);
    }

    /** The mappings of a list. */
    static List<MapNode> maps(MapNode map, String key) {
        List<MapNode> maps = new ArrayList<>();
        find(map, key)
                .filter(ListNode.class::isInstance)
                .ifPresent(node -> ((ListNode) node)
                        .elements().stream()
                                .filter(MapNode.class::isInstance)
                                .forEach(each -> maps.add((MapNode) each)));
        return maps;
    }

    /** One text, or those of a list; of a mapping of languages those of the first. */
    static List<Scalar> texts(MapNode map, String key) {
        return find(map, key).map(Json::texts).orElse(List.of());
    }

    private static List<Scalar> texts(Node node) {
        if (node instanceof Scalar scalar) {
            return List.of(scalar);
        } else if (node instanceof MapNode languages) {
            return languages.entries().isEmpty()
                    ? List.of()
                    : texts(languages.entries().get(0).value());
        }
        return ((ListNode) node)
                .elements().stream()
                        .filter(Scalar.class::isInstance)
                        .map(Scalar.class::cast)
                        .toList();
    }
}
