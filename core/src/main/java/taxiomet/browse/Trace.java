package taxiomet.browse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.LongStream;
import taxiomet.charter.Charter;
import taxiomet.charter.Expression.ParentValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.check.pass.RowLookup.FoundRow;
import taxiomet.expression.RowFilter;
import taxiomet.finding.TraceResult;
import taxiomet.finding.TraceResult.RowFault;
import taxiomet.keys.KeyEncoder;
import taxiomet.keys.KeyForm;
import taxiomet.personal.Pseudonyms;
import taxiomet.rows.TableSource;
import taxiomet.work.RunContext;

/**
 * One row among its relatives: its parents and theirs, its children and theirs, the rows that share its key, what is wrong with it. Tables
 * are read level by level, each once for all that is sought in it, and only those that may have a relative.
 */
public final class Trace {
    /** More children than this are counted, and not judged one by one. */
    private static final int MOST_CHILDREN_JUDGED = 200_000;

    private static final int MOST_TWINS = 5;

    private final Charter charter;
    private final TraceOptions options;
    private final RunContext context;
    private final Sources sources;
    private final Map<Key, Tally> twins = new LinkedHashMap<>();
    private final List<ChildrenSought> children = new ArrayList<>();

    private Trace(Charter charter, TraceOptions options, Sources sources, RunContext context) {
        this.charter = charter;
        this.options = options;
        this.context = context;
        this.sources = sources;
    }

    /**
     * Finds a row and its relatives; where several rows are meant, none of these.
     *
     * @param open opens the rows of a table with all its declared columns
     * @throws NoSuchPlace when a row is asked for by its place, and is not there
     * @throws taxiomet.rows.SourceException when rows cannot be read
     */
    public static TraceResult of(
            Charter charter,
            String table,
            RowAsked asked,
            TraceOptions options,
            Function<Table, TableSource> open,
            RunContext context) {
        Pseudonyms pseudonyms = new Pseudonyms(charter, context.secret());
        Charter told = pseudonyms.charter();
        try (Sources sources = new Sources(open)) {
            return new Trace(told, options, sources, context)
                    .result(told.table(table), asked, new TraceAssembler(told, options, pseudonyms));
        }
    }

    private TraceResult result(Table table, RowAsked asked, TraceAssembler assembler) {
        RowSearch.Found found =
                new RowSearch(table, sources, context).find(asked, Math.max(options.shown(), MOST_TWINS) + 1);
        List<RowAtHand> rows = fetch(table, found.first(), List.of());
        boolean isOne = found.rows() == 1 || (found.rows() > 1 && isByKey(table, asked));
        if (!isOne) {
            return assembler.several(table, found, rows);
        }
        RowAtHand root = rows.get(0);
        if (root.typed().isPresent()) {
            noteCopies(table, asked, found.tally());
            follow(root);
        }
        new ParentHints(charter, sources, context).addTo(root, options.up());
        FaultsOfRow around = new FaultsOfRow(charter, sources, context);
        String notJudged = gather(root, around);
        List<RowFault> faults = around.of(table, root.row().ref());
        return assembler.one(root, found.rows(), faults, notJudged, twinsOf(root), children);
    }

    /** Whether rows that were found are copies of one: they were asked for by a key. */
    private static boolean isByKey(Table table, RowAsked asked) {
        return asked instanceof RowAsked.ByCells cells
                && table.keys().stream().anyMatch(key -> key.columns().equals(cells.columns()));
    }

    private List<RowAtHand> fetch(Table table, long[] refs, List<String> way) {
        if (refs.length == 0) {
            return List.of();
        }
        TreeSet<Long> wanted = new TreeSet<>();
        LongStream.of(refs).forEach(wanted::add);
        Map<Long, FoundRow> found = sources.rows(table).find(wanted);
        return wanted.stream()
                .map(ref -> new RowAtHand(table, found.get(ref), way, context.secret()))
                .toList();
    }

    /** Level by level up and down, as long as somebody wants it. */
    private void follow(RowAtHand root) {
        List<RowAtHand> above = List.of(root);
        List<ChildrenSought> under = children;
        for (ForeignKey link : linksInto(root.table())) {
            int most = isJudgedByChildren(root.table(), link) ? MOST_CHILDREN_JUDGED : options.shown();
            ChildrenSought sought = new ChildrenSought(charter, List.of(link), most, sources, context);
            sought.want(root);
            under.add(sought);
        }
        int levels = Math.max(Math.max(1, options.down()), Math.max(options.up(), longestWay(root.table())));
        for (int level = 1; level <= levels; level++) {
            TablePass pass = new TablePass();
            ParentSeekers parents = new ParentSeekers(charter, context);
            for (RowAtHand row : above) {
                for (ForeignKey link : row.table().links()) {
                    if (level <= Math.max(1, options.up()) || isAskedByRule(root.table(), row.way(), link)) {
                        row.parents().add(parents.seek(row, link));
                    }
                }
            }
            parents.addTo(pass);
            if (level == 1) {
                seekTwins(root, pass);
            }
            List<ChildrenSought> deeper = new ArrayList<>();
            for (ChildrenSought sought : under) {
                if (level <= options.down() || isJudgedByChildren(root.table(), sought.link())) {
                    sought.addTo(pass);
                }
                if (level < options.down()) {
                    linksInto(sought.child())
                            .forEach(link ->
                                    deeper.add(sought.goOnTo(link, charter, options.shown(), sources, context)));
                }
            }
            pass.run(sources, context);
            above = parentsOf(above);
            under.forEach(this::readShown);
            under = deeper;
        }
    }

