package taxiomet.cli.option;

import java.util.Collection;
import java.util.List;
import picocli.CommandLine.Option;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.cli.terminal.UsageException;
import taxiomet.personal.Pseudonyms;
import taxiomet.work.Secret;

/** What commands ask about values of personal columns. */
public final class PersonalOptions {
    @Option(
            names = "--reveal",
            description = "Show the values of personal columns; without it they are shown as pseudonyms.")
    private boolean isRevealed;

    /** The charter by which results are told. */
    public Charter toldBy(Charter charter) {
        return isRevealed
                ? charter.withPersonal((table, column) -> false)
                : new Pseudonyms(charter, Secret.random()).charter();
    }

    /**
     * An output of rows for machines needs the values themselves: that has to be meant.
     *
     * @param charter by which results are told
     * @param tables whose rows it would hold
     */
    public static void requireRevealed(Charter charter, String output, Collection<String> tables) {
        List<String> personal = charter.tables().stream()
                .filter(table -> tables.contains(table.name()))
                .flatMap(table -> table.columns().stream()
                        .filter(Column::isPersonal)
                        .map(column -> table.name() + "." + column.name()))
                .toList();
        if (!personal.isEmpty()) {
            throw new UsageException(output + " would write rows as they are, and " + String.join(", ", personal)
                    + (personal.size() == 1 ? " is" : " are") + " personal; add --reveal if that is meant");
        }
    }
}
