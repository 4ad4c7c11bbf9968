/** What a column declares about its values: type, not null, length, allowed values, pattern, gaps. */
package taxiomet.check.column;
