package taxiomet.check.alike;

import java.util.ArrayList;
import java.util.List;
import taxiomet.charter.Alike;
import taxiomet.keys.KeyTable;
import taxiomet.spill.LongSpool;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/**
 * Pairs of rows that may be one thing, found without holding each row against each: by ways in which rows come together. A way is the
 * code of one column, or those of two. Rows with the same stand in one block. In a small block every two are looked at; a large one is
 * taken apart by each further column, and what is large then, too, is gone through with each row held against the few that follow.
 */
final class CandidatePairs implements AutoCloseable {
    /** The most rows of a block of which every two are looked at. */
    static final int MOST_IN_BLOCK = 32;
    /** The rows behind one that it is held against in a larger block. */
    static final int WINDOW = 6;
    /** More pairs than so many are not looked for: such a rule takes nearly every row for another. */
    static final long MOST_PAIRS = 1L << 21;

    private final Alike rule;
    private final LooseRows rows;
    private final SpillFolder spill;
    private final boolean[] isText;
    private final boolean[] neverDiffers;
    private final SortedSpool pairs;
    /** The pairs once more: most come together in several ways. */
    private final KeyTable known = new KeyTable(null);

    private final List<Way> ways = new ArrayList<>();
    private long largeBlocks;

    /** One column, or two; {@code code} is of the first, or {@link LooseRows#CODES} for all of them. */
    private record Way(int column, int code, int other) {
        static final int NONE = -1;

        boolean isOf(int any) {
            return column == any || other == any;
        }
    }

    /** @param isText of each column of the rule whether it is of texts */
    CandidatePairs(Alike rule, LooseRows rows, boolean[] isText, SpillFolder spill) {
        this.rule = rule;
        this.rows = rows;
        this.spill = spill;
        this.isText = isText.clone();
        this.neverDiffers = rule.neverDiffers();
        this.pairs = new SortedSpool(spill);
        addWays();
    }

    private void addWays() {
        int columns = isText.length;
        for (int one = 0; one < columns; one++) {
            ways.add(new Way(one, LooseRows.CODES, Way.NONE));
            for (int other = one + 1; other < columns; other++) {
                ways.add(new Way(one, LooseRows.CODES, other));
            }
        }
        // Where little has to agree, there need not be two columns that agree but for slips.
        for (int one = 0; one < columns && rule.agree() <= 2; one++) {
            for (int code = 0; code < LooseRows.CODES && isText[one]; code++) {
                if (rule.agree() == 1) {
                    ways.add(new Way(one, code, Way.NONE));
                    continue;
                }
                for (int other = 0; other < columns; other++) {
                    if (other != one) {
                        ways.add(new Way(one, code, other));
                    }
                }
            }
        }
    }

    /** Looks for all pairs. */
    void find() {
        rows.ready();
        for (Way way : ways) {
            find(way);
        }
    }

    private void find(Way way) {
        long[] record = new long[rows.length()];
        try (SortedSpool codes = new SortedSpool(spill);
                SortedSpool finer = new SortedSpool(spill)) {
            LongSpool.Reader reader = rows.spool().read();
            for (long number = 0; number < rows.size(); number++) {
                for (int i = 0; i < record.length; i++) {
                    record[i] = reader.next();
                }
                long code = codeOf(way, record);
                if (code != 0) {
                    codes.add(code, number);
                }
            }
            boolean isTakenApart = way.other() != Way.NONE || rule.agree() == 1;
            new Blocks(number -> {
                        if (isTakenApart) {
                            takeApart(way, number, finer);
                        }
                    })
                    .goThrough(codes);
            Blocks last = new Blocks(number -> {});
            last.goThrough(finer);
            largeBlocks += last.large;
        }
    }

    /** Adds a row of a large block under each further column; under itself where there is none. */
    private void takeApart(Way way, Numbered row, SortedSpool finer) {
        boolean hasFurther = false;
        for (int column = 0; column < isText.length; column++) {
            if (!way.isOf(column) && LooseRows.hasValue(row.record, column)) {
                hasFurther = true;
                finer.add(KeyTable.hash(row.code + column, LooseRows.whole(row.record, column)), row.number);
            }
        }
        if (!hasFurther || rule.agree() <= 2) {
            finer.add(row.code, row.number);
        }
    }

