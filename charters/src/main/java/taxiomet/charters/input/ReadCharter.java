package taxiomet.charters.input;

import java.util.List;
import taxiomet.charter.Charter;
import taxiomet.charter.NotRead;
import taxiomet.charter.Problem;

/**
 * A charter, and where its declarations stand.
 *
 * @param remarks what is to be said about the file though it can be used, such as statements that were passed over
 */
public record ReadCharter(Charter charter, Places places, List<Problem> remarks) {
    public ReadCharter {
        remarks = List.copyOf(remarks);
    }

    /** Where a declaration stands, as messages name it; what was not read knows its own place. */
    public String place(List<String> path) {
        return charter.notRead().stream()
                .filter(lost -> lost.path().equals(path))
                .map(NotRead::place)
                .findFirst()
                .orElseGet(() -> places.of(path).toString());
    }
}
