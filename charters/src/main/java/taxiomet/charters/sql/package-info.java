/** Search conditions and value expressions of SQL, parsed by JSqlParser and typed against the columns of a table. */
package taxiomet.charters.sql;
