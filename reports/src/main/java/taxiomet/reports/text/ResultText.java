package taxiomet.reports.text;

import java.util.function.Consumer;

/** A result for a person: the answer first. */
public interface ResultText {
    /** Writes the whole result. */
    void write();

    /** Writes the answer alone. */
    void writeAnswer();

    /** Says what it needs to know of the place where a result is shown. */
    @FunctionalInterface
    interface Maker {
        /**
         * The text of a result.
         *
         * @param width of a line, in columns of a terminal
         * @param out takes one line at a time, without its end
         */
        ResultText of(int width, boolean hasColor, Consumer<String> out);
    }
}
