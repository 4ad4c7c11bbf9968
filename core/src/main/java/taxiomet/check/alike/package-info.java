/**
 * Likely doubles: rows that are probably one thing entered twice.
 *
 * <p>Not every row is held against every other. {@link taxiomet.check.alike.AlikeCheck} makes of each row a {@link
 * taxiomet.check.alike.LooseRows record} of codes that come out the same however the row is spelled; {@link
 * taxiomet.check.alike.CandidatePairs} brings those together in which one column, or two, have the same code, and leaves out pairs of
 * which the codes show that too little agrees. {@link taxiomet.check.alike.Resemblance} compares the values of what is left, and {@link
 * taxiomet.check.alike.Lookalikes} makes groups of the pairs. Each step is bounded, and in all linear in the rows.
 */
package taxiomet.check.alike;
