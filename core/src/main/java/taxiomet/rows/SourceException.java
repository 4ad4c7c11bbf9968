package taxiomet.rows;

/** Rows that cannot be read: where, why, and what to do about it. */
public final class SourceException extends RuntimeException {
    private static final long serialVersionUID = 1;

    /**
     * @param place the file, with a line where there is one
     * @param problem what is wrong
     * @param remedy what to do about it; may be empty
     */
    public SourceException(String place, String problem, String remedy) {
        super(place + ": " + problem + (remedy.isEmpty() ? "" : "; " + remedy));
    }
}
