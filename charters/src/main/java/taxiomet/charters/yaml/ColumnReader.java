package taxiomet.charters.yaml;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.Column.Generated;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.Comparison;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.IntRange;
import taxiomet.charter.Problem.Kind;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;
import taxiomet.values.ValueReader;

/** Reads one column, in its short form (a type) or its long one. */
final class ColumnReader {
    private static final List<String> KEYS = List.of(
            "type",
            "not_null",
            "length",
            "values",
            "pattern",
            "compare",
            "format",
            "decimal",
            "default",
            "generated",
            "gaps",
            "personal",
            "severity");
    private static final int LONGEST_PATTERN = 1_000;
    private static final ColumnType UNKNOWN_TYPE = ColumnType.of(ColumnType.Name.TEXT);

    private final Problems problems;
    private final Scalar name;

    ColumnReader(Problems problems, Scalar name) {
        this.problems = problems;
        this.name = name;
    }

    /** The column; with the type text where its type cannot be read. */
    Column read(Node node) {
        if (node instanceof Scalar type && !type.isNull()) {
            return Column.of(name.text(), type(type).orElse(UNKNOWN_TYPE)).spelled(isWordInteger(type));
        }
        if (!(node instanceof MapNode map)) {
            problems.form(node, "column `" + name.text() + "` is a type or a mapping, not " + node.words(), "");
            return Column.of(name.text(), UNKNOWN_TYPE);
        }
        Fields fields = new Fields(problems, map, "column `" + name.text() + "`", KEYS, List.of());
        fields.require("type");
        Optional<ColumnType> known = fields.scalar("type", "a SQL type").flatMap(this::type);
        ColumnType type = known.orElse(UNKNOWN_TYPE);
        Column column = new Column(
                name.text(),
                type,
                fields.truth("not_null", false),
                fields.scalar("length", "a range").flatMap(range -> range(problems, "length", range)),
                Fields.textsOf(fields.list("values", false)),
                fields.scalar("pattern", "a regular expression").flatMap(this::pattern),
                comparison(fields),
                fields.scalar("format", "a format")
                        .flatMap(format -> known.isEmpty() ? Optional.empty() : format(format, type)),
                fields.word("decimal", ".", ",").equals(","),
                fields.find("default").flatMap(d -> defaultValue(d, type)),
                generated(fields),
                fields.scalar("type", "a SQL type")
                        .filter(ColumnReader::isWordInteger)
                        .isPresent(),
                notesGaps(fields, type),
                fields.truth("personal", false),
                TableReader.severity(fields));
        if (known.isPresent()) {
            requireFitting(fields, column);
        }
        return column;
    }

    private Optional<DefaultValue> defaultValue(Node node, ColumnType type) {
        if (node instanceof Scalar s) {
            return s.isNull()
                    ? Optional.empty()
                    : Optional.of(
                            DefaultValue.clock(s.text(), type).orElseGet(() -> new DefaultValue.Constant(s.text())));
        }
        if (node instanceof MapNode map) {
            Fields fields = new Fields(problems, map, "`default`", List.of("sql"), List.of());
            fields.require("sql");
            return fields.text("sql").map(DefaultValue.ByServer::new);
        }
        problems.form(node, "`default` is a value, not " + node.words(), "");
        return Optional.empty();
    }

    private static boolean isWordInteger(Scalar type) {
        return type.text().strip().equalsIgnoreCase("integer");
    }

    private boolean notesGaps(Fields fields, ColumnType type) {
        boolean isAsked = fields.word("gaps", "no", "note").equals("note");
        if (isAsked && (!type.isInteger() || !fields.has("generated"))) {
            problems.meaning(
                    fields.find("gaps").orElseThrow(),
                    "`gaps` is for whole numbers that the database gives, and `" + name.text() + "` is "
                            + (type.isInteger() ? "not `generated`" : type.toString()),
                    "leave it out, or say `generated`");
            return false;
        }
        return isAsked;
    }

