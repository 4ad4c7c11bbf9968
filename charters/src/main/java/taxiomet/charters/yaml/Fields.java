package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.ListNode;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** The keys of one mapping, read by name; whatever does not fit is noted as a problem, and read as if it were not there. */
final class Fields {
    private final Problems problems;
    private final MapNode map;
    private final String what;
    /** Keys that were probably meant by others, which are noted. */
    private final Set<String> misspelt = new HashSet<>();

    /**
     * @param what the mapping as a message names it, such as {@code a column}
     * @param known keys that can stand in it
     * @param notYet keys that are sound, but do nothing yet
     */
    Fields(Problems problems, MapNode map, String what, List<String> known, List<String> notYet) {
        this.problems = problems;
        this.map = map;
        this.what = what;
        for (Entry entry : map.entries()) {
            String key = entry.key().text();
            if (notYet.contains(key)) {
                problems.notYet(entry.key(), "`" + key + "` in " + what + " does not work yet");
            } else if (!known.contains(key)) {
                problems.unknown(entry.key(), Kind.FORM, what + " has no key", key, known);
                NearestWord.of(key, known).ifPresent(misspelt::add);
            }
        }
    }

    MapNode map() {
        return map;
    }

    boolean has(String key) {
        return find(key).isPresent();
    }

    Optional<Node> find(String key) {
        return map.entries().stream()
                .filter(entry -> entry.key().text().equals(key))
                .map(Entry::value)
                .findFirst();
    }

    /** The value of a key that has to be there; that it is missing goes without saying where it is but misspelt. */
    Optional<Node> require(String key) {
        Optional<Node> value = find(key);
        if (value.isEmpty() && !misspelt.contains(key)) {
            problems.form(map, what + " needs the key `" + key + "`", "add it");
        }
        return value;
    }

    private void wrongKind(String key, Node value, String wanted) {
        problems.form(value, "`" + key + "` is " + wanted + ", not " + value.words(), "");
    }

    /** Any scalar as its text. */
    Optional<Scalar> scalar(String key, String wanted) {
        Optional<Node> value = find(key);
        if (value.isPresent() && (!(value.get() instanceof Scalar s) || s.isNull())) {
            wrongKind(key, value.get(), wanted);
            return Optional.empty();
        }
        return value.map(Scalar.class::cast);
    }

    Optional<String> text(String key) {
        return scalar(key, "a text").map(Scalar::text);
    }

    /** One of some words; the first of them when the key is not there. */
    String word(String key, String... words) {
        return scalar(key, "one of " + String.join(", ", words))
                .map(value -> {
                    String word = value.text();
                    if (Arrays.asList(words).contains(word)) {
                        return word;
                    }
                    problems.unknown(value, Kind.FORM, "`" + key + "` cannot be", word, List.of(words));
                    return words[0];
                })
                .orElse(words[0]);
    }

    /** true or yes, false or no. */
    boolean truth(String key, boolean otherwise) {
        return scalar(key, "yes or no")
                .map(value -> truth(value).orElseGet(() -> {
                    problems.form(value, "`" + key + "` is yes or no, not " + value.words(), "");
                    return otherwise;
                }))
                .orElse(otherwise);
    }

    static Optional<Boolean> truth(Scalar value) {
        return switch (value.kind()) {
            // What a reader of YAML takes for a truth value may be written yes, no, on or off too.
            case TRUTH ->
                switch (value.text().toLowerCase(Locale.ROOT)) {
                    case "true", "yes" -> Optional.of(true);
                    case "false", "no" -> Optional.of(false);
                    default -> Optional.empty();
                };
            case TEXT ->
                switch (value.text()) {
                    case "yes", "true" -> Optional.of(true);
                    case "no", "false" -> Optional.of(false);
                    default -> Optional.empty();
                };
            default -> Optional.empty();
        };
    }

    /** One character. */
    Optional<Character> character(String key) {
        return scalar(key, "one character").flatMap(value -> {
            String text = value.text().equals("tab") ? "\t" : value.text();
            if (text.length() == 1 && !Character.isSurrogate(text.charAt(0)) && "\r\n\0".indexOf(text.charAt(0)) < 0) {
                return Optional.of(text.charAt(0));
            }
            wrongKind(key, value, "one character (or the word tab)");
            return Optional.empty();
        });
    }

    /** One text or a list of at least one. */
    List<Scalar> texts(String key) {
        return find(key).map(node -> texts(problems, key, node, false)).orElse(List.of());
    }

    /** A list of scalars, which may be empty; where nulls are sound, their text stands for them. */
    List<Scalar> list(String key, boolean nullsToo) {
        Optional<Node> node = find(key);
        if (node.isPresent() && !(node.get() instanceof ListNode)) {
            wrongKind(key, node.get(), "a list");
            return List.of();
        }
        return node.map(n -> elements(problems, key, (ListNode) n, nullsToo)).orElse(List.of());
    }

    /** One text, or a list of at least one text, each standing once. */
    static List<Scalar> texts(Problems problems, String key, Node node, boolean nullsToo) {
        if (node instanceof Scalar s && !s.isNull()) {
            return List.of(s);
        }
        if (!(node instanceof ListNode list) || list.elements().isEmpty()) {
            problems.form(
                    node,
                    "`" + key + "` is a name or a list of names, not "
                            + (node instanceof ListNode ? "an empty list" : node.words()),
                    "");
            return List.of();
        }
        return elements(problems, key, list, nullsToo);
    }

    private static List<Scalar> elements(Problems problems, String key, ListNode list, boolean nullsToo) {
        List<Scalar> texts = new ArrayList<>();
        for (Node element : list.elements()) {
            if (element instanceof Scalar s && (nullsToo || !s.isNull())) {
                texts.add(s);
            } else {
                problems.form(element, "`" + key + "` lists names or values, not " + element.words(), "");
            }
        }
        return texts;
    }

    /** The entries of a mapping from names to something. */
    List<Entry> named(String key) {
        Optional<Node> node = find(key);
        if (node.isPresent() && !(node.get() instanceof MapNode)) {
            wrongKind(key, node.get(), "a mapping from names");
            return List.of();
        }
        return node.map(map -> ((MapNode) map).entries()).orElse(List.of());
    }

    /** The texts of scalars. */
    static List<String> textsOf(Collection<Scalar> scalars) {
        return scalars.stream().map(Scalar::text).toList();
    }
}
