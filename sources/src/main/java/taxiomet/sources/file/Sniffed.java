package taxiomet.sources.file;

import java.util.List;
import taxiomet.charter.place.RowsPlace;

/**
 * How a file is written of which nothing is declared.
 *
 * @param form what must be alike for two files to be parts of one table, beside their columns
 * @param columns the names of its columns, in their order
 * @param remarks what was guessed, and what spoke for it
 */
public record Sniffed(RowsPlace rows, String form, List<String> columns, List<String> remarks) {
    public Sniffed {
        columns = List.copyOf(columns);
        remarks = List.copyOf(remarks);
    }
}
