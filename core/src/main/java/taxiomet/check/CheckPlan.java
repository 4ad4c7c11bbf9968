package taxiomet.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.column.AllowedValuesCheck;
import taxiomet.check.column.GapCheck;
import taxiomet.check.column.LengthCheck;
import taxiomet.check.column.PatternCheck;
import taxiomet.check.column.StateCheck;
import taxiomet.check.column.TypeCheck;
import taxiomet.check.key.KeyCheck;
import taxiomet.check.key.RepeatedRows;
import taxiomet.check.link.AcyclicCheck;
import taxiomet.check.link.ChildrenCheck;
import taxiomet.check.link.LinkCheck;
import taxiomet.check.link.PartialParents;
import taxiomet.check.pass.FaultLog;
import taxiomet.check.pass.RowCheck;
import taxiomet.check.rule.JudgedRule;
import taxiomet.check.rule.ParentRuleCheck;
import taxiomet.check.rule.RuleCheck;
import taxiomet.expression.RowFilter;
import taxiomet.finding.FindingKind;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.KeyIndex;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.SpillFolder;
import taxiomet.values.TypedColumn;

/** All checks that a charter asks for, by table, with the logs that they write into. */
final class CheckPlan implements AutoCloseable {
    private final Charter charter;
    private final CheckOptions options;
    private final SpillFolder spill;
    private final MemoryBudget budget;

    private final Map<String, List<RowCheck>> checks = new LinkedHashMap<>();
    private final Map<IndexedKey, KeyIndex> indexes = new LinkedHashMap<>();
    private final Set<KeyIndex> ownIndexes = new LinkedHashSet<>();
    private final List<FaultLog> logs = new ArrayList<>();
    private final Map<FaultLog, RepeatedRows> duplicates = new LinkedHashMap<>();
    private final Map<String, FaultLog> malformed = new HashMap<>();
    private final List<PlannedLink> links = new ArrayList<>();
    private final Map<FaultLog, LinkCheck> orphans = new HashMap<>();
    private final Map<FaultLog, ForeignKey> childCounts = new HashMap<>();
    private final List<PartialParents> partialParents = new ArrayList<>();
    private final List<ChildrenCheck> childrenChecks = new ArrayList<>();
    private final List<PlannedGaps> gaps = new ArrayList<>();
    private final List<PlannedRule> rules = new ArrayList<>();
    private final List<ParentRuleCheck> parentRules = new ArrayList<>();
    private final Map<FaultLog, AcyclicCheck> rings = new LinkedHashMap<>();

    /** What an index can be shared for: the same columns of a table, compared alike. */
    private record IndexedKey(String table, List<String> columns, List<KeyForm> forms) {
        /** By hand, and {@link #equals} too: those that a record makes at run time cost 60 ms of every start. */
        @Override
        public int hashCode() {
            return 31 * table.hashCode() + columns.hashCode();
        }

        @Override
        public boolean equals(Object other) {
            return other instanceof IndexedKey key
                    && table.equals(key.table)
                    && columns.equals(key.columns)
                    && forms.equals(key.forms);
        }
    }

    record PlannedLink(ForeignKey link, LinkCheck check, Optional<ChildrenCheck> children) {}

    record PlannedRule(Table table, JudgedRule check) {}

    /** A column whose missing numbers are worth a note. */
    record PlannedGaps(Table table, Column column, GapCheck check) {}

    CheckPlan(Charter charter, CheckOptions options, SpillFolder spill, MemoryBudget budget) {
        this.charter = charter;
        this.options = options;
        this.spill = spill;
        this.budget = budget;
        List<Table> judged = charter.tables().stream()
                .filter(table -> options.judges(table.name()))
                .toList();
        judged.forEach(this::planTable);
        judged.forEach(table -> table.links().forEach(this::planLink));
    }

