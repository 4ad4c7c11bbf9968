package taxiomet.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.pass.CheckOptions;
import taxiomet.check.pass.Plan;
import taxiomet.check.pass.RowCheck;
import taxiomet.finding.CheckResult.Remark;
import taxiomet.rows.Inside;
import taxiomet.rows.Sieved;
import taxiomet.rows.Suspicion;
import taxiomet.rows.TableSource;

/**
 * Has the rows that may be at fault looked for where they live, table by table, as far as that can be done there. A table of which all
 * checks can say what to look for, and whose place can look for it, is sieved; any other is read, and so are the parents that its rows are
 * held against.
 */
final class Sieve {
    private final Charter charter;
    private final Plan plan;
    private final CheckOptions options;
    private final Map<String, TableSource> sources;
    private final Map<String, Inside> places = new LinkedHashMap<>();
    /** Why tables are read as a whole. */
    private final Map<String, String> read = new LinkedHashMap<>();

    private final Map<String, Sieved> sieved = new LinkedHashMap<>();

    /** @param sources of the tables that are read, by name; those of sieved tables are put in their place */
    Sieve(Charter charter, Plan plan, CheckOptions options, Map<String, TableSource> sources) {
        this.charter = charter;
        this.plan = plan;
        this.options = options;
        this.sources = sources;
    }

    /** Looks for the rows. */
    void run(List<Table> tables, int threads) {
        for (Table table : tables) {
            whyRead(table).ifPresent(why -> read.put(table.name(), why));
        }
        readParents();
        for (Table table : tables) {
            if (!read.containsKey(table.name())) {
                ask(table, threads);
            }
        }
        readParents();
        sieved.keySet().removeAll(read.keySet());
        sieved.forEach((name, found) -> {
            sources.put(name, found.rows());
            plan.checksOf(charter.table(name)).forEach(check -> check.rowsAre(found));
        });
    }

    private Optional<String> whyRead(Table table) {
        Optional<Inside> place = sources.get(table.name()).inside(table, charter, sources);
        if (place.isEmpty()) {
            return Optional.of("its place cannot look for rows itself");
        }
        places.put(table.name(), place.get());
        for (RowCheck check : plan.checksOf(table)) {
            Optional<List<Suspicion>> suspicions = check.suspicions();
            if (suspicions.isEmpty()) {
                return Optional.of("what is declared of " + names(table, check.columns()) + " is judged here alone");
            }
            for (Suspicion suspicion : suspicions.get()) {
                Optional<String> why = place.get().whyNot(suspicion);
                if (why.isPresent()) {
                    return why;
                }
            }
        }
        return Optional.empty();
    }

    private static String names(Table table, int[] columns) {
        return Arrays.stream(columns)
                .mapToObj(table.columns()::get)
                .map(Column::name)
                .map(name -> "`" + name + "`")
                .collect(Collectors.joining(", "));
    }

    /** The rows of a table that is read are held against the keys of its parents: all of those. */
    private void readParents() {
        List<String> toFollow = new ArrayList<>(read.keySet());
        for (int i = 0; i < toFollow.size(); i++) {
            String child = toFollow.get(i);
            if (!options.judges(child)) {
                continue;
            }
            for (ForeignKey link : charter.table(child).links()) {
                if (sources.containsKey(link.parent())
                        && read.putIfAbsent(link.parent(), "the rows of " + child + " are held against its keys")
                                == null) {
                    toFollow.add(link.parent());
                }
            }
        }
    }

    private void ask(Table table, int threads) {
        Set<Suspicion> suspicions = new LinkedHashSet<>();
        Set<List<Integer>> counted = new LinkedHashSet<>();
        for (RowCheck check : plan.checksOf(table)) {
            suspicions.addAll(check.suspicions().orElseThrow());
            counted.addAll(check.nullsCounted());
        }
        places.get(table.name())
                .sieve(List.copyOf(suspicions), List.copyOf(counted), threads)
                .ifPresentOrElse(
                        found -> sieved.put(table.name(), found),
                        () -> read.put(table.name(), "so many rows are suspect that reading all is sooner done"));
    }

    /** How many rows a table has, of which some alone were moved. */
    Optional<Long> rowsOf(Table table) {
        return Optional.ofNullable(sieved.get(table.name())).map(Sieved::rowsInAll);
    }

    /** What is worth saying of how the rows of a table were come by. */
    Remark remark(Table table) {
        Sieved found = sieved.get(table.name());
        return found == null
                ? new Remark("read as a whole", "all rows were read: " + read.get(table.name()))
                : new Remark(
                        "looked at inside",
                        String.format(
                                Locale.ROOT,
                                "the server looked for faults itself: %,d of %,d rows were moved",
                                found.rows().size(),
                                found.rowsInAll()));
    }
}
