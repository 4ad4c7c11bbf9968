package taxiomet.survey.choice;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import taxiomet.survey.count.CountedKey;
import taxiomet.survey.count.Counts;
import taxiomet.survey.profile.Declarations;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.search.KeyFinder;
import taxiomet.survey.search.KeyRanking;

/** Which columns of a table are its key, of those that were counted. */
public final class KeyChoice {
    private static final double ALMOST_COSTS = 0.1;
    /** Dirty rows are few; columns that are nearly unique by accident have many. */
    private static final double EXCESS_COSTS = 0.2;

    private static final double MUCH_EXCESS = 20;
    private static final double EACH_LINK_GAINS = 0.08;
    private static final double MOST_GAINED = 0.24;

    private final Counts counts;

    public KeyChoice(Counts counts) {
        this.counts = counts;
    }

    /** Those that hold or nearly hold: the primary one first, then exact ones, the likeliest first. */
    public List<CandidateKey> ranked(TableProfile profile, List<int[]> keys) {
        List<CandidateKey> candidates = new ArrayList<>();
        for (int i = 0; i < keys.size(); i++) {
            int[] key = keys.get(i);
            counts.key(key).flatMap(counted -> candidate(profile, key, counted)).ifPresent(candidates::add);
        }
        return withPrimary(candidates, key -> 0);
    }

    /** The same keys again, now that links are known: what is pointed at is a key, whatever it is called. */
    public static List<CandidateKey> pointedAt(List<CandidateKey> keys, List<CandidateLink> links) {
        return withPrimary(keys, key -> {
            long pointing = links.stream()
                    .filter(link -> link.isChosen()
                            && link.counts().parent().equals(key.table())
                            && !link.counts().child().equals(key.table())
                            && link.counts().parentColumns().equals(key.columns()))
                    .count();
            return Math.min(MOST_GAINED, EACH_LINK_GAINS * pointing);
        });
    }

    private static List<CandidateKey> withPrimary(List<CandidateKey> keys, ToDoubleFunction<CandidateKey> gain) {
        List<CandidateKey> ranked = new ArrayList<>(keys);
        ranked.sort(Comparator.comparing((CandidateKey key) -> !key.isExact())
                .thenComparing(Comparator.comparingDouble(CandidateKey::score).reversed()));
        if (!ranked.isEmpty()) {
            CandidateKey first =
                    Collections.max(ranked, Comparator.comparingDouble(key -> key.score() + gain.applyAsDouble(key)));
            ranked.remove(first);
            ranked.replaceAll(CandidateKey::asOther);
            ranked.add(0, first.asPrimary());
        }
        return ranked;
    }

    private static Optional<CandidateKey> candidate(TableProfile profile, int[] key, CountedKey counted) {
        long excess = counted.excess();
        long withNull = counted.withNull();
        long illTyped = counted.illTyped();
        long tolerated = KeyFinder.tolerated(counted.rows());
        if (excess > tolerated || withNull > tolerated) {
            return Optional.empty();
        }
        List<String> reasons = new ArrayList<>();
        double score = KeyRanking.score(profile, key, reasons);
        boolean isExact = counted.isExact();
        return Optional.of(new CandidateKey(
                profile.name(),
                Declarations.names(profile, key),
                excess,
                withNull,
                illTyped > 0,
                isExact ? score : Math.max(0, score - ALMOST_COSTS - EXCESS_COSTS * Math.min(1, excess / MUCH_EXCESS)),
                reasons,
                false,
                false,
                List.of()));
    }
}
