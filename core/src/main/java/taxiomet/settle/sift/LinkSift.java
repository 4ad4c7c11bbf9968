package taxiomet.settle.sift;

import taxiomet.charter.ForeignKey;
import taxiomet.rows.TableSource;

/** What becomes of the children over one link when parents are set aside. */
sealed interface LinkSift extends AutoCloseable permits ParentsLost, Kinship {
    ForeignKey link();

    /**
     * Parents are set aside.
     *
     * @param refs the rows, ascending, which have not been told before
     * @param parents the table they stand in
     */
    void lose(long[] refs, TableSource parents);

    /** Whether children are to be looked for by reading their table again. */
    boolean isDue();

    @Override
    void close();
}
