package taxiomet.sources.jdbc;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Table;
import taxiomet.rows.Inside;
import taxiomet.rows.RowBatch;
import taxiomet.rows.Sieved.NullCounts;
import taxiomet.rows.SievedRows;
import taxiomet.rows.Sought;
import taxiomet.rows.Suspicion;
import taxiomet.rows.TableSource;
import taxiomet.sources.file.CursorSource;

/** A table on a server that is asked for rows that may be at fault, in conditions of SQL. */
abstract class SqlInside implements Inside {
    /** More suspect rows of a table than this are not looked up one by one: reading it is sooner done. */
    static final int MOST_ROWS = 200_000;

    private final JdbcSource source;
    private final Table table;
    private final Charter charter;
    private final Map<String, TableSource> sources;
    private final SqlNames names;

    SqlInside(JdbcSource source, Table table, Charter charter, Map<String, TableSource> sources) {
        this.source = source;
        this.table = table;
        this.charter = charter;
        this.sources = sources;
        this.names = SqlNames.of(source.session().server());
    }

    /** More rows are suspect than are looked up. */
    static final class TooMany extends SQLException {
        static final long serialVersionUID = 1;
    }

    /** A text column such that equal texts are those of the same characters; other columns as they are. */
    abstract String compared(ColumnInside column, String quoted);

    /** How a query begins whose groups are almost as many as its rows. */
    String selectGroups() {
        return "SELECT ";
    }

    final JdbcSource source() {
        return source;
    }

    /** The names of columns by their places in the table. */
    final List<String> columns(List<Integer> places) {
        return places.stream().map(place -> column(place).name()).toList();
    }

    private Column column(int place) {
        return table.columns().get(place);
    }

    @Override
    public Optional<String> whyNot(Suspicion suspicion) {
        if (suspicion instanceof Suspicion.Null || suspicion instanceof Suspicion.PartlyNull) {
            return Optional.empty();
        } else if (suspicion instanceof Suspicion.NotAsDeclared odd) {
            return oddness(source, column(odd.column()), "").isPresent()
                    ? Optional.empty()
                    : Optional.of("whether `" + column(odd.column()).name() + "` is "
                            + column(odd.column()).type().sql() + " is judged here alone");
        } else if (suspicion instanceof Suspicion.LengthOutside length) {
            return whyNotText(length.column(), ColumnInside.Kind.TEXT);
        } else if (suspicion instanceof Suspicion.NotAmong among) {
            return whyNotText(among.column(), ColumnInside.Kind.TEXT, ColumnInside.Kind.PADDED_TEXT);
        } else if (suspicion instanceof Suspicion.Repeated repeated) {
            return repeated.nullsAreEqual()
                    ? Optional.of("rows with nulls that are taken for equal are looked for here alone")
                    : whyNotCompared(repeated.columns());
        }
        return whyNotHeld((Suspicion.WithoutParent) suspicion);
    }

    private Optional<String> whyNotText(int place, ColumnInside.Kind... kinds) {
        boolean isText = inside(source, column(place))
                .filter(there -> List.of(kinds).contains(there.kind()) && there.isComparedAs(column(place)))
                .isPresent();
        return isText ? Optional.empty() : Optional.of(notCompared(column(place).name()));
    }

    private static String notCompared(String column) {
        return "the server does not compare `" + column + "` as it is declared";
    }

    private Optional<String> whyNotCompared(List<Integer> places) {
        return places.stream()
                .map(this::column)
                .filter(column -> inside(source, column)
                        .filter(there -> there.isComparedAs(column))
                        .isEmpty())
                .map(column -> notCompared(column.name()))
                .findFirst();
    }

    private Optional<String> whyNotHeld(Suspicion.WithoutParent orphan) {
        if (!(sources.get(orphan.parent()) instanceof JdbcSource parents)
                || parents.session() != source.session()
                || parents.isQuery()) {
            return Optional.of(orphan.parent() + " is not a table of the same database");
        }
        Optional<String> own = whyNotCompared(orphan.columns());
        if (own.isPresent()) {
            return own;
        }
        for (int i = 0; i < orphan.columns().size(); i++) {
            Column theirs = parentColumn(orphan, i);
            ColumnInside ours = inside(source, column(orphan.columns().get(i))).orElseThrow();
            boolean isAlike = inside(parents, theirs)
                    .filter(there -> there.isComparedAs(theirs) && there.kind() == ours.kind())
                    .isPresent();
            if (!isAlike || oddness(parents, theirs, "").isEmpty()) {
                return Optional.of(notCompared(theirs.name()) + " in " + orphan.parent());
            }
        }
        return Optional.empty();
    }

