package taxiomet.check;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Consumer;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.NotRead;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.key.RepeatedRows;
import taxiomet.check.link.FaultyParents;
import taxiomet.check.link.MissingValues;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowLookup;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.Finding.MissingValue;
import taxiomet.finding.FindingKind;
import taxiomet.finding.Hint;
import taxiomet.finding.Hint.FaultyParent;
import taxiomet.hint.HintFinder;
import taxiomet.keys.RowSet;
import taxiomet.rows.RefCursor;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;
import taxiomet.values.ValueReader;

/** Makes findings of the logs: examples and commonest values with their rows, hints, and the way to all evidence. */
final class FindingAssembler {
    /** Duplicates stand group by group, and their rows all over the file: so many are fetched in one go. */
    private static final int GROUPED_ROWS_AT_ONCE = 100_000;

    private static final int NAMED_COLUMNS = 5;

    private final Charter charter;
    private final CheckPlan plan;
    private final CheckOptions options;
    private final Map<String, TableSource> sources;
    private final Map<String, RowLookup> lookups = new HashMap<>();
    private final Map<String, Map<Long, FoundRow>> shown = new HashMap<>();

    FindingAssembler(Charter charter, CheckPlan plan, CheckOptions options, Map<String, TableSource> sources) {
        this.charter = charter;
        this.plan = plan;
        this.options = options;
        this.sources = sources;
        sources.forEach((name, source) -> lookups.put(name, new RowLookup(charter.table(name), source)));
    }

    /** All findings that have rows, the worst first, then in the order of the kinds and of the charter. */
    List<Finding> assemble() {
        List<FaultLog> logs = plan.logs().stream().filter(log -> log.size() > 0).toList();
        findShownRows(logs);
        List<Finding> findings = new ArrayList<>();
        charter.notRead().stream()
                .filter(lost -> lost.table().map(options::judges).orElse(true))
                .forEach(lost -> findings.add(notRead(lost)));
        logs.forEach(log -> findings.add(finding(log)));
        plan.gaps().stream()
                .filter(planned -> planned.check().found().ranges() > 0)
                .forEach(planned -> findings.add(gaps(planned)));
        findings.sort(Comparator.comparing(Finding::severity).thenComparing(Finding::kind));
        return findings;
    }

    private static Finding notRead(NotRead lost) {
        return new Finding(
                FindingKind.RULE_NOT_READ,
                lost.severity(),
                lost.table().orElse(""),
                lost.name(),
                List.of(),
                0,
                new Finding.Undeclared(lost.what().word(), lost.declared(), lost.problem(), lost.place()),
                List.of(),
                all -> {});
    }

    private static Finding gaps(CheckPlan.PlannedGaps planned) {
        return new Finding(
                FindingKind.GAP_IN_KEY,
                Severity.NOTE,
                planned.table().name(),
                planned.column().name(),
                List.of(planned.column().name()),
                0,
                planned.check().found(),
                List.of(),
                all -> {});
    }

    /** How many rows of a table have at least one fault that is not a mere note. */
    static long faultyRows(Table table, List<FaultLog> logs) {
        RowSet rows = new RowSet();
        for (FaultLog log : logs) {
            if (log.table().equals(table.name()) && log.kind() != FindingKind.ODD_SPELLING) {
                SortedSpool.Reader reader = log.read();
                while (reader.next()) {
                    rows.add(log.isGrouped() ? reader.second() : reader.first());
                }
            }
        }
        return rows.size();
    }

    /** One pass over each table's places fetches all rows that its findings show. */
    private void findShownRows(List<FaultLog> logs) {
        Map<String, TreeSet<Long>> wanted = new LinkedHashMap<>();
        for (FaultLog log : logs) {
            TreeSet<Long> refs = wanted.computeIfAbsent(log.table(), name -> new TreeSet<>());
            SortedSpool.Reader reader = log.read();
            for (int i = 0; i < options.examples() && reader.next(); i++) {
                refs.add(log.isGrouped() ? reader.second() : reader.first());
            }
            if (log.kind() == FindingKind.ORPHAN) {
                plan.linkOf(log).missingValues().commonest().forEach(value -> refs.add(value.firstRef()));
            }
        }
        wanted.forEach((table, refs) -> shown.put(table, lookups.get(table).find(refs)));
    }

