package taxiomet.browse;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.finding.Hint;
import taxiomet.hint.HintFinder;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;
import taxiomet.rows.RowRef;
import taxiomet.rows.TableSource;
import taxiomet.values.ValueReader;
import taxiomet.work.RunContext;

/** Finds the rows that are meant, in one pass over the columns that name them. */
final class RowSearch {
    private final Table table;
    private final Sources sources;
    private final RunContext context;

    RowSearch(Table table, Sources sources, RunContext context) {
        this.table = table;
        this.sources = sources;
        this.context = context;
    }

    /**
     * Rows that were found.
     *
     * @param tally how many, and those that stand first
     * @param near where there are none, keys that are like the one asked for, in some columns
     */
    record Found(Tally tally, Optional<Hint> near, List<String> nearColumns) {
        Found(Tally tally) {
            this(tally, Optional.empty(), List.of());
        }

        long rows() {
            return tally.rows();
        }

        /** References, ascending. */
        long[] first() {
            return tally.first();
        }
    }

    /** @param most how many rows are named */
    Found find(RowAsked asked, int most) {
        if (asked instanceof RowAsked.ByCells cells) {
            return byCells(cells, most);
        } else if (asked instanceof RowAsked.ByCondition condition) {
            return byCondition(condition, most);
        }
        return byNumber((RowAsked.ByNumber) asked);
    }

    private Found byCells(RowAsked.ByCells asked, int most) {
        int[] columns = table.indexesOf(asked.columns());
        List<KeyForm> forms = Arrays.stream(columns)
                .mapToObj(column -> KeyForm.of(table.columns().get(column)))
                .toList();
        KeyEncoder encoder = new KeyEncoder(columns, forms, context.secret());
        KeySeeker seeker = new KeySeeker(table, encoder, new int[0], null, most, Optional.empty(), context.budget());
        Map<List<String>, Tally> tallies = new LinkedHashMap<>();
        for (List<String> reading : asked.readings()) {
            keyOf(reading, columns, encoder).ifPresent(key -> tallies.put(reading, seeker.want(key)));
        }
        pass(seeker);
        return tallies.values().stream()
                .filter(tally -> tally.rows() > 0)
                .findFirst()
                .map(Found::new)
                .orElseGet(() -> new Found(new Tally(List.of(), 0), near(asked, columns), asked.columns()));
    }

    private Optional<RowKey> keyOf(List<String> cells, int[] columns, KeyEncoder encoder) {
        String[] row = new String[table.columns().size()];
        for (int i = 0; i < columns.length; i++) {
            row[columns[i]] = cells.get(i);
        }
        return RowAtHand.keyIn(RowAtHand.batch(table, Arrays.asList(row), context.secret()), encoder, false);
    }

    private Optional<Hint> near(RowAsked.ByCells asked, int[] columns) {
        HintFinder finder = new HintFinder();
        List<String> cells = asked.readings().get(asked.readings().size() - 1);
        boolean isIllTyped = false;
        for (int i = 0; i < columns.length; i++) {
            isIllTyped |= !ValueReader.of(table.columns().get(columns[i])).accepts(cells.get(i));
        }
        finder.ask(new ArrayList<>(cells), isIllTyped);
        finder.look(sources.of(table), columns);
        return finder.hintFor(new ArrayList<>(cells))
                .filter(hint -> !hint.parents().isEmpty());
    }

    private Found byCondition(RowAsked.ByCondition asked, int most) {
        RowFilter filter = RowFilter.of(Optional.of(asked.condition()));
        Tally all = new Tally(List.of(), most);
        pass(new Seeker() {
            @Override
            public int[] columns() {
                return RowFilter.columnsOf(new int[0], filter);
            }

            @Override
            public OnThread onThread() {
                RowFilter own = RowFilter.copyOf(filter);
                Tally seen = new Tally(List.of(), most);
                return new OnThread() {
                    @Override
                    public void look(TypedBatch batch) {
                        own.start(batch);
                        for (int row = 0; row < batch.size(); row++) {
                            if (own.holds(row)) {
                                seen.add(batch.ref(row));
                            }
                        }
                    }

                    @Override
                    public void end() {
                        all.addAll(seen);
                    }
                };
            }
        });
        return new Found(all);
    }

    private Found byNumber(RowAsked.ByNumber asked) {
        TableSource source = sources.of(table);
        List<Integer> parts = new ArrayList<>();
        for (int part = 0; part < source.partCount(); part++) {
            String name = source.partName(part);
            if (asked.part().isEmpty()
                    || name.equals(asked.part().get())
                    || name.endsWith("/" + asked.part().get())) {
                parts.add(part);
            }
        }
        if (parts.size() != 1) {
            List<String> names = new ArrayList<>();
            for (int part = 0; part < source.partCount(); part++) {
                names.add(source.partName(part));
            }
            throw new NoSuchPlace(table.name() + " stands in " + String.join(", ", names)
                    + (parts.isEmpty() ? ", and none of them is " + asked.part().orElse("") : "")
                    + "; write FILE:" + asked.row());
        }
        long ref = RowRef.of(parts.get(0), asked.row());
        Place place = new Place(ref);
        pass(place);
        if (!place.isThere) {
            throw new NoSuchPlace(
                    source.partName(parts.get(0)) + " has no row " + asked.row() + "; its last is " + place.last);
        }
        Tally one = new Tally(List.of(), 1);
        one.add(ref);
        return new Found(one);
    }

    /** Looks whether a row is there, malformed or not; threads take turns. */
    private final class Place implements Seeker, Seeker.OnThread {
        private final long ref;
        private boolean isThere;
        private long last;

        Place(long ref) {
            this.ref = ref;
        }

        @Override
        public int[] columns() {
            return table.indexesOf(table.namingKey());
        }

        @Override
        public OnThread onThread() {
            return this;
        }

        @Override
        public synchronized void pass(RowBatch rows) {
            for (int row = 0; row < rows.size(); row++) {
                note(rows.ref(row));
            }
            rows.malformed().forEach(row -> note(row.ref()));
        }

        private void note(long other) {
            isThere |= other == ref;
            if (RowRef.part(other) == RowRef.part(ref)) {
                last = Math.max(last, RowRef.row(other));
            }
        }

        @Override
        public void look(TypedBatch batch) {
            // What it holds does not matter.
        }

        @Override
        public void end() {
            // All is told.
        }
    }

    private void pass(Seeker seeker) {
        TablePass pass = new TablePass();
        pass.add(table, seeker);
        pass.run(sources, context);
    }
}
