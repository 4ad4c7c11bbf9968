package taxiomet.rehearse;

import taxiomet.charter.Server;

/**
 * How a rehearsal is done.
 *
 * @param behaviour whose behaviour is followed
 * @param examples how many rows are shown of each kind
 * @param looksElsewhere whether other behaviours and other orders of the declarations are tried, too
 * @param comparesFindings whether the rows are checked before and after
 * @param mostNear up to how many rows reached, only the rows near them are checked before and after; beyond, all rows are. The
 *     findings added and mended are the same
 * @param plansStatements whether {@link Rehearsal#statements} will be asked for
 */
public record RehearsalOptions(
        Server behaviour,
        int examples,
        boolean looksElsewhere,
        boolean comparesFindings,
        int mostNear,
        boolean plansStatements) {
    /** Beyond about so many rows reached, reading all rows twice is faster than looking for those near them. */
    public static final int USUALLY_NEAR = 100_000;
}
