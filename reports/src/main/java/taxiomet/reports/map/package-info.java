/**
 * The tables and their links as a picture. {@link taxiomet.reports.map.MapCards} says what stands in a table's card and how large it is,
 * {@link taxiomet.reports.map.MapLayout} has a library find the places of cards and lines, {@link taxiomet.reports.map.MapSvg} draws
 * them.
 */
package taxiomet.reports.map;
