package taxiomet.browse;

/** A file or row that was asked for by where it stands, and is not there. */
public final class NoSuchPlace extends RuntimeException {
    private static final long serialVersionUID = 1;

    /** @param message what was asked for, and what there is */
    NoSuchPlace(String message) {
        super(message);
    }
}
