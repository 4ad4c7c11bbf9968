package taxiomet.hint;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import taxiomet.finding.Hint;
import taxiomet.hint.Likeness.Match;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;
import taxiomet.values.Placeholders;

/**
 * Looks for the parents that may have been meant by keys without one: a single pass over the parents' keys, whatever the
 * number of keys asked about.
 */
public final class HintFinder {
    private static final long BASE = 0x100000001B3L;
    private static final int LONGEST_FOR_EDITS = 64;

    /** Of so many columns all that might have been meant can be written down: there are two or three choices for each. */
    public static final int MOST_LOOKED_UP = 4;

    private final List<List<String>> keys = new ArrayList<>();
    private final List<Boolean> illTyped = new ArrayList<>();
    private final Map<List<String>, Integer> places = new HashMap<>();
    private final Map<String, List<Integer>> bySkeleton = new HashMap<>();
    /** The skeletons of keys with two parts the other way round. */
    private final Map<String, List<Integer>> bySwapped = new HashMap<>();

    private final Map<Long, List<Integer>> byNeighbourhood = new HashMap<>();
    private final List<Candidates> found = new ArrayList<>();
    /** Lengths of the keys asked about: only a parent's key of about such a length can be a neighbour. */
    private final BitSet lengths = new BitSet();

    /**
     * Asks about a key.
     *
     * @param key its cells as written; a key with a null among them gets no hint
     * @param isIllTyped whether one of them is not of its type
     */
    public void ask(List<String> key, boolean isIllTyped) {
        if (key.contains(null) || places.containsKey(key)) {
            return;
        }
        int place = keys.size();
        places.put(key, place);
        keys.add(key);
        illTyped.add(isIllTyped);
        found.add(new Candidates());
        bySkeleton.computeIfAbsent(skeleton(key), s -> new ArrayList<>()).add(place);
        for (List<String> turned : swapped(key)) {
            bySwapped.computeIfAbsent(skeleton(turned), s -> new ArrayList<>()).add(place);
        }
        String joined = bones(key);
        if (key.size() == 1 && key.get(0).length() == 1 && joined.length() == 1) {
            for (String alike : Likeness.singlesAlike(joined)) {
                bySkeleton
                        .computeIfAbsent(skeleton(List.of(alike)), s -> new ArrayList<>())
                        .add(place);
            }
        }
        lengths.set(Math.min(joined.length(), LONGEST_FOR_EDITS) + 1);
        forNeighbourhood(
                joined,
                hash -> byNeighbourhood
                        .computeIfAbsent(hash, h -> new ArrayList<>())
                        .add(place));
    }

    /** Reads the parents' keys. */
    public void look(TableSource parents, int[] keyColumns) {
        if (keys.isEmpty()) {
            return;
        }
        HintSieve sieve =
                new HintSieve(bySkeleton.size() + bySwapped.size() + byNeighbourhood.size(), LONGEST_FOR_EDITS);
        bySwapped.keySet().forEach(skeleton -> sieve.add(HintSieve.hash(skeleton)));
        bySkeleton.keySet().forEach(skeleton -> sieve.add(HintSieve.hash(skeleton)));
        byNeighbourhood.keySet().forEach(sieve::add);
        parents.read(keyColumns, batch -> look(batch, sieve));
    }

    /** Whether there is a parent whose key is these whole numbers. */
    public interface Parents {
        boolean contain(long[] key);
    }

    /**
     * Looks for parents whose keys are whole numbers, all written as usual: what might have been meant is written down and
     * looked up, which takes no reading. Of {@link #MOST_LOOKED_UP} columns at most.
     */
    public void lookUp(Parents parents) {
        for (List<String> key : keys) {
            List<Set<String>> alike = key.stream().map(Likeness::numbersAlike).toList();
            lookUp(parents, alike, 0, new ArrayList<>());
            for (int column = 0; column < key.size(); column++) {
                List<Set<String>> near = new ArrayList<>(alike);
                near.set(column, Likeness.numbersNear(key.get(column)));
                lookUp(parents, near, 0, new ArrayList<>());
            }
            for (List<String> turned : swapped(key)) {
                lookUp(parents, turned.stream().map(Likeness::numbersAlike).toList(), 0, new ArrayList<>());
            }
        }
    }

    /** A key with each two of its parts the other way round. */
    private static List<List<String>> swapped(List<String> key) {
        List<List<String>> all = new ArrayList<>();
        for (int one = 0; one < key.size(); one++) {
            for (int other = one + 1; other < key.size(); other++) {
                List<String> turned = new ArrayList<>(key);
                Collections.swap(turned, one, other);
                all.add(turned);
            }
        }
        return all;
    }

    /** Looks up all keys that can be put together of a choice for each column. */
    private void lookUp(Parents parents, List<Set<String>> choices, int column, List<String> chosen) {
        if (column == choices.size()) {
            lookUp(parents, chosen);
            return;
        }
        for (String cell : choices.get(column)) {
            chosen.add(cell);
            lookUp(parents, choices, column + 1, chosen);
            chosen.remove(column);
        }
    }

    private void lookUp(Parents parents, List<String> key) {
        long[] values = new long[key.size()];
        for (int i = 0; i < values.length; i++) {
            Long value = Likeness.plainNumber(key.get(i));
            if (value == null) {
                return;
            }
            values[i] = value;
        }
        if (parents.contain(values)) {
            look(List.copyOf(key));
        }
    }

