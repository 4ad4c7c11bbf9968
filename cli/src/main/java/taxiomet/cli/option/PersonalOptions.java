package taxiomet.cli.option;

import java.util.Collection;
import java.util.List;
import picocli.CommandLine.Option;
import taxiomet.charter.Charter;
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
                ? charter.with(charter.tables().stream()
                        .map(table -> table.withColumns(table.columns().stream()
                                .map(column -> column.asPersonal(false))
                                .toList()))
                        .toList())
                : new Pseudonyms(charter, Secret.random()).charter();
    }

    /**
     * An output of rows for machines needs the values themselves: that has to be meant.
     *
     * @param tables whose rows it would hold
     */
    public void requireRevealed(Charter charter, String output, Collection<String> tables) {
        List<String> personal = isRevealed
                ? List.of()
                : new Pseudonyms(charter, Secret.random())
                        .columns().stream()
                                .filter(column -> tables.contains(column.substring(0, column.lastIndexOf('.'))))
                                .toList();
        if (!personal.isEmpty()) {
            throw new UsageException(output + " would write rows as they are, and " + String.join(", ", personal)
                    + (personal.size() == 1 ? " is" : " are") + " personal; add --reveal if that is meant");
        }
    }
}
