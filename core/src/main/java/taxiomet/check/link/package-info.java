/**
 * Foreign keys: orphans and half-null links, how many children a parent has, rows that are their own ancestor.
 *
 * <p>A {@link taxiomet.check.link.LinkCheck} asks the index of the parent's keys at once where the parent has been read, and otherwise
 * (circles, tables linked to themselves, indexes that went to disk) keeps the child's keys until all tables have been read. {@link
 * taxiomet.check.link.MissingValues} counts what has no parent, {@link taxiomet.check.link.FaultyParents} finds those whose parent is
 * there but could not be taken for one.
 */
package taxiomet.check.link;
