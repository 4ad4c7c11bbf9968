/** Adapters to rows: {@link taxiomet.sources.RowSources} opens whatever a charter names as the source of a table's rows. */
package taxiomet.sources;
