package taxiomet.reports.text;

/**
 * Where a result for a person is written: the lines of a terminal, or the parts of a page. Texts hold styles as a terminal has them
 * ({@link Style}), where the paper has colours.
 */
public interface Paper {
    /** Whether styles may be used. */
    boolean hasColor();

    /** A gap: what follows belongs less to what stands before. */
    void gap();

    /** The first line of a result: what it is about, and the answer. */
    void answer(String about, String answer, Style style);

    /** A sentence, moved in by so many columns; its second and later lines by others. */
    void paragraph(String text, int indent, int hanging);

    /** A sentence, moved in. */
    default void paragraph(String text, int indent) {
        paragraph(text, indent, indent);
    }

    /** A sentence that is read last. */
    void faint(String text, int indent, int hanging);

    /** Rows of cells. */
    void grid(Grid grid, int indent);
}
