package taxiomet.survey;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import taxiomet.charter.Charter;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.CheckResult;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.CheckResult.RuleResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.rows.TableSource;
import taxiomet.survey.LinkFinder.Pair;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.vet.LinkGraph;
import taxiomet.work.RunContext;
import taxiomet.work.Workers;

/** Surveys tables: one pass for the profiles, one for the exact counts of the candidates. */
public final class Survey {
    private static final int PARENT_KEYS = 2;
    private static final int MOST_COUNTED_AT_ONCE = 40;
    private static final double LEAST_LINK_SCORE = 0.5;
    private static final double ALMOST_COSTS = 0.1;
    /** Dirty rows are few; columns that are nearly unique by accident have many. */
    private static final double EXCESS_COSTS = 0.2;
    /** Where links are named for what they point at, numbers that are not are probably no links. */
    private static final double UNNAMED_COSTS = 0.12;

    private static final double SATELLITE_COSTS = 0.08;

    private final List<FoundTable> found;
    private final SurveyOptions options;
    private final Function<Table, TableSource> open;
    private final NameLikeness names = new NameLikeness();
    private final Map<String, List<String>> files = new HashMap<>();

    private Survey(List<FoundTable> found, SurveyOptions options, Function<Table, TableSource> open) {
        this.found = found;
        this.options = options;
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
        return new Survey(found, options, open).run(title, context);
    }

    private SurveyResult run(String title, RunContext context) {
        List<TableProfile> profiles = profiles(context);
        Map<TableProfile, List<int[]>> keys = new LinkedHashMap<>();
        profiles.forEach(profile -> keys.put(profile, new KeyFinder(profile, options.widestKey()).find()));
        List<Pair> pairs = new LinkFinder(profiles, likeliest(keys), names).find();
        CheckOptions checkOptions = new CheckOptions(Set.of(), options.examples(), 0);
        Counts counts = new Counts(new ArrayList<>(), new ArrayList<>(), new ArrayList<>());
        for (Charter exam : Draft.exams(profiles, keys, pairs, MOST_COUNTED_AT_ONCE)) {
            try (CheckRun run = CheckRun.start(exam, checkOptions, open, context)) {
                counts.add(run.result());
            }
        }
        return conclude(title, profiles, keys, pairs, counts);
    }

    /** What was counted about all candidates. */
    private record Counts(List<RuleResult> rules, List<Finding> findings, List<LinkResult> links) {
        void add(CheckResult result) {
            rules.addAll(result.rules());
            // Without the way to all of their rows, which holds the whole run.
            result.findings()
                    .forEach(f -> findings.add(new Finding(
                            f.kind(),
                            f.severity(),
                            f.table(),
                            f.at(),
                            f.columns(),
                            f.rows(),
                            f.details(),
                            f.examples(),
                            all -> {})));
            links.addAll(result.links());
        }
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

    /** Each table is read by one thread, several of them at once. */
    private List<TableProfile> profiles(RunContext context) {
        TableProfile[] profiles = new TableProfile[found.size()];
        AtomicInteger next = new AtomicInteger();
        Workers.run(Math.min(context.threads(), found.size()), "survey", workers -> {
            int table = next.getAndIncrement();
            while (table < profiles.length && !workers.haveFailed()) {
                synchronized (files) {
                    context.progress().reading(found.get(table).name());
                }
                profiles[table] = profile(found.get(table));
                table = next.getAndIncrement();
            }
        });
        return List.of(profiles);
    }

    private TableProfile profile(FoundTable table) {
        try (TableSource source = open.apply(Draft.unknown(table))) {
            List<String> parts = new ArrayList<>();
            for (int part = 0; part < source.partCount(); part++) {
                parts.add(source.partName(part));
            }
            TableProfile profile = new TableProfiler(table).profile(source);
            synchronized (files) {
                files.put(table.name(), parts);
            }
            return profile;
        }
    }

