package taxiomet.charters.csvw;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.ColumnType;
import taxiomet.charters.yaml.DraftNode;
import taxiomet.charters.yaml.Node;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;
import taxiomet.charters.yaml.PatternSize;
import taxiomet.values.ValueReader;

/** One column of the metadata on its way into a charter. */
final class ColumnMetadata {
    private static final String TEXT = "text";
    private static final int LONGEST_PATTERN = 1_000;

    private final MetadataReader reader;
    private final MapNode node;
    private final List<MapNode> levels;
    private final String name;
    private final String header;
    private final Optional<MapNode> derived;
    private final String base;
    private final Optional<Words.Type> type;

    /** @param levels the column itself and what it inherits from, the nearest first */
    ColumnMetadata(MetadataReader reader, MapNode node, List<MapNode> levels) {
        this.reader = reader;
        this.node = node;
        this.levels = List.copyOf(levels);
        Optional<String> title =
                Json.texts(node, "titles").stream().map(Scalar::text).findFirst();
        name = Json.text(node, "name").or(() -> title).orElse("");
        header = title.orElse(name);
        if (name.isEmpty()) {
            reader.refuse(node, "a column has neither `name` nor `titles`", "name it as the file's first line does");
        }
        Optional<Node> datatype = inherited("datatype");
        derived = datatype.filter(MapNode.class::isInstance).map(MapNode.class::cast);
        base = derived.map(map -> Json.text(map, "base").orElse("string"))
                .or(() -> datatype.filter(Scalar.class::isInstance).map(at -> ((Scalar) at).text()))
                .orElse("string");
        type = typeOf(datatype.orElse(node));
    }

    private Optional<Words.Type> typeOf(Node at) {
        Optional<Words.Type> known = Words.type(base);
        if (inherited("separator").isPresent()) {
            reader.say(at, "`" + header + "` holds lists, which are judged as texts");
            return Optional.empty();
        } else if (known.isPresent()) {
            return known.filter(found -> isReadable(found, at));
        } else if (Words.FORMS.contains(base)) {
            reader.say(at, "whether `" + header + "` is " + base + " is not judged: it is a text here");
        } else if (!Words.TEXTS.contains(base)) {
            reader.refuse(at, "there is no datatype `" + base + "` in CSVW", "string is one, and decimal, and date");
        }
        return Optional.empty();
    }

    /** Whether values are written in a way that is read here; where they are not, they are texts, and that is said. */
    private boolean isReadable(Words.Type found, Node at) {
        Optional<Node> format = derived.flatMap(map -> Json.find(map, "format"));
        if (format.isEmpty()) {
            return true;
        }
        boolean isMoment = found.sql().startsWith("date") || found.sql().startsWith("time");
        if (isMoment && format.get() instanceof Scalar letters) {
            Optional<String> problem =
                    ValueReader.problemWithFormat(ColumnType.parse(found.sql()).orElseThrow(), letters.text());
            problem.ifPresent(why ->
                    reader.say(letters, "the format of `" + header + "` " + why + ": its values are judged as texts"));
            return problem.isEmpty();
        } else if (found.sql().equals("boolean")) {
            reader.say(
                    at, "`" + header + "` has words of its own for true and false: it is a text of these words here");
            return false;
        }
        MapNode number = format.get() instanceof MapNode map ? map : new MapNode(at.line(), at.column(), List.of());
        if (Json.text(number, "groupChar").isPresent()
                || Json.text(number, "pattern").isPresent()
                || format.get() instanceof Scalar) {
            reader.say(at, "numbers of `" + header + "` are written in a pattern: they are judged as texts");
            return false;
        }
        return true;
    }

    private Optional<Node> inherited(String word) {
        return levels.stream().flatMap(level -> Json.find(level, word).stream()).findFirst();
    }

    MapNode node() {
        return node;
    }

    /** By which the metadata calls it. */
    String name() {
        return name;
    }

    /** What the first line of the file calls it. */
    String header() {
        return header;
    }

    /** Texts that mean null; where nothing is said the empty one. */
    List<String> nullWords() {
        return levels.stream()
                .filter(level -> Json.find(level, "null").isPresent())
                .findFirst()
                .map(level ->
                        Json.texts(level, "null").stream().map(Scalar::text).toList())
                .orElse(List.of(""));
    }

