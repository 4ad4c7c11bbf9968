package taxiomet.rehearse.reach;

import taxiomet.finding.RehearsalResult.EffectKind;

/**
 * What a change did to a row.
 *
 * @param link the link by which it got there; null for a row that the change names itself
 * @param steps how many links away from the rows that the change names; 0 for these
 * @param cause the effect on the parent row that had this one; null for a row that the change names
 * @param before the values before it, by their slots; null for a new row
 * @param after the values afterwards; null for a row that went
 */
@SuppressWarnings("ArrayRecordComponent")
public record Effect(
        ReachedRow row, EffectKind kind, ReachedLink link, int steps, Effect cause, Object[] before, Object[] after) {}
