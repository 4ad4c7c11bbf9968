package taxiomet.survey;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import java.util.stream.Collectors;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.rows.SourceException;
import taxiomet.rows.TableSource;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.survey.choice.AlikeChoice;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.choice.KeyChoice;
import taxiomet.survey.choice.LinkChoice;
import taxiomet.survey.count.Counting;
import taxiomet.survey.count.Counts;
import taxiomet.survey.count.Exam;
import taxiomet.survey.count.ExamResult;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.FoundTable;
import taxiomet.survey.profile.SampleSizes;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.TableProfiler;
import taxiomet.survey.search.AgreedTypes;
import taxiomet.survey.search.KeyFinder;
import taxiomet.survey.search.LinkFinder;
import taxiomet.survey.search.NameLikeness;
import taxiomet.survey.search.Pair;
import taxiomet.vet.LinkGraph;
import taxiomet.work.RunContext;
import taxiomet.work.Workers;

/** Surveys tables: one pass for the profiles, one for the exact counts of the candidates. */
public final class Survey {
    /** About half a megabyte is kept for each. */
    private static final int MOST_COLUMNS = 2_000;

    private static final int PARENT_KEYS = 2;
    private static final long MANY_ROWS = 1_000_000;

    private final List<FoundTable> found;
    private final SurveyOptions options;
    private final SampleSizes sizes;
    private final Function<Table, TableSource> open;
    private final NameLikeness names = new NameLikeness();
    private final Map<String, List<String>> files = new HashMap<>();

    private Survey(List<FoundTable> found, SurveyOptions options, Function<Table, TableSource> open) {
        this.found = found;
        this.options = options;
        this.sizes = SampleSizes.of(found);
        this.open = open;
    }

    /**
     * Surveys tables.
     *
     * @param title what the draft is called
     * @param open opens the rows of a table with all its columns
     * @throws taxiomet.rows.SourceException when rows cannot be read
     * @throws taxiomet.spill.SpillException when temporary files cannot be written
     */
    public static SurveyResult of(
            String title,
            List<FoundTable> found,
            SurveyOptions options,
            Function<Table, TableSource> open,
            RunContext context) {
        for (FoundTable table : found) {
            if (table.columns().size() > MOST_COLUMNS) {
                throw new SourceException(
                        table.rows().path(),
                        "the table has " + table.columns().size()
                                + " columns, and a survey, which holds each against each, takes " + MOST_COLUMNS,
                        "survey a file with fewer of them");
            }
        }
        return new Survey(found, options, open).run(title, context);
    }

    private SurveyResult run(String title, RunContext context) {
        List<TableProfile> profiles = profiles(context);
        Map<TableProfile, List<int[]>> keys = new LinkedHashMap<>();
        profiles.forEach(profile -> keys.put(profile, new KeyFinder(profile, options.widestKey()).find()));
        readKeysWhole(profiles, likeliest(keys), context);
        AgreedTypes.agree(profiles, keys, names);
        List<Pair> pairs = new LinkFinder(profiles, likeliest(keys), names).find();
        Set<TableProfile> repeating =
                profiles.stream().filter(TableProfile::repeatsRows).collect(Collectors.toSet());
        pairs.stream().filter(Pair::isSingle).forEach(pair -> pair.child().keepKnown(pair.columns()[0]));
        profiles.forEach(TableProfile::forgetSamples);
        Counts counts = Counting.of(profiles, keys, pairs, options.sample(), names, open, context);
        return conclude(title, profiles, repeating, keys, pairs, counts, context);
    }

    /** The keys that links may point at: of each table the likeliest few, single ones and composite ones. */
    private static Map<TableProfile, List<int[]>> likeliest(Map<TableProfile, List<int[]>> keys) {
        Map<TableProfile, List<int[]>> likeliest = new LinkedHashMap<>();
        keys.forEach((table, all) -> {
            List<int[]> some = new ArrayList<>();
            all.stream().filter(key -> key.length == 1).limit(PARENT_KEYS).forEach(some::add);
            all.stream().filter(key -> key.length > 1).limit(PARENT_KEYS).forEach(some::add);
            likeliest.put(table, some);
        });
        return likeliest;
    }

    /** Large tables are read one by one with all threads, small ones several at once. */
    private List<TableProfile> profiles(RunContext context) {
        TableProfile[] profiles = new TableProfile[found.size()];
        boolean[] areSmall = new boolean[found.size()];
        for (int table = 0; table < profiles.length; table++) {
            try (TableSource source = open.apply(Declarations.unknown(found.get(table)))) {
                int threads = context.threadsFor(source.bytes());
                areSmall[table] = threads == 1;
                if (!areSmall[table]) {
                    profiles[table] = profile(found.get(table), source, threads, context);
                }
            }
        }
        AtomicInteger next = new AtomicInteger();
        Workers.run(Math.min(context.threads(), found.size()), "survey", workers -> {
            int table = next.getAndIncrement();
            while (table < profiles.length && !workers.haveFailed()) {
                if (areSmall[table]) {
                    try (TableSource source = open.apply(Declarations.unknown(found.get(table)))) {
                        profiles[table] = profile(found.get(table), source, 1, context);
                    }
                }
                table = next.getAndIncrement();
            }
        });
        return List.of(profiles);
    }

