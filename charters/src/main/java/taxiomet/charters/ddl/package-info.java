/**
 * SQL schemas as charters. {@link taxiomet.charters.sql.SqlTokens} takes a script apart, {@link
 * taxiomet.charters.ddl.SchemaReader} picks out the statements that declare tables, {@link
 * taxiomet.charters.ddl.TableStatement} reads one of them, tolerant of what dialects add, and {@link
 * taxiomet.charters.ddl.SqlTypes} knows their types. What comes out is the document that a charter in YAML would be, with
 * the places in the script, and goes through the same reader: there is one set of rules and messages.
 */
package taxiomet.charters.ddl;
