package taxiomet.rehearse;

/** A proposal that cannot be rehearsed: where, why, and what to do about it. */
public final class ProposalException extends RuntimeException {
    private static final long serialVersionUID = 1;

    /**
     * @param place the file, with a line where there is one, or the option
     * @param problem what is wrong
     * @param remedy what to do about it; may be empty
     */
    public ProposalException(String place, String problem, String remedy) {
        super(place + ": " + problem + (remedy.isEmpty() ? "" : "; " + remedy));
    }
}
