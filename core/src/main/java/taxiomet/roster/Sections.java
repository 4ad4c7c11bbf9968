package taxiomet.roster;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.IntStream;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.RosterResult.Section;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.roster.RosterOptions.Childless;
import taxiomet.spill.LongSpool;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;

/**
 * The sections of a roster in their order: its headings, then those whose parent is missing, then those without one; below each its
 * children as they come back, sorted by heading and link.
 */
final class Sections {
    /** Longs of a section that stay in memory. */
    private static final int IN_MEMORY = 1 << 12;

    private final Headings headings;
    private final int[] counts;
    private final SortedSpool children;
    private final CellSpool cells;
    private final Childless childless;

    /**
     * @param counts how many children each heading has, the two other sections behind them
     * @param children numbers of sections and groups, each with where the cells of a child stand
     */
    Sections(Headings headings, int[] counts, SortedSpool children, CellSpool cells, Childless childless) {
        this.headings = headings;
        this.counts = counts;
        this.children = children;
        this.cells = cells;
        this.childless = childless;
    }

    /** Whether a section is listed. */
    boolean isShown(int number) {
        if (section(number) != Section.HEADING) {
            return counts[number] > 0 && childless != Childless.ONLY;
        }
        return headings.name(number).isPresent()
                && switch (childless) {
                    case SHOW -> true;
                    case HIDE -> counts[number] > 0;
                    case ONLY -> counts[number] == 0;
                };
    }

    private Section section(int number) {
        return number < headings.size()
                ? Section.HEADING
                : number == headings.size() ? Section.PARENT_MISSING : Section.NO_PARENT;
    }

    private String name(int number) {
        return section(number) == Section.HEADING ? headings.name(number).orElseThrow() : "";
    }

    /** Where the cells of the children of one group stand. */
    private interface Places {
        boolean hasNext();

        long next();
    }

    /** The children of one section after the other. */
    private final class Rows {
        private final int groups;
        private final SortedSpool.Reader pairs = children.read();
        private boolean hasPair = pairs.next();

        Rows(int groups) {
            this.groups = groups;
        }

        /** The children of a group; all of those before have been read. */
        Places of(int number, int group) {
            long first = (long) number * groups + group;
            return new Places() {
                @Override
                public boolean hasNext() {
                    return hasPair && pairs.first() == first;
                }

                @Override
                public long next() {
                    long place = pairs.second();
                    hasPair = pairs.next();
                    return place;
                }
            };
        }
    }

    /** Hands over all of them. */
    void read(List<Group> groups, RosterResult.Reader reader) {
        Rows rows = new Rows(groups.size());
        for (int number = 0; number < counts.length; number++) {
            boolean isShown = isShown(number);
            if (isShown) {
                reader.section(section(number), name(number), counts[number]);
            }
            for (int i = 0; i < groups.size(); i++) {
                Places places = rows.of(number, i);
                if (isShown) {
                    hand(groups.get(i), section(number), places, reader);
                } else {
                    pass(places);
                }
            }
        }
    }

    private static void pass(Places places) {
        while (places.hasNext()) {
            places.next();
        }
    }

    private void hand(Group group, Section section, Places places, RosterResult.Reader reader) {
        if (!places.hasNext()) {
            return;
        }
        List<String> columns = group.columns(section);
        reader.group(group, columns);
        Sums sums = new Sums(group);
        while (places.hasNext()) {
            List<String> texts = cells.at(places.next());
            reader.row(texts.subList(0, columns.size()));
            sums.add(texts.subList(columns.size(), texts.size()));
        }
        reader.endGroup(group, sums.rows, sums.all());
    }

    /** What the totals of one group come to. */
    private static final class Sums {
        private final List<String> totals;
        private final BigDecimal[] sums;
        private long rows;

        Sums(Group group) {
            totals = group.totals();
            sums = new BigDecimal[totals.size()];
            Arrays.fill(sums, BigDecimal.ZERO);
        }

        void add(List<String> numbers) {
            rows++;
            for (int i = 0; i < sums.length; i++) {
                sums[i] = sums[i].add(new BigDecimal(numbers.get(i)));
            }
        }

        List<Sum> all() {
            return IntStream.range(0, sums.length)
                    .mapToObj(i -> new Sum(totals.get(i), sums[i]))
                    .toList();
        }
    }

    /** Hands over each section as a roster of its own. */
    void each(RosterResult whole, SpillFolder spill, Consumer<RosterPart> taker) {
        Rows rows = new Rows(whole.groups().size());
        for (int number = 0; number < counts.length; number++) {
            if (isShown(number)) {
                try (Part part = new Part(whole, number, rows, spill)) {
                    taker.accept(part);
                }
            } else {
                for (int i = 0; i < whole.groups().size(); i++) {
                    pass(rows.of(number, i));
                }
            }
        }
    }

    private final class Part implements RosterPart, AutoCloseable {
        private final int number;
        private final RosterResult result;
        private final List<LongSpool> places = new ArrayList<>();

        Part(RosterResult whole, int number, Rows rows, SpillFolder spill) {
            this.number = number;
            List<Group> groups = new ArrayList<>();
            for (int i = 0; i < whole.groups().size(); i++) {
                Group group = whole.groups().get(i);
                int shown = group.columns(section()).size();
                LongSpool own = new LongSpool(spill, IN_MEMORY);
                Sums sums = new Sums(group);
                for (Places all = rows.of(number, i); all.hasNext(); ) {
                    long place = all.next();
                    own.add(place);
                    List<String> texts = cells.at(place);
                    sums.add(texts.subList(shown, texts.size()));
                }
                places.add(own);
                groups.add(group.part(section(), sums.rows, sums.all()));
            }
            result = whole.part(section(), name(), groups);
        }

        @Override
        public Section section() {
            return Sections.this.section(number);
        }

        @Override
        public String name() {
            return Sections.this.name(number);
        }

        @Override
        public RosterResult result() {
            return result;
        }

        @Override
        public void read(RosterResult.Reader reader) {
            reader.section(section(), name(), counts[number]);
            for (int i = 0; i < places.size(); i++) {
                LongSpool.Reader own = places.get(i).read();
                hand(
                        result.groups().get(i),
                        section(),
                        new Places() {
                            @Override
                            public boolean hasNext() {
                                return own.hasNext();
                            }

                            @Override
                            public long next() {
                                return own.next();
                            }
                        },
                        reader);
            }
        }

        @Override
        public void close() {
            places.forEach(LongSpool::close);
        }
    }
}