    private void look(RowBatch batch, HintSieve sieve) {
        for (int row = 0; row < batch.size(); row++) {
            if (!sieve.letsPass(batch, row)) {
                continue;
            }
            List<String> parent = new ArrayList<>(batch.columnCount());
            for (int i = 0; i < batch.columnCount(); i++) {
                parent.add(batch.column(i).text(row));
            }
            if (!parent.contains(null)) {
                look(parent);
            }
        }
    }

    private void look(List<String> parent) {
        bySwapped.getOrDefault(skeleton(parent), List.of()).forEach(place -> {
            if (!skeleton(keys.get(place)).equals(skeleton(parent))) {
                found.get(place).add(new Candidate(parent, Likeness.swapped()));
            }
        });
        bySkeleton.getOrDefault(skeleton(parent), List.of()).forEach(place -> compare(place, parent));
        String joined = bones(parent);
        int length = joined.length();
        if (length <= LONGEST_FOR_EDITS && !lengths.get(length, length + 3).isEmpty()) {
            forNeighbourhood(
                    joined,
                    hash -> byNeighbourhood.getOrDefault(hash, List.of()).forEach(place -> compare(place, parent)));
        }
    }

    private void compare(int place, List<String> parent) {
        List<String> key = keys.get(place);
        Optional<Match> match =
                key.equals(parent) ? Optional.of(new Match(Hint.Kind.NOT_OF_ITS_TYPE, 0)) : Likeness.match(key, parent);
        match.ifPresent(m -> found.get(place).add(new Candidate(parent, m)));
    }

    /** What is known about a key; empty for one that was not asked about, too. */
    public Optional<Hint> hintFor(List<String> key) {
        Integer place = key.contains(null) ? null : places.get(key);
        if (place == null) {
            return Optional.empty();
        }
        List<Candidate> likely = found.get(place).likely();
        boolean isSure = !likely.isEmpty() && likely.get(0).match().kind().compareTo(Hint.Kind.STANDS_FOR_NOTHING) < 0;
        if (!isSure && key.stream().anyMatch(cell -> Placeholders.standsForNothing(Likeness.trim(cell)))) {
            return Optional.of(Hint.of(Hint.Kind.STANDS_FOR_NOTHING));
        }
        if (!likely.isEmpty()) {
            List<List<String>> parents = likely.stream().map(Candidate::key).toList();
            return Optional.of(new Hint(likely.get(0).match().kind(), parents));
        }
        return illTyped.get(place) ? Optional.of(Hint.of(Hint.Kind.NOT_OF_ITS_TYPE)) : Optional.empty();
    }

    /** A parent that may have been meant. */
    private record Candidate(List<String> key, Match match) implements Comparable<Candidate> {
        @Override
        public int compareTo(Candidate other) {
            int byWeight = Double.compare(match.weight(), other.match.weight());
            return byWeight != 0 ? byWeight : join(key).compareTo(join(other.key));
        }
    }

    /** The likeliest parents of one key, in whatever order they are met. */
    private static final class Candidates {
        private static final int NAMED = 3;
        private final TreeSet<Candidate> nearest = new TreeSet<>();

        void add(Candidate candidate) {
            nearest.add(candidate);
            if (nearest.size() > NAMED + 1) {
                nearest.pollLast();
            }
        }

        /** Those of one class with the likeliest; where more are equally near than are named, none of them is likelier than the others. */
        List<Candidate> likely() {
            List<Candidate> likely = new ArrayList<>(nearest);
            if (likely.size() > NAMED) {
                double last = likely.get(NAMED).match().weight();
                likely.removeIf(candidate -> candidate.match().weight() >= last);
            }
            likely.removeIf(candidate ->
                    candidate.match().kindOfWeight() > likely.get(0).match().kindOfWeight());
            return likely;
        }
    }

    private static String join(List<String> key) {
        return String.join(String.valueOf(HintSieve.BETWEEN_COLUMNS), key);
    }

    private static String bones(List<String> key) {
        return join(key.stream().map(Likeness::bones).toList());
    }

    private static String skeleton(List<String> key) {
        return join(key.stream().map(Likeness::skeleton).toList());
    }

    private interface HashSink {
        void accept(long hash);
    }

    /** Hashes of the text and of the texts with one character taken out: two texts one edit apart share one of them. */
    private static void forNeighbourhood(String text, HashSink sink) {
        int length = text.length();
        if (length > LONGEST_FOR_EDITS || length < 2) {
            return;
        }
        long[] before = new long[length + 1];
        long[] powers = new long[length + 1];
        powers[0] = 1;
        for (int i = 0; i < length; i++) {
            before[i + 1] = before[i] * BASE + text.charAt(i);
            powers[i + 1] = powers[i] * BASE;
        }
        sink.accept(before[length] * 31 + length);
        for (int out = 0; out < length; out++) {
            if (out > 0 && text.charAt(out) == text.charAt(out - 1)) {
                continue;
            }
            int behind = length - out - 1;
            long after = before[length] - before[out + 1] * powers[behind];
            sink.accept((before[out] * powers[behind] + after) * 31 + (length - 1));
        }
    }
}
