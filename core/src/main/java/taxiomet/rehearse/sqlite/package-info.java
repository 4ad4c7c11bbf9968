/**
 * What SQLite does; the rules are cited by number.
 *
 * <ul>
 *   <li>L1. Row by row and depth first: the actions of a changed row run at once, each with all that follows, before the next row of
 *       the statement. Among links to one table the one declared last acts first.
 *   <li>L2. No action is judged at the end of the statement, by a counter of the children that miss their parent, restrict at once.
 *       Match is always simple. Types, lengths and scales do not refuse a value, except text in an INTEGER PRIMARY KEY. Of several unique
 *       rules broken the last declared is named; links are not named.
 *   <li>L3. The counter does not go down while it is zero, and faults that were there before can drive it below: that refuses the
 *       change. An INSERT of one row alone is judged at once. A deferrable restrict is judged at once.
 *   <li>L4. Where one column of a link to its own table is set, all links of the table to itself are checked.
 *   <li>L5. Actions more than 1,000 deep are refused.
 *   <li>L6. Only a single INTEGER primary key, so spelled, is the row's number: it is given where it is left out, whether declared
 *       generated or not, and is one more than the greatest that is there; numbers of rows that went are given again. Any other primary
 *       key takes nulls unless it says not null.
 *   <li>L7. A link between numbers and text compares them by SQLite's affinity.
 * </ul>
 */
package taxiomet.rehearse.sqlite;
