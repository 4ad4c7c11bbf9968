package taxiomet.reports.sql;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charter.place.DatabaseRows;
import taxiomet.reports.sql.SchemaStep.LeftOut;

/** What the parts of a plan share: for which server it is, what is in place already, how things are called there, and what came of it so far. */
final class SchemaDraft {
    private static final int LONGEST_NAME = 60;

    final Charter charter;
    final Server server;
    final Dialect dialect;
    final List<SchemaStep> steps = new ArrayList<>();
    final List<LeftOut> left = new ArrayList<>();
    private final boolean makesTables;
    private final Set<List<String>> there;
    private final Set<String> namesOfKeys = new LinkedHashSet<>();
    private final Set<String> namesOfLinks = new LinkedHashSet<>();

    SchemaDraft(Charter charter, Server server, boolean makesTables, Collection<List<String>> there) {
        this.charter = charter;
        this.server = server;
        this.dialect = Dialect.of(server);
        this.makesTables = makesTables;
        this.there = Set.copyOf(there);
    }

    /** Whether a table is made. */
    boolean makes(Table table) {
        return makesTables && !there.contains(List.of("tables", table.name()));
    }

    /** Whether a table is made with everything that belongs to it, since it cannot be changed later. */
    boolean isWhole(Table table) {
        return makes(table) && dialect == Dialect.SQLITE;
    }

    /** Whether a declaration binds; one that is lowered to a warning is left out, since a server refuses what breaks its rules. */
    boolean binds(Severity severity, String what) {
        if (severity != Severity.ERROR) {
            leaveOut(what, "the charter takes what breaks it for a " + severity.word());
        }
        return severity == Severity.ERROR;
    }

    void leaveOut(String what, String why) {
        left.add(new LeftOut(what, why));
    }

    /** The parts of the table's name in statements: where its rows live, else its own. */
    private static List<String> parts(Table table) {
        if (table.rows() instanceof DatabaseRows rows && !rows.isQuery()) {
            return rows.parts();
        }
        return Stream.concat(table.schema().stream(), Stream.of(table.name())).toList();
    }

    /** The name of a table in statements. */
    String name(Table table) {
        return parts(table).stream().map(dialect::name).collect(Collectors.joining("."));
    }

    /** What stands before the name of an index of the table, which lives in the schema of its table. */
    String schemaOf(Table table) {
        List<String> parts = parts(table);
        return dialect != Dialect.POSTGRESQL
                ? ""
                : parts.subList(0, parts.size() - 1).stream()
                        .map(part -> dialect.name(part) + ".")
                        .collect(Collectors.joining());
    }

    /** Columns with commas between them. */
    String names(List<String> columns) {
        return ExpressionSql.names(dialect, columns);
    }

    /** Whether a declaration is in place already. */
    boolean isThere(List<String> path) {
        return there.contains(path);
    }

    /** The keys that lead to a declaration of a table. */
    static List<String> path(Table table, String... rest) {
        List<String> path = new ArrayList<>(List.of("tables", table.name()));
        path.addAll(List.of(rest));
        return path;
    }

    /** A name that no other has, of a length that servers take. */
    private static String different(String wanted, String table, Set<String> taken) {
        String name = wanted.length() > LONGEST_NAME ? wanted.substring(0, LONGEST_NAME) : wanted;
        if (taken.add(name)) {
            return name;
        }
        String longer = table + "_" + name;
        String cut = longer.length() > LONGEST_NAME ? longer.substring(0, LONGEST_NAME) : longer;
        String different = cut;
        for (int i = 2; !taken.add(different); i++) {
            different = cut + "_" + i;
        }
        return different;
    }

    ColumnSql columns(Table table) {
        Set<String> keyed = new LinkedHashSet<>();
        table.keys().forEach(key -> keyed.addAll(key.columns()));
        table.links().forEach(link -> keyed.addAll(link.columns()));
        charter.links().stream()
                .filter(link -> link.parent().equals(table.name()))
                .forEach(link -> keyed.addAll(link.parentColumns()));
        return new ColumnSql(dialect, table, keyed);
    }

    /** What a key or an index is called. */
    String keyName(String wanted, Table table) {
        return dialect.name(different(wanted, table.name(), namesOfKeys));
    }

    /** What a link is called. */
    String linkName(String wanted, Table table) {
        return dialect.name(different(wanted, table.name(), namesOfLinks));
    }

    /** A name of a length that servers take. */
    static String cut(String name) {
        return name.length() > LONGEST_NAME ? name.substring(0, LONGEST_NAME) : name;
    }
}
