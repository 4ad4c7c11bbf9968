/**
 * The declared rules as immutable records.
 *
 * <p>A {@link taxiomet.charter.Charter} is a list of {@link taxiomet.charter.Table}s; each has columns of a
 * {@link taxiomet.charter.ColumnType}, keys, links (foreign keys) and rules. A charter that exists is sound in form: every
 * name in it resolves, every link has as many columns as the key it points at, and every {@link
 * taxiomet.charter.Expression} has been given its types. Whoever builds one (a reader of YAML, of SQL, of a catalogue)
 * answers everything else with a {@link taxiomet.charter.CharterException} that lists all problems with their places.
 */
package taxiomet.charter;
