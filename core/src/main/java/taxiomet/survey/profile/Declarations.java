package taxiomet.survey.profile;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Comparison;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.IntRange;
import taxiomet.charter.Key;
import taxiomet.charter.Rule;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;

/** Tables, columns and links as a charter declares them, made of what was found. */
public final class Declarations {
    private Declarations() {}

    /** The table with all its columns as texts, to be read for the first time. */
    public static Table unknown(FoundTable found) {
        return table(
                found,
                found.columns().stream()
                        .map(name -> Column.of(name, ColumnType.of(ColumnType.Name.TEXT)))
                        .toList());
    }

    public static Table table(FoundTable found, List<Column> columns) {
        return new Table(
                found.name(),
                Optional.empty(),
                found.rows(),
                columns,
                Optional.empty(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                Optional.empty(),
                Optional.empty());
    }

    public static Table with(
            Table table, Optional<Key> primary, List<Key> unique, List<ForeignKey> links, List<Rule> rules) {
        return new Table(
                table.name(),
                table.schema(),
                table.rows(),
                table.columns(),
                primary,
                unique,
                links,
                rules,
                table.label(),
                table.totals(),
                table.area(),
                table.owner());
    }

    public static Column column(ColumnProfile profile, ColumnType type, boolean isRequired) {
        return new Column(
                profile.name(),
                type,
                isRequired,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Comparison.EXACT,
                profile.guess().format(),
                profile.guess().decimalComma(),
                Optional.empty(),
                Column.Generated.NEVER,
                type.name() == ColumnType.Name.INTEGER,
                false,
                false,
                Severity.ERROR);
    }

    public static List<String> names(TableProfile table, int[] columns) {
        List<String> names = new ArrayList<>();
        for (int column : columns) {
            names.add(table.columns.get(column).name());
        }
        return names;
    }

    /** The table with its columns as they are guessed. */
    public static Table typed(TableProfile profile) {
        return table(
                profile.table,
                profile.columns.stream()
                        .map(c -> column(c, c.guess().type(), false))
                        .toList());
    }

    public static ForeignKey link(
            String name,
            String child,
            List<String> columns,
            String parent,
            List<String> parentColumns,
            Optional<IntRange> children,
            boolean isAcyclic) {
        return new ForeignKey(
                name,
                child,
                columns,
                parent,
                parentColumns,
                Match.SIMPLE,
                Action.NONE,
                Action.NONE,
                Deferrable.NO,
                true,
                Optional.empty(),
                children,
                isAcyclic,
                Severity.ERROR);
    }
}