    private void planTable(Table table) {
        malformed.put(table.name(), log(FindingKind.MALFORMED_ROW, Severity.ERROR, table, table.name(), List.of()));
        checks.computeIfAbsent(table.name(), name -> new ArrayList<>());
        for (int i = 0; i < table.columns().size(); i++) {
            planColumn(table, i);
        }
        table.primaryKey().ifPresent(key -> planKey(table, key));
        table.uniqueKeys().forEach(key -> planKey(table, key));
        for (Rule rule : table.rules()) {
            List<String> columns = new ArrayList<>();
            for (int column : rule.condition().columnsRead()) {
                columns.add(table.columns().get(column).name());
            }
            FaultLog log = log(FindingKind.BROKEN_RULE, rule.severity(), table, rule.name(), columns);
            if (rule.condition().parentsRead().isEmpty()) {
                RuleCheck check = new RuleCheck(rule, log);
                rules.add(new PlannedRule(table, check));
                add(table, check);
            } else {
                planParentRule(table, rule, log);
            }
        }
    }

    private void planParentRule(Table table, Rule rule, FaultLog log) {
        ParentRuleCheck check = new ParentRuleCheck(rule, table, charter, log, spill);
        rules.add(new PlannedRule(table, check));
        parentRules.add(check);
        add(table, check);
        check.parentSides().forEach((side, parent) -> add(parent, side));
    }

    private void planColumn(Table table, int place) {
        Column column = table.columns().get(place);
        Severity severity = column.severity();
        List<String> at = List.of(column.name());
        add(table, new TypeCheck(place, log(FindingKind.TYPE_MISMATCH, severity, table, column.name(), at)));
        FaultLog odd = log(FindingKind.ODD_SPELLING, severity, table, column.name(), at);
        add(table, new StateCheck(place, TypedColumn.ODD, odd));
        // A null in the primary key is a finding of its own already.
        if (column.isRequired() && !table.isOfPrimaryKey(column.name())) {
            FaultLog log = log(FindingKind.NULL_NOT_ALLOWED, severity, table, column.name(), at);
            add(table, new StateCheck(place, TypedColumn.NULL, log));
        }
        if (column.length().isPresent()) {
            FaultLog log = log(FindingKind.WRONG_LENGTH, severity, table, column.name(), at);
            add(table, new LengthCheck(place, column.length().get(), log));
        }
        if (column.notesGaps()) {
            GapCheck check = new GapCheck(place, spill);
            gaps.add(new PlannedGaps(table, column, check));
            add(table, check);
        }
        if (!column.values().isEmpty()) {
            FaultLog log = log(FindingKind.VALUE_NOT_ALLOWED, severity, table, column.name(), at);
            add(table, new AllowedValuesCheck(place, column, log));
        }
        if (column.pattern().isPresent()) {
            FaultLog log = log(FindingKind.PATTERN_NOT_MET, severity, table, column.name(), at);
            add(table, new PatternCheck(place, column.pattern().get(), log));
        }
    }

    private void planKey(Table table, Key key) {
        FaultLog nulls =
                key.isPrimary() ? log(FindingKind.NULL_IN_KEY, key.severity(), table, key.name(), key.columns()) : null;
        FaultLog doubles = log(FindingKind.DUPLICATE, key.severity(), table, key.name(), key.columns());
        List<KeyForm> forms = KeyForm.of(table, key);
        KeyIndex index = new KeyIndex(spill, budget, key.columns().size());
        // Of two keys over the same columns, each has its own duplicates; links need one of the indexes.
        ownIndexes.add(index);
        RowFilter filter = RowFilter.of(key.where());
        if (filter == null) {
            indexes.putIfAbsent(new IndexedKey(table.name(), key.columns(), forms), index);
        }
        KeyEncoder encoder = new KeyEncoder(table.indexesOf(key.columns()), forms);
        add(table, new KeyCheck(encoder, index, key.nullsAreEqual(), nulls, filter));
        duplicates.put(
                doubles,
                new RepeatedRows(
                        encoder.copy(), index, doubles, key.nullsAreEqual(), RowFilter.of(key.where()), spill));
    }

