package taxiomet.finding.settled;

import java.util.List;

/**
 * What is different between two charters.
 *
 * @param title of the later one
 * @param changes table by table, as the later charter declares them, those of tables that are gone last
 * @param touched the tables whose rows the changes are about, those that links lead to among them
 */
public record CharterComparison(String title, List<Change> changes, List<String> touched) {
    public CharterComparison {
        changes = List.copyOf(changes);
        touched = List.copyOf(touched);
    }

    /** What became of a declaration. */
    public enum Fate {
        GAINED,
        LOST,
        CHANGED;

        /** The word that results use. */
        public String word() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /**
     * One declaration.
     *
     * @param what table, column, key, link or rule
     * @param table whose it is
     * @param name what it is called
     * @param before as it was declared; empty for one that is gained
     * @param now as it is declared; empty for one that is lost
     */
    public record Change(Fate fate, String what, String table, String name, String before, String now) {}
}