    private Column parentColumn(Suspicion.WithoutParent orphan, int index) {
        return charter.table(orphan.parent())
                .columns()
                .get(orphan.parentColumns().get(index));
    }

    private static Optional<ColumnInside> inside(JdbcSource of, Column column) {
        return of.there().inside(column.name());
    }

    private Optional<String> oddness(JdbcSource of, Column column, String alias) {
        return inside(of, column)
                .flatMap(there -> there.oddness(
                        column,
                        alias + names.quoted(column.name()),
                        source.session().server()));
    }

    /** A column as it is compared. */
    final String compared(int place, String alias) {
        return compared(source, column(place), alias);
    }

    private String compared(JdbcSource of, Column column, String alias) {
        return compared(inside(of, column).orElseThrow(), alias + names.quoted(column.name()));
    }

    /** Whether a column holds numbers. */
    final boolean isNumber(int place) {
        return inside(source, column(place)).orElseThrow().kind() == ColumnInside.Kind.NUMBER;
    }

    final boolean isText(int place) {
        return isPadded(place) || inside(source, column(place)).orElseThrow().kind() == ColumnInside.Kind.TEXT;
    }

    /** Whether trailing blanks of a column's texts do not count. */
    final boolean isPadded(int place) {
        return inside(source, column(place)).orElseThrow().kind() == ColumnInside.Kind.PADDED_TEXT;
    }

    /** The type of a column as the server calls it. */
    final String typeOf(int place) {
        return inside(source, column(place)).orElseThrow().typeName();
    }

    /** What a row itself is suspected of, as a condition over the alias {@code own}; empty for what other rows have a part in. */
    final Optional<Sql> condition(Suspicion suspicion) {
        if (suspicion instanceof Suspicion.Null none) {
            return Optional.of(Sql.of(own(none.column()) + " IS NULL"));
        } else if (suspicion instanceof Suspicion.NotAsDeclared odd) {
            return oddness(source, column(odd.column()), "own.")
                    .filter(text -> !text.isEmpty())
                    .map(Sql::of);
        } else if (suspicion instanceof Suspicion.LengthOutside length) {
            return Optional.of(Sql.of("char_length(" + own(length.column()) + ") NOT BETWEEN "
                    + length.range().least() + " AND " + length.range().most()));
        } else if (suspicion instanceof Suspicion.NotAmong among) {
            return Optional.of(new Sql(
                    compared(among.column(), "own.") + " NOT IN "
                            + Sql.marks(among.values().size()),
                    List.copyOf(among.values())));
        } else if (suspicion instanceof Suspicion.PartlyNull partly) {
            return Optional.of(Sql.of(someNull(partly.columns())));
        }
        return Optional.empty();
    }

    private String own(int place) {
        return "own." + names.quoted(column(place).name());
    }

    /** Nulls in all columns. */
    final String allNull(List<Integer> places) {
        return places.stream().map(place -> own(place) + " IS NULL").collect(Collectors.joining(" AND ", "(", ")"));
    }

    /** Nulls in some columns, and not in all. */
    final String someNull(List<Integer> places) {
        return places.stream().map(place -> own(place) + " IS NULL").collect(Collectors.joining(" OR ", "((", ")"))
                + " AND NOT " + allNull(places) + ")";
    }

    /** No nulls. */
    final String noNull(List<Integer> places) {
        return places.stream().map(place -> own(place) + " IS NOT NULL").collect(Collectors.joining(" AND "));
    }

    /** The child's columns, compared. */
    final String ownColumns(List<Integer> places) {
        return places.stream().map(place -> compared(place, "own.")).collect(Collectors.joining(", "));
    }

    /** The columns, compared, under the names {@code v0}, {@code v1} and so on. */
    final String values(List<Integer> key) {
        return IntStream.range(0, key.size())
                .mapToObj(i -> compared(key.get(i), "own.") + " AS v" + i)
                .collect(Collectors.joining(", "));
    }

    /** A query for the values of some columns that stand in several rows: {@code v0}, {@code v1} and so on. */
    final String severalTimes(List<Integer> key) {
        String places =
                IntStream.rangeClosed(1, key.size()).mapToObj(Integer::toString).collect(Collectors.joining(", "));
        return selectGroups() + values(key) + " FROM " + source.from() + " own WHERE " + noNull(key) + " GROUP BY "
                + places + " HAVING count(*) > 1";
    }

    /** The columns of a parent, compared, over the alias {@code parent}. */
    final List<String> parentColumns(Suspicion.WithoutParent orphan) {
        JdbcSource parents = parents(orphan);
        List<String> all = new ArrayList<>();
        for (int i = 0; i < orphan.columns().size(); i++) {
            all.add(compared(parents, parentColumn(orphan, i), "parent."));
        }
        return all;
    }

