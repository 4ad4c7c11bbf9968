package taxiomet.check.pass;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Consumer;
import taxiomet.charter.Charter;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.finding.FindingKind;
import taxiomet.rows.ColumnFacts;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;
import taxiomet.work.Secret;

/** What is to be done in one run, as the {@link Kind}s put it there: who looks at which table, and what is worked out when. */
public final class Plan implements AutoCloseable {
    private final Charter charter;
    private final CheckOptions options;
    private final SpillFolder spill;
    private final RunContext context;

    private final Map<String, List<RowCheck>> checks = new LinkedHashMap<>();
    private final Map<String, Set<String>> awaited = new HashMap<>();
    private final Map<String, List<Runnable>> whenRead = new HashMap<>();
    private final Map<String, List<SecondLook>> secondLooks = new HashMap<>();
    private final Map<String, List<Consumer<TableSource>>> lookUps = new LinkedHashMap<>();
    private final List<FaultLog> logs = new ArrayList<>();
    private final List<Conclusion> conclusions = new ArrayList<>();
    private final List<Runnable> whenTold = new ArrayList<>();
    private final List<Runnable> atEnd = new ArrayList<>();

    /** @param spill where states go that grow with the rows; closed by the caller */
    public Plan(Charter charter, CheckOptions options, SpillFolder spill, RunContext context) {
        this.charter = charter;
        this.options = options;
        this.spill = spill;
        this.context = context;
    }

    /** The rules. */
    public Charter charter() {
        return charter;
    }

    /** What is asked for. */
    public CheckOptions options() {
        return options;
    }

    /** Where states go that grow with the rows. */
    public SpillFolder spill() {
        return spill;
    }

    /** For keys in memory. */
    public MemoryBudget budget() {
        return context.budget();
    }

    /** Under which fingerprints are taken. */
    public Secret secret() {
        return context.secret();
    }

    /** A table is read though nothing may look at its rows. */
    public void read(Table table) {
        checks.computeIfAbsent(table.name(), name -> new ArrayList<>());
    }

    /** Has a check look at all rows of a table. */
    public void look(Table table, RowCheck check) {
        checks.computeIfAbsent(table.name(), name -> new ArrayList<>()).add(check);
    }

    /** Takes checks of a table back that are known to find nothing: columns that nothing else asks for need not be read. */
    public void leaveOutNeedless(Table table, TableSource source) {
        // A source may read a part of the table for an answer: it is asked once, whoever wants to know.
        Map<Integer, Optional<ColumnFacts>> known = new HashMap<>();
        checks.get(table.name())
                .removeIf(check -> check.isNeedless(column -> known.computeIfAbsent(column, source::facts)));
    }

    /** A new log, told with the reasons that its rows get until something else is said. */
    public FaultLog log(FindingKind kind, Severity declared, Table table, String at, List<String> columns) {
        FaultLog log = new FaultLog(spill, kind, declared, table.name(), at, columns);
        logs.add(log);
        return log;
    }

    /** The rows of a table are looked at when all of another, if it is read before it, have been. */
    public void await(Table table, String other) {
        if (!other.equals(table.name())) {
            awaited.computeIfAbsent(table.name(), name -> new LinkedHashSet<>()).add(other);
        }
    }

    /** Has something done as soon as all rows of a table have been looked at. */
    public void whenRead(Table table, Runnable then) {
        whenRead.computeIfAbsent(table.name(), name -> new ArrayList<>()).add(then);
    }

    /** Has something worked out when all tables have been read, in the order of these calls. */
    public void conclude(Conclusion conclusion) {
        conclusions.add(conclusion);
    }

    /** Lets a check see some rows of its table again when everything has been worked out. */
    public void lookAgain(Table table, SecondLook check) {
        secondLooks.computeIfAbsent(table.name(), name -> new ArrayList<>()).add(check);
    }

    /** Has single rows of a table fetched by what it knows then, when everything that waits for all tables has been worked out. */
    public void lookUp(Table table, Consumer<TableSource> then) {
        lookUps.computeIfAbsent(table.name(), name -> new ArrayList<>()).add(then);
    }

    /** Has something done when the findings have been told. */
    public void whenTold(Runnable then) {
        whenTold.add(then);
    }

    /** Has something let go of when the evidence has been read, too. */
    public void atEnd(Runnable then) {
        atEnd.add(then);
    }

    /** Names of the tables that something looks at. */
    public Set<String> tables() {
        return checks.keySet();
    }

    /** The checks that look at a table that is read. */
    public List<RowCheck> checksOf(Table table) {
        return checks.get(table.name());
    }

    /** Places of the columns that the checks of a table read, ascending. */
    public int[] columnsOf(Table table) {
        Set<Integer> columns = new TreeSet<>();
        for (RowCheck check : checksOf(table)) {
            for (int column : check.columns()) {
                columns.add(column);
            }
        }
        return columns.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The tables that a table waits for, itself left out. */
    public Set<String> awaitedBy(Table table) {
        return awaited.getOrDefault(table.name(), Set.of());
    }

    /** All rows of a table have been looked at. */
    public void ended(String table) {
        whenRead.getOrDefault(table, List.of()).forEach(Runnable::run);
    }

    /** Works out what had to wait for all tables, but for {@link #secondLooksAt}. */
    public void resolve() {
        conclusions.forEach(Conclusion::resolve);
        conclusions.forEach(Conclusion::close);
    }

    /** What must still be found in a table by reading some of its rows again. */
    public List<SecondLook> secondLooksAt(String table) {
        return secondLooks.getOrDefault(table, List.of()).stream()
                .filter(SecondLook::hasAny)
                .toList();
    }

    /** Fetches the rows that are asked for; the sources are those of the tables read. */
    public void lookUp(Map<String, TableSource> sources) {
        lookUps.forEach((table, all) -> all.forEach(each -> each.accept(sources.get(table))));
    }

    /** The findings have been told: keys are of no more use. */
    public void told() {
        whenTold.forEach(Runnable::run);
    }

    /** Whether rows of a table are at fault; those of a parent can be, though only its child is judged. */
    public boolean hasFaults(Table table) {
        return logs.stream().anyMatch(log -> log.size() > 0 && log.table().equals(table.name()));
    }

    /** All logs, in the order in which they were made. */
    public List<FaultLog> logs() {
        return logs;
    }

    @Override
    public void close() {
        logs.forEach(FaultLog::close);
        atEnd.forEach(Runnable::run);
    }
}
