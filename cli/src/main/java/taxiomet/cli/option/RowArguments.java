package taxiomet.cli.option;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Parameters;
import taxiomet.cli.terminal.UsageException;

/** The arguments of a command about one row: the charter first, unless it is the usual one; the table; perhaps a key. */
public final class RowArguments {
    @Parameters(
            arity = "1..3",
            paramLabel = "[CHARTER] TABLE [KEY]",
            hideParamSyntax = true,
            description = "The charter first, unless it is charter.yaml in the current folder; then the table; then the"
                    + " row's key: 7, or 3, 2024-05-01 for a key of two columns, or columns by name (hive_id=3).")
    private List<String> arguments = List.of();

    /** The charter's file. */
    public Path charter() {
        return new CharterFirst(arguments).charter();
    }

    /** The table's name. */
    public String table() {
        return new CharterFirst(arguments).others().get(0);
    }

    /** The key, if there is one. */
    public Optional<String> key() {
        List<String> rest = new CharterFirst(arguments).others();
        if (rest.size() > 2) {
            throw new UsageException("`" + rest.get(2)
                    + "` is one word too many; write a key of several columns as one argument: \"3, 2024-05-01\"");
        }
        return rest.size() == 2 ? Optional.of(rest.get(1)) : Optional.empty();
    }
}