    /** Where a link's parents stand, under the alias {@code parent}. */
    final String fromParents(Suspicion.WithoutParent orphan) {
        return parents(orphan).from() + " parent";
    }

    /** The condition under which a row can be a parent: its key has no nulls, and values of its types. */
    final String canBeParent(Suspicion.WithoutParent orphan) {
        List<String> all = new ArrayList<>();
        for (int i = 0; i < orphan.columns().size(); i++) {
            Column column = parentColumn(orphan, i);
            all.add("parent." + names.quoted(column.name()) + " IS NOT NULL");
            oddness(parents(orphan), column, "parent.")
                    .filter(text -> !text.isEmpty())
                    .ifPresent(odd -> all.add("NOT (" + odd + ")"));
        }
        return String.join(" AND ", all);
    }

    static String any(List<Sql> conditions) {
        return conditions.stream().map(Sql::text).collect(Collectors.joining(" OR "));
    }

    static List<Object> valuesOf(List<Sql> conditions) {
        return conditions.stream().flatMap(sql -> sql.values().stream()).toList();
    }

    /**
     * What is counted over all rows.
     *
     * @param suspect rows that meet a condition by themselves
     */
    record Counts(long rows, long suspect, Map<List<Integer>, NullCounts> nulls) {}

    final Counts count(Connection connection, List<List<Integer>> links, List<Sql> conditions) throws SQLException {
        StringBuilder query =
                new StringBuilder("SELECT count(*), ").append(conditions.isEmpty() ? "0" : countIf(any(conditions)));
        for (List<Integer> link : links) {
            boolean hasNulls = mayBeNull(link);
            query.append(hasNulls ? ", " + countIf(allNull(link)) : ", 0");
            query.append(hasNulls && link.size() > 1 ? ", " + countIf(someNull(link)) : ", 0");
        }
        query.append(" FROM ").append(source().from()).append(" own");
        try (PreparedStatement statement = connection.prepareStatement(query.toString())) {
            Sql.setAll(statement, 1, valuesOf(conditions));
            try (ResultSet result = statement.executeQuery()) {
                result.next();
                Map<List<Integer>, NullCounts> nulls = new HashMap<>();
                for (int i = 0; i < links.size(); i++) {
                    nulls.put(links.get(i), new NullCounts(result.getLong(3 + 2 * i), result.getLong(4 + 2 * i)));
                }
                return new Counts(result.getLong(1), result.getLong(2), nulls);
            }
        }
    }

    /** How many rows meet a condition, whatever the server. */
    private static String countIf(String condition) {
        return "count(CASE WHEN " + condition + " THEN 1 END)";
    }

    private boolean mayBeNull(List<Integer> link) {
        return columns(link).stream()
                .anyMatch(column -> source().there()
                        .facts(column)
                        .filter(known -> !known.hasNulls())
                        .isEmpty());
    }

    /**
     * Keeps all columns of rows that were found.
     *
     * @param cursor over them
     * @param numbers under which they would be read
     */
    final SievedRows keep(CursorSource.Cursor cursor, long[] numbers) throws Exception {
        SievedRows kept = new SievedRows(source, numbers);
        int width = source.columns().size();
        RowBatch batch = source.batchOf(width);
        try (cursor) {
            while (cursor.next()) {
                batch.endRow(1, 0, cursor.addTo(batch));
                if (batch.isFull()) {
                    kept.add(batch);
                    batch.clear();
                }
            }
        }
        if (!batch.isEmpty()) {
            kept.add(batch);
        }
        if (kept.size() != numbers.length) {
            throw new IllegalStateException(numbers.length + " rows were found, and " + kept.size() + " are there");
        }
        return kept;
    }

    /** Whether rows can be looked for by all columns of what is sought. */
    final boolean canSeek(List<Sought> any) {
        return any.stream().allMatch(sought -> whyNotCompared(sought.columns()).isEmpty());
    }

    /** All values of what is sought as the driver takes them. */
    final List<List<Object>> values(Sought sought) {
        return SoughtValues.of(
                sought,
                sought.columns().stream()
                        .map(place -> inside(source, column(place)).orElseThrow())
                        .toList());
    }

    /** A column as it stands in an index: equal texts are among those that any collation takes for equal. */
    final String plain(int place) {
        return own(place);
    }

    @Override
    public long rowsInAll() {
        return source.asked(connection ->
                Long.parseLong(DatabaseSession.text(connection, "SELECT count(*) FROM " + source.from())));
    }

    private JdbcSource parents(Suspicion.WithoutParent orphan) {
        return (JdbcSource) sources.get(orphan.parent());
    }
}