    private List<ForeignKey> linksInto(Table table) {
        return charter.links().stream()
                .filter(link -> link.parent().equals(table.name()))
                .toList();
    }

    private static boolean isJudgedByChildren(Table table, ForeignKey link) {
        return link.children().isPresent()
                || table.rules().stream()
                        .flatMap(rule -> rule.condition().childrenRead().stream())
                        .anyMatch(value -> value.child().equals(link.child())
                                && value.link().equals(link.name()));
    }

    private static int longestWay(Table table) {
        return table.rules().stream()
                .flatMap(rule -> rule.condition().parentsRead().stream())
                .mapToInt(value -> value.links().size())
                .max()
                .orElse(0);
    }

    /** Whether a rule of the row asked for goes over a link, from a parent that some links lead to. */
    private static boolean isAskedByRule(Table table, List<String> way, ForeignKey link) {
        List<String> longer = joined(way, link);
        return table.rules().stream()
                .flatMap(rule -> rule.condition().parentsRead().stream())
                .map(ParentValue::links)
                .anyMatch(links -> links.size() >= longer.size()
                        && links.subList(0, longer.size()).equals(longer));
    }

    private static List<String> joined(List<String> way, ForeignKey link) {
        List<String> longer = new ArrayList<>(way);
        longer.add(link.name());
        return longer;
    }

    /** Of the key by which a row was asked for all copies are known already. */
    private void noteCopies(Table table, RowAsked asked, Tally copies) {
        if (asked instanceof RowAsked.ByCells cells) {
            table.keys().stream()
                    .filter(key ->
                            key.columns().equals(cells.columns()) && key.where().isEmpty())
                    .forEach(key -> twins.put(key, copies));
        }
    }

    private void seekTwins(RowAtHand root, TablePass pass) {
        for (Key key : root.table().keys()) {
            if (twins.containsKey(key)) {
                continue;
            }
            List<KeyForm> forms = KeyForm.of(root.table(), key);
            KeyEncoder encoder = new KeyEncoder(root.table().indexesOf(key.columns()), forms, context.secret());
            Optional<RowKey> ofRoot = key.nullsAreEqual() ? root.keyWithNulls(encoder) : root.key(encoder);
            ofRoot.ifPresent(own -> {
                KeySeeker seeker = new KeySeeker(
                        root.table(),
                        encoder,
                        new int[0],
                        RowFilter.of(key.where()),
                        MOST_TWINS + 1,
                        Optional.empty(),
                        context.budget());
                if (key.nullsAreEqual()) {
                    seeker.withEqualNulls();
                }
                twins.put(key, seeker.want(own));
                pass.add(root.table(), seeker);
            });
        }
    }

    /** Reads the parents found; a row that is met again is read again, since it may have been reached over other links. */
    private List<RowAtHand> parentsOf(List<RowAtHand> rows) {
        List<RowAtHand> parents = new ArrayList<>();
        for (RowAtHand row : rows) {
            for (ParentSought sought : row.parents()) {
                Table table = charter.table(sought.link().parent());
                sought.setFound(fetch(table, sought.refs(), joined(row.way(), sought.link())));
                parents.addAll(sought.found());
            }
        }
        return parents;
    }

    private void readShown(ChildrenSought sought) {
        for (RowAtHand parent : sought.parents()) {
            long[] first = LongStream.of(sought.of(parent).first())
                    .limit(options.down() == 0 ? 0 : options.shown())
                    .toArray();
            List<RowAtHand> rows = fetch(sought.child(), first, List.of());
            sought.setShown(parent, rows);
            sought.deeper().forEach(next -> rows.forEach(next::want));
        }
    }

    /** Rows around the one asked for that say whether it is at fault; gives what cannot be said. */
    private String gather(RowAtHand root, FaultsOfRow around) {
        around.add(root.table(), root.row().ref());
        twins.values().forEach(tally -> around.add(root.table(), tally.first()));
        addAbove(root, around);
        List<String> left = new ArrayList<>();
        for (ChildrenSought sought : children) {
            ChildrenSought.Found found = sought.of(root);
            if (isJudgedByChildren(root.table(), sought.link())) {
                around.add(sought.child(), found.first());
                if (found.rows() > found.first().length) {
                    left.add(sought.child().name());
                }
            }
        }
        return left.isEmpty()
                ? ""
                : "there are too many children in " + String.join(", ", left)
                        + " to judge what is declared over them; check tells it";
    }

    private void addAbove(RowAtHand row, FaultsOfRow around) {
        for (ParentSought sought : row.parents()) {
            around.add(charter.table(sought.link().parent()), sought.refs());
            sought.found().forEach(parent -> addAbove(parent, around));
        }
    }

    /** The rows that share a key with a row, by key; keys that no other row has left out. */
    private Map<Key, TraceAssembler.TwinsFound> twinsOf(RowAtHand root) {
        Map<Key, TraceAssembler.TwinsFound> found = new LinkedHashMap<>();
        twins.forEach((key, tally) -> {
            if (tally.rows() > 1) {
                long[] others = LongStream.of(tally.first())
                        .filter(ref -> ref != root.row().ref())
                        .limit(MOST_TWINS)
                        .toArray();
                found.put(key, new TraceAssembler.TwinsFound(tally.rows() - 1, fetch(root.table(), others, List.of())));
            }
        });
        return found;
    }
}