    private SurveyResult conclude(
            String title,
            List<TableProfile> profiles,
            Map<TableProfile, List<int[]>> keys,
            List<Pair> pairs,
            Counts counts) {
        Map<String, List<CandidateKey>> ranked = new LinkedHashMap<>();
        profiles.forEach(profile -> ranked.put(profile.name(), rankedKeys(profile, keys.get(profile), counts)));
        List<CandidateLink> links = rankedLinks(pairs, ranked, counts);
        List<CandidateKey> chosen = new ArrayList<>();
        ranked.values().forEach(own -> own.forEach(key -> chosen.add(isPointedAt(key, links) ? chosen(key) : key)));
        Charter draft = Draft.charter(title, profiles, chosen, links);
        List<SurveyedTable> tables = profiles.stream()
                .map(profile -> new SurveyedTable(
                        profile.name(),
                        files.get(profile.name()),
                        profile.rows,
                        profile.malformed,
                        repeatsRows(profile),
                        profile.table.remarks(),
                        profile.columns))
                .toList();
        return new SurveyResult(
                tables,
                chosen,
                links,
                new LinkGraph(draft).manyToMany(),
                draft,
                Comments.of(draft, profiles, chosen, links));
    }

    /** Looked for in the rows that share a value of the column with the most different ones. */
    private static boolean repeatsRows(TableProfile profile) {
        int lead = 0;
        int[] all = new int[profile.width()];
        for (int c = 0; c < profile.width(); c++) {
            all[c] = c;
            lead = profile.columns.get(c).distinct() > profile.columns.get(lead).distinct() ? c : lead;
        }
        return profile.width() > 0 && profile.rowSamples.get(lead).excess(all, 0) > 0;
    }

    private List<CandidateKey> rankedKeys(TableProfile profile, List<int[]> keys, Counts counts) {
        List<CandidateKey> candidates = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            candidate(profile, keys.get(i), Draft.keyName(i), counts).ifPresent(candidates::add);
        }
        candidates.sort(Comparator.comparing((CandidateKey key) -> !key.isExact())
                .thenComparing(Comparator.comparingDouble(CandidateKey::score).reversed()));
        if (!candidates.isEmpty()) {
            CandidateKey first = Collections.max(candidates, Comparator.comparingDouble(CandidateKey::score));
            candidates.remove(first);
            candidates.add(0, primary(first));
        }
        return candidates;
    }

    private Optional<CandidateKey> candidate(TableProfile profile, int[] key, String name, Counts counts) {
        // There is no rule where no row lacks a value.
        Optional<RuleResult> nulls = counts.rules().stream()
                .filter(rule ->
                        rule.table().equals(profile.name()) && rule.name().equals(name))
                .findFirst();
        long withNull = nulls.map(RuleResult::broken).orElse(0L);
        long illTyped = nulls.map(RuleResult::notJudged).orElse(0L);
        Optional<Finding> doubles = counts.findings().stream()
                .filter(f ->
                        f.kind() == FindingKind.DUPLICATE && f.table().equals(profile.name()) && f.at().equals(name))
                .findFirst();
        long excess =
                doubles.map(f -> ((Finding.Duplicates) f.details()).excess()).orElse(0L);
        long tolerated = KeyFinder.tolerated(profile.rows);
        if (excess > tolerated || withNull > tolerated) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        double score = KeyRanking.score(profile, key, reasons);
        boolean isExact = excess + withNull + illTyped == 0;
        List<Evidence> rows = doubles.map(Finding::examples).orElse(List.of());
        return Optional.of(new CandidateKey(
                profile.name(),
                Draft.names(profile, key),
                excess,
                withNull,
                illTyped > 0,
                isExact ? score : Math.max(0, score - ALMOST_COSTS - EXCESS_COSTS * Math.min(1, excess / 20.0)),
                reasons,
                false,
                false,
                rows));
    }

    private static CandidateKey primary(CandidateKey key) {
        return copy(key, true, true);
    }

    private static CandidateKey chosen(CandidateKey key) {
        return copy(key, true, key.isPrimary());
    }

    private static CandidateKey copy(CandidateKey key, boolean isChosen, boolean isPrimary) {
        return new CandidateKey(
                key.table(),
                key.columns(),
                key.excess(),
                key.nulls(),
                key.illTyped(),
                key.score(),
                key.reasons(),
                isChosen,
                isPrimary,
                key.duplicates());
    }

    private static boolean isPointedAt(CandidateKey key, List<CandidateLink> links) {
        return links.stream()
                .anyMatch(link -> link.isChosen()
                        && link.counts().parent().equals(key.table())
                        && link.counts().parentColumns().equals(key.columns()));
    }

