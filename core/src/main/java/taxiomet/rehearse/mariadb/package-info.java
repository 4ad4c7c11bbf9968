/**
 * What MariaDB (InnoDB) does; the rules are cited by number.
 *
 * <ul>
 *   <li>M1. Row by row, depth first; no action and restrict are one and are judged at once, row by row, also within one table. Match
 *       is always simple. Set default is a refusal. A cascade of a key change that comes back to a table it has already changed is
 *       refused.
 *   <li>M2. A row is met as it stands when its turn comes: a DELETE can come to rows that it has changed itself, and an action to
 *       children that it has moved.
 *   <li>M3. A row is changed index after index: the primary key, unique keys without nulls, other unique keys, then what links need.
 *       In each, its children follow first, then the parents of the links that use the index are looked up, whichever of its columns has
 *       changed.
 *   <li>M4. Until its turn an index still finds the row as it was, so that a row that points at itself can be deleted only where the
 *       link's columns begin the primary key; its new key is no parent yet, and its old one still is.
 *   <li>M5. Links between numbers of two types do not exist there ({@code vet --server mariadb}).
 *   <li>M6. A condition on one column that is indexed names rows in the order of the index.
 *   <li>M7. An UPDATE moves the next number on, and each of its assignments sees what those before it have given; a zero given for a
 *       generated column is left to number.
 *   <li>M8. Actions more than 15 deep are refused.
 *   <li>M9. What an action writes is not judged by CHECK rules.
 * </ul>
 */
package taxiomet.rehearse.mariadb;
