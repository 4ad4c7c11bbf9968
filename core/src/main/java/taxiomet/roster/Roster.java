package taxiomet.roster;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.stream.IntStream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.expression.RowFilter;
import taxiomet.finding.ChildrenSpread;
import taxiomet.finding.RosterResult;
import taxiomet.finding.RosterResult.Group;
import taxiomet.finding.TraceResult.Sum;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyPlaces;
import taxiomet.keys.TypedBatch;
import taxiomet.personal.Pseudonyms;
import taxiomet.roster.RosterOptions.Childless;
import taxiomet.rows.TableSource;
import taxiomet.spill.SortedSpool;
import taxiomet.spill.SpillFolder;
import taxiomet.work.RunContext;

/**
 * The rows of a table, each with its children below it. All tables are read once; the roster can be read as often as it is wanted, until
 * it is closed.
 */
public final class Roster implements AutoCloseable {
    private final Charter charter;
    private final Table table;
    private final RosterOptions options;
    private final RunContext context;
    private final Pseudonyms pseudonyms;
    private final SpillFolder spill;
    private final Headings headings;
    private final List<ChildGroup> groups = new ArrayList<>();
    private final List<Tally> tallies = new ArrayList<>();
    /** Numbers of headings and groups, each with where the cells of a child stand. */
    private final SortedSpool children;

    private final CellSpool cells;
    /** How many children each heading has. */
    private int[] counts = new int[0];

    private Sections sections;
    private RosterResult result;

    /** How many rows of a group went where, and what their totals come to. */
    private static final class Tally {
        private long rows;
        private long listed;
        private long orphans;
        private long withoutParent;
        private long underLeftOut;
        private long leftOut;
        private long malformed;
        private final BigDecimal[] sums;

        Tally(int totals) {
            sums = new BigDecimal[totals];
            Arrays.fill(sums, BigDecimal.ZERO);
        }
    }

    private Roster(Charter charter, String table, RosterOptions options, Pseudonyms pseudonyms, RunContext context) {
        this.charter = charter;
        this.table = charter.table(table);
        this.options = options;
        this.context = context;
        this.pseudonyms = pseudonyms;
        this.spill = new SpillFolder(context.temporary(), context.budget());
        this.headings = new Headings(this.table, options, pseudonyms, context.secret(), spill, context.budget());
        this.children = new SortedSpool(spill);
        this.cells = new CellSpool(spill);
    }

    /**
     * Reads what a roster lists.
     *
     * @param options whose names are known to exist
     * @param open opens the rows of a table with all its declared columns
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static Roster of(
            Charter charter,
            String table,
            RosterOptions options,
            Function<Table, TableSource> open,
            RunContext context) {
        Pseudonyms pseudonyms = new Pseudonyms(charter, context.secret());
        Roster roster = new Roster(pseudonyms.charter(), table, options, pseudonyms, context);
        try {
            roster.read(open);
            return roster;
        } catch (RuntimeException | Error e) {
            roster.close();
            throw e;
        }
    }

    /** The links over which children of a table are listed. */
    public static List<ForeignKey> links(Charter charter, String table, List<String> through) {
        return charter.links().stream()
                .filter(link -> link.parent().equals(table))
                .filter(link -> through.isEmpty()
                        || through.contains(link.name())
                        || through.contains(link.child() + "." + link.name()))
                .toList();
    }

    private void read(Function<Table, TableSource> open) {
        for (ForeignKey link : links(charter, table.name(), options.through())) {
            ChildGroup group = new ChildGroup(charter, link, options.columns(), pseudonyms, context, spill);
            groups.add(group);
            tallies.add(new Tally(group.totals().size()));
        }
        read(
                table,
                open,
                source -> headings.read(
                        source, groups.stream().map(ChildGroup::ofParent).toList()));
        for (ChildGroup group : groups) {
            for (ParentCells parent : group.parents()) {
                read(parent.parent(), open, source -> parent.read(source, pseudonyms, context.secret()));
            }
            group.totals().read((parent, reading) -> read(parent, open, reading));
        }
        Map<Table, List<Integer>> byTable = new LinkedHashMap<>();
        for (int i = 0; i < groups.size(); i++) {
            byTable.computeIfAbsent(groups.get(i).child(), t -> new ArrayList<>())
                    .add(i);
        }
        // Behind the headings come those whose parent is missing, and those without one.
        counts = new int[headings.size() + 2];
        byTable.forEach((child, own) -> read(child, open, source -> readChildren(child, own, source)));
        sections = new Sections(headings, counts, children, cells, options.childless());
        result = summary();
    }

    private void read(Table which, Function<Table, TableSource> open, Consumer<TableSource> reading) {
        context.progress().reading(which.name());
        try (TableSource source = open.apply(which)) {
            reading.accept(source);
        }
    }