    private TableProfile profile(FoundTable table, TableSource source, int threads, RunContext context) {
        List<String> parts = new ArrayList<>();
        for (int part = 0; part < source.partCount(); part++) {
            parts.add(source.partName(part));
        }
        synchronized (files) {
            files.put(table.name(), parts);
            context.progress().reading(table.name());
        }
        return options.sample() > 0
                ? TableProfiler.profileFirst(table, source, sizes, options.sample())
                : TableProfiler.profile(table, source, sizes, threads);
    }

    /** What a sample of a table says of its keys would make every link to it look broken: these are read whole. */
    private void readKeysWhole(List<TableProfile> profiles, Map<TableProfile, List<int[]>> keys, RunContext context) {
        for (TableProfile profile : profiles) {
            int[] columns = keys.get(profile).stream()
                    .flatMapToInt(Arrays::stream)
                    .distinct()
                    .sorted()
                    .toArray();
            if (profile.isSampled && columns.length > 0) {
                try (TableSource source = open.apply(Declarations.unknown(profile.table))) {
                    profile.takeWhole(
                            TableProfiler.profile(
                                    profile.table, source, sizes, columns, context.threadsFor(source.bytes())),
                            columns);
                }
            }
        }
    }

    private SurveyResult conclude(
            String title,
            List<TableProfile> profiles,
            Set<TableProfile> repeating,
            Map<TableProfile, List<int[]>> keys,
            List<Pair> pairs,
            Counts counts,
            RunContext context) {
        Map<String, List<CandidateKey>> ranked = new LinkedHashMap<>();
        KeyChoice keyChoice = new KeyChoice(counts);
        profiles.forEach(profile -> ranked.put(profile.name(), keyChoice.ranked(profile, keys.get(profile))));
        List<CandidateLink> firstLinks = new LinkChoice(counts, names, ranked).ranked(pairs);
        ranked.replaceAll((table, own) -> KeyChoice.pointedAt(own, firstLinks));
        List<CandidateLink> links = new LinkChoice(counts, names, ranked).ranked(pairs);
        List<CandidateKey> chosen = new ArrayList<>();
        ranked.values().forEach(own -> own.forEach(key -> chosen.add(isPointedAt(key, links) ? key.asChosen() : key)));
        nameRepeatedRows(chosen, profiles, context);
        Charter first = Draft.charter(title, profiles, chosen, links);
        Map<String, AlikeChoice.Proposed> alike = new LinkedHashMap<>();
        profiles.forEach(profile -> AlikeChoice.of(first.table(profile.name()), profile, open)
                .ifPresent(rule -> alike.put(profile.name(), rule)));
        Charter draft = first.with(first.tables().stream()
                .map(table -> alike.containsKey(table.name())
                        ? table.withAlike(List.of(alike.get(table.name()).rule()))
                        : table)
                .toList());
        List<ForeignKey> perhaps = Draft.perhaps(draft, links);
        List<SurveyedTable> tables = profiles.stream()
                .map(profile -> new SurveyedTable(
                        profile.name(),
                        files.get(profile.name()),
                        profile.rows,
                        profile.isSampled,
                        profile.malformed,
                        repeating.contains(profile),
                        profile.table.remarks(),
                        profile.columns))
                .toList();
        return new SurveyResult(
                tables,
                chosen,
                links,
                new LinkGraph(draft)
                        .manyToMany().stream()
                                .filter(pair -> isNothingElse(draft.table(pair.through())))
                                .toList(),
                alike,
                draft,
                perhaps,
                Comments.of(draft, perhaps, profiles, chosen, links, alike));
    }

    /** Whether a table is there to link two others: it has two links, and their columns are its key. */
    private static boolean isNothingElse(Table table) {
        Set<String> linking =
                table.links().stream().flatMap(link -> link.columns().stream()).collect(Collectors.toSet());
        return table.links().size() == 2
                && table.primaryKey()
                        .filter(key -> Set.copyOf(key.columns()).equals(linking))
                        .isPresent();
    }

    /** Fetches some of the rows that share a value of an almost key, where a steward is to see them. */
    private void nameRepeatedRows(List<CandidateKey> all, List<TableProfile> profiles, RunContext context) {
        Map<TableProfile, List<int[]>> asked = new LinkedHashMap<>();
        Map<CandidateKey, Integer> places = new HashMap<>();
        for (TableProfile profile : profiles) {
            List<int[]> own = asked.computeIfAbsent(profile, p -> new ArrayList<>());
            for (CandidateKey key : all) {
                boolean isShown = key.excess() > 0
                        && key.table().equals(profile.name())
                        && (key.isChosen() || (key.columns().size() == 1 && profile.rows <= MANY_ROWS));
                if (isShown) {
                    places.put(key, own.size());
                    own.add(profile.placesOf(key.columns()));
                }
            }
        }
        asked.values().removeIf(List::isEmpty);
        if (asked.isEmpty()) {
            return;
        }
        Charter exam = Exam.exam(List.copyOf(asked.keySet()), asked, List.of());
        CheckOptions checkOptions = new CheckOptions(Set.of(), options.examples(), 0);
        try (CheckRun run = CheckRun.start(exam, checkOptions, open, context)) {
            ExamResult result = new ExamResult(run.result());
            all.replaceAll(key -> places.containsKey(key)
                    ? key.withDuplicates(result.repeatedRows(key.table(), places.get(key)))
                    : key);
        }
    }

    private static boolean isPointedAt(CandidateKey key, List<CandidateLink> links) {
        return links.stream()
                .anyMatch(link -> link.isChosen()
                        && link.counts().parent().equals(key.table())
                        && link.counts().parentColumns().equals(key.columns()));
    }
}
