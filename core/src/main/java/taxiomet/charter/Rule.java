package taxiomet.charter;

/**
 * A condition that every row must not break: sound when true or unknown.
 *
 * @param text the condition as it was written
 * @param condition an expression of type boolean
 */
public record Rule(String name, String text, Expression condition, Severity severity) {}
