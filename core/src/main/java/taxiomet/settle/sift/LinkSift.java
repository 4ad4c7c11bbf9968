package taxiomet.settle.sift;

import java.util.Optional;
import taxiomet.check.pass.RowCheck;
import taxiomet.rows.TableSource;

/** What becomes of the children over one link when parents are set aside. */
sealed interface LinkSift extends AutoCloseable permits ParentsLost, Kinship {
    /**
     * Parents are set aside.
     *
     * @param refs the rows, ascending, which have not been told before
     * @param parents the table they stand in
     */
    void lose(long[] refs, TableSource parents);

    /** What has to look for parents that are left with keys of others that are not; empty where that is known. */
    Optional<RowCheck> holders(AsideRows asideOfParents);

    @Override
    void close();
}
