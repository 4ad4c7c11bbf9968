package taxiomet.survey.search;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.RowSample;
import taxiomet.survey.profile.TableProfile;

/** Looks on the samples for columns whose values may lie in a candidate key. */
public final class LinkFinder {
    private static final double LEAST_COVERAGE = 0.9;
    private static final double LEAST_IF_NAMED = 1e-6;
    /** What agrees by no accident is worth a look however many strangers there are beside it. */
    private static final double LEAST_IF_SURPRISING = 0.15;

    private static final double LEAST_IF_ALL_USED = 0.3;
    private static final double ALL_USED = 0.8;
    private static final double LIKELY_FIT = 0.4;
    /** Of few rows what is unlikely is counted too, so that it can be listed. */
    private static final long FEW_ENOUGH = 100_000;

    private static final double LEAST_FIT = 0.1;
    private static final double LIKELY_BITS = 8;
    /** What rows alone, instead of different values, may deviate by. */
    private static final double JOINT_SLACK = 0.1;

    /** Names that speak are worth a comparison of more values. */
    private static final int MORE_VALUES = 4_000;

    private static final int FEW_ROWS = 8;
    private static final double LEAST_LIKENESS = 0.4;
    private static final int MOST_PARENTS = 5;
    private static final int FEW_PARENTS = 2;
    private static final int MOST_PER_PAIR = 3;
    private static final int MOST_COMBINATIONS = 256;
    private static final double ONE_KIND_GAINS = 0.4;
    private static final double SIDE_BY_SIDE_GAINS = 0.2;
    private static final int MOST_FOR_A_PART = 4;

    private final List<TableProfile> tables;
    private final Map<TableProfile, List<int[]>> keys;
    private final NameLikeness names;
    /** For the child and the parent at hand: of each part of a key, the columns that may point at it. */
    private final Map<Integer, List<Integer>> possibleParts = new HashMap<>();

    public LinkFinder(List<TableProfile> tables, Map<TableProfile, List<int[]>> keys, NameLikeness names) {
        this.tables = tables;
        this.keys = keys;
        this.names = names;
    }

    public List<Pair> find() {
        List<Pair> pairs = new ArrayList<>();
        for (TableProfile child : tables) {
            for (int column = 0; column < child.width(); column++) {
                pairs.addAll(singles(child, column));
            }
            for (TableProfile parent : tables) {
                possibleParts.clear();
                for (int[] key : keys.get(parent)) {
                    if (key.length > 1) {
                        pairs.addAll(composites(child, parent, key));
                    }
                }
            }
        }
        return pairs;
    }

    private List<Pair> singles(TableProfile child, int column) {
        List<Pair> found = new ArrayList<>();
        for (TableProfile parent : tables) {
            for (int[] key : keys.get(parent)) {
                boolean isItself = parent == child && key[0] == column;
                if (key.length == 1 && !isItself && isPossible(child, column, parent, key[0])) {
                    found.add(new Pair(child, new int[] {column}, parent, key));
                }
            }
        }
        List<Pair> pairs = likeliestFirst(found);
        long named =
                pairs.stream().filter(pair -> LinkRanking.isNamed(pair, names)).count();
        // Where a name says what is meant, one other is enough to compare it with, and none where there are many rows.
        long others = child.rows <= FEW_ENOUGH ? 1 : 0;
        long most = named > 0
                ? Math.min(MOST_PARENTS, named + others)
                : child.rows <= FEW_ENOUGH ? MOST_PARENTS : FEW_PARENTS;
        return pairs.subList(0, (int) Math.min(most, pairs.size()));
    }

    private record Guessed(Pair pair, double guess) {}

    private List<Pair> likeliestFirst(List<Pair> pairs) {
        return pairs.stream()
                .map(pair -> new Guessed(pair, guess(pair)))
                .sorted(Comparator.comparingDouble(Guessed::guess).reversed())
                .map(Guessed::pair)
                .toList();
    }

