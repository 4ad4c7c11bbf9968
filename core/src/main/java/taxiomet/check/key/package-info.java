/**
 * Primary and unique keys: nulls and duplicates. Where a key comes again, {@link taxiomet.check.key.RepeatedRows} finds its rows by reading
 * what is needed of the table a second time.
 */
package taxiomet.check.key;
