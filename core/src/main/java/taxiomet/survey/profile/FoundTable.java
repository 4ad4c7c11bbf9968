package taxiomet.survey.profile;

import java.util.List;
import taxiomet.charter.place.RowsPlace;

/**
 * A table as it was found, before anything is known about it.
 *
 * @param name what it is called: its file's name without the endings
 * @param rows where its rows stand
 * @param columns the names of its columns, in their order
 * @param remarks what was guessed about how its rows are written, and why
 */
public record FoundTable(String name, RowsPlace rows, List<String> columns, List<String> remarks) {
    public FoundTable {
        columns = List.copyOf(columns);
        remarks = List.copyOf(remarks);
    }
}
