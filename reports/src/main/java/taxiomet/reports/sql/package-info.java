/** Accepted proposals as SQL for a server. Nothing here runs it. */
package taxiomet.reports.sql;
