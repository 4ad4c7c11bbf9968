package taxiomet.charter;

/**
 * The rows that a key or a link is declared for: those for which the condition is true.
 *
 * @param text the condition as it was written
 * @param value an expression of type boolean over the row's own columns
 */
public record Condition(String text, Expression value) {}
