/**
 * Parquet files. {@code ParquetSource} reads row group by row group, and of each the columns asked for alone; {@code Leaf} is one of them, whose
 * values go as they are into a column of values; {@code Codecs} unpacks pages, {@code LeafPages} takes those of numbers and texts apart, page by page; all other
 * encodings, and the footer, are a library's.
 */
package taxiomet.sources.parquet;
