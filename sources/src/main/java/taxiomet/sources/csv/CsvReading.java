package taxiomet.sources.csv;

/**
 * How delimited text is read.
 *
 * @param isByLibrary whether the library's reader is used even where the byte-level reader could be
 * @param chunkSize how many bytes a thread takes in one go, at least 1
 */
public record CsvReading(boolean isByLibrary, int chunkSize) {
    /** By bytes where that is possible. A quarter of a megabyte and what is made of it stay in a core's own cache. */
    public static final CsvReading USUAL = new CsvReading(false, 1 << 18);

    /** By the library's reader, whatever it takes. */
    public static final CsvReading BY_LIBRARY = new CsvReading(true, 1 << 18);
}
