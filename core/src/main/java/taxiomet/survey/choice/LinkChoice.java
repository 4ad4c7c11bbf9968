package taxiomet.survey.choice;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.survey.count.CountedLink;
import taxiomet.survey.count.Counts;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.search.LinkRanking;
import taxiomet.survey.search.LinkRanking.Standing;
import taxiomet.survey.search.NameLikeness;
import taxiomet.survey.search.Pair;

/** Which links are meant, of those that were counted. */
public final class LinkChoice {
    private static final double LEAST_SCORE = 0.5;
    /** Where links are named for what they point at, numbers that are not are probably no links. */
    private static final double UNNAMED_COSTS = 0.12;

    private static final double HALF = 0.5;
    /** And where nearly all are, the more so. */
    private static final double NOT_NAMED_COSTS = 0.13;

    private static final double NEARLY_ALL = 0.8;
    private static final double NEARLY_WHOLE = 0.95;
    private static final double SATELLITE_COSTS = 0.08;
    /** That others point at a key speaks for one more. */
    private static final double EACH_OTHER_GAINS = 0.02;

    private static final int MOST_OTHERS = 3;

    private static final double LEAST_COVERAGE = 0.15;
    private static final double BY_NAME_ALONE = 0.85;

    private final Counts counts;
    private final NameLikeness names;
    private final Map<String, List<CandidateKey>> keys;

    /** @param keys of each table, the primary one first */
    public LinkChoice(Counts counts, NameLikeness names, Map<String, List<CandidateKey>> keys) {
        this.counts = counts;
        this.names = names;
        this.keys = keys;
    }

    /** Those that hold or nearly hold, the likeliest first; what is meant is marked as chosen. */
    public List<CandidateLink> ranked(List<Pair> pairs) {
        List<CandidateLink> all = new ArrayList<>();
        pairs.forEach(pair -> candidate(pair).ifPresent(all::add));
        List<CandidateLink> candidates = forOthers(againstSatellites(againstTheirNames(all)));
        candidates.sort(Comparator.comparingDouble(CandidateLink::score).reversed());
        List<CandidateLink> chosen = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (CandidateLink link : candidates) {
            boolean isBest = link.score() >= LEAST_SCORE
                    && taken.add(link.counts().child() + link.counts().columns());
            boolean isPart = isBest && candidates.stream().anyMatch(other -> isPartOf(link, other));
            boolean isMirrored = isBest && chosen.stream().anyMatch(other -> other.isChosen() && isMirror(other, link));
            boolean isSaid = isBest && isSaidAlready(link, chosen);
            CandidateLink bounded = link.withScore(Math.max(0, Math.min(1, link.score())));
            chosen.add(isBest && !isMirrored && !isPart && !isSaid ? bounded.choose() : bounded);
        }
        return chosen.stream().map(link -> followsFrom(link, chosen)).toList();
    }

    /** A link to a grandparent by columns that point at the parent too says nothing that the other two do not say. */
    private static CandidateLink followsFrom(CandidateLink link, List<CandidateLink> all) {
        if (!link.isChosen()) {
            return link;
        }
        List<String> columns = link.counts().columns();
        for (CandidateLink wider : all) {
            boolean leads = wider.isChosen()
                    && wider.counts().child().equals(link.counts().child())
                    && wider.counts().columns().size() > columns.size()
                    && wider.counts().columns().containsAll(columns)
                    && wider.counts().halfNulls() == 0;
            if (leads) {
                List<String> there = columns.stream()
                        .map(column -> wider.counts()
                                .parentColumns()
                                .get(wider.counts().columns().indexOf(column)))
                        .toList();
                boolean leadsOn = all.stream()
                        .anyMatch(last -> last.isChosen()
                                && last.counts().child().equals(wider.counts().parent())
                                && last.counts().columns().equals(there)
                                && last.counts().parent().equals(link.counts().parent())
                                && last.counts()
                                        .parentColumns()
                                        .equals(link.counts().parentColumns()));
                if (leadsOn) {
                    return link.leaveOut(
                            "follows from the link to " + wider.counts().parent());
                }
            }
        }
        return link;
    }

    /** Of two tables with one key, of which one points at the other, links point at the other. */
    private static List<CandidateLink> againstSatellites(List<CandidateLink> candidates) {
        Set<String> satellites = new HashSet<>();
        Map<List<Object>, Double> scores = new HashMap<>();
        candidates.forEach(link -> scores.put(
                List.of(
                        link.counts().child(),
                        link.counts().columns(),
                        link.counts().parent(),
                        link.counts().parentColumns()),
                link.score()));
        for (CandidateLink link : candidates) {
            boolean isLikely = link.isOneToOne() && link.coverage() >= NEARLY_WHOLE && link.score() >= LEAST_SCORE;
            List<Object> otherWay = List.of(
                    link.counts().parent(),
                    link.counts().parentColumns(),
                    link.counts().child(),
                    link.counts().columns());
            if (isLikely && scores.getOrDefault(otherWay, -1.0) < link.score()) {
                satellites.add(link.counts().child() + link.counts().columns());
            }
        }
        return candidates.stream()
                .map(link -> satellites.contains(
                                link.counts().parent() + link.counts().parentColumns())
                        ? link.withScore(link.score() - SATELLITE_COSTS)
                        : link)
                .toList();
    }

