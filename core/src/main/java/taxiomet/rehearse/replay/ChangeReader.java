package taxiomet.rehearse.replay;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.charter.Column;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.InQuery;
import taxiomet.expression.DivisionByZero;
import taxiomet.expression.Evaluator;
import taxiomet.personal.Pseudonyms;
import taxiomet.proposal.Change;
import taxiomet.proposal.Input;
import taxiomet.proposal.Origin;
import taxiomet.proposal.ProposalException;
import taxiomet.rehearse.reach.CellCodec;
import taxiomet.rehearse.reach.ExpressionCondition;
import taxiomet.rehearse.reach.LineCondition;
import taxiomet.rehearse.reach.ListedCondition;
import taxiomet.rehearse.reach.NumberedCondition;
import taxiomet.rehearse.reach.QueryAnswer;
import taxiomet.rehearse.reach.ReachedRow;
import taxiomet.rehearse.reach.ReachedRows;
import taxiomet.rehearse.reach.ReachedTable;
import taxiomet.rehearse.reach.RowCondition;
import taxiomet.rehearse.reach.RowLeaves;
import taxiomet.rehearse.reach.Unread;
import taxiomet.rows.RowRef;

/** Finds the rows that changes name, and the values that they write, in the state that a replay has come to. */
public final class ChangeReader {
    private static final long MICROS_PER_DAY = 86_400_000_000L;

    private final ReachedRows rows;
    private final Instant now;
    private final Evaluator evaluator = new Evaluator();
    private final Assigning assigning;
    private final Map<Change.Listed, LineCondition> listed = new HashMap<>();

    /** Turns what an expression gave into a column's type; {@link Unread} where that cannot be. */
    public interface Assigning {
        Object assign(CellCodec codec, Object value);
    }

    /** Says what becomes of a row. */
    public interface Assigner {
        /** The values, by slots, that the row is to have. */
        Object[] values(ReachedRow row);

        /** The columns that the statement sets, whether they change or not. */
        int[] columnsSet();
    }

    /** @param now what {@code current_timestamp} is */
    public ChangeReader(ReachedRows rows, Instant now, Assigning assigning) {
        this.rows = rows;
        this.now = now;
        this.assigning = assigning;
    }

    /** The values of an UPDATE that are the same for all rows, by the columns that they are for. */
    Map<String, Object> constants(Change change) {
        Map<String, Object> constants = new LinkedHashMap<>();
        if (change instanceof Change.Update update) {
            ReachedTable table = rows.table(update.table());
            update.assignments().forEach((column, input) -> {
                boolean isConstant = input instanceof Input.Computed computed
                        && computed.value().leaves().isEmpty()
                        && computed.value().queries().isEmpty();
                if (isConstant) {
                    constants.put(column, value(table, table.table().indexOf(column), input, new Object[0]));
                }
            });
        }
        return constants;
    }

    /** The rows that a change names, in the order in which they stand. */
    public List<ReachedRow> targets(Change change) {
        ReachedTable table = rows.table(change.table());
        RowCondition condition = condition(change);
        if (change instanceof Change.Delete || change instanceof Change.DeleteListed) {
            table.expectDeletes(condition);
        }
        List<ReachedRow> found = table.matching(condition);
        if (change instanceof Change.Listed list && rows.misses() == 0) {
            LineCondition lines = listed.get(list);
            if (lines instanceof NumberedCondition) {
                requireAsSeen(table, lines, found, list);
            } else {
                requireFound(lines, found, list);
            }
        }
        return found;
    }

    /** What names the rows of a change. */
    RowCondition condition(Change change) {
        ReachedTable table = rows.table(change.table());
        if (change instanceof Change.Delete delete) {
            return bound(table, delete.where(), delete.origin());
        } else if (change instanceof Change.Update update) {
            return bound(table, update.where(), update.origin());
        } else if (change instanceof Change.Listed list) {
            return listed.computeIfAbsent(list, l -> conditionOf(table, l.columns(), l.rows()));
        }
        throw new IllegalStateException("no rows are named by " + change);
    }

    private ExpressionCondition bound(ReachedTable table, Optional<Expression> where, Origin origin) {
        Map<InQuery, QueryAnswer> answers = new HashMap<>();
        where.ifPresent(expression -> expression.queries().forEach(query -> answers.put(query, answer(query, origin))));
        return new ExpressionCondition(table, where, answers, origin.place());
    }

    private QueryAnswer answer(InQuery query, Origin origin) {
        ReachedTable table = rows.table(query.table());
        Set<Object> values = new HashSet<>();
        boolean hasNull = false;
        for (ReachedRow row : table.matching(bound(table, query.where(), origin))) {
            Object value = table.codec(query.column()).operand(row.value(query.column()));
            if (value == null) {
                hasNull = true;
            } else {
                values.add(QueryAnswer.plain(value));
            }
        }
        return new QueryAnswer(values, hasNull);
    }

