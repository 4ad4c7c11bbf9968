package taxiomet.vet;

import java.util.List;
import java.util.Optional;
import taxiomet.charter.Charter;

/**
 * What a database declares.
 *
 * @param unheld declarations that rows may break all the same
 */
public record Catalogue(Charter charter, List<Unheld> unheld) {
    /**
     * A declaration that is there, and that the server does not hold all rows to.
     *
     * @param table in whose declaration it stands, as it is called without its schema
     * @param name the constraint's or the index's; of a column that may not be null the column's
     * @param why as a clause: since it was never validated
     * @param remedy what would have it held
     */
    public record Unheld(String table, What what, String name, String why, String remedy) {}

    /** What is not held. */
    public enum What {
        CONSTRAINT,
        NOT_NULL
    }

    public Catalogue {
        unheld = List.copyOf(unheld);
    }

    Optional<Unheld> unheld(String table, What what, String name) {
        return unheld.stream()
                .filter(each -> each.table().equals(table)
                        && each.what() == what
                        && each.name().equals(name))
                .findFirst();
    }
}