    private void planLink(ForeignKey link) {
        Table child = charter.table(link.child());
        Table parent = charter.table(link.parent());
        List<KeyForm> forms = KeyForm.of(child, parent, link);
        int[] parentColumns = parent.indexesOf(link.parentColumns());
        int[] childColumns = child.indexesOf(link.columns());
        KeyIndex parents = indexes.computeIfAbsent(new IndexedKey(parent.name(), link.parentColumns(), forms), id -> {
            KeyIndex index = new KeyIndex(spill, budget, link.columns().size());
            add(parent, new KeyCheck(new KeyEncoder(parentColumns, forms), index, false, null, null));
            return index;
        });
        PartialParents parts = null;
        if (link.match() == Match.PARTIAL && childColumns.length > 1) {
            parts = new PartialParents(spill, new KeyEncoder(parentColumns, forms));
            partialParents.add(parts);
            add(parent, parts);
        }
        FaultLog missing = log(FindingKind.ORPHAN, link.severity(), child, link.name(), link.columns());
        FaultLog halfNull = log(FindingKind.HALF_NULL_LINK, link.severity(), child, link.name(), link.columns());
        LinkCheck check = new LinkCheck(
                spill,
                new KeyEncoder(childColumns, forms),
                link.match(),
                parents,
                () -> areUsualNumbers(parent, link.parentColumns(), forms),
                parts,
                RowFilter.of(link.where()),
                missing,
                halfNull);
        add(child, check);
        orphans.put(missing, check);
        if (link.isAcyclic()) {
            FaultLog ancestors = log(FindingKind.OWN_ANCESTOR, link.severity(), child, link.name(), link.columns());
            AcyclicCheck acyclic = new AcyclicCheck(
                    spill,
                    budget,
                    new KeyEncoder(parentColumns, forms),
                    new KeyEncoder(childColumns, forms),
                    RowFilter.of(link.where()),
                    ancestors);
            rings.put(ancestors, acyclic);
            add(child, acyclic);
        }
        Optional<ChildrenCheck> children =
                link.children().map(range -> planChildren(link, range, parent, child, forms));
        links.add(new PlannedLink(link, check, children));
    }

    /** Whether some columns hold whole numbers alone, compared as such, and none of their values is oddly written. */
    private boolean areUsualNumbers(Table table, List<String> columns, List<KeyForm> forms) {
        for (int i = 0; i < columns.size(); i++) {
            String column = columns.get(i);
            Name type = table.column(column).type().name();
            boolean isWhole = type == Name.SMALLINT || type == Name.INTEGER || type == Name.BIGINT;
            if (!isWhole || forms.get(i).family() != Family.EXACT_NUMBER || !isSpelledAsUsual(table, column)) {
                return false;
            }
        }
        return true;
    }

    /** Whether it is known that no value of a column is oddly written. */
    private boolean isSpelledAsUsual(Table table, String column) {
        for (FaultLog log : logs) {
            if (log.kind() == FindingKind.ODD_SPELLING
                    && log.table().equals(table.name())
                    && log.at().equals(column)) {
                return log.size() == 0;
            }
        }
        return false;
    }

    private ChildrenCheck planChildren(
            ForeignKey link, IntRange range, Table parent, Table child, List<KeyForm> forms) {
        FaultLog few = log(FindingKind.TOO_FEW_CHILDREN, link.severity(), parent, link.name(), link.parentColumns());
        FaultLog many = log(FindingKind.TOO_MANY_CHILDREN, link.severity(), parent, link.name(), link.parentColumns());
        childCounts.put(few, link);
        childCounts.put(many, link);
        ChildrenCheck check = new ChildrenCheck(spill, range, few, many);
        childrenChecks.add(check);
        add(parent, check.parentSide(new KeyEncoder(parent.indexesOf(link.parentColumns()), forms)));
        add(child, check.childSide(new KeyEncoder(child.indexesOf(link.columns()), forms), RowFilter.of(link.where())));
        return check;
    }

    private void add(Table table, RowCheck check) {
        checks.computeIfAbsent(table.name(), name -> new ArrayList<>()).add(check);
    }

    private FaultLog log(FindingKind kind, Severity severity, Table table, String at, List<String> columns) {
        FaultLog log = new FaultLog(spill, kind, severity, table.name(), at, columns);
        logs.add(log);
        return log;
    }

    /** The tables to be read, parents before children where circles allow it, otherwise as declared. */
    List<Table> order() {
        List<Table> open = new ArrayList<>(charter.tables().stream()
                .filter(t -> checks.containsKey(t.name()))
                .toList());
        List<Table> ordered = new ArrayList<>();
        while (!open.isEmpty()) {
            int next = 0;
            while (next < open.size() && waitsForParent(open.get(next), open)) {
                next++;
            }
            ordered.add(open.remove(next == open.size() ? 0 : next));
        }
        return ordered;
    }

