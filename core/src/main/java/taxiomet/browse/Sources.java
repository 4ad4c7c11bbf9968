package taxiomet.browse;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup;
import taxiomet.rows.TableSource;
import taxiomet.total.RowTotals;
import taxiomet.work.RunContext;

/** The tables that have been opened so far: most are not needed. */
final class Sources implements AutoCloseable {
    private final Function<Table, TableSource> open;
    private final Map<Table, TableSource> opened = new LinkedHashMap<>();
    private final Map<Table, RowTotals> totals = new HashMap<>();

    Sources(Function<Table, TableSource> open) {
        this.open = open;
    }

    TableSource of(Table table) {
        return opened.computeIfAbsent(table, open);
    }

    /** The totals of a table; parents that they ask for have been read. */
    RowTotals totals(Table table, Charter charter, RunContext context) {
        return totals.computeIfAbsent(table, t -> {
            RowTotals made = new RowTotals(t, charter, context);
            made.read((parent, reading) -> reading.accept(of(parent)));
            return made;
        });
    }

    /** Rows by their references; all rows of the table have been read once. */
    RowLookup rows(Table table) {
        return new RowLookup(table, of(table));
    }

    @Override
    public void close() {
        totals.values().forEach(RowTotals::close);
        opened.values().forEach(TableSource::close);
    }
}
