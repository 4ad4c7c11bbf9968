package taxiomet.cli;

/** Options or arguments that do not go together, or name what is not there. */
final class UsageException extends RuntimeException {
    private static final long serialVersionUID = 1;

    UsageException(String message) {
        super(message);
    }
}
