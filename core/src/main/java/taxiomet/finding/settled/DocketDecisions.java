package taxiomet.finding.settled;

import java.util.List;

/**
 * What became of the decisions in a docket.
 *
 * @param items how many rows of it were read
 * @param decided how many decisions can be carried out
 * @param open references of items that nobody has decided about
 * @param remarks what stands in the way of others: each is left out, and nothing is guessed
 * @param borne how many faults are to be borne
 * @param elsewhere how many are mended where they come from
 * @param notInDocket faults that are there now and not in the docket
 */
public record DocketDecisions(
        long items,
        long decided,
        List<String> open,
        List<Remark> remarks,
        long borne,
        long elsewhere,
        long notInDocket) {
    public DocketDecisions {
        open = List.copyOf(open);
        remarks = List.copyOf(remarks);
    }

    /** Why a decision is left out. */
    public enum Why {
        /** Another decision says otherwise. */
        CONTRADICTION("contradiction"),
        /** The fault is there no more, or never was. */
        NO_SUCH_FAULT("no such fault"),
        /** The row is no longer as it was when the docket was made. */
        ROW_HAS_CHANGED("row has changed"),
        /** It was laid before somebody else than the docket it stands in. */
        OF_ANOTHER_OWNER("of another owner"),
        /** A cell that is not for decisions has been changed. */
        EDITED("edited"),
        /** It is none that can be made, or lacks something. */
        UNCLEAR("unclear");

        private final String word;

        Why(String word) {
            this.word = word;
        }

        /** The word that results use. */
        public String word() {
            return word;
        }
    }

    /**
     * One remark.
     *
     * @param place the row of the docket
     * @param words a clause
     */
    public record Remark(Why why, String place, String words) {}
}
