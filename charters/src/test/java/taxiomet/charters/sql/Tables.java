package taxiomet.charters.sql;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;

/** Tables for tests, of columns written as {@code name type}. */
public final class Tables {
    private Tables() {}

    public static Table table(String name, String... columns) {
        List<Column> all = new ArrayList<>();
        for (String column : columns) {
            String[] parts = column.split(" ", 2);
            all.add(Column.of(parts[0], ColumnType.parse(parts[1]).orElseThrow()));
        }
        DelimitedFiles rows =
                new DelimitedFiles(Path.of("."), name + ".csv", ',', '"', "UTF-8", true, Optional.empty(), List.of());
        return new Table(
                name,
                Optional.empty(),
                rows,
                all,
                Optional.of(Key.of(Key.PRIMARY, List.of(all.get(0).name()), true)),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    public static Map<String, Table> named(Table... tables) {
        Map<String, Table> named = new LinkedHashMap<>();
        for (Table table : tables) {
            named.put(table.name(), table);
        }
        return named;
    }
}