    private Finding finding(FaultLog log) {
        Map<Long, FoundRow> rows = shown.get(log.table());
        Hints hints = log.kind() == FindingKind.ORPHAN ? hintsFor(log, rows) : Hints.NONE;
        List<Evidence> examples = new ArrayList<>();
        SortedSpool.Reader reader = log.read();
        Groups groups = new Groups(log);
        for (int i = 0; i < options.examples() && reader.next(); i++) {
            examples.add(
                    log.isGrouped()
                            ? groups.evidence(reader.first(), rows.get(reader.second()))
                            : evidence(log, rows.get(reader.first()), reader.second(), hints));
        }
        return new Finding(
                log.kind(),
                log.severity(),
                log.table(),
                log.at(),
                log.columns(),
                log.size(),
                details(log, rows, hints),
                examples,
                all -> readEvidence(log, hints, all));
    }

    private Finding.Details details(FaultLog log, Map<Long, FoundRow> rows, Hints hints) {
        return switch (log.kind()) {
            case DUPLICATE -> {
                RepeatedRows repeated = plan.repeatedOf(log);
                yield new Finding.Duplicates(repeated.groups(), repeated.excess());
            }
            case OWN_ANCESTOR -> new Finding.Rings(plan.ringsOf(log));
            case ORPHAN -> {
                MissingValues missing = plan.linkOf(log).missingValues();
                List<MissingValue> commonest = missing.commonest().stream()
                        .limit(options.namedValues())
                        .map(value -> {
                            List<String> key = keyOf(log, rows.get(value.firstRef()));
                            return new MissingValue(key, value.rows(), hints.of(key));
                        })
                        .toList();
                yield new Finding.Missing(log.at(), missing.distinct(), commonest, consequencesOf(log, hints.faulty()));
            }
            case TOO_FEW_CHILDREN, TOO_MANY_CHILDREN -> {
                ForeignKey link = plan.countedLinkOf(log);
                yield new Finding.Children(
                        link.child(), link.name(), link.children().orElseThrow().toString());
            }
            case BROKEN_RULE -> new Finding.Broken(conditionOf(log), log.reasons());
            default -> new Finding.Reasons(declaredAt(log), log.reasons());
        };
    }

    /** What the charter asks of the column in which a log's rows are at fault. */
    private String declaredAt(FaultLog log) {
        int place = charter.table(log.table()).indexOf(log.at());
        if (place < 0) {
            return "";
        }
        Column column = charter.table(log.table()).columns().get(place);
        return switch (log.kind()) {
            case TYPE_MISMATCH ->
                column.type().sql()
                        + column.format().map(format -> ", written " + format).orElse("")
                        + (column.decimalComma() ? ", written with a decimal comma" : "");
            case WRONG_LENGTH -> column.length().orElseThrow() + " characters";
            case VALUE_NOT_ALLOWED -> "one of " + String.join(", ", column.values());
            case PATTERN_NOT_MET -> "pattern " + column.pattern().orElseThrow();
            default -> "";
        };
    }

    private String conditionOf(FaultLog log) {
        return charter.table(log.table()).rules().stream()
                .filter(rule -> rule.name().equals(log.at()))
                .findFirst()
                .orElseThrow()
                .text();
    }

    /** Numbers groups as they come, from 1, and holds the rows of duplicates against the first of their group. */
    private final class Groups {
        private final boolean areDuplicates;
        private final List<String> columns;
        private final boolean[] isOfKey;
        private long first = -1;
        private long number;
        private FoundRow firstRow;

        Groups(FaultLog log) {
            Table table = charter.table(log.table());
            areDuplicates = log.kind() == FindingKind.DUPLICATE;
            columns = table.columns().stream().map(Column::name).toList();
            isOfKey = new boolean[columns.size()];
            for (int place : table.indexesOf(log.columns())) {
                isOfKey[place] = true;
            }
        }