    private Optional<ColumnType> type(Scalar text) {
        Optional<ColumnType> type = ColumnType.parse(text.text());
        if (type.isEmpty()) {
            String bare = text.text().replaceAll("\\(.*", "").strip();
            boolean isKnown = ColumnType.spellings().contains(bare.toLowerCase(Locale.ROOT));
            if (isKnown && text.text().matches("[^()]*\\([^()]*")) {
                problems.form(
                        text,
                        "the parenthesis of the type `" + text.text() + "` is never closed",
                        "put the type in quotes: between braces a comma ends it");
            } else if (isKnown) {
                problems.form(
                        text,
                        "`" + text.text() + "` has sizes that the type cannot have",
                        "see the types in docs/charter.md");
            } else {
                problems.unknown(text, Kind.FORM, "there is no type", bare, ColumnType.spellings());
            }
        }
        return type;
    }

    static Optional<IntRange> range(Problems problems, String key, Scalar text) {
        Optional<IntRange> range = IntRange.parse(text.text());
        if (range.isEmpty() && text.text().replace(" ", "").matches("[0-9]{1,18}\\.\\.[0-9]{1,18}")) {
            problems.meaning(text, "`" + key + "` " + text.words() + " ends before it begins", "swap the two numbers");
        } else if (range.isEmpty()) {
            problems.form(text, "`" + key + "` is a range such as 1..40, 1.. or 0..1, not " + text.words(), "");
        }
        return range;
    }

    private Optional<String> pattern(Scalar text) {
        if (text.text().length() > LONGEST_PATTERN) {
            problems.meaning(text, "the pattern is longer than " + LONGEST_PATTERN + " characters", "");
            return Optional.empty();
        }
        if (PatternSize.of(text.text()) > PatternSize.MOST) {
            problems.meaning(
                    text,
                    "the pattern repeats what is repeated, and is too large when written out (" + PatternSize.MOST
                            + " elements at most)",
                    "use * or +, or fewer repetitions inside one another");
            return Optional.empty();
        }
        try {
            Pattern.compile(text.text());
            return Optional.of(text.text());
        } catch (StackOverflowError e) {
            problems.meaning(text, "the pattern is nested too deep", "");
            return Optional.empty();
        } catch (PatternSyntaxException e) {
            problems.meaning(
                    text,
                    "the pattern cannot be read: " + e.getDescription() + " at `" + e.getPattern() + "`",
                    "patterns are written as in RE2: without look-around and back references");
            return Optional.empty();
        }
    }

    private static Comparison comparison(Fields fields) {
        String word = fields.word("compare", "exact", "ignore case", "trimmed");
        for (Comparison comparison : Comparison.values()) {
            if (comparison.word().equals(word)) {
                return comparison;
            }
        }
        throw new IllegalStateException("no comparison " + word);
    }

    private Optional<String> format(Scalar text, ColumnType type) {
        boolean isMoment =
                type.family() == Family.MOMENT || type.family() == Family.INSTANT || type.family() == Family.TIME;
        if (!isMoment) {
            problems.meaning(text, "`format` is for dates and times, and the column is " + type, "leave it out");
            return Optional.empty();
        }
        Optional<String> problem = ValueReader.problemWithFormat(type, text.text());
        problem.ifPresent(p -> problems.meaning(
                text, "the format `" + text.text() + "` " + p, "such as dd.MM.yyyy or yyyy-MM-dd HH:mm:ss"));
        return problem.isPresent() ? Optional.empty() : Optional.of(text.text());
    }

    private static Generated generated(Fields fields) {
        if (!fields.has("generated")) {
            return Generated.NEVER;
        }
        return fields.word("generated", "by default", "always").equals("always")
                ? Generated.ALWAYS
                : Generated.BY_DEFAULT;
    }

    /** What only some types can have. */
    private void requireFitting(Fields fields, Column column) {
        ColumnType type = column.type();
        if (!type.isText()) {
            for (String key : List.of("length", "compare")) {
                fields.find(key)
                        .ifPresent(node -> problems.meaning(
                                node,
                                "`" + key + "` is for texts, and the column is " + type,
                                "leave it out, or use a rule"));
            }
        }
        boolean hasPoint = type.family().isNumber() && !type.isInteger();
        if (!hasPoint) {
            fields.find("decimal")
                    .ifPresent(node -> problems.meaning(
                            node,
                            "`decimal` is for numbers with a fraction, and the column is " + type,
                            "leave it out"));
        }
        ValueReader reader = ValueReader.of(column);
        for (Scalar value : fields.list("values", false)) {
            if (!reader.accepts(value.text())) {
                problems.meaning(
                        value,
                        "the value " + value.words() + " is no " + type + ": "
                                + reader.refusal().words(),
                        "write values as they stand in the column");
            }
        }
    }
}
