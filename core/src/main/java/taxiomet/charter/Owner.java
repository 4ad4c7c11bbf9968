package taxiomet.charter;

/** Who decides about a row. */
public sealed interface Owner {
    /** The owner stands in a column of the row. */
    record InColumn(String column) implements Owner {}

    /** One owner for all rows of the table. */
    record Named(String name) implements Owner {}
}
