package taxiomet.sources.jdbc;

import java.util.Arrays;

/** Where some rows of a PostgreSQL table stand: their blocks and the places in them (PostgreSQL, "Object Identifier Types", ctid). */
final class RowPlaces {
    private static final int PLACE_BITS = 16;
    private static final int IN_PIECE = 1_000;

    private long[] places = new long[64];
    private int size;

    /** Adds a place as the server writes it: {@code (12,5)}. */
    void add(String written) {
        int comma = written.indexOf(',');
        long block = Long.parseLong(written.substring(1, comma));
        add(block << PLACE_BITS | Long.parseLong(written.substring(comma + 1, written.length() - 1)));
    }

    private void add(long place) {
        if (size == places.length) {
            places = Arrays.copyOf(places, size * 2);
        }
        places[size++] = place;
    }

    int size() {
        return size;
    }

    /** The places of all of some, each once, as rows stand in the table. */
    static RowPlaces union(Iterable<RowPlaces> some) {
        RowPlaces all = new RowPlaces();
        for (RowPlaces each : some) {
            for (int i = 0; i < each.size; i++) {
                all.add(each.places[i]);
            }
        }
        Arrays.sort(all.places, 0, all.size);
        int kept = 0;
        for (int i = 0; i < all.size; i++) {
            if (i == 0 || all.places[i] != all.places[i - 1]) {
                all.places[kept++] = all.places[i];
            }
        }
        all.size = kept;
        return all;
    }

    /** Which of the places, 0 for the first, is each of some others, which are among them. */
    int numberOf(RowPlaces others, int index) {
        return Arrays.binarySearch(places, 0, size, others.places[index]);
    }

    /** The rows at a thousand of the places as the clause of a query; null behind the last. */
    String piece(int number) {
        int from = number * IN_PIECE;
        if (from >= size) {
            return null;
        }
        StringBuilder clause = new StringBuilder(" WHERE ctid = ANY ('{");
        for (int i = from; i < Math.min(size, from + IN_PIECE); i++) {
            write(places[i], clause.append(i > from ? "," : ""));
        }
        return clause.append("}'::tid[]) ORDER BY ctid").toString();
    }

    /**
     * All places as an array of the server.
     *
     * @param fromTheFirst whether it begins with the first place of the table, and lacks the last of these
     */
    String written(boolean fromTheFirst) {
        StringBuilder array = new StringBuilder("{");
        if (fromTheFirst) {
            write(0, array);
        }
        for (int i = 0; i < size - (fromTheFirst ? 1 : 0); i++) {
            write(places[i], array.append(array.length() > 1 ? "," : ""));
        }
        return array.append('}').toString();
    }

    private static void write(long place, StringBuilder to) {
        to.append("\"(")
                .append(place >>> PLACE_BITS)
                .append(',')
                .append(place & ((1L << PLACE_BITS) - 1))
                .append(")\"");
    }
}