    private LineCondition conditionOf(ReachedTable table, List<String> columns, List<Change.ListedRow> lines) {
        if (lines.stream().anyMatch(line -> line.at().isPresent())) {
            return numbered(table, lines);
        }
        int[] places = table.table().indexesOf(columns);
        Map<Object, Integer> byKey = new LinkedHashMap<>();
        for (int i = 0; i < lines.size(); i++) {
            Object key = ListedCondition.keyOfCells(table, places, lines.get(i).key());
            Integer before = byKey.putIfAbsent(key, i);
            if (before != null) {
                throw new ProposalException(
                        lines.get(i).place(),
                        "this line names the same row of " + table.table().name() + " as "
                                + lines.get(before).place(),
                        "keep one of the two");
            }
        }
        return new ListedCondition(table, places, byKey);
    }

    private static NumberedCondition numbered(ReachedTable table, List<Change.ListedRow> lines) {
        Map<Long, Integer> byRef = new LinkedHashMap<>();
        for (int i = 0; i < lines.size(); i++) {
            Change.ListedRow line = lines.get(i);
            Change.RowPlace at = line.at().orElseThrow();
            int part = table.files().indexOf(at.file());
            if (part < 0) {
                throw new ProposalException(
                        line.place(),
                        "`" + at.file() + "` is no file of " + table.table().name(),
                        "its files are " + String.join(", ", table.files()));
            }
            Integer before = byRef.putIfAbsent(RowRef.of(part, at.row()), i);
            if (before != null) {
                throw new ProposalException(
                        line.place(),
                        "this line names the same row as " + lines.get(before).place(),
                        "keep one of the two");
            }
        }
        return new NumberedCondition(table, byRef);
    }

    /** Rows that are named by number hold what stands beside the number, and every number finds one. */
    private static void requireAsSeen(
            ReachedTable table, LineCondition condition, List<ReachedRow> found, Change.Listed change) {
        int[] columns = table.table().indexesOf(change.columns());
        boolean[] isThere = new boolean[change.rows().size()];
        List<ProposalException> faults = new ArrayList<>();
        for (ReachedRow row : found) {
            int number = condition.lineOf(row.ref, row.values);
            Change.ListedRow line = change.rows().get(number);
            isThere[number] = true;
            for (int i = 0; i < columns.length; i++) {
                String seen = line.key().get(i);
                if (row.isChanged() || holds(table, columns[i], row, seen)) {
                    continue;
                }
                Column column = table.column(columns[i]);
                if (column.isPersonal() && Pseudonyms.isOne(seen)) {
                    // Evidence has pseudonyms there, which say nothing to another run.
                    continue;
                }
                String now = Pseudonyms.hidden(column, table.codec(columns[i]).write(row.value(columns[i])));
                faults.add(new ProposalException(
                        line.place(),
                        "row " + line.at().orElseThrow().row() + " no longer holds what stands beside it: "
                                + change.columns().get(i) + " is " + (now == null ? "null" : "`" + now + "`")
                                + ", not " + (seen == null ? "null" : "`" + Pseudonyms.hidden(column, seen) + "`"),
                        "check again, and take the line from the new evidence"));
            }
        }
        for (int i = 0; i < isThere.length; i++) {
            if (!isThere[i]) {
                Change.RowPlace at = change.rows().get(i).at().orElseThrow();
                faults.add(new ProposalException(
                        change.rows().get(i).place(),
                        "there is no row " + at.row() + " in " + at.file() + ", or it is malformed",
                        "take the line out, or correct its number"));
            }
        }
        if (!faults.isEmpty()) {
            throw ProposalException.ofAll(faults);
        }
    }

    /** Whether a row holds a cell of evidence, in which an apostrophe may stand before what a spreadsheet would reckon with. */
    private static boolean holds(ReachedTable table, int column, ReachedRow row, String seen) {
        Object value = row.value(column);
        if (seen == null || value == null) {
            return seen == null && value == null;
        }
        CellCodec codec = table.codec(column);
        boolean isPlain = CellCodec.isSame(codec.parse(seen), value);
        return isPlain || (seen.startsWith("'") && CellCodec.isSame(codec.parse(seen.substring(1)), value));
    }

    /** Every line finds its row; by a whole key, or where values are to be written, one row alone. */
    private void requireFound(LineCondition condition, List<ReachedRow> found, Change.Listed change) {
        ReachedTable table = rows.table(change.table());
        boolean isUpdate = change instanceof Change.UpdateListed;
        List<Change.ListedRow> lines = change.rows();
        List<String> columns = change.columns();
        int[] counts = new int[lines.size()];
        for (ReachedRow row : found) {
            counts[condition.lineOf(row.ref, row.values)]++;
        }
        boolean isByKey = isUpdate || table.table().keys().stream().anyMatch(key -> columns.containsAll(key.columns()));
        requireAllFound(table, columns, lines, counts);
        for (int i = 0; i < counts.length; i++) {
            Change.ListedRow line = lines.get(i);
            if (counts[i] > 1 && isByKey) {
                throw new ProposalException(
                        line.place(),
                        counts[i] + " rows of " + table.table().name() + " have " + named(table, columns, line.key())
                                + ", and one is meant",
                        "add columns that tell them apart, or mend the duplicates first");
            }
        }
    }

