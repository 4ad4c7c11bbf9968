package taxiomet.charter;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import taxiomet.charter.place.RowsPlace;

/**
 * One table.
 *
 * @param schema the schema that it was declared in, if one was named
 * @param columns at least one, with different names
 * @param uniqueKeys in the order declared
 * @param links the foreign keys of which this table is the child, in the order declared
 * @param alike when two of its rows are probably one thing entered twice
 * @param label columns that name a row to a person
 * @param area a lane for the map
 */
public record Table(
        String name,
        Optional<String> schema,
        RowsPlace rows,
        List<Column> columns,
        Optional<Key> primaryKey,
        List<Key> uniqueKeys,
        List<ForeignKey> links,
        List<Rule> rules,
        List<Alike> alike,
        List<String> label,
        List<Total> totals,
        Optional<String> area,
        Optional<Owner> owner) {
    public Table {
        columns = List.copyOf(columns);
        uniqueKeys = List.copyOf(uniqueKeys);
        links = List.copyOf(links);
        rules = List.copyOf(rules);
        alike = List.copyOf(alike);
        label = List.copyOf(label);
        totals = List.copyOf(totals);
    }

    /** A table of which nothing is said about likely doubles. */
    public Table(
            String name,
            Optional<String> schema,
            RowsPlace rows,
            List<Column> columns,
            Optional<Key> primaryKey,
            List<Key> uniqueKeys,
            List<ForeignKey> links,
            List<Rule> rules,
            List<String> label,
            List<Total> totals,
            Optional<String> area,
            Optional<Owner> owner) {
        this(name, schema, rows, columns, primaryKey, uniqueKeys, links, rules, List.of(), label, totals, area, owner);
    }

    /** The primary key, if there is one, and the unique keys. */
    public List<Key> keys() {
        return Stream.concat(primaryKey.stream(), uniqueKeys.stream()).toList();
    }

    /** The columns by which a row is called: the primary key's, else those of the first unique key, else none. */
    public List<String> namingKey() {
        return keys().isEmpty() ? List.of() : keys().get(0).columns();
    }

    /** Whether a column may not be null: it says so, or is part of the primary key. */
    public boolean isRequired(String column) {
        return column(column).isRequired() || isOfPrimaryKey(column);
    }

    /** Whether a column is part of the primary key. */
    public boolean isOfPrimaryKey(String column) {
        return primaryKey.filter(key -> key.columns().contains(column)).isPresent();
    }

    /** The table with other links. */
    public Table withLinks(List<ForeignKey> others) {
        return new Table(
                name, schema, rows, columns, primaryKey, uniqueKeys, others, rules, alike, label, totals, area, owner);
    }

    /** The same table with other columns, of the same names. */
    public Table withColumns(List<Column> others) {
        return new Table(
                name, schema, rows, others, primaryKey, uniqueKeys, links, rules, alike, label, totals, area, owner);
    }

    /** The same table with other rules. */
    public Table withRules(List<Rule> others) {
        return new Table(
                name, schema, rows, columns, primaryKey, uniqueKeys, links, others, alike, label, totals, area, owner);
    }

    /** The same table with other likely doubles. */
    public Table withAlike(List<Alike> others) {
        return new Table(
                name, schema, rows, columns, primaryKey, uniqueKeys, links, rules, others, label, totals, area, owner);
    }

    /** The same table with its rows somewhere else. */
    public Table withRows(RowsPlace others) {
        return new Table(
                name, schema, others, columns, primaryKey, uniqueKeys, links, rules, alike, label, totals, area, owner);
    }

    /** The place of a column in {@link #columns()}, 0 for the first; -1 when there is none of that name. */
    public int indexOf(String column) {
        for (int i = 0; i < columns.size(); i++) {
            if (columns.get(i).name().equals(column)) {
                return i;
            }
        }
        return -1;
    }

    /** The places of columns that are known to exist. */
    public int[] indexesOf(List<String> names) {
        return names.stream().mapToInt(this::indexOf).toArray();
    }

    /** The link of a name, if this table is the child of one. */
    public Optional<ForeignKey> link(String name) {
        return links.stream().filter(link -> link.name().equals(name)).findFirst();
    }

    /** The column of a name that is known to exist. */
    public Column column(String name) {
        return columns.get(indexOf(name));
    }
}