    /** A first guess of how likely a link is meant: by its names, and by how much of the parent's range it takes up. */
    private double guess(Pair pair) {
        double guess = 0;
        for (int i = 0; i < pair.columns().length; i++) {
            guess += names.likeness(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i])
                    + LinkRanking.rangeFit(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]);
        }
        guess /= pair.columns().length;
        if (pair.isSingle()) {
            double coverage = pair.child()
                    .values
                    .get(pair.columns()[0])
                    .coverageBy(pair.parent().values.get(pair.key()[0]), SharedValues.SOME)
                    .orElse(1);
            return guess - (1 - coverage);
        }
        return guess + (areOfOneKind(pair) ? ONE_KIND_GAINS : 0) + (areSideBySide(pair) ? SIDE_BY_SIDE_GAINS : 0);
    }

    /** Whether the names of all columns say the same beyond those of the key: from_region and from_depot, but not to_depot. */
    private boolean areOfOneKind(Pair pair) {
        List<String> first = names.beyond(pair.child(), pair.columns()[0], pair.parent(), pair.key()[0]);
        for (int i = 1; i < pair.columns().length; i++) {
            if (!first.equals(names.beyond(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]))) {
                return false;
            }
        }
        return true;
    }

    private static boolean areSideBySide(Pair pair) {
        for (int i = 1; i < pair.columns().length; i++) {
            if (pair.columns()[i] != pair.columns()[i - 1] + pair.key()[i] - pair.key()[i - 1]) {
                return false;
            }
        }
        return true;
    }

    private boolean isPossible(TableProfile child, int column, TableProfile parent, int key) {
        ColumnProfile from = child.columns.get(column);
        ColumnProfile to = parent.columns.get(key);
        if (from.values() > 0 && !isOfOneFamily(from.guess().type(), to.guess().type())) {
            return false;
        }
        double likeness = names.likeness(child, column, parent, key);
        boolean isNamed = likeness >= LinkRanking.NAMED;
        if (from.values() == 0) {
            return isNamed && to.values() > 0;
        }
        boolean countsForItself =
                LinkRanking.countsItsRows(child, column) && !LinkRanking.areCountedAlike(child, column, parent, key);
        if (!isNamed && (countsForItself || liesApart(child, column, parent, key))) {
            return false;
        }
        SharedValues shared = SharedValues.of(child, column, parent, key, isNamed ? MORE_VALUES : SharedValues.SOME);
        if (shared.isUnknown()) {
            // No evidence is not coverage: then names must speak, or the look of the values.
            return likeness >= LEAST_LIKENESS || looksAlike(child, column, parent, key);
        }
        double coverage = shared.share();
        if (isNamed) {
            return coverage >= LEAST_IF_NAMED;
        }
        double bits =
                Surprise.bits(child, column, parent, key, shared.ofValues().orElse(coverage));
        double used = shared.ofValues().orElse(0) * from.distinct() / Math.max(1, to.distinct());
        boolean isWhole = from.guess().type().isInteger();
        boolean areFew = child.rows <= FEW_ENOUGH;
        boolean isCrowd = isWhole
                && areFew
                && coverage >= LEAST_IF_ALL_USED
                && Surprise.ofCrowd(child, column, parent, key, shared.ofRows()) >= Surprise.SURE;
        if (isCrowd
                || (bits >= Surprise.SURE && coverage >= LEAST_IF_SURPRISING)
                || (areFew && used >= ALL_USED && coverage >= LEAST_IF_ALL_USED && from.distinct() > 2)) {
            return true;
        }
        // Whole numbers that are not named for it and take up little of its range are no link: most columns of numbers
        // are that.
        boolean isLikely = !isWhole
                || likeness >= LEAST_LIKENESS
                || bits >= LIKELY_BITS
                || LinkRanking.rangeFit(child, column, parent, key) >= (areFew ? LEAST_FIT : LIKELY_FIT)
                || (parent == child && hasRoots(from, coverage));
        return isLikely && coverage >= LEAST_COVERAGE - slack(from);
    }

    /** Who stands above whom ends somewhere: at rows without a value, or with one that no row has. */
    private static boolean hasRoots(ColumnProfile from, double coverage) {
        return from.nulls() > 0 || coverage < 1;
    }

    private static boolean isOfOneFamily(ColumnType from, ColumnType to) {
        Family family = from.family();
        boolean isFraction = family == Family.EXACT_NUMBER && (from.scale() > 0 || to.scale() > 0);
        return family == to.family() && family != Family.APPROXIMATE_NUMBER && family != Family.BOOLEAN && !isFraction;
    }

    /** Whether whole numbers or dates are all less or all greater than the keys. */
    private static boolean liesApart(TableProfile child, int column, TableProfile parent, int key) {
        return child.ranges[column] != null
                && parent.ranges[key] != null
                && (child.ranges[column].least() > parent.ranges[key].greatest()
                        || child.ranges[column].greatest() < parent.ranges[key].least());
    }

    /** Whether values that no sample shares have the length of the keys and lie between them, and few other values would. */
    private static boolean looksAlike(TableProfile child, int column, TableProfile parent, int key) {
        ColumnProfile from = child.columns.get(column);
        ColumnProfile to = parent.columns.get(key);
        if (child.ranges[column] != null && parent.ranges[key] != null) {
            return child.ranges[column].least() >= parent.ranges[key].least()
                    && child.ranges[column].greatest() <= parent.ranges[key].greatest()
                    && Surprise.bits(child, column, parent, key, 1) >= Surprise.SURE;
        }
        return from.shortest() >= to.shortest()
                && from.longest() <= to.longest()
                && from.least().orElse("").compareTo(to.least().orElse("")) >= 0
                && from.greatest().orElse("").compareTo(to.greatest().orElse("")) <= 0
                && Surprise.bits(child, column, parent, key, 1) >= Surprise.SURE;
    }

    /** With few different values one stranger weighs much. */
    private static double slack(ColumnProfile from) {
        return from.distinct() <= 40 ? Math.min(0.25, 1.5 / Math.max(1, from.distinct())) : 0;
    }

    private List<Pair> composites(TableProfile child, TableProfile parent, int[] key) {
        List<List<Integer>> choices = new ArrayList<>();
        for (int part : key) {
            choices.add(possibleParts.computeIfAbsent(part, p -> possibleFor(child, parent, p)));
        }
        List<Pair> pairs = new ArrayList<>();
        choose(child, parent, key, choices, new int[key.length], 0, pairs);
        pairs.removeIf(pair -> !isCoveredJointly(pair));
        return likeliestFirst(pairs).subList(0, Math.min(MOST_PER_PAIR, pairs.size()));
    }

    private List<Integer> possibleFor(TableProfile child, TableProfile parent, int part) {
        List<Integer> possible = new ArrayList<>();
        for (int column = 0; column < child.width(); column++) {
            if (isPossiblePart(child, column, parent, part)) {
                possible.add(column);
            }
        }
        possible.sort(Comparator.comparingDouble((Integer c) -> -names.likenessOfPart(child, c, parent, part)));
        return possible.subList(0, Math.min(MOST_FOR_A_PART, possible.size()));
    }

    /** One part of a key says little by itself; all together say it. */
    private boolean isPossiblePart(TableProfile child, int column, TableProfile parent, int part) {
        ColumnProfile from = child.columns.get(column);
        if (from.values() == 0
                || !isOfOneFamily(
                        from.guess().type(), parent.columns.get(part).guess().type())) {
            return false;
        }
        boolean isNamed = names.likenessOfPart(child, column, parent, part) >= LinkRanking.NAMED;
        if (!isNamed && liesApart(child, column, parent, part)) {
            return false;
        }
        SharedValues shared = SharedValues.of(child, column, parent, part, isNamed ? MORE_VALUES : SharedValues.SOME);
        double coverage = shared.share();
        return isNamed ? coverage >= LEAST_IF_NAMED || shared.ofValues().isEmpty() : coverage >= LEAST_IF_ALL_USED;
    }

    /** Whether the rows of the child's sample have their parents in the parent's, as far as there are any to look at. */
    private boolean isCoveredJointly(Pair pair) {
        RowSample.Coverage best = new RowSample.Coverage(0, 0);
        for (int i = 0; i < pair.columns().length; i++) {
            RowSample from = pair.child().rowSamples.get(pair.columns()[i]);
            RowSample to = pair.parent().rowSamples.get(pair.key()[i]);
            RowSample.Coverage coverage = from.coverageBy(pair.columns(), to, pair.key());
            best = coverage.rows() > best.rows() ? coverage : best;
        }
        boolean isNamed = LinkRanking.isNamed(pair, names);
        if (best.rows() < FEW_ROWS) {
            return isNamed;
        }
        boolean isSurprising =
                best.share() >= LEAST_IF_ALL_USED && LinkRanking.jointBits(pair, best.covered()) >= Surprise.SURE;
        boolean isListedAtLeast = pair.child().rows <= FEW_ENOUGH && best.share() >= LEAST_IF_ALL_USED;
        return isSurprising
                || isListedAtLeast
                || best.share() >= (isNamed ? LEAST_IF_NAMED : LEAST_COVERAGE - JOINT_SLACK);
    }

    private static void choose(
            TableProfile child,
            TableProfile parent,
            int[] key,
            List<List<Integer>> choices,
            int[] chosen,
            int size,
            List<Pair> pairs) {
        if (size == key.length) {
            boolean isItself = false;
            for (int i = 0; i < size; i++) {
                isItself |= child == parent && chosen[i] == key[i];
            }
            if (!isItself && pairs.size() < MOST_COMBINATIONS) {
                pairs.add(new Pair(child, chosen.clone(), parent, key));
            }
            return;
        }
        for (int column : choices.get(size)) {
            boolean isTaken = false;
            for (int i = 0; i < size; i++) {
                isTaken |= chosen[i] == column;
            }
            if (!isTaken) {
                chosen[size] = column;
                choose(child, parent, key, choices, chosen, size + 1, pairs);
            }
        }
    }
}
