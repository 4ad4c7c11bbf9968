/**
 * Parquet files. {@code ParquetSource} reads row group by row group, and of each the columns asked for alone; {@code Leaf} is one of them, whose
 * values go as they are into a column of values; {@code Codecs} unpacks pages. A library takes the pages apart.
 */
package taxiomet.sources.parquet;
