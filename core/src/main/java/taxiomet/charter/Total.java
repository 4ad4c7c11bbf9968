package taxiomet.charter;

/**
 * A number worth adding up when rows are at stake.
 *
 * @param text the expression as it was written
 * @param value an expression of a number
 */
public record Total(String text, Expression value) {}
