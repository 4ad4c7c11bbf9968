/** What would cure the findings of a check, and where to begin. */
package taxiomet.cause;
