/**
 * The order-free wording of ISO/IEC 9075-2, told level by level; the rules are cited by number.
 *
 * <ul>
 *   <li>S1. The rows of the statement are changed together; R4 is judged when all of them, and then all rows of a level, are written.
 *       Actions run level by level (breadth first): level 1 are the children of the rows changed directly, and so on. Each row is deleted
 *       at most once; a row both deleted and written is deleted. (Levels are our way to say the standard's order-free wording.)
 *   <li>S2. Restrict is judged when the parent row goes or its key changes: any child row refuses the change, except rows that the
 *       statement itself deletes or re-points directly, and the row itself.
 *   <li>S3. No action is judged when nothing is left to do: a child row without a parent at the end of the statement refuses it;
 *       another row that has taken over the key is a parent.
 *   <li>S4. Two roads that write different values into one cell refuse the change (the standard's triggered data change violation);
 *       two that write the same do not.
 *   <li>S5. Match partial: an action takes the child rows that no other parent matches any longer (the standard's unique matching
 *       rows). A key change writes the columns that changed, and only where the child is not null.
 *   <li>S6. After set default, only rows that stay need the default parent: a row both written and deleted is deleted (S1).
 * </ul>
 */
package taxiomet.rehearse.standard;