        /** The row of a group that comes next; the first of a group comes first. */
        Evidence evidence(long firstOfGroup, FoundRow row) {
            if (firstOfGroup != first) {
                first = firstOfGroup;
                firstRow = row;
                number++;
                return row.evidence(number, "", List.of());
            }
            if (!areDuplicates) {
                return row.evidence(number, "", List.of());
            }
            List<String> differing = new ArrayList<>();
            for (int i = 0; i < isOfKey.length; i++) {
                if (!isOfKey[i]
                        && !Objects.equals(
                                firstRow.values().get(i), row.values().get(i))) {
                    differing.add(columns.get(i));
                }
            }
            return row.evidence(
                    number,
                    differing.isEmpty() ? "a copy of the first" : "not as the first: " + named(differing),
                    differing);
        }

        private static String named(List<String> differing) {
            return differing.size() <= NAMED_COLUMNS
                    ? String.join(", ", differing)
                    : String.join(", ", differing.subList(0, NAMED_COLUMNS)) + " and "
                            + (differing.size() - NAMED_COLUMNS) + " more";
        }
    }

    private Evidence evidence(FaultLog log, FoundRow row, long remark, Hints hints) {
        return switch (log.kind()) {
            case TOO_FEW_CHILDREN, TOO_MANY_CHILDREN -> row.evidence(remark + (remark == 1 ? " child" : " children"));
            case ORPHAN -> row.evidence(hints.of(keyOf(log, row)));
            default -> row.evidence(log.reason(remark));
        };
    }

    private List<String> keyOf(FaultLog log, FoundRow row) {
        List<String> key = new ArrayList<>();
        for (int column : charter.table(log.table()).indexesOf(log.columns())) {
            key.add(row.values().get(column));
        }
        return key;
    }

    /** What is known about the keys of a link's orphans: rows that bear them and are no parents, then parents that may have been meant. */
    private record Hints(FaultyParents faulty, HintFinder finder) {
        private static final Hints NONE = new Hints(new FaultyParents("", false, List.of()), new HintFinder());

        Optional<Hint> of(List<String> key) {
            return faulty.of(key).or(() -> finder.hintFor(key));
        }
    }

    /** The rows of a link's parent table that are no parents for a fault of their own. */
    private FaultyParents faultyParentsOf(ForeignKey link) {
        Table parent = charter.table(link.parent());
        FaultyParents faulty = new FaultyParents(
                parent.name(),
                sources.get(parent.name()).partCount() > 1,
                link.parentColumns().stream().map(parent::column).toList());
        Map<Long, FaultyParent.Fault> faults = new LinkedHashMap<>();
        for (FaultLog log : plan.logs()) {
            Optional<FaultyParent.Fault> fault = faultOfParents(log, link);
            if (fault.isPresent()) {
                if (faults.size() + log.size() > FaultyParents.MOST) {
                    return faulty;
                }
                SortedSpool.Reader reader = log.read();
                while (reader.next()) {
                    faults.putIfAbsent(reader.first(), fault.get());
                }
            }
        }
        RowLookup lookup = lookups.get(parent.name());
        int[] places = parent.indexesOf(link.parentColumns());
        lookup.find(new TreeSet<>(faults.keySet())).values().stream()
                .sorted(Comparator.comparingLong(FoundRow::ref))
                .forEach(row -> {
                    List<String> cells = lookup.cellsOf(row);
                    if (!cells.isEmpty()) {
                        List<String> key = new ArrayList<>();
                        for (int place : places) {
                            key.add(cells.get(place));
                        }
                        faulty.add(row, key, faults.get(row.ref()));
                    }
                });
        return faulty;
    }

