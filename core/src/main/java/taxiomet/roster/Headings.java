package taxiomet.roster;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Table;
import taxiomet.expression.BatchEvaluator;
import taxiomet.expression.RowFilter;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyPlaces;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.rows.RowRef;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.spill.MemoryBudget;
import taxiomet.spill.Offsets;
import taxiomet.spill.SpillFolder;
import taxiomet.work.Secret;

/** The rows of the headings' table, numbered in their order, and found by their keys. */
final class Headings implements AutoCloseable {
    /** A row whose key is there and that is not shown. */
    static final int LEFT_OUT = -2;

    /** Nulls, and values that are not of their type, come last in both. */
    private static final Comparator<Object> ASCENDING = Comparator.nullsLast(Headings::compare);

    private static final Comparator<Object> DESCENDING = Comparator.nullsLast((one, other) -> compare(other, one));

    private final Table table;
    private final RosterOptions options;
    private final Pseudonyms pseudonyms;
    private final Secret secret;
    private final MemoryBudget budget;
    private final CellSpool names;
    private final Offsets offsets = new Offsets();
    /** For each row as it was read, its number in the order of the headings; null where that is the same. */
    private int[] ranks;
    /** For each heading in its order, which row as it was read; null where that is the same. */
    private int[] order;

    private final BitSet left = new BitSet();
    private final Map<List<Object>, KeyPlaces> places = new HashMap<>();
    private final List<Object[]> sortKeys = new ArrayList<>();
    private long rows;
    private long leftOut;
    private long doubled;

    Headings(
            Table table,
            RosterOptions options,
            Pseudonyms pseudonyms,
            Secret secret,
            SpillFolder spill,
            MemoryBudget budget) {
        this.table = table;
        this.options = options;
        this.pseudonyms = pseudonyms;
        this.secret = secret;
        this.budget = budget;
        this.names = new CellSpool(spill);
    }

    private static List<Object> nameOf(KeyEncoder encoder) {
        return List.of(Arrays.toString(encoder.columns()), encoder.forms());
    }

    /** Reads all rows; those that have one of some keys are found by them. */
    void read(TableSource source, List<KeyEncoder> encoders) {
        Map<List<Object>, KeyEncoder> different = new HashMap<>();
        encoders.forEach(encoder -> different.putIfAbsent(nameOf(encoder), encoder));
        different.keySet().forEach(name -> places.put(name, new KeyPlaces(budget)));
        RowFilter filter = RowFilter.of(options.where());
        int[] shown = table.indexesOf(Stream.concat(table.namingKey().stream(), table.label().stream())
                .distinct()
                .toList());
        int[] sorted = options.sort().stream()
                .mapToInt(sort -> table.indexOf(sort.column()))
                .toArray();
        int[] columns = Stream.of(
                        IntStream.of(shown),
                        IntStream.of(sorted),
                        IntStream.of(RowFilter.columnsOf(new int[0], filter)),
                        encoders.stream().flatMapToInt(encoder -> IntStream.of(encoder.columns())))
                .flatMapToInt(each -> each)
                .distinct()
                .sorted()
                .toArray();
        TypedBatch batch = TypedBatch.ofValues(table, columns, secret);
        BatchEvaluator values = new BatchEvaluator();
        source.read(columns, read -> {
            batch.read(read);
            values.start(batch);
            different.values().forEach(encoder -> encoder.start(batch));
            if (filter != null) {
                filter.start(batch);
            }
            for (int row = 0; row < batch.size(); row++) {
                boolean isShown = filter == null || filter.holds(row);
                add(row, batch, isShown, sorted, values);
                for (Map.Entry<List<Object>, KeyEncoder> each : different.entrySet()) {
                    put(row, each.getValue(), places.get(each.getKey()));
                }
            }
            rows += read.size() + read.malformed().size();
            leftOut += read.malformed().size();
        });
        sort();
    }

