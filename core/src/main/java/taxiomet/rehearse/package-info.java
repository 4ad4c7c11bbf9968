/**
 * What proposed changes would do to the rows of related tables, before anyone makes them.
 *
 * <p>A {@link taxiomet.rehearse.Rehearsal} first gathers ({@code rehearse.reach}): it reads the rows that the changes name, then the rows
 * that point at them, table by table, until nothing new is reached. Then it replays the changes on the rows reached ({@code
 * rehearse.replay}), in the order of the behaviour asked for, each of which has a package of its own. A replay that asks for a row
 * which was not read says so; what it asked for is read, and it starts again. So memory follows what is touched, and a second
 * behaviour costs a second replay, not a second reading. {@code rehearse.result} turns what became of the changes into a result, and
 * compares the findings before and after.
 *
 * <p>The rules are those of docs/rehearsal.md: R for every behaviour, S for the standard, P, L and M for the servers. Classes cite
 * them by number.
 */
package taxiomet.rehearse;
