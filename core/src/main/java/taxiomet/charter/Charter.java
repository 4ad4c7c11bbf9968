package taxiomet.charter;

import java.util.List;
import java.util.Optional;

/**
 * The declared rules for a set of related tables.
 *
 * @param name what the charter is called in results: its title, or the name of its file
 * @param tables in the order declared, with different names
 * @param behavesAs whose behaviour a rehearsal follows
 */
public record Charter(String name, List<Table> tables, Behaviour behavesAs) {
    /** Whose reading of the standard decides what a change does. */
    public enum Behaviour {
        STANDARD,
        POSTGRESQL,
        SQLITE,
        MARIADB
    }

    public Charter {
        tables = List.copyOf(tables);
    }

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

    /** All links, in the order of their tables. */
    public List<ForeignKey> links() {
        return tables.stream().flatMap(t -> t.links().stream()).toList();
    }
}