    /** The column as a charter declares it. */
    DraftNode draft() {
        DraftNode column = DraftNode.map(node.line(), node.column());
        column.put(node.line(), node.column(), "type", type.map(Words.Type::sql).orElse(TEXT));
        if (inherited("required")
                .filter(at -> at instanceof Scalar truth && truth.text().equals("true"))
                .isPresent()) {
            column.put(node.line(), node.column(), "not_null", "true");
        }
        inherited("default")
                .filter(at -> !(at instanceof Scalar text && text.text().isEmpty()))
                .ifPresent(
                        at -> reader.say(at, "empty fields of `" + header + "` are null here, whatever its `default`"));
        derived.ifPresent(map -> putDerived(column, map));
        return column;
    }

    private void putDerived(DraftNode column, MapNode map) {
        Optional<Node> format = Json.find(map, "format");
        if (type.isEmpty()) {
            length(map).ifPresent(range -> column.put(map.line(), map.column(), "length", range));
            format.filter(Scalar.class::isInstance)
                    .map(Scalar.class::cast)
                    .ifPresent(text -> putTextFormat(column, text));
        } else if (format.isPresent() && format.get() instanceof MapNode number) {
            Json.text(number, "decimalChar")
                    .filter(","::equals)
                    .ifPresent(comma -> column.put(map.line(), map.column(), "decimal", comma));
        } else if (format.isPresent() && format.get() instanceof Scalar letters) {
            column.put(letters.line(), letters.column(), "format", letters.text());
        }
    }

    private void putTextFormat(DraftNode column, Scalar format) {
        if (base.equals("boolean")) {
            DraftNode words = DraftNode.list(format.line(), format.column());
            for (String word : format.text().split("\\|", -1)) {
                words.add(format.line(), format.column(), word);
            }
            column.put(format.line(), format.column(), "values", words);
        } else if (Words.type(base).isEmpty()) {
            try {
                boolean isBounded =
                        format.text().length() <= LONGEST_PATTERN && PatternSize.of(format.text()) <= PatternSize.MOST;
                if (isBounded && Pattern.compile(format.text()) != null) {
                    column.put(format.line(), format.column(), "pattern", format.text());
                    return;
                }
            } catch (PatternSyntaxException e) {
                // Said below.
            }
            reader.say(format, "the regular expression of `" + header + "` cannot be read here, and is not judged");
        }
    }

    private static Optional<String> length(MapNode map) {
        Optional<String> exactly = Json.text(map, "length");
        if (exactly.isPresent()) {
            return exactly;
        }
        String least = Json.text(map, "minLength").orElse("");
        String most = Json.text(map, "maxLength").orElse("");
        return least.isEmpty() && most.isEmpty() ? Optional.empty() : Optional.of(least + ".." + most);
    }

    /** The condition that the type and the metadata set for values; empty where they set none. */
    Optional<String> bounds() {
        if (type.isEmpty()) {
            return Optional.empty();
        }
        List<String> conditions = new ArrayList<>();
        type.get().least().ifPresent(bound -> add(conditions, ">=", bound));
        type.get().most().ifPresent(bound -> add(conditions, "<=", bound));
        derived.ifPresent(map -> {
            Json.text(map, "minimum").ifPresent(bound -> add(conditions, ">=", bound));
            Json.text(map, "minInclusive").ifPresent(bound -> add(conditions, ">=", bound));
            Json.text(map, "minExclusive").ifPresent(bound -> add(conditions, ">", bound));
            Json.text(map, "maximum").ifPresent(bound -> add(conditions, "<=", bound));
            Json.text(map, "maxInclusive").ifPresent(bound -> add(conditions, "<=", bound));
            Json.text(map, "maxExclusive").ifPresent(bound -> add(conditions, "<", bound));
        });
        return conditions.isEmpty() ? Optional.empty() : Optional.of(String.join(" AND ", conditions));
    }

    private void add(List<String> conditions, String comparison, String bound) {
        String quoted = "'" + bound.replace("'", "''") + "'";
        String literal = switch (type.orElseThrow().sql()) {
            case "date" -> "DATE " + quoted;
            case "time" -> "TIME " + quoted;
            case "timestamp" -> "TIMESTAMP '" + bound.replace('T', ' ').replace("'", "''") + "'";
            default -> bound.matches("[+-]?[0-9.]+([eE][+-]?[0-9]+)?") ? bound : quoted;
        };
        conditions.add('"' + header.replace("\"", "\"\"") + "\" " + comparison + " " + literal);
    }
}