    /** For which fault the rows of a log are no parents of a link; empty where they are some all the same. */
    private static Optional<FaultyParent.Fault> faultOfParents(FaultLog log, ForeignKey link) {
        if (!log.table().equals(link.parent()) || log.size() == 0) {
            return Optional.empty();
        }
        boolean isOfKey = link.parentColumns().contains(log.at());
        return switch (log.kind()) {
            case MALFORMED_ROW -> Optional.of(FaultyParent.Fault.MALFORMED);
            case TYPE_MISMATCH -> isOfKey ? Optional.of(FaultyParent.Fault.ILL_TYPED) : Optional.empty();
            case NULL_NOT_ALLOWED -> isOfKey ? Optional.of(FaultyParent.Fault.NULL_IN_KEY) : Optional.empty();
            case NULL_IN_KEY ->
                log.columns().containsAll(link.parentColumns())
                        ? Optional.of(FaultyParent.Fault.NULL_IN_KEY)
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    /** How many orphans bear the key of a faulty parent: all are looked at, where there is such a parent. */
    private List<Finding.Consequence> consequencesOf(FaultLog log, FaultyParents faulty) {
        if (faulty.isEmpty()) {
            return List.of();
        }
        Map<FaultyParent.Fault, Long> counts = new EnumMap<>(FaultyParent.Fault.class);
        SortedSpool.Reader refs = log.read();
        lookups.get(log.table())
                .forEach(
                        () -> refs.next() ? refs.first() : RefCursor.END,
                        row -> faulty.of(keyOf(log, row))
                                .flatMap(Hint::faultyParent)
                                .ifPresent(parent -> counts.merge(parent.fault(), 1L, Long::sum)));
        String parent = linkOf(log).parent();
        return counts.entrySet().stream()
                .map(count -> new Finding.Consequence(count.getKey().kind(), parent, count.getValue()))
                .toList();
    }

    private ForeignKey linkOf(FaultLog log) {
        return charter.table(log.table()).links().stream()
                .filter(link -> link.name().equals(log.at()))
                .findFirst()
                .orElseThrow();
    }

    /** Hints for the commonest values of a link's orphans, and for those that are shown. */
    private Hints hintsFor(FaultLog log, Map<Long, FoundRow> rows) {
        Table child = charter.table(log.table());
        ForeignKey link = linkOf(log);
        List<ValueReader> readers = link.columns().stream()
                .map(column -> ValueReader.of(child.column(column)))
                .toList();
        HintFinder finder = new HintFinder();
        if (options.hinted() == 0) {
            return Hints.NONE;
        }
        FaultyParents faulty = faultyParentsOf(link);
        Consumer<FoundRow> ask = row -> {
            List<String> key = keyOf(log, row);
            finder.ask(key, isIllTyped(key, readers));
        };
        plan.linkOf(log).missingValues().commonest().forEach(value -> ask.accept(rows.get(value.firstRef())));
        SortedSpool.Reader reader = log.read();
        for (int i = 0; i < options.examples() && reader.next(); i++) {
            ask.accept(rows.get(reader.first()));
        }
        Table parent = charter.table(link.parent());
        plan.linkOf(log)
                .parentsByNumbers()
                .filter(parents -> link.columns().size() <= HintFinder.MOST_LOOKED_UP)
                .ifPresentOrElse(
                        finder::lookUp,
                        () -> finder.look(sources.get(parent.name()), parent.indexesOf(link.parentColumns())));
        return new Hints(faulty, finder);
    }

    private static boolean isIllTyped(List<String> key, List<ValueReader> readers) {
        for (int i = 0; i < key.size(); i++) {
            if (key.get(i) != null && !readers.get(i).accepts(key.get(i))) {
                return true;
            }
        }
        return false;
    }

    private void readEvidence(FaultLog log, Hints hints, Consumer<Evidence> all) {
        RowLookup lookup = lookups.get(log.table());
        if (log.isGrouped()) {
            readGroupedEvidence(log, lookup, all);
            return;
        }
        SortedSpool.Reader refs = log.read();
        SortedSpool.Reader remarks = log.read();
        lookup.forEach(() -> refs.next() ? refs.first() : RefCursor.END, row -> {
            if (!remarks.next() || remarks.first() != row.ref()) {
                throw new IllegalStateException("rows and remarks have lost step at " + row);
            }
            all.accept(evidence(log, row, remarks.second(), hints));
        });
    }

    private void readGroupedEvidence(FaultLog log, RowLookup lookup, Consumer<Evidence> all) {
        SortedSpool.Reader reader = log.read();
        Groups groups = new Groups(log);
        List<long[]> chunk = new ArrayList<>();
        boolean hasMore = reader.next();
        while (hasMore) {
            chunk.add(new long[] {reader.first(), reader.second()});
            hasMore = reader.next();
            if (!hasMore || chunk.size() == GROUPED_ROWS_AT_ONCE) {
                TreeSet<Long> refs = new TreeSet<>();
                chunk.forEach(pair -> refs.add(pair[1]));
                Map<Long, FoundRow> rows = lookup.find(refs);
                chunk.forEach(pair -> all.accept(groups.evidence(pair[0], rows.get(pair[1]))));
                chunk.clear();
            }
        }
    }
}
