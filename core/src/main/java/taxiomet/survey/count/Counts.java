package taxiomet.survey.count;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Optional;
import taxiomet.survey.search.Pair;

/** What was counted about all candidates. */
public final class Counts {
    private final IdentityHashMap<int[], CountedKey> keys = new IdentityHashMap<>();
    private final Map<Pair, CountedLink> links = new HashMap<>();

    void add(int[] key, CountedKey counted) {
        keys.put(key, counted);
    }

    void add(Pair pair, CountedLink counted) {
        links.put(pair, counted);
    }

    /** @param key the array that the candidate is */
    public Optional<CountedKey> key(int[] key) {
        return Optional.ofNullable(keys.get(key));
    }

    public Optional<CountedLink> link(Pair pair) {
        return Optional.ofNullable(links.get(pair));
    }
}
