package taxiomet.cli.terminal;

/** Options or arguments that do not go together, or name what is not there. */
public final class UsageException extends RuntimeException {
    private static final long serialVersionUID = 1;

    public UsageException(String message) {
        super(message);
    }
}