    private long codeOf(Way way, long[] record) {
        if (!LooseRows.hasValue(record, way.column())
                || (way.other() != Way.NONE && !LooseRows.hasValue(record, way.other()))) {
            return 0;
        }
        long code = way.code() == LooseRows.CODES
                ? LooseRows.whole(record, way.column())
                : LooseRows.code(record, way.column(), way.code());
        boolean isEmpty = way.code() < LooseRows.CODES && code == 0;
        if (isEmpty) {
            return 0;
        }
        return way.other() == Way.NONE
                ? KeyTable.hash(code, 1) | 1
                : KeyTable.hash(code, LooseRows.whole(record, way.other())) | 1;
    }

    /** A row in a block. */
    private static final class Numbered {
        private long code;
        private long number;
        private final long[] record;

        Numbered(int length) {
            record = new long[length];
        }
    }

    private interface Large {
        void add(Numbered row);
    }

    /** Goes through rows sorted by code, with no more than a small block in memory. */
    private final class Blocks {
        private final Large onLarge;
        private final Numbered[] held = new Numbered[MOST_IN_BLOCK];
        private long large;

        Blocks(Large onLarge) {
            this.onLarge = onLarge;
            for (int i = 0; i < held.length; i++) {
                held[i] = new Numbered(rows.length());
            }
        }

        void goThrough(SortedSpool codes) {
            SortedSpool.Reader reader = codes.read();
            boolean hasMore = reader.next();
            while (hasMore) {
                long code = reader.first();
                long previous = -1;
                int size = 0;
                long inAll = 0;
                while (hasMore && reader.first() == code) {
                    long number = reader.second();
                    if (number != previous) {
                        previous = number;
                        if (inAll == MOST_IN_BLOCK) {
                            large++;
                            for (int i = 0; i < held.length; i++) {
                                load(held[i]);
                                onLarge.add(held[i]);
                                window(i, Math.min(i, WINDOW));
                            }
                        }
                        size = (int) (inAll++ % MOST_IN_BLOCK);
                        held[size].code = code;
                        held[size].number = number;
                        if (inAll > MOST_IN_BLOCK) {
                            load(held[size]);
                            onLarge.add(held[size]);
                            window(size, WINDOW);
                        }
                    }
                    hasMore = reader.next();
                }
                if (inAll > 1 && inAll <= MOST_IN_BLOCK) {
                    everyTwo((int) inAll);
                }
            }
        }

        private void load(Numbered row) {
            rows.get(row.number, row.record);
        }

        private void everyTwo(int count) {
            for (int i = 0; i < count; i++) {
                load(held[i]);
                for (int j = 0; j < i; j++) {
                    consider(held[j].record, held[i].record);
                }
            }
        }

        /** Holds the row at a place against some of those just before it. */
        private void window(int place, int most) {
            for (int back = 1; back <= most; back++) {
                consider(held[Math.floorMod(place - back, MOST_IN_BLOCK)].record, held[place].record);
            }
        }
    }

    private void consider(long[] one, long[] other) {
        if (pairs.size() >= MOST_PAIRS || !mayAgree(one, other)) {
            return;
        }
        long first = Math.min(rows.ref(one), rows.ref(other));
        long second = Math.max(rows.ref(one), rows.ref(other));
        known.ensureRoom();
        int slot = known.slotOf(first, second);
        if (!known.isUsed(slot)) {
            known.insert(slot, first, second, 1);
            pairs.add(first, second);
        }
    }

    private boolean mayAgree(long[] one, long[] other) {
        int agreeing = 0;
        for (int column = 0; column < isText.length; column++) {
            if (!LooseRows.hasValue(one, column) || !LooseRows.hasValue(other, column)) {
                continue;
            }
            boolean mayBe = LooseRows.isWhole(one, other, column)
                    || (isText[column] && LooseRows.mayBeNear(one, other, column));
            if (!mayBe && neverDiffers[column]) {
                return false;
            }
            agreeing += mayBe ? 1 : 0;
        }
        return agreeing >= rule.agree();
    }

    /** The pairs of references, the lesser first. */
    SortedSpool pairs() {
        return pairs;
    }

    /** Whether there are so many that no more were looked for. */
    boolean areTooMany() {
        return pairs.size() >= MOST_PAIRS;
    }

    /** How many blocks were so large that not every two of their rows were looked at. */
    long largeBlocks() {
        return largeBlocks;
    }

    @Override
    public void close() {
        known.close();
        pairs.close();
    }
}
