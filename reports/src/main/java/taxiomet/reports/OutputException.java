package taxiomet.reports;

import java.io.IOException;

/** A result that cannot be written. */
public final class OutputException extends RuntimeException {
    private static final long serialVersionUID = 1;

    /**
     * @param place the file or folder
     * @param remedy what to do about it; may be empty
     */
    public OutputException(String place, String problem, String remedy) {
        super(place + ": " + problem + (remedy.isEmpty() ? "" : "; " + remedy));
    }

    /** For a file that the system refused to write. */
    public static OutputException of(String place, IOException cause) {
        String reason = cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
        return new OutputException(
                WholeOutput.withoutDraft(place),
                "it cannot be written (" + reason + ")",
                "nothing was left behind; check the place and its free space");
    }
}
