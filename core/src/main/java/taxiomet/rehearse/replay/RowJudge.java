package taxiomet.rehearse.replay;

import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.IntPredicate;
import taxiomet.charter.Column;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.finding.RefusalKind;
import taxiomet.keys.KeyForm;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowLeaves;
import taxiomet.rehearse.reach.Unread;

/** Judges the values of rows that are written by the rules of their own table, keys apart (R4). It knows one table. */
public final class RowJudge {
    private final ReachedTable table;
    private final IntPredicate isRequired;
    private final List<ColumnRule> columnRules = new ArrayList<>();
    private final List<Rule> rules;
    private final Evaluator evaluator = new Evaluator();

    /** Which rules are judged of a row that was there before (R2, P1, L2). */
    public enum Scope {
        /** Those that read a column which gets another value. */
        CHANGED,
        /** Those that read a column which the statement sets. */
        SET,
        /** All. */
        ALL
    }

    /** A rule that one column has for its values. */
    private record ColumnRule(RefusalKind kind, int column, Test test) {}

    private interface Test {
        boolean isMetBy(Object value);
    }

    /**
     * @param rulesByName whether rules are judged in the order of their names, not as they are declared
     * @param isRequired whether a column, by its place, may not be null
     */
    RowJudge(ReachedTable table, boolean rulesByName, IntPredicate isRequired) {
        this.table = table;
        this.isRequired = isRequired;
        List<Rule> refusing = new ArrayList<>(table.table().rules().stream()
                .filter(rule ->
                        rule.severity() == Severity.ERROR && !rule.condition().readsRelatives())
                .toList());
        if (rulesByName) {
            refusing.sort(java.util.Comparator.comparing(Rule::name));
        }
        this.rules = refusing;
        for (int i = 0; i < table.width(); i++) {
            int place = i;
            Column column = table.column(i);
            if (column.severity() != Severity.ERROR) {
                continue;
            }
            if (!column.values().isEmpty()) {
                Set<Object> allowed = allowed(place);
                KeyForm form = KeyForm.of(column);
                columnRules.add(new ColumnRule(
                        RefusalKind.VALUE_NOT_ALLOWED,
                        place,
                        value -> allowed.contains(CellCodec.keyPart(value, form))));
            }
            column.pattern().ifPresent(pattern -> {
                Pattern compiled = Pattern.compile(pattern);
                columnRules.add(new ColumnRule(
                        RefusalKind.PATTERN_NOT_MET,
                        place,
                        value -> compiled.matches(table.codec(place).write(value))));
            });
            column.length()
                    .ifPresent(range -> columnRules.add(new ColumnRule(RefusalKind.WRONG_LENGTH, place, value -> {
                        String text = (String) value;
                        return range.contains(text.codePointCount(0, text.length()));
                    })));
        }
    }

    private Set<Object> allowed(int place) {
        Set<Object> allowed = new HashSet<>();
        KeyForm form = KeyForm.of(table.column(place));
        for (String text : table.column(place).values()) {
            allowed.add(CellCodec.keyPart(table.codec(place).parse(text), form));
        }
        return allowed;
    }

    /**
     * Judges a row.
     *
     * @param before the values before it was written; null for a new row
     * @param columnsSet the columns that the statement sets
     */
    public void judge(ReachedRow row, Object[] before, int[] columnsSet, Scope scope, Refusals refusals) {
        boolean[] isJudged = columnsJudged(row, before, columnsSet, scope);
        for (int column = 0; column < table.width(); column++) {
            if (isJudged[column] && table.keeps(column) && row.value(column) == null && isRequired.test(column)) {
                refusals.add(
                        RefusalKind.NULL_NOT_ALLOWED,
                        table,
                        table.column(column).name(),
                        row);
            }
        }
        for (ColumnRule rule : columnRules) {
            if (isJudged[rule.column()]) {
                Object value = row.value(rule.column());
                if (value != null && !(value instanceof Unread) && !rule.test().isMetBy(value)) {
                    refusals.add(rule.kind(), table, table.column(rule.column()).name(), row);
                }
            }
        }
        for (Rule rule : rules) {
            if (reads(rule, isJudged) && !holds(rule, row)) {
                refusals.add(RefusalKind.BROKEN_RULE, table, rule.name(), row);
            }
        }
    }

    private boolean[] columnsJudged(ReachedRow row, Object[] before, int[] columnsSet, Scope scope) {
        boolean[] isJudged = new boolean[table.width()];
        if (before == null || scope == Scope.ALL) {
            java.util.Arrays.fill(isJudged, true);
        } else if (scope == Scope.SET) {
            for (int column : columnsSet) {
                isJudged[column] = true;
            }
        } else {
            for (int column = 0; column < table.width(); column++) {
                int slot = table.slotOf(column);
                isJudged[column] = slot >= 0 && !CellCodec.isSame(before[slot], row.values[slot]);
            }
        }
        return isJudged;
    }

    private static boolean reads(Rule rule, boolean[] columns) {
        for (int column : rule.condition().columnsRead()) {
            if (columns[column]) {
                return true;
            }
        }
        return false;
    }

    private boolean holds(Rule rule, ReachedRow row) {
        for (int column : rule.condition().columnsRead()) {
            if (row.value(column) instanceof Unread) {
                return true;
            }
        }
        try {
            Object value = evaluator.evaluate(rule.condition(), new RowLeaves(table, row.values));
            return value == null || (Boolean) value;
        } catch (DivisionByZero e) {
            return false;
        }
    }

    /** The keys that refuse rows: the primary key first, then unique keys as declared. */
    public static List<Key> keysOf(ReachedTable table) {
        return table.table().keys().stream()
                .filter(key -> key.severity() == Severity.ERROR)
                .toList();
    }
}
