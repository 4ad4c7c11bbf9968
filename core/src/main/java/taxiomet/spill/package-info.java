/**
 * The one place that writes temporary files.
 *
 * <p>What must be kept for later and may outgrow memory goes into spools of longs: a {@link taxiomet.spill.LongSpool} in
 * the order written, a {@link taxiomet.spill.SortedSpool} in ascending order, {@link taxiomet.spill.Partitions} by hash. Each
 * keeps a little in memory and the rest in files of a {@link taxiomet.spill.SpillFolder}, which goes when it is closed.
 */
package taxiomet.spill;
