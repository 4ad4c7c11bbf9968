package taxiomet.rehearse;

import taxiomet.charter.Charter.Behaviour;

/**
 * How a rehearsal is done.
 *
 * @param behaviour whose behaviour is followed
 * @param examples how many rows are shown of each kind
 * @param looksElsewhere whether other behaviours and other orders of the declarations are tried, too
 * @param comparesFindings whether the rows are checked before and after
 * @param plansStatements whether {@link Rehearsal#statements} will be asked for
 */
public record RehearsalOptions(
        Behaviour behaviour, int examples, boolean looksElsewhere, boolean comparesFindings, boolean plansStatements) {}
