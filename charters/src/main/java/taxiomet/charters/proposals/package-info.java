/**
 * Reads proposals: SQL statements, tables of keys, and documents of our own. All become {@link taxiomet.proposal.Change}s, whose
 * names were found in the charter; what does not fit it is answered with a {@link taxiomet.proposal.ProposalException}.
 */
package taxiomet.charters.proposals;