    private List<CandidateLink> rankedLinks(List<Pair> pairs, Map<String, List<CandidateKey>> keys, Counts counts) {
        List<CandidateLink> candidates = new ArrayList<>();
        Map<String, LinkResult> results = new HashMap<>();
        counts.links().forEach(link -> results.put(link.name(), link));
        for (int i = 0; i < pairs.size(); i++) {
            candidate(pairs.get(i), results.get(Draft.linkName(i)), keys, counts)
                    .ifPresent(candidates::add);
        }
        candidates = new ArrayList<>(againstSatellites(againstTheirNames(candidates)));
        candidates.sort(Comparator.comparingDouble(CandidateLink::score).reversed());
        List<CandidateLink> chosen = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (CandidateLink link : candidates) {
            boolean isBest = link.score() >= LEAST_LINK_SCORE
                    && taken.add(link.counts().child() + link.counts().columns());
            boolean isPart = isBest && candidates.stream().anyMatch(other -> isPartOf(link, other));
            boolean isMirrored = isBest && chosen.stream().anyMatch(other -> other.isChosen() && isMirror(other, link));
            chosen.add(isBest && !isMirrored && !isPart ? link.choose() : link);
        }
        return chosen;
    }

    /** Of two tables with one key, of which one is contained in the other, links point at the other. */
    private static List<CandidateLink> againstSatellites(List<CandidateLink> candidates) {
        Set<String> satellites = new HashSet<>();
        for (CandidateLink link : candidates) {
            boolean isWhole = link.isOneToOne() && link.counts().orphans() == 0 && link.score() >= LEAST_LINK_SCORE;
            if (isWhole && link.counts().children().orElseThrow().childless() > 0) {
                satellites.add(link.counts().child() + link.counts().columns());
            }
        }
        return candidates.stream()
                .map(link -> satellites.contains(
                                link.counts().parent() + link.counts().parentColumns())
                        ? link.withScore(Math.max(0, link.score() - SATELLITE_COSTS))
                        : link)
                .toList();
    }

    private static List<CandidateLink> againstTheirNames(List<CandidateLink> candidates) {
        List<CandidateLink> likely = candidates.stream()
                .filter(link -> link.score() >= LEAST_LINK_SCORE)
                .toList();
        long named = likely.stream().filter(CandidateLink::isNamed).count();
        if (named * 2 < likely.size()) {
            return candidates;
        }
        List<CandidateLink> judged = new ArrayList<>();
        for (CandidateLink link : candidates) {
            judged.add(
                    link.isNamed() || !link.isOfPlainNumbers()
                            ? link
                            : link.withScore(Math.max(0, link.score() - UNNAMED_COSTS)));
        }
        return judged;
    }

    /** A column that points at a parent together with others does not point at its primary key alone too. */
    private static boolean isPartOf(CandidateLink one, CandidateLink whole) {
        return whole.score() >= LEAST_LINK_SCORE
                && whole.counts().columns().size() > one.counts().columns().size()
                && whole.counts().child().equals(one.counts().child())
                && whole.counts().parent().equals(one.counts().parent())
                && whole.counts().columns().containsAll(one.counts().columns());
    }

    private static boolean isMirror(CandidateLink one, CandidateLink other) {
        return one.counts().child().equals(other.counts().parent())
                && one.counts().parent().equals(other.counts().child())
                && one.counts().columns().equals(other.counts().parentColumns())
                && one.counts().parentColumns().equals(other.counts().columns());
    }

    private Optional<CandidateLink> candidate(
            Pair pair, LinkResult link, Map<String, List<CandidateKey>> keys, Counts counts) {
        List<String> key = Draft.names(pair.parent(), pair.key());
        Optional<CandidateKey> parentKey = keys.get(pair.parent().name()).stream()
                .filter(k -> k.columns().equals(key))
                .findFirst();
        boolean isNamed = LinkRanking.isNamed(pair, names);
        boolean isCovered = link.orphans() * 10 <= link.judged() || (isNamed && link.orphans() < link.judged());
        if (parentKey.isEmpty() || link.judged() == 0 || !isCovered) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        double score = LinkRanking.score(pair, link, names, parentKey.get().isPrimary(), reasons);
        boolean isOneToOne = link.children().orElseThrow().most() <= 1;
        List<Finding.MissingValue> missing = counts.findings().stream()
                .filter(f ->
                        f.kind() == FindingKind.ORPHAN && f.table().equals(link.child()) && f.at().equals(link.name()))
                .findFirst()
                .map(f -> ((Finding.Missing) f.details()).commonest())
                .orElse(List.of());
        return Optional.of(new CandidateLink(
                link, isOneToOne, isNamed, LinkRanking.isOfPlainNumbers(pair), score, reasons, false, missing));
    }
}
