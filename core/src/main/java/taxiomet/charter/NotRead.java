package taxiomet.charter;

import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * Something that was declared and could not be read. Nothing calls rows sound while there is one, unless its severity was lowered by
 * hand.
 *
 * @param table the table that it was declared for; empty when it was for none that is known
 * @param name what it is called: its own name, or one made up
 * @param declared as it was written, in one line
 * @param problem why it could not be read, as a clause
 * @param place the file, line and column that declare it
 */
public record NotRead(
        What what,
        Optional<String> table,
        String name,
        String declared,
        String problem,
        String place,
        Severity severity) {
    /** What was declared. */
    public enum What {
        RULE,
        KEY,
        LINK,
        DEFAULT,
        TYPE,
        TABLE;

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** The keys that lead to it in a charter. */
    public List<String> path() {
        return table.map(t -> List.of("tables", t, "not_read", name)).orElseGet(() -> List.of("not_read", name));
    }
}
