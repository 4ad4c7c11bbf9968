package taxiomet.cli.option;

import java.nio.file.Path;
import java.util.List;
import picocli.CommandLine.Parameters;
import taxiomet.cli.terminal.UsageException;

/** The arguments of a command about one table: the charter first, unless it is the usual one. */
public final class TableArguments {
    @Parameters(
            arity = "1..2",
            paramLabel = "[CHARTER] TABLE",
            hideParamSyntax = true,
            description =
                    "The charter first, unless it is charter.yaml in the current folder; then the table, or the name"
                            + " of a roster that the charter keeps.")
    private List<String> arguments = List.of();

    /** The charter's file. */
    public Path charter() {
        return new CharterFirst(arguments).charter();
    }

    /** The name of a table, or what stands in its place. */
    public String table() {
        List<String> rest = new CharterFirst(arguments).others();
        if (rest.size() > 1) {
            throw new UsageException("`" + rest.get(1) + "` is one word too many; --where says which rows of "
                    + rest.get(0) + " are headings");
        }
        return rest.get(0);
    }
}
