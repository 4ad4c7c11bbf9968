package taxiomet.cli.option;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import picocli.CommandLine.Option;
import taxiomet.browse.RowAsked;
import taxiomet.charter.Charter;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Table;
import taxiomet.charters.Charters;
import taxiomet.charters.sql.ExpressionException;
import taxiomet.cli.terminal.UsageException;

/** Which row is meant: by a key as an argument, by a condition, or by where it stands. */
public final class RowOptions {
    private static final Pattern PLACE = Pattern.compile("(?:(.+):)?([0-9]{1,12})");
    /** A column's name and what it holds, such as {@code hive_id=3}. */
    private static final Pattern NAMED = Pattern.compile("\\s*([^=,\"]+?)\\s*=(.*)", Pattern.DOTALL);

    @Option(
            names = "--where",
            paramLabel = "CONDITION",
            description = "The row that meets a condition over its columns, in SQL: \"joined_on < '2020-01-01'\".")
    private String where;

    @Option(
            names = "--row",
            paramLabel = "[FILE:]N",
            description =
                    "The row with this number, 1 for the first data row: where its key is null, or another row has it too.")
    private String row;

    /** Which row of a table is meant. */
    public RowAsked asked(Charter charter, Table table, Optional<String> key) {
        long ways = (key.isPresent() ? 1 : 0) + (where == null ? 0 : 1) + (row == null ? 0 : 1);
        if (ways != 1) {
            throw new UsageException((ways == 0 ? "which row of " + table.name() + "?" : "a row is named in one way")
                    + " write its key (" + example(table) + "), --where CONDITION or --row N");
        }
        if (where != null) {
            try {
                return new RowAsked.ByCondition(Charters.condition(charter, table.name(), where));
            } catch (ExpressionException e) {
                throw new UsageException("--where: " + e.words());
            }
        }
        return row != null ? byPlace() : byKey(table, key.orElseThrow());
    }

    private static String example(Table table) {
        return table.namingKey().isEmpty()
                ? "COLUMN=VALUE, as the table has no key"
                : String.join(", ", table.namingKey());
    }

    private RowAsked byPlace() {
        Matcher place = PLACE.matcher(row);
        if (!place.matches() || Long.parseLong(place.group(2)) == 0) {
            throw new UsageException("--row " + row + ": write a number from 1 on, or FILE:N");
        }
        return new RowAsked.ByNumber(Optional.ofNullable(place.group(1)), Long.parseLong(place.group(2)));
    }

    private static RowAsked byKey(Table table, String key) {
        Optional<RowAsked> named = byColumns(table, key);
        if (named.isPresent()) {
            return named.get();
        }
        List<String> columns = table.namingKey();
        if (columns.isEmpty()) {
            throw new UsageException(
                    table.name() + " has no key; name a row by columns (COLUMN=VALUE), --where or --row");
        }
        List<List<String>> readings = KeyText.readings(key, columns.size());
        if (readings.isEmpty()) {
            throw new UsageException("the key of " + table.name() + " has "
                    + (columns.size() == 1 ? "one column" : columns.size() + " columns") + ": "
                    + String.join(", ", columns));
        }
        return new RowAsked.ByCells(columns, readings);
    }

    /** A key whose columns are named: {@code visit_no=3, on_day=2024-05-01}. */
    private static Optional<RowAsked> byColumns(Table table, String key) {
        if (!NAMED.matcher(key).matches()) {
            return Optional.empty();
        }
        List<String> parts = KeyText.parts(key);
        List<String> columns = new ArrayList<>();
        List<String> cells = new ArrayList<>();
        for (String part : parts) {
            Matcher matcher = NAMED.matcher(part);
            if (!matcher.matches()) {
                return Optional.empty();
            }
            columns.add(matcher.group(1));
            cells.add(KeyText.parts(matcher.group(2)).get(0));
        }
        List<String> known =
                table.columns().stream().map(column -> column.name()).toList();
        for (String column : columns) {
            if (!known.contains(column)) {
                if (table.namingKey().size() == 1) {
                    return Optional.empty();
                }
                throw new UsageException(table.name() + " has no column " + column
                        + NearestWord.of(column, known)
                                .map(near -> "; did you mean " + near + "?")
                                .orElse(""));
            }
        }
        return Optional.of(new RowAsked.ByCells(columns, List.of(cells)));
    }
}
