package taxiomet.rehearse.reach;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import taxiomet.rows.TableSource;
import taxiomet.values.TypedColumn;

/**
 * Follows cascading links in a circle, a table's link to itself among them, over hashes of all their keys in memory: a chain of a million
 * rows is walked without a pass for each (C3). What it finds may be too much, where hashes meet, and is never too little. It takes
 * 8 bytes a row for the row, and 16 for each link that leaves its table and 8 for each that comes to it.
 */
final class CascadeWalk {
    private static final long SPREAD = 0x9E3779B97F4A7C15L;
    private static final int FIRST_ROOM = 1_024;

    private final List<ReachedLink> links;
    private final Map<ReachedTable, Part> parts = new LinkedHashMap<>();

    /** The rows of one table, in their order. */
    private static final class Part {
        private final ReachedTable table;
        private final List<ReachedLink> out = new ArrayList<>();
        private final List<ReachedLink> in = new ArrayList<>();
        private long[] refs = new long[FIRST_ROOM];
        /** For each link that leaves the table, the hash of each row's key in it; 0 for a row that points nowhere. */
        private long[][] outHashes;
        /** For each link that comes to the table, the hash of each row's key. */
        private long[][] inHashes;
        /** For each link that leaves the table, the first row of each bucket, and behind each row the next; from 1. */
        private int[][] heads;

        private int[][] nexts;
        private int size;
        private final BitSet reached = new BitSet();

        Part(ReachedTable table) {
            this.table = table;
        }
    }

    /** @param links links that cascade deletes, of which each belongs to a circle */
    CascadeWalk(List<ReachedLink> links, Map<String, TableSource> sources) {
        this.links = List.copyOf(links);
        for (ReachedLink link : links) {
            parts.computeIfAbsent(link.child, Part::new).out.add(link);
            parts.computeIfAbsent(link.parent, Part::new).in.add(link);
        }
        parts.values().forEach(part -> read(part, sources.get(part.table.table().name())));
    }

    private static void read(Part part, TableSource source) {
        ReachedTable table = part.table;
        int[] kept = table.columnsKept();
        TypedColumn[] typed = new TypedColumn[kept.length];
        for (int slot = 0; slot < kept.length; slot++) {
            typed[slot] = new TypedColumn(table.column(kept[slot]));
        }
        part.outHashes = new long[part.out.size()][FIRST_ROOM];
        part.inHashes = new long[part.in.size()][FIRST_ROOM];
        int[] needed = part.out.isEmpty() && part.in.isEmpty() ? new int[0] : columnsOf(part);
        Object[] values = new Object[kept.length];
        source.read(kept, batch -> {
            for (int column : needed) {
                typed[table.slotOf(column)].read(batch.column(table.slotOf(column)));
            }
            for (int row = 0; row < batch.size(); row++) {
                for (int column : needed) {
                    values[table.slotOf(column)] = table.codec(column).read(typed[table.slotOf(column)], row);
                }
                add(part, batch.ref(row), values);
            }
        });
        index(part);
    }

    private static int[] columnsOf(Part part) {
        BitSet columns = new BitSet();
        part.out.forEach(link -> Arrays.stream(link.childColumns).forEach(columns::set));
        part.in.forEach(link -> Arrays.stream(link.parentColumns).forEach(columns::set));
        return columns.stream().toArray();
    }

    private static void add(Part part, long ref, Object[] values) {
        if (part.size == part.refs.length) {
            int room = part.size * 2;
            part.refs = Arrays.copyOf(part.refs, room);
            grow(part.outHashes, room);
            grow(part.inHashes, room);
        }
        for (int i = 0; i < part.out.size(); i++) {
            part.outHashes[i][part.size] = hash(part.out.get(i).children.keyOf(values));
        }
        for (int i = 0; i < part.in.size(); i++) {
            part.inHashes[i][part.size] = hash(part.in.get(i).parents.keyOf(values));
        }
        part.refs[part.size++] = ref;
    }

    private static void grow(long[][] arrays, int room) {
        for (int i = 0; i < arrays.length; i++) {
            arrays[i] = Arrays.copyOf(arrays[i], room);
        }
    }

    /** The hash of a key, not 0; 0 for no key. */
    private static long hash(Object key) {
        if (key == null) {
            return 0;
        }
        long mixed = (key instanceof Long number ? number : (long) key.hashCode()) * SPREAD;
        mixed ^= mixed >>> 32;
        return mixed == 0 ? 1 : mixed;
    }

    private static void index(Part part) {
        part.heads = new int[part.out.size()][];
        part.nexts = new int[part.out.size()][];
        int buckets = Integer.highestOneBit(Math.max(1, part.size)) * 2;
        for (int i = 0; i < part.out.size(); i++) {
            int[] heads = new int[buckets];
            int[] nexts = new int[part.size];
            for (int row = part.size - 1; row >= 0; row--) {
                long hash = part.outHashes[i][row];
                if (hash != 0) {
                    int bucket = (int) hash & buckets - 1;
                    nexts[row] = heads[bucket];
                    heads[bucket] = row + 1;
                }
            }
            part.heads[i] = heads;
            part.nexts[i] = nexts;
        }
    }

    /**
     * The rows that cascades come to from some keys.
     *
     * @param starts keys that go away, by the links that point at them
     * @return for each table the references of its rows, ascending
     */
    Map<ReachedTable, long[]> reach(Map<ReachedLink, Set<Object>> starts) {
        // Pairs of a link's place and a hash, still to be looked up.
        long[] open = new long[FIRST_ROOM];
        int size = 0;
        for (Map.Entry<ReachedLink, Set<Object>> start : starts.entrySet()) {
            for (Object key : start.getValue()) {
                open = withRoom(open, size + 2);
                open[size++] = links.indexOf(start.getKey());
                open[size++] = hash(key);
            }
        }
        while (size > 0) {
            long hash = open[--size];
            ReachedLink link = links.get((int) open[--size]);
            Part child = parts.get(link.child);
            int place = child.out.indexOf(link);
            int bucket = (int) hash & child.heads[place].length - 1;
            for (int row = child.heads[place][bucket] - 1; row >= 0; row = child.nexts[place][row] - 1) {
                if (child.outHashes[place][row] == hash && !child.reached.get(row)) {
                    child.reached.set(row);
                    for (int i = 0; i < child.in.size(); i++) {
                        if (child.inHashes[i][row] != 0) {
                            open = withRoom(open, size + 2);
                            open[size++] = links.indexOf(child.in.get(i));
                            open[size++] = child.inHashes[i][row];
                        }
                    }
                }
            }
        }
        Map<ReachedTable, long[]> reached = new LinkedHashMap<>();
        parts.forEach((table, part) -> reached.put(
                table, part.reached.stream().mapToLong(row -> part.refs[row]).toArray()));
        return reached;
    }

    private static long[] withRoom(long[] array, int room) {
        return array.length >= room ? array : Arrays.copyOf(array, Math.max(room, array.length * 2));
    }
}
