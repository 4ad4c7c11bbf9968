/**
 * Carrying changes out on the rows reached: what all behaviours share (R1 to R15 of docs/rehearsal.md).
 *
 * <p>A {@link taxiomet.rehearse.replay.Replay} runs one change after the other; its subclasses, in the packages beside this one, say in
 * which order rows are written and actions run. {@link taxiomet.rehearse.replay.RowJudge} judges a row that was written (R4), {@link
 * taxiomet.rehearse.replay.RowMerge} makes statements of merges and renumberings (R15), {@link taxiomet.rehearse.replay.StatementTrace}
 * takes statements down for a script. What becomes of a change is a {@link taxiomet.rehearse.replay.ChangeOutcome}.
 */
package taxiomet.rehearse.replay;
