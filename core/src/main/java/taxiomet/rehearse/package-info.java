/**
 * What proposed changes would do to the rows of related tables, before anyone makes them.
 *
 * <p>A {@link taxiomet.rehearse.Proposal} is a list of {@link taxiomet.rehearse.Change}s. A {@link taxiomet.rehearse.Rehearsal}
 * first gathers: it reads the rows that the changes name, then the rows that point at them, table by table, until nothing new is
 * reached ({@link taxiomet.rehearse.RowGatherer}). Then it replays the changes on the rows reached, in the order of the
 * behaviour asked for ({@link taxiomet.rehearse.Replay} and its subclasses, one for each behaviour). A replay that asks for a row
 * which was not read says so; what it asked for is read, and it starts again. So memory follows what is touched, and a
 * second behaviour costs a second replay, not a second reading.
 *
 * <p>The rules are those of docs/rehearsal.md: R1 to R14 for every behaviour, S for the standard, P, L and M for the servers. Classes
 * cite them by number.
 */
package taxiomet.rehearse;
