package taxiomet.rows;

import java.util.List;

/**
 * Values of some columns of a table whose rows are wanted.
 *
 * @param columns their places in the table
 * @param values each in the order of the columns, as texts such as SQL writes; none is null
 */
public record Sought(List<Integer> columns, List<List<String>> values) {
    public Sought {
        columns = List.copyOf(columns);
        values = List.copyOf(values);
    }
}
