package taxiomet.check;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import taxiomet.finding.Hint;
import taxiomet.rows.Placeholders;
import taxiomet.rows.RowBatch;
import taxiomet.rows.TableSource;

/**
 * Looks for the parents that may have been meant by keys without one: a single pass over the parents' keys, whatever the
 * number of keys asked about.
 */
final class HintFinder {
    private static final long BASE = 0x100000001B3L;
    private static final int LONGEST_FOR_EDITS = 64;

    private final List<List<String>> keys = new ArrayList<>();
    private final List<Boolean> illTyped = new ArrayList<>();
    private final Map<List<String>, Integer> places = new HashMap<>();
    private final Map<String, List<Integer>> bySkeleton = new HashMap<>();
    private final Map<Long, List<Integer>> byNeighbourhood = new HashMap<>();
    private final List<Optional<Hint>> found = new ArrayList<>();
    private final List<Integer> neighbours = new ArrayList<>();
    /** Lengths of the keys asked about: only a parent's key of about such a length can be a neighbour. */
    private final BitSet lengths = new BitSet();

    /**
     * Asks about a key.
     *
     * @param key its cells as written; a key with a null among them gets no hint
     * @param isIllTyped whether one of them is not of its type
     */
    void ask(List<String> key, boolean isIllTyped) {
        if (key.contains(null) || places.containsKey(key)) {
            return;
        }
        int place = keys.size();
        places.put(key, place);
        keys.add(key);
        illTyped.add(isIllTyped);
        found.add(Optional.empty());
        neighbours.add(0);
        bySkeleton.computeIfAbsent(skeleton(key), s -> new ArrayList<>()).add(place);
        String joined = join(key);
        lengths.set(Math.min(joined.length(), LONGEST_FOR_EDITS) + 1);
        forNeighbourhood(
                joined,
                hash -> byNeighbourhood
                        .computeIfAbsent(hash, h -> new ArrayList<>())
                        .add(place));
    }

    /** Reads the parents' keys. */
    void look(TableSource parents, int[] keyColumns) {
        if (keys.isEmpty()) {
            return;
        }
        HintSieve sieve = new HintSieve(bySkeleton.size() + byNeighbourhood.size(), LONGEST_FOR_EDITS);
        bySkeleton.keySet().forEach(skeleton -> sieve.add(HintSieve.hash(skeleton)));
        byNeighbourhood.keySet().forEach(sieve::add);
        parents.read(keyColumns, batch -> look(batch, sieve));
    }

    /** Whether there is a parent whose key is these whole numbers. */
    interface Parents {
        boolean contain(long[] key);
    }

    /**
     * Looks for parents whose keys are whole numbers, all written as usual: what might have been meant is written down and
     * looked up, which takes no reading.
     */
    void lookUp(Parents parents) {
        for (int key = 0; key < keys.size(); key++) {
            lookUp(parents, keys.get(key).stream().map(Likeness::skeleton).toList());
            for (int column = 0; column < keys.get(key).size(); column++) {
                lookUpNeighbours(parents, key, column);
            }
        }
    }

    /** Looks up keys with one keystroke more or less in one column, until there are two: then neither is more likely. */
    private void lookUpNeighbours(Parents parents, int key, int column) {
        List<String> other = new ArrayList<>(keys.get(key));
        for (String cell : Likeness.numbersOneEditFrom(other.get(column))) {
            if (neighbours.get(key) > 1) {
                return;
            }
            other.set(column, cell);
            lookUp(parents, other);
        }
    }

    private void lookUp(Parents parents, List<String> key) {
        long[] values = new long[key.size()];
        for (int i = 0; i < values.length; i++) {
            if (!Likeness.isPlainNumber(key.get(i))) {
                return;
            }
            values[i] = Long.parseLong(key.get(i));
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
        for (int place : bySkeleton.getOrDefault(skeleton(parent), List.of())) {
            Hint.Kind kind = Likeness.difference(keys.get(place), parent).orElse(Hint.Kind.NOT_OF_ITS_TYPE);
            Optional<Hint> known = found.get(place);
            if (known.isEmpty() || kind.compareTo(known.get().kind()) < 0) {
                found.set(place, Optional.of(new Hint(kind, Optional.of(String.join(", ", parent)))));
            }
        }
        String joined = join(parent);
        int length = joined.length();
        if (length <= LONGEST_FOR_EDITS && !lengths.get(length, length + 3).isEmpty()) {
            forNeighbourhood(joined, hash -> {
                List<Integer> near = byNeighbourhood.get(hash);
                if (near != null) {
                    near.forEach(place -> lookAtNeighbour(place, parent));
                }
            });
        }
    }

    private void lookAtNeighbour(int place, List<String> parent) {
        Optional<Hint> known = found.get(place);
        boolean isBetterKnown = known.isPresent() && known.get().kind() != Hint.Kind.ONE_EDIT;
        String name = String.join(", ", parent);
        if (isBetterKnown
                || (known.isPresent() && known.get().parent().orElse("").equals(name))
                || !Likeness.isOneEditApart(keys.get(place), parent)) {
            return;
        }
        neighbours.set(place, neighbours.get(place) + 1);
        found.set(place, Optional.of(new Hint(Hint.Kind.ONE_EDIT, Optional.of(name))));
    }

    /** What is known about a key; empty for one that was not asked about, too. */
    Optional<Hint> hintFor(List<String> key) {
        Integer place = key.contains(null) ? null : places.get(key);
        if (place == null) {
            return Optional.empty();
        }
        Optional<Hint> hint = found.get(place);
        boolean isSure = hint.isPresent() && hint.get().kind().compareTo(Hint.Kind.STANDS_FOR_NOTHING) < 0;
        if (isSure) {
            return hint;
        }
        if (key.stream().anyMatch(cell -> Placeholders.standsForNothing(Likeness.trim(cell)))) {
            return Optional.of(new Hint(Hint.Kind.STANDS_FOR_NOTHING, Optional.empty()));
        }
        // With several neighbours, none is more likely than the others.
        if (hint.isPresent() && (hint.get().kind() != Hint.Kind.ONE_EDIT || neighbours.get(place) == 1)) {
            return hint;
        }
        return illTyped.get(place)
                ? Optional.of(new Hint(Hint.Kind.NOT_OF_ITS_TYPE, Optional.empty()))
                : Optional.empty();
    }

    private static String join(List<String> key) {
        return String.join(String.valueOf(HintSieve.BETWEEN_COLUMNS), key);
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
