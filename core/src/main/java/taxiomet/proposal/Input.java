package taxiomet.proposal;

import taxiomet.charter.Expression;

/** What a change writes into a cell. */
public sealed interface Input {
    /** A cell as a file gives it; null for null. It is read as the column's cells are, or as SQL writes such values. */
    record Cell(String text) implements Input {}

    /** What an expression over the row as it was gives. */
    record Computed(Expression value) implements Input {}

    /** The column's default, or the next number where the column is generated. */
    record Default() implements Input {}
}
