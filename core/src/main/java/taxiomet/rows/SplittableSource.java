package taxiomet.rows;

import java.util.List;

/** A source that can be read in pieces, each on its own and elsewhere. */
public interface SplittableSource extends TableSource {
    /**
     * Cuts the table into pieces that together hold each row once.
     *
     * @param bytes about how many bytes a piece should have; a piece has at least one row, but for a part without any
     * @return in the order of the table; at least one for each part
     * @throws SourceException when the table cannot be read
     */
    List<Split> splits(long bytes);

    /**
     * Begins a pass over one piece.
     *
     * @param columns places of the columns wanted, as in {@link #columns()}
     * @return a pass whose rows are named by the part of the piece and their numbers in the piece
     */
    SplitScan scan(int[] columns, Split split);

    /** A pass over one piece. */
    interface SplitScan extends Scan {
        /** How many lines without any field were passed over, once all rows have been read. */
        long emptyLines();
    }
}
