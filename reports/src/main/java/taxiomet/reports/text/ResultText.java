package taxiomet.reports.text;

/** A result for a person: the answer first. */
public interface ResultText {
    /** Writes the whole result. */
    void write();

    /** Writes the answer alone. */
    void writeAnswer();

    /** Is told where a result is to be written. */
    @FunctionalInterface
    interface Maker {
        /** The text of a result. */
        ResultText of(Paper paper);
    }
}
