/**
 * Changes that someone would like to make, as data: a {@link taxiomet.proposal.Proposal} is a list of {@link
 * taxiomet.proposal.Change}s, each with the {@link taxiomet.proposal.Origin} that errors and results name. Expressions in it are
 * those of the charter; nothing here reads a row.
 */
package taxiomet.proposal;
