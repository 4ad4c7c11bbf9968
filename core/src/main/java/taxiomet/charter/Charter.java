package taxiomet.charter;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;

/**
 * The declared rules for a set of related tables.
 *
 * @param name what the charter is called in results: its title, or the name of its file
 * @param tables in the order declared, with different names
 * @param behavesAs whose behaviour a rehearsal follows
 * @param links all links in the order in which they were declared
 * @param notRead what was declared and could not be read
 * @param rosters what rosters are to list, by their names
 * @param accepted findings that are known and borne for a while
 */
public record Charter(
        String name,
        List<Table> tables,
        Server behavesAs,
        List<ForeignKey> links,
        List<NotRead> notRead,
        List<KeptRoster> rosters,
        List<Accepted> accepted) {
    /**
     * What a roster is to list, kept in the charter under a name. Names of columns and links, and conditions, are as they were written; they
     * are judged when the roster is asked for.
     *
     * @param table whose rows are the headings
     * @param through over which links children are listed; empty for all
     * @param columns which of their columns are shown; empty for all
     * @param sort by which columns headings are sorted, each perhaps with {@code desc} behind it
     * @param where which headings
     * @param whereChild which children
     * @param childless what becomes of headings without children: show, hide or only
     */
    public record KeptRoster(
            String name,
            String table,
            List<String> through,
            List<String> columns,
            List<String> sort,
            Optional<String> where,
            Optional<String> whereChild,
            Optional<String> childless) {
        public KeptRoster {
            through = List.copyOf(through);
            columns = List.copyOf(columns);
            sort = List.copyOf(sort);
        }
    }

    public Charter {
        accepted = List.copyOf(accepted);
        rosters = List.copyOf(rosters);
        tables = List.copyOf(tables);
        links = List.copyOf(links);
        notRead = List.copyOf(notRead);
    }

    /** A charter whose links were declared table by table, and all of which was read. */
    public Charter(String name, List<Table> tables, Server behavesAs) {
        this(name, tables, behavesAs, linksOf(tables), List.of(), List.of(), List.of());
    }

    /** A charter in which no roster is kept, and nothing accepted. */
    public Charter(String name, List<Table> tables, Server behavesAs, List<ForeignKey> links, List<NotRead> notRead) {
        this(name, tables, behavesAs, links, notRead, List.of(), List.of());
    }

    private static List<ForeignKey> linksOf(List<Table> tables) {
        return tables.stream().flatMap(t -> t.links().stream()).toList();
    }

    /** The same charter with other tables, whose links are of the same names. */
    public Charter with(List<Table> others) {
        return new Charter(name, others, behavesAs, ordered(linksOf(others), names(links)), notRead, rosters, accepted);
    }

    /** The same charter with other findings that are borne. */
    public Charter withAccepted(List<Accepted> others) {
        return new Charter(name, tables, behavesAs, links, notRead, rosters, others);
    }

    /** The same charter with other columns called personal: those that are told to be, by their table and their name. */
    public Charter withPersonal(BiPredicate<String, String> isPersonal) {
        return with(tables.stream()
                .map(table -> table.withColumns(table.columns().stream()
                        .map(column -> column.asPersonal(isPersonal.test(table.name(), column.name())))
                        .toList()))
                .toList());
    }

    /** Whether an expression over a table's rows reads a column that is called personal, of the row, a parent or its children; how many there are is none. */
    public boolean readsPersonal(Table table, Expression expression) {
        return expression.leaves().stream().anyMatch(leaf -> {
            if (leaf instanceof Expression.ColumnValue own) {
                return table.columns().get(own.column()).isPersonal();
            } else if (leaf instanceof Expression.ParentValue above) {
                return parentAt(table, above.links())
                        .columns()
                        .get(above.column())
                        .isPersonal();
            } else if (leaf instanceof Expression.ChildrenValue below) {
                return isPersonal(below);
            }
            return false;
        });
    }

    /** Whether what is made of children is made of values that are called personal. */
    public boolean isPersonal(Expression.ChildrenValue below) {
        return below.aggregate() != Expression.Aggregate.COUNT
                && table(below.child())
                        .columns()
                        .get(below.column().orElseThrow())
                        .isPersonal();
    }

    /** The table to which links lead one after the other. */
    private Table parentAt(Table table, List<String> way) {
        Table at = table;
        for (String name : way) {
            at = table(at.link(name).orElseThrow().parent());
        }
        return at;
    }

    /** The links as their names, with their table's and a dot before, come in a list; those not in it behind the others. */
    public static List<ForeignKey> ordered(List<ForeignKey> links, List<String> names) {
        List<ForeignKey> ordered = new ArrayList<>(links);
        Map<String, Integer> places = new HashMap<>();
        names.forEach(name -> places.putIfAbsent(name, places.size()));
        ordered.sort(
                Comparator.comparingInt(link -> places.getOrDefault(link.child() + "." + link.name(), places.size())));
        return ordered;
    }

    /** The charter without links whose ends can never be equal by their types. */
    public Charter withComparableLinks() {
        List<Table> kept = tables.stream()
                .map(table -> table.withLinks(table.links().stream()
                        .filter(link -> link.isComparable(table, table(link.parent())))
                        .toList()))
                .toList();
        return kept.equals(tables) ? this : with(kept);
    }

    private static List<String> names(List<ForeignKey> links) {
        return links.stream().map(link -> link.child() + "." + link.name()).toList();
    }

    /** The names of the links in the order declared, with their tables' before; empty where that is the order of the tables. */
    public List<String> linkOrder() {
        return links.equals(linksOf(tables)) ? List.of() : names(links);
    }

    /** The table of a name; empty when there is none. */
    public Optional<Table> find(String table) {
        int place = indexOf(table);
        return place < 0 ? Optional.empty() : Optional.of(tables.get(place));
    }

    /** The place of a table in {@link #tables()}, 0 for the first; -1 when there is none of that name. */
    public int indexOf(String table) {
        for (int i = 0; i < tables.size(); i++) {
            if (tables.get(i).name().equals(table)) {
                return i;
            }
        }
        return -1;
    }

    /** The table of a name that is known to exist, such as the parent of a link. */
    public Table table(String name) {
        return find(name).orElseThrow(() -> new IllegalArgumentException("no table " + name));
    }
}
