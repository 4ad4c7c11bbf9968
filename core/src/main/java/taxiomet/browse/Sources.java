package taxiomet.browse;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup;
import taxiomet.rows.TableSource;

/** The tables that have been opened so far: most are not needed. */
final class Sources implements AutoCloseable {
    private final Function<Table, TableSource> open;
    private final Map<Table, TableSource> opened = new LinkedHashMap<>();

    Sources(Function<Table, TableSource> open) {
        this.open = open;
    }

    TableSource of(Table table) {
        return opened.computeIfAbsent(table, open);
    }

    /** Rows by their references; all rows of the table have been read once. */
    RowLookup rows(Table table) {
        return new RowLookup(table, of(table));
    }

    @Override
    public void close() {
        opened.values().forEach(TableSource::close);
    }
}
