package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.Alike;
import taxiomet.charter.Severity;
import taxiomet.charters.yaml.Node.Entry;
import taxiomet.charters.yaml.Node.MapNode;
import taxiomet.charters.yaml.Node.Scalar;

/** Reads when rows of a table are probably one thing entered twice: columns of which all must agree, or more about them. */
final class AlikeReader {
    private static final List<String> KEYS = List.of("columns", "agree", "never_differ", "severity");

    private final Problems problems;
    private final String table;
    private final List<String> names;

    /** @param names of the table's columns */
    AlikeReader(Problems problems, String table, List<String> names) {
        this.problems = problems;
        this.table = table;
        this.names = names;
    }

    List<Alike> read(Fields fields) {
        List<Alike> rules = new ArrayList<>();
        for (Entry entry : fields.named("alike")) {
            read(entry).ifPresent(rules::add);
        }
        return rules;
    }

    private Optional<Alike> read(Entry entry) {
        String name = entry.key().text();
        if (!(entry.value() instanceof MapNode map)) {
            List<String> columns = known(Fields.texts(problems, name, entry.value(), false));
            return fits(entry.key(), columns) ? Optional.of(Alike.of(name, columns, columns.size())) : Optional.empty();
        }
        Fields rule = new Fields(problems, map, "`" + name + "` of `alike`", KEYS, List.of());
        rule.require("columns");
        List<String> columns = known(rule.texts("columns"));
        List<String> neverDiffer = known(rule.texts("never_differ"));
        for (Scalar column : rule.texts("never_differ")) {
            if (names.contains(column.text()) && !columns.contains(column.text())) {
                problems.meaning(
                        column,
                        "`never_differ` names `" + column.text() + "`, which is not among the columns compared",
                        "add it to `columns`");
            }
        }
        int agree = rule.scalar("agree", "a number of columns")
                .filter(number -> !columns.isEmpty())
                .map(number -> agree(number, columns.size()))
                .orElse(columns.size());
        Severity severity =
                Severity.valueOf(rule.word("severity", "warning", "note").toUpperCase(Locale.ROOT));
        return fits(entry.key(), columns)
                ? Optional.of(new Alike(name, columns, Math.max(1, agree), neverDiffer, severity))
                : Optional.empty();
    }

    private int agree(Scalar number, int columns) {
        int agree = number.text().matches("[0-9]{1,3}") ? Integer.parseInt(number.text()) : 0;
        if (agree < 1 || agree > columns) {
            problems.meaning(
                    number,
                    "`agree` is a number from 1 to " + columns + ", that of the columns, not `" + number.text() + "`",
                    "say how many of them must agree");
            return columns;
        }
        return agree;
    }

    private boolean fits(Scalar name, List<String> columns) {
        if (columns.size() > Alike.MOST_COLUMNS) {
            problems.meaning(
                    name,
                    "`alike` compares at most " + Alike.MOST_COLUMNS + " columns, and here are " + columns.size(),
                    "leave out those that tell least");
        }
        return !columns.isEmpty() && columns.size() <= Alike.MOST_COLUMNS;
    }

    private List<String> known(List<Scalar> columns) {
        return TableReader.knownColumns(problems, table, columns, names);
    }
}
