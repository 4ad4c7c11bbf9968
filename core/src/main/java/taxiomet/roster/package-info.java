/**
 * Children listed under each parent: {@link taxiomet.roster.Roster}. Headings are numbered in their order; a child goes to disk with the
 * number of its heading ({@link taxiomet.roster.CellSpool}) and comes back sorted by it, so that memory holds keys of headings and what
 * codes stand for ({@link taxiomet.roster.ParentCells}), and no child.
 */
package taxiomet.roster;
