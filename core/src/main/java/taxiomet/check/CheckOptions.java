package taxiomet.check;

import java.util.Set;

/**
 * What a check is to do.
 *
 * @param only names of the tables to judge; empty for all. Parents of their links are read for their keys
 * @param examples how many rows a finding shows
 * @param hinted for how many different values without a parent, the commonest first, a parent is looked for that may have
 *     been meant
 */
public record CheckOptions(Set<String> only, int examples, int hinted) {
    public CheckOptions {
        only = Set.copyOf(only);
    }

    boolean judges(String table) {
        return only.isEmpty() || only.contains(table);
    }
}