    /** Of several parents one that others point at too is the likelier. */
    private static List<CandidateLink> forOthers(List<CandidateLink> candidates) {
        Map<String, Set<String>> pointing = new HashMap<>();
        candidates.stream()
                .filter(link -> link.score() >= LEAST_SCORE)
                .forEach(link -> pointing.computeIfAbsent(
                                link.counts().parent() + link.counts().parentColumns(), p -> new HashSet<>())
                        .add(link.counts().child() + link.counts().columns()));
        List<CandidateLink> judged = new ArrayList<>();
        for (CandidateLink link : candidates) {
            Set<String> others =
                    pointing.getOrDefault(link.counts().parent() + link.counts().parentColumns(), Set.of());
            boolean isOne =
                    others.contains(link.counts().child() + link.counts().columns());
            int count = Math.min(MOST_OTHERS, others.size() - (isOne ? 1 : 0));
            judged.add(link.withScore(link.score() + EACH_OTHER_GAINS * count));
        }
        return judged;
    }

    private static List<CandidateLink> againstTheirNames(List<CandidateLink> candidates) {
        List<CandidateLink> likely =
                candidates.stream().filter(link -> link.score() >= LEAST_SCORE).toList();
        double named = (double) likely.stream().filter(CandidateLink::isNamed).count() / Math.max(1, likely.size());
        if (named < HALF) {
            return candidates;
        }
        double costs = UNNAMED_COSTS + (named > NEARLY_ALL ? NOT_NAMED_COSTS : 0);
        List<CandidateLink> judged = new ArrayList<>();
        for (CandidateLink link : candidates) {
            judged.add(link.isNamed() || !link.isOfPlainNumbers() ? link : link.withScore(link.score() - costs));
        }
        return judged;
    }

    /**
     * Whether links chosen already point at the same parent from all the columns of another, of as many columns; or from others, and this one
     * only repeats what stands in the parent's row.
     */
    private boolean isSaidAlready(CandidateLink link, List<CandidateLink> chosen) {
        Set<String> columns = new HashSet<>(link.counts().columns());
        boolean pointsThere = false;
        for (CandidateLink other : chosen) {
            boolean isAlike = other.isChosen()
                    && other.counts().child().equals(link.counts().child())
                    && other.counts().parent().equals(link.counts().parent());
            if (isAlike && other.counts().parentColumns().equals(link.counts().parentColumns())) {
                columns.removeAll(other.counts().columns());
            }
            boolean isOtherWay = other.isChosen()
                    && other.counts().child().equals(link.counts().parent())
                    && other.counts().parent().equals(link.counts().child());
            pointsThere |= (isAlike || isOtherWay) && isPrimary(other);
        }
        return columns.isEmpty() || (pointsThere && !isPrimary(link));
    }

    private boolean isPrimary(CandidateLink link) {
        return keys.get(link.counts().parent()).stream()
                .anyMatch(key ->
                        key.isPrimary() && key.columns().equals(link.counts().parentColumns()));
    }

    /** A column that points at a parent together with others does not point at its primary key alone too. */
    private static boolean isPartOf(CandidateLink one, CandidateLink whole) {
        return whole.score() >= LEAST_SCORE
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

    private Optional<CandidateLink> candidate(Pair pair) {
        List<String> key = Declarations.names(pair.parent(), pair.key());
        Optional<CandidateKey> parentKey = keys.get(pair.parent().name()).stream()
                .filter(k -> k.columns().equals(key))
                .findFirst();
        if (parentKey.isEmpty()) {
            return Optional.empty();
        }
        if (pair.isEmpty()) {
            return Optional.of(byNameAlone(pair));
        }
        CountedLink counted = counts.link(pair).orElseThrow();
        LinkResult link = counted.result();
        boolean isNamed = LinkRanking.isNamed(pair, names);
        long covered = link.judged() - link.orphans();
        if (covered == 0 || (!isNamed && covered < LEAST_COVERAGE * link.judged())) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        List<CandidateKey> own = keys.get(pair.child().name());
        Standing standing = new Standing(
                parentKey.get().isPrimary(),
                own.isEmpty() || !own.get(0).isExact() ? List.of() : own.get(0).columns(),
                ringBits(pair, counted));
        double score = LinkRanking.score(pair, link, names, standing, reasons);
        boolean isOneToOne = link.children().orElseThrow().most() <= 1;
        return Optional.of(new CandidateLink(
                link,
                isOneToOne,
                isNamed,
                LinkRanking.isOfPlainNumbers(pair) && !standing.isAcyclic(),
                score,
                reasons,
                false,
                counted.missing()));
    }

    /**
     * How improbable it is by accident that no row is its own ancestor: rows that chose one of their table at random would nearly always run
     * into a ring before they came to one of the few that have nobody above them.
     */
    private static double ringBits(Pair pair, CountedLink counted) {
        if (!pair.isOfOneTable()) {
            return 0;
        }
        if (counted.hasRings()) {
            return -1;
        }
        LinkResult link = counted.result();
        double ends = Math.max(1, (double) link.rows() - (link.judged() - link.orphans()));
        return Math.log(link.rows() / ends) / Math.log(2);
    }

    private CandidateLink byNameAlone(Pair pair) {
        long rows = pair.child().rows - pair.child().malformed;
        long parents = pair.parent().rows - pair.parent().malformed;
        ChildrenTally childless = new ChildrenTally(parents, parents, 0, 0, 0, 0);
        LinkResult nothing = CountedLink.result(pair, new CountedLink.Rows(rows, rows, 0, 0, 0), childless);
        double likeness = LinkRanking.likeness(pair, names);
        double score = likeness >= BY_NAME_ALONE ? LEAST_SCORE : LEAST_SCORE * likeness;
        return new CandidateLink(
                nothing, false, true, false, score, List.of("names match", "no row has a value yet"), false, List.of());
    }
}
