package taxiomet.vet;

import java.util.List;
import taxiomet.charter.Severity;

/**
 * What the review of a charter has to say about one declaration.
 *
 * @param severity an error makes later answers worthless; a warning is probably not meant; a note is worth knowing
 * @param path the keys that lead to the declaration in the charter, such as tables, hive, foreign_keys, hive_apiary
 * @param problem what there is to say, as a clause
 * @param remedy the way out, as a clause; may be empty
 */
public record Judgement(Severity severity, List<String> path, String problem, String remedy) {
    public Judgement {
        path = List.copyOf(path);
    }
}
