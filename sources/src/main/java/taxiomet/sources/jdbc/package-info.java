/**
 * Tables, views and queries of database servers. One {@link taxiomet.sources.jdbc.DatabaseSession} reads all tables of a run as they were at
 * one moment; a {@link taxiomet.sources.jdbc.JdbcSource} hands over the rows of one, which {@link taxiomet.sources.jdbc.CopiedRows}
 * streams from PostgreSQL in the order in which they stand there, and {@link taxiomet.sources.jdbc.PagedRows} from any other server page by
 * page in the order of a key, so that a row can be found again by its number.
 */
package taxiomet.sources.jdbc;