    private static void requireAllFound(
            ReachedTable table, List<String> columns, List<Change.ListedRow> lines, int[] counts) {
        List<ProposalException> lost = new ArrayList<>();
        for (int i = 0; i < counts.length; i++) {
            if (counts[i] == 0) {
                Change.ListedRow line = lines.get(i);
                lost.add(new ProposalException(
                        line.place(),
                        "no row of " + table.table().name() + " has " + named(table, columns, line.key()),
                        "take the line out, or correct its key"));
            }
        }
        if (!lost.isEmpty()) {
            throw ProposalException.ofAll(lost);
        }
    }

    private static String named(ReachedTable table, List<String> columns, List<String> key) {
        List<String> parts = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            String cell = Pseudonyms.hidden(table.table().column(columns.get(i)), key.get(i));
            parts.add(columns.get(i) + " " + (cell == null ? "null" : "`" + cell + "`"));
        }
        return String.join(", ", parts);
    }

    /**
     * How the rows that a change names are written.
     *
     * @param inTurn whether an assignment sees what those before it have given, and not the row as it was
     */
    Assigner assigner(Change change, boolean inTurn) {
        ReachedTable table = rows.table(change.table());
        if (change instanceof Change.Update update) {
            List<String> names = List.copyOf(update.assignments().keySet());
            List<Input> inputs = List.copyOf(update.assignments().values());
            return assigner(table, names, row -> inputs, inTurn);
        }
        Change.UpdateListed update = (Change.UpdateListed) change;
        LineCondition condition = listed.get(update);
        return assigner(
                table,
                update.newColumns(),
                row -> update.rows().get(condition.lineOf(row.ref, row.values)).values(),
                false);
    }

    private interface InputsOf {
        List<Input> of(ReachedRow row);
    }

    private Assigner assigner(ReachedTable table, List<String> names, InputsOf inputs, boolean inTurn) {
        int[] columns = table.table().indexesOf(names);
        return new Assigner() {
            @Override
            public Object[] values(ReachedRow row) {
                Object[] values = row.values.clone();
                List<Input> given = inputs.of(row);
                for (int i = 0; i < columns.length; i++) {
                    Object[] seen = inTurn ? values : row.values;
                    values[table.slotOf(columns[i])] = value(table, columns[i], given.get(i), seen);
                }
                return values;
            }

            @Override
            public int[] columnsSet() {
                return columns.clone();
            }
        };
    }

    /**
     * The value that an input gives a cell; {@link Unread} when it is not of the column's type.
     *
     * @param current the values of the row, for expressions
     */
    Object value(ReachedTable table, int column, Input input, Object[] current) {
        CellCodec codec = table.codec(column);
        if (input instanceof Input.Cell cell) {
            return cell.text() == null ? null : codec.parse(cell.text());
        } else if (input instanceof Input.Computed computed) {
            for (int read : computed.value().columnsRead()) {
                // Nothing can be reckoned from a value that is not of its type; it can stay where it is.
                if (current[table.slotOf(read)] instanceof Unread unread) {
                    boolean stays = read == column && computed.value() instanceof Expression.ColumnValue;
                    return stays ? unread : new Unread(unread.text());
                }
            }
            try {
                return assigning.assign(codec, evaluator.evaluate(computed.value(), new RowLeaves(table, current)));
            } catch (DivisionByZero e) {
                return new Unread("a division by zero");
            }
        }
        return defaultOf(table, column);
    }

    /** What an insert that leaves a column out writes, and what set default does. */
    Object defaultOf(ReachedTable table, int column) {
        Optional<DefaultValue> declared = table.column(column).defaultValue();
        if (declared.isEmpty()) {
            return null;
        }
        CellCodec codec = table.codec(column);
        long micros = ChronoUnit.MICROS.between(Instant.EPOCH, now);
        if (declared.get() instanceof DefaultValue.Clock clock) {
            long ofDay = Math.floorMod(micros, MICROS_PER_DAY);
            return switch (table.column(column).type().name()) {
                case TIME -> codec.assign(ofDay);
                case DATE -> codec.assign(micros - ofDay);
                default -> codec.assign(clock.word() == DefaultValue.Word.CURRENT_DATE ? micros - ofDay : micros);
            };
        } else if (declared.get() instanceof DefaultValue.ByServer byServer) {
            return new Unread("the default " + byServer.text() + ", which the server alone works out");
        }
        return codec.parse(declared.get().text());
    }

    /** All columns of a table. */
    public static int[] allColumns(ReachedTable table) {
        int[] columns = new int[table.width()];
        Arrays.setAll(columns, i -> i);
        return columns;
    }
}
