package taxiomet.cli.settle;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.cli.option.TableNames;
import taxiomet.cli.terminal.UsageException;
import taxiomet.settle.sift.Keeping.Choice;

/**
 * What {@code --keep} says: which row stays of several that share a key.
 *
 * @param table for which the choice holds; empty for all
 */
public record KeepText(Optional<String> table, Choice choice) {
    private static final List<String> WORDS = List.of("first", "last", "most-complete", "none");

    /**
     * Reads it.
     *
     * @throws UsageException when it says none, or names a table or column that is not there
     */
    public static KeepText read(String text, Charter charter) {
        int equals = text.indexOf('=');
        String said = text.substring(equals + 1).strip();
        if (equals < 0) {
            return new KeepText(Optional.empty(), word(said).orElseThrow(() -> unknown(text)));
        }
        String name = text.substring(0, equals).strip();
        TableNames.require(charter, name);
        return new KeepText(Optional.of(name), ofTable(text, said, charter.table(name)));
    }

    private static Choice ofTable(String text, String said, Table table) {
        Optional<Choice> word = word(said);
        if (word.isPresent()) {
            return word.get();
        }
        String lower = said.toLowerCase(Locale.ROOT);
        boolean isGreatest = lower.endsWith(" desc");
        if (!isGreatest && !lower.endsWith(" asc")) {
            throw unknown(text);
        }
        String column = said.substring(0, said.lastIndexOf(' ')).strip();
        List<String> columns = table.columns().stream().map(Column::name).toList();
        if (!columns.contains(column)) {
            throw new UsageException("--keep " + text + ": " + table.name() + " has no column " + column
                    + NearestWord.of(column, columns)
                            .map(near -> "; did you mean " + near + "?")
                            .orElse(""));
        }
        return new Choice.ByColumn(column, isGreatest);
    }

    private static Optional<Choice> word(String said) {
        return Optional.ofNullable(
                switch (said.toLowerCase(Locale.ROOT)) {
                    case "first" -> new Choice.First();
                    case "last" -> new Choice.Last();
                    case "most-complete" -> new Choice.MostComplete();
                    case "none" -> new Choice.None();
                    default -> null;
                });
    }

    private static UsageException unknown(String text) {
        return new UsageException("--keep " + text + ": write " + String.join(", ", WORDS)
                + ", or for one table also TABLE=COLUMN asc or TABLE=COLUMN desc");
    }
}
