package taxiomet.cli.option;

import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.cli.terminal.UsageException;

/** Names of tables that users type. */
public final class TableNames {
    private TableNames() {}

    /** @throws UsageException with the nearest name when the charter has no such table */
    public static void require(Charter charter, String name) {
        List<String> names = charter.tables().stream().map(Table::name).toList();
        if (!names.contains(name)) {
            String near = NearestWord.of(name, names)
                    .map(nearest -> "did you mean `" + nearest + "`?")
                    .orElse("there are " + String.join(", ", names));
            throw new UsageException("the charter has no table `" + name + "`; " + near);
        }
    }
}
