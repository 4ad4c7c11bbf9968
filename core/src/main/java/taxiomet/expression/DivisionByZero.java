package taxiomet.expression;

/** A rule divided by zero in a row. */
public final class DivisionByZero extends RuntimeException {
    private static final long serialVersionUID = 1;

    DivisionByZero() {
        super("division by zero", null, false, false);
    }
}
