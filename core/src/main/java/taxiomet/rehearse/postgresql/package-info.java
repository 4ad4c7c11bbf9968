/**
 * What PostgreSQL does; the rules are cited by number.
 *
 * <ul>
 *   <li>P1. Rows are changed one after the other in physical order: that of the file, except that a row once written stands at the
 *       end, new rows too. R4 is judged at once for each row, unique keys included (a shift of keys passes or fails by that order). All
 *       not-null columns and checks of a row that is written are judged, changed or not.
 *   <li>P2. One queue, first in first out: each changed row puts in, for every link that points at its table (declaration order over
 *       the whole schema), that link's action if the referenced columns changed and the old key has no null; then a check for each link of
 *       its own table whose columns changed. The queue is worked off when all rows of the statement are changed; what an action changes is
 *       changed at once and its own entries go to the end.
 *   <li>P3. No action and restrict are judged when their turn comes in the queue, not at the end of the cascades. Restrict differs in
 *       two things only: it never waits under {@code --deferred}, and another row that has taken over the key in the same statement does
 *       not save it.
 *   <li>P4. The check of a child row looks at its newest version; a row that went or changed again is skipped. The first rule broken
 *       is the one named.
 *   <li>P5. Match partial does not exist: the charter is refused under this behaviour. In numeric without scale, another spelling (2.5
 *       to 2.500) is a change of a referenced key.
 *   <li>P6. A constant that is not of its column's type refuses the statement though no row meets its condition.
 *   <li>P7. A cascaded key change turns the new key into the child's type before it looks for children: a key that is too long or too
 *       large for the child's column refuses the change even where no child has the old one.
 *   <li>P8. A row version that the same transaction wrote has all its links checked again when it is written once more, changed or
 *       not. A rehearsal takes each change for a transaction of its own, unless links wait for the end, {@code --write-sql} is to make a
 *       script of the whole, or {@code --prove} runs it: then all changes are one.
 *   <li>P9. Set default on a generated column takes the next number, and looks for the default parent as soon as it has written, for
 *       rows too that another link deletes later.
 *   <li>P10. Rules of a table are judged in the order of their names.
 * </ul>
 */
package taxiomet.rehearse.postgresql;