    private void add(int row, TypedBatch batch, boolean isShown, int[] sorted, BatchEvaluator values) {
        int place = offsets.size();
        if (!isShown) {
            left.set(place);
            leftOut++;
        }
        offsets.add(isShown ? names.add(List.of(name(row, batch))) : -1);
        if (sorted.length > 0) {
            Object[] key = new Object[sorted.length];
            for (int i = 0; i < key.length; i++) {
                key[i] = values.columnValue(sorted[i], row);
            }
            sortKeys.add(key);
        }
    }

    /** A row by its key and its label. */
    private String name(int row, TypedBatch batch) {
        List<String> key = cells(table.namingKey(), row, batch);
        String label = cells(table.label(), row, batch).stream()
                .filter(cell -> !cell.equals("null") && !key.contains(cell))
                .collect(Collectors.joining(" "));
        String called = key.isEmpty()
                ? "row " + RowRef.row(batch.ref(row))
                : key.size() == 1 ? key.get(0) : "(" + String.join(", ", key) + ")";
        return label.isEmpty() ? called : called + "  " + label;
    }

    private List<String> cells(List<String> columns, int row, TypedBatch batch) {
        return columns.stream()
                .map(column -> pseudonyms.of(
                        table.name(),
                        column,
                        batch.column(table.indexOf(column)).cells().text(row)))
                .map(String::valueOf)
                .toList();
    }

    private void put(int row, KeyEncoder encoder, KeyPlaces into) {
        encoder.look(row);
        if (!encoder.isComplete()) {
            return;
        }
        encoder.encode(row);
        int place = offsets.size() - 1;
        if (into.place(encoder.high(), encoder.low()) != KeyPlaces.ABSENT) {
            doubled++;
        } else if (!into.put(encoder.high(), encoder.low(), place)) {
            throw new SourceException(
                    table.name(), "the keys of its rows do not fit into memory", "give more with --memory");
        }
    }

    private void sort() {
        if (options.sort().isEmpty()) {
            return;
        }
        Comparator<Integer> comparator = Comparator.comparingInt(place -> 0);
        for (int i = 0; i < options.sort().size(); i++) {
            int place = i;
            Comparator<Object> values = options.sort().get(i).isDescending() ? DESCENDING : ASCENDING;
            comparator = comparator.thenComparing(row -> sortKeys.get(row)[place], values);
        }
        List<Integer> all =
                new ArrayList<>(IntStream.range(0, offsets.size()).boxed().toList());
        all.sort(comparator);
        order = all.stream().mapToInt(Integer::intValue).toArray();
        ranks = new int[order.length];
        for (int i = 0; i < order.length; i++) {
            ranks[order[i]] = i;
        }
        sortKeys.clear();
    }

    /** Two values of one column. */
    @SuppressWarnings("unchecked")
    private static int compare(Object one, Object other) {
        return ((Comparable<Object>) one).compareTo(other);
    }

    /** The number of the heading that a key leads to; {@link #LEFT_OUT}, or {@link KeyPlaces#ABSENT}. */
    int numberOf(KeyEncoder of, long high, long low) {
        int place = places.get(nameOf(of)).place(high, low);
        if (place == KeyPlaces.ABSENT) {
            return place;
        }
        return left.get(place) ? LEFT_OUT : ranks == null ? place : ranks[place];
    }

    /** How many numbers there are, those of rows that are not shown too. */
    int size() {
        return offsets.size();
    }

    /** What the heading of a number is called; empty where it is not shown. */
    Optional<String> name(int number) {
        int place = order == null ? number : order[number];
        return left.get(place)
                ? Optional.empty()
                : Optional.of(names.at(offsets.get(place)).get(0));
    }

    long rows() {
        return rows;
    }

    long leftOut() {
        return leftOut;
    }

    /** Rows that have a key which another row has, too. */
    long doubled() {
        return doubled;
    }

    @Override
    public void close() {
        places.values().forEach(KeyPlaces::close);
        names.close();
    }
}
