package taxiomet.sources.file;

import java.util.HexFormat;
import taxiomet.values.ValueCells;

/** A value of a database in which any column may hold values of any type: it is taken as it is, whatever its column declares. */
public final class DynamicValue {
    private DynamicValue() {}

    /**
     * Adds a value to a column, and gives about how many bytes it takes.
     *
     * @param value a whole number, a floating-point number, a text, bytes, or null
     */
    public static long add(Object value, ValueCells cells) {
        long bytes = 0;
        if (value == null) {
            cells.addNull();
        } else if (value instanceof Integer || value instanceof Long) {
            cells.add(((Number) value).longValue());
        } else if (value instanceof Double number) {
            cells.add(number.doubleValue());
        } else {
            String text = value instanceof byte[] blob ? HexFormat.of().formatHex(blob) : value.toString();
            cells.add(text);
            bytes = text.length();
        }
        return bytes + Long.BYTES;
    }
}
