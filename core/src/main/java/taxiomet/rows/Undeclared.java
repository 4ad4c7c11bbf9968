package taxiomet.rows;

import java.util.Collection;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * What is there in a source beside the columns that were declared, and is not read.
 *
 * @param what it is, in the words of the source: column, field
 * @param names of what is there
 */
public record Undeclared(String what, SortedSet<String> names) {
    public Undeclared {
        names = new TreeSet<>(names);
    }

    /** Columns of these names. */
    public static Undeclared columns(Collection<String> names) {
        return new Undeclared("column", new TreeSet<>(names));
    }

    /** The same with more names. */
    public Undeclared with(Collection<String> more) {
        SortedSet<String> all = new TreeSet<>(names);
        all.addAll(more);
        return new Undeclared(what, all);
    }

    /** All of it as a clause, long lists cut; empty where there is nothing. */
    public String text() {
        if (names.isEmpty()) {
            return "";
        }
        boolean isOne = names.size() == 1;
        return what + (isOne ? " " : "s ") + ColumnNames.listed(names) + (isOne ? " is" : " are")
                + " not declared, and not read";
    }
}
