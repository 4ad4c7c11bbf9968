package taxiomet.rows;

/**
 * A piece of a table: the rows that begin in some bytes of one of its parts. It can be written down as a text, and opened where the
 * same files are; a row is named by its split and its number in it, 1 for the first.
 *
 * @param part the number of the part, 0 for the first
 * @param from the place where the first row begins, in bytes without any compression
 * @param to the place behind which no row begins any more, exclusive; {@link Long#MAX_VALUE} for the end of the part
 */
public record Split(int part, long from, long to) {
    public Split {
        if (part < 0 || from < 0 || to < from) {
            throw new IllegalArgumentException("no split: " + part + ":" + from + ":" + to);
        }
    }

    /** The split as a text: {@code part:from:to}. */
    public String text() {
        return part + ":" + from + ":" + to;
    }

    /** @throws IllegalArgumentException when the text is none that {@link #text} gave */
    public static Split parse(String text) {
        String[] parts = text.split(":", -1);
        if (parts.length != 3) {
            throw new IllegalArgumentException("no split: " + text);
        }
        return new Split(Integer.parseInt(parts[0]), Long.parseLong(parts[1]), Long.parseLong(parts[2]));
    }
}