    private static boolean waitsForParent(Table child, List<Table> open) {
        return child.links().stream()
                .map(ForeignKey::parent)
                .anyMatch(parent -> !parent.equals(child.name())
                        && open.stream().anyMatch(table -> table.name().equals(parent)));
    }

    List<RowCheck> checksOf(Table table) {
        return checks.get(table.name());
    }

    /** Places of the columns that the checks of a table read, ascending. */
    int[] columnsOf(Table table) {
        Set<Integer> columns = new TreeSet<>();
        for (RowCheck check : checksOf(table)) {
            for (int column : check.columns()) {
                columns.add(column);
            }
        }
        return columns.stream().mapToInt(Integer::intValue).toArray();
    }

    /** The tables whose keys the checks of a table look up while it is read, itself left out. */
    Set<String> parentsOf(Table table) {
        Set<String> parents = new LinkedHashSet<>();
        for (PlannedLink planned : links) {
            if (planned.link().child().equals(table.name())) {
                parents.add(planned.link().parent());
            }
        }
        parents.remove(table.name());
        return parents;
    }

    /** Where malformed rows of a table are logged; empty when the table is read for its keys alone. */
    Optional<FaultLog> malformedOf(Table table) {
        return Optional.ofNullable(malformed.get(table.name()));
    }

    /** All rows of a table have been read: its keys are all there. */
    void seal(Table table) {
        indexes.forEach((id, index) -> {
            if (id.table().equals(table.name())) {
                index.seal();
            }
        });
    }

    /** Works out what had to wait for all tables, but for {@link #repeatedIn}; closes what only that needed. */
    void resolve() {
        allIndexes().forEach(KeyIndex::resolve);
        partialParents.forEach(PartialParents::resolve);
        childrenChecks.forEach(ChildrenCheck::resolve);
        parentRules.forEach(ParentRuleCheck::resolve);
        rings.values().forEach(AcyclicCheck::resolve);
        gaps.forEach(planned -> planned.check().resolve());
        links.forEach(
                planned -> planned.check().missingValues().count(Math.max(options.hinted(), options.namedValues())));
        partialParents.forEach(PartialParents::close);
        childrenChecks.forEach(ChildrenCheck::close);
        parentRules.forEach(ParentRuleCheck::close);
        rings.values().forEach(AcyclicCheck::close);
        links.forEach(planned -> planned.check().close());
    }

    private Set<KeyIndex> allIndexes() {
        Set<KeyIndex> all = new LinkedHashSet<>(ownIndexes);
        all.addAll(indexes.values());
        return all;
    }

    /** What must still be found in a table, by reading some of its rows again: rows with keys that are repeated. */
    List<RepeatedRows> repeatedIn(Table table) {
        List<RepeatedRows> all = new ArrayList<>();
        duplicates.forEach((log, repeated) -> {
            if (log.table().equals(table.name()) && repeated.hasAny()) {
                all.add(repeated);
            }
        });
        return all;
    }

    /** Lets go of all keys. */
    void closeIndexes() {
        allIndexes().forEach(KeyIndex::close);
        duplicates.values().forEach(RepeatedRows::close);
    }

    /** Whether rows of a table are at fault; those of a parent can be, though only its child is judged. */
    boolean hasFaults(Table table) {
        return logs.stream().anyMatch(log -> log.size() > 0 && log.table().equals(table.name()));
    }

    List<FaultLog> logs() {
        return logs;
    }

    List<PlannedLink> links() {
        return links;
    }

    List<PlannedGaps> gaps() {
        return gaps;
    }

    List<PlannedRule> rules() {
        return rules;
    }

    /** What is known about the groups behind a log of duplicates. */
    RepeatedRows repeatedOf(FaultLog log) {
        return duplicates.get(log);
    }

    /** How many rings the rows of a log stand in. */
    long ringsOf(FaultLog log) {
        return rings.get(log).rings();
    }

    /** The check behind a log of orphans. */
    LinkCheck linkOf(FaultLog log) {
        return orphans.get(log);
    }

    /** The link over which the children behind a log were counted. */
    ForeignKey countedLinkOf(FaultLog log) {
        return childCounts.get(log);
    }

    @Override
    public void close() {
        gaps.forEach(planned -> planned.check().close());
        logs.forEach(FaultLog::close);
    }
}