    private void readChildren(Table child, List<Integer> own, TableSource source) {
        RowFilter filter = RowFilter.of(options.whereChild());
        int[] columns = IntStream.concat(
                        own.stream()
                                .flatMapToInt(i -> IntStream.of(groups.get(i).columns())),
                        IntStream.of(RowFilter.columnsOf(new int[0], filter)))
                .distinct()
                .sorted()
                .toArray();
        TypedBatch batch = TypedBatch.ofValues(child, columns, context.secret());
        source.read(columns, read -> {
            batch.read(read);
            if (filter != null) {
                filter.start(batch);
            }
            for (int i : own) {
                ChildGroup group = groups.get(i);
                Tally tally = tallies.get(i);
                group.start(batch);
                for (int row = 0; row < batch.size(); row++) {
                    if (filter != null && !filter.holds(row)) {
                        tally.leftOut++;
                    } else {
                        add(row, i, group, tally);
                    }
                }
                tally.rows += read.size() + read.malformed().size();
                tally.malformed += read.malformed().size();
            }
        });
    }

    private void add(int row, int place, ChildGroup group, Tally tally) {
        int number = headings.size();
        if (!group.hasParent(row)) {
            tally.withoutParent++;
            number++;
        } else {
            Optional<KeyEncoder> key = group.key(row);
            int found = key.isEmpty()
                    ? KeyPlaces.ABSENT
                    : headings.numberOf(
                            group.ofParent(), key.get().high(), key.get().low());
            if (found == Headings.LEFT_OUT) {
                tally.underLeftOut++;
                return;
            } else if (found == KeyPlaces.ABSENT) {
                tally.orphans++;
            } else {
                tally.listed++;
                number = found;
            }
        }
        boolean isOrphan = number == headings.size();
        List<String> texts = group.cells(row, isOrphan);
        int shown = texts.size() - tally.sums.length;
        for (int i = 0; i < tally.sums.length; i++) {
            tally.sums[i] = tally.sums[i].add(new BigDecimal(texts.get(shown + i)));
        }
        counts[number]++;
        children.add((long) number * groups.size() + place, cells.add(texts));
    }

    private RosterResult summary() {
        List<String> remarks = new ArrayList<>();
        if (headings.doubled() > 0) {
            remarks.add(headings.doubled() + (headings.doubled() == 1 ? " row of " : " rows of ") + table.name()
                    + (headings.doubled() == 1 ? " bears" : " bear")
                    + " a key that another row has: children are listed once, below the first of them");
        }
        for (ChildGroup group : groups) {
            group.totals()
                    .hidden()
                    .forEach(text -> remarks.add("the total " + text + " of "
                            + group.child().name() + " reads personal columns: it is added up with --reveal alone"));
            group.parents().stream()
                    .filter(parent -> !parent.isWhole())
                    .forEach(
                            parent -> remarks.add(
                                    "the keys of " + parent.parent().name()
                                            + " do not fit into memory: codes stand for some of its rows; --memory gives more"));
        }
        List<Group> told = new ArrayList<>();
        for (int i = 0; i < groups.size(); i++) {
            told.add(group(groups.get(i), tallies.get(i)));
        }
        SortedMap<Long, Long> headingsByCount = new TreeMap<>();
        IntStream.range(0, headings.size())
                .filter(sections::isShown)
                .forEach(number -> headingsByCount.merge((long) counts[number], 1L, Long::sum));
        long headed =
                headingsByCount.values().stream().mapToLong(Long::longValue).sum();
        return new RosterResult(
                charter.name(),
                table.name(),
                headings.rows(),
                headed,
                headings.leftOut(),
                ChildrenSpread.of(headingsByCount),
                told,
                remarks);
    }

    private Group group(ChildGroup group, Tally tally) {
        boolean areShown = options.childless() != Childless.ONLY;
        return new Group(
                group.link().name(),
                group.child().name(),
                group.link().columns(),
                group.heads(),
                group.totals().texts(),
                tally.rows,
                areShown ? tally.listed : 0,
                tally.orphans,
                tally.withoutParent,
                tally.underLeftOut + (areShown ? 0 : tally.listed),
                tally.leftOut,
                tally.malformed,
                sums(group.totals().texts(), tally.sums));
    }

    private static List<Sum> sums(List<String> totals, BigDecimal[] sums) {
        return IntStream.range(0, sums.length)
                .mapToObj(i -> new Sum(totals.get(i), sums[i]))
                .toList();
    }

    /** What it lists, as a whole. */
    public RosterResult result() {
        return result;
    }

    /** Hands over all of it, in its order. */
    public void read(RosterResult.Reader reader) {
        sections.read(result.groups(), reader);
    }

    /** Hands over each of its sections, in their order, as a roster of its own. */
    public void eachSection(Consumer<RosterPart> taker) {
        sections.each(result, spill, taker);
    }

    @Override
    public void close() {
        groups.forEach(ChildGroup::close);
        headings.close();
        children.close();
        cells.close();
        spill.close();
    }
}
