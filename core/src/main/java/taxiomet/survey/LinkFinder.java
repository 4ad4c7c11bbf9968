package taxiomet.survey;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import taxiomet.charter.ColumnType.Family;

/** Looks on the samples for columns whose values may lie in a candidate key. */
final class LinkFinder {
    private static final double LEAST_COVERAGE = 0.9;
    private static final double LEAST_IF_NAMED = 1e-6;
    /** What rows alone, instead of different values, may deviate by. */
    private static final double JOINT_SLACK = 0.1;

    private static final int FEW_ROWS = 8;
    private static final double LEAST_LIKENESS = 0.4;
    private static final int MOST_PARENTS = 5;
    private static final int MOST_PER_PAIR = 3;
    private static final int MOST_COMBINATIONS = 64;

    /** Columns of a child, and the key of a parent that they may point at. */
    @SuppressWarnings("ArrayRecordComponent") // places of columns, as everywhere; pairs are never compared
    record Pair(TableProfile child, int[] columns, TableProfile parent, int[] key) {}

    private final List<TableProfile> tables;
    private final Map<TableProfile, List<int[]>> keys;
    private final NameLikeness names;
    private final Map<String, Double> coverages = new HashMap<>();

    LinkFinder(List<TableProfile> tables, Map<TableProfile, List<int[]>> keys, NameLikeness names) {
        this.tables = tables;
        this.keys = keys;
        this.names = names;
    }

    List<Pair> find() {
        List<Pair> pairs = new ArrayList<>();
        for (TableProfile child : tables) {
            for (int column = 0; column < child.width(); column++) {
                pairs.addAll(singles(child, column));
            }
            for (TableProfile parent : tables) {
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
        List<Pair> pairs = new ArrayList<>();
        for (TableProfile parent : tables) {
            for (int[] key : keys.get(parent)) {
                boolean isItself = parent == child && key[0] == column;
                if (key.length == 1
                        && !isItself
                        && isLikely(child, column, parent, key[0])
                        && isPossible(child, column, parent, key[0])) {
                    pairs.add(new Pair(child, new int[] {column}, parent, key));
                }
            }
        }
        pairs.sort(Comparator.comparingDouble((Pair p) -> -guess(p)));
        long named =
                pairs.stream().filter(pair -> LinkRanking.isNamed(pair, names)).count();
        // Where a name says what is meant, one other is enough to compare it with.
        long most = named > 0 ? Math.min(MOST_PARENTS, named + 1) : MOST_PARENTS;
        return pairs.subList(0, (int) Math.min(most, pairs.size()));
    }

    /** A first guess of how likely a link is meant: by its names, and by how much of the parent's range it takes up. */
    private double guess(Pair pair) {
        double guess = 0;
        for (int i = 0; i < pair.columns().length; i++) {
            guess += names.likeness(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i])
                    + LinkRanking.rangeFit(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]);
        }
        return guess / pair.columns().length;
    }

    /** Whole numbers that are not named for it and take up little of its range are no link: most columns of numbers are that. */
    private boolean isLikely(TableProfile child, int column, TableProfile parent, int key) {
        if (LinkRanking.countsItsRows(child, column)
                && names.likeness(child, column, parent, key) < LinkRanking.NAMED) {
            return false;
        }
        return !child.columns.get(column).guess().type().isInteger()
                || names.likeness(child, column, parent, key) >= LEAST_LIKENESS
                || LinkRanking.rangeFit(child, column, parent, key) >= 0.4;
    }

    private boolean isPossible(TableProfile child, int column, TableProfile parent, int key) {
        ColumnProfile from = child.columns.get(column);
        ColumnProfile to = parent.columns.get(key);
        Family family = from.guess().type().family();
        if (from.values() == 0 || family != to.guess().type().family() || family == Family.APPROXIMATE_NUMBER) {
            return false;
        }
        boolean isFraction =
                family == Family.EXACT_NUMBER && from.guess().type().scale() > 0;
        return !isFraction
                && family != Family.BOOLEAN
                && coverage(child, column, parent, key) >= leastCoverage(child, column, parent, key);
    }

    /** Where the name says what a column points at, however much of it is dirty, the steward is to see it. */
    private double leastCoverage(TableProfile child, int column, TableProfile parent, int key) {
        boolean isNamed = names.likeness(child, column, parent, key) >= LinkRanking.NAMED;
        return isNamed ? LEAST_IF_NAMED : LEAST_COVERAGE - slack(child.columns.get(column));
    }

    /** With few different values one stranger weighs much. */
    private static double slack(ColumnProfile from) {
        return from.distinct() <= 40 ? Math.min(0.25, 1.5 / Math.max(1, from.distinct())) : 0;
    }

    /** The share of the child's values that the parent has, as far as the samples tell; where they tell nothing, names do. */
    private double coverage(TableProfile child, int column, TableProfile parent, int key) {
        String pair = child.name() + '\u0000' + column + '\u0000' + parent.name() + '\u0000' + key;
        return coverages.computeIfAbsent(
                pair,
                p -> child.hashes
                        .get(column)
                        .coverageBy(parent.hashes.get(key))
                        .orElse(names.likeness(child, column, parent, key) >= LEAST_LIKENESS ? 1.0 : 0.0));
    }

    private List<Pair> composites(TableProfile child, TableProfile parent, int[] key) {
        List<List<Integer>> choices = new ArrayList<>();
        for (int part : key) {
            List<Integer> possible = new ArrayList<>();
            for (int column = 0; column < child.width(); column++) {
                if (isPossible(child, column, parent, part)) {
                    possible.add(column);
                }
            }
            int toPart = part;
            possible.sort(Comparator.comparingDouble((Integer c) -> -names.likeness(child, c, parent, toPart)));
            choices.add(possible.subList(0, Math.min(4, possible.size())));
        }
        List<Pair> pairs = new ArrayList<>();
        choose(child, parent, key, choices, new int[key.length], 0, pairs);
        pairs.removeIf(pair -> !isCoveredJointly(pair));
        pairs.sort(Comparator.comparingDouble((Pair p) -> -guess(p)));
        return pairs.subList(0, Math.min(MOST_PER_PAIR, pairs.size()));
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
        // No evidence is not coverage: then the names must speak.
        boolean isNamed = LinkRanking.isNamed(pair, names);
        return best.rows() < FEW_ROWS
                ? isNamed
                : best.share() >= (isNamed ? LEAST_IF_NAMED : LEAST_COVERAGE - JOINT_SLACK);
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
