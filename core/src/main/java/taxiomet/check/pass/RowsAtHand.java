package taxiomet.check.pass;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeSet;
import taxiomet.charter.Charter;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;

/** The rows that findings show, each table's fetched in one go, and the ways to others. */
public final class RowsAtHand {
    private final Map<String, TableSource> sources;
    private final Map<String, RowLookup> lookups = new HashMap<>();
    private final Map<String, Map<Long, FoundRow>> shown = new HashMap<>();

    /** @param sources of all tables that findings can be about, by name */
    public RowsAtHand(Charter charter, Map<String, TableSource> sources) {
        this.sources = sources;
        sources.forEach((name, source) -> lookups.put(name, new RowLookup(charter.table(name), source)));
    }

    /** Fetches the first rows of each log, and those that it names. */
    public void fetch(Iterable<FaultLog> logs, int examples) {
        Map<String, TreeSet<Long>> wanted = new LinkedHashMap<>();
        for (FaultLog log : logs) {
            TreeSet<Long> refs = wanted.computeIfAbsent(log.table(), name -> new TreeSet<>());
            SortedSpool.Reader reader = log.read();
            for (int i = 0; i < examples && reader.next(); i++) {
                refs.add(log.isGrouped() ? reader.second() : reader.first());
            }
            refs.addAll(log.telling().rowsNamed());
        }
        wanted.forEach((table, refs) -> shown.put(table, lookups.get(table).find(refs)));
    }

    /** A row of those fetched. */
    public FoundRow row(String table, long ref) {
        return shown.get(table).get(ref);
    }

    /** The way to other rows of a table. */
    public RowLookup lookup(String table) {
        return lookups.get(table);
    }

    /** The source of a table. */
    public TableSource source(String table) {
        return sources.get(table);
    }
}
