package taxiomet.survey.search;

import java.util.List;
import taxiomet.charter.ColumnType.Family;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.WholeRange;

/** How likely a person would declare a link that holds, or nearly holds. */
public final class LinkRanking {
    /** From here on a name says what a column points at. */
    static final double NAMED = 0.7;

    private static final long FEW_VALUES = 3;
    private static final double HALF_NAMED_COSTS = 0.25;
    private static final double STRANGE_PART = 0.3;
    private static final double MEASURE_COSTS = 0.3;
    private static final double NAMED_MEASURE_COSTS = 0.6;
    private static final double COPY_COSTS = 0.2;
    private static final double ACYCLIC_GAIN = 0.3;
    private static final double CYCLIC_COSTS = 0.4;
    /** A key of the child and one column more points at nothing: what is more is a count. */
    private static final double WIDER_THAN_KEY_COSTS = 0.85;

    private static final double OWN_KEY_COSTS = 0.4;
    private static final double NEARLY_ALL = 0.99;
    private static final double FROM_BELOW_COSTS = 0.15;
    /** What tells the rows of its own table apart seldom points elsewhere without saying so. */
    private static final double OWN_VALUES_COSTS = 0.3;

    private static final double OWN_NUMBERS_COSTS = 0.05;

    private static final double COUNTED_COSTS = 0.55;
    /** Two tables with as many rows, each counted from the same number on. */
    private static final double COUNTED_ALIKE_COSTS = 0.3;

    private static final long MANY_ALIKE = 20;
    private static final double MOSTLY_FULL = 0.3;

    /** So many bits that a link to the own table has no ring by accident are as good as none are. */
    private static final double ACYCLIC_BITS = 3;

    private LinkRanking() {}

    /**
     * How much of a parent's key a child's column takes up, 0 to 1: small numbers lie in every range of numbers by accident, and
     * then at its low end.
     */
    static double rangeFit(TableProfile child, int column, TableProfile parent, int key) {
        double spread = (double) child.columns.get(column).distinct()
                / Math.max(1, parent.columns.get(key).distinct());
        boolean areWhole = child.columns.get(column).guess().type().isInteger()
                && parent.columns.get(key).guess().type().isInteger();
        if (!areWhole) {
            return Math.min(1, 0.5 + spread);
        }
        WholeRange own = child.ranges[column];
        WholeRange keys = parent.ranges[key];
        double span = keys.span() - 1;
        if (span <= 0) {
            return 0;
        }
        double low = Math.max(own.least(), keys.least());
        double high = Math.min(own.greatest(), keys.greatest());
        return Math.max(0, Math.min(1, 0.7 * (high - low) / span + 0.3 * Math.min(1, spread)));
    }

    public static boolean isNamed(Pair pair, NameLikeness names) {
        return likeness(pair, names) >= NAMED;
    }

    public static double likeness(Pair pair, NameLikeness names) {
        double sum = 0;
        for (int i = 0; i < pair.columns().length; i++) {
            sum += likeness(pair, i, names);
        }
        return sum / pair.columns().length;
    }

    private static double likeness(Pair pair, int part, NameLikeness names) {
        return pair.isSingle()
                ? names.likeness(pair.child(), pair.columns()[part], pair.parent(), pair.key()[part])
                : names.likenessOfPart(pair.child(), pair.columns()[part], pair.parent(), pair.key()[part]);
    }

    /** Whether whole numbers, which lie in ranges by accident, are all that there is: not even a name like that of a key. */
    public static boolean isOfPlainNumbers(Pair pair) {
        for (int column : pair.columns()) {
            ColumnProfile profile = pair.child().columns.get(column);
            if (!profile.guess().type().isInteger() || KeyRanking.isNamedLikeKey(profile.name())) {
                return false;
            }
        }
        return true;
    }

    /**
     * Bits for rows whose values are together those of a key of several columns: where nearly all combinations are keys, they say nothing.
     *
     * @param rows of the child, that have a parent
     */
    static double jointBits(Pair pair, double rows) {
        double combinations = 1;
        for (int part : pair.key()) {
            combinations *= pair.parent().columns.get(part).distinct();
        }
        double share = (double) pair.parent().keyRows() / Math.max(1, combinations);
        return share >= MOSTLY_FULL ? 0 : Math.min(3 * Surprise.SURE, -rows * Math.log(share) / Math.log(2));
    }

    private static double bits(Pair pair, double coverage, double judged) {
        if (pair.isSingle()) {
            return Surprise.bits(pair.child(), pair.columns()[0], pair.parent(), pair.key()[0], coverage);
        }
        // That each part is of the same domain as its counterpart says little: they must agree together.
        return jointBits(pair, coverage * judged);
    }

    /** How many of the parents would have a child if children chose at random. */
    private static double expectedSpread(double rows, double parents) {
        return parents == 0 ? 0 : 1 - Math.exp(-rows / parents);
    }

    /**
     * What is known of the tables of a link.
     *
     * @param isParentPrimary whether it points at the primary key
     * @param ownKey the columns of the child's primary key, where it is exact; empty where there is none
     * @param ringBits for a link to the own table, how improbable it is by accident that no row is its own ancestor; negative where one is
     */
    public record Standing(boolean isParentPrimary, List<String> ownKey, double ringBits) {
        public boolean isAcyclic() {
            return ringBits >= ACYCLIC_BITS;
        }
    }

    /** What is known of a link whose rows were counted. */
    private static final class Evidence {
        final Pair pair;
        final NameLikeness names;
        final double name;
        final double leastNamed;
        final double mostNamed;
        final double fit;
        final boolean isWhole;
        final boolean hasWhole;
        final double coverage;
        final double spread;
        final double bits;

        Evidence(Pair pair, LinkResult counts, NameLikeness names) {
            this.pair = pair;
            this.names = names;
            double least = 1;
            double most = 0;
            double fits = 0;
            boolean areWhole = true;
            boolean isOneWhole = false;
            int width = pair.columns().length;
            for (int i = 0; i < width; i++) {
                double here = likeness(pair, i, names);
                boolean isInteger = pair.child()
                        .columns
                        .get(pair.columns()[i])
                        .guess()
                        .type()
                        .isInteger();
                least = Math.min(least, here);
                most = Math.max(most, here);
                fits += rangeFit(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]) / width;
                areWhole &= isInteger;
                isOneWhole |= isInteger && here < STRANGE_PART;
            }
            name = likeness(pair, names);
            leastNamed = least;
            mostNamed = most;
            fit = fits;
            isWhole = areWhole;
            hasWhole = isOneWhole;
            coverage = counts.judged() == 0 ? 0 : 1 - (double) counts.orphans() / counts.judged();
            ChildrenTally tally = counts.children().orElseThrow();
            double parents = (double) tally.parents();
            double withChild = parents == 0 ? 0 : (parents - (double) tally.childless()) / parents;
            double expected = expectedSpread((double) counts.judged(), parents);
            spread = expected == 0 ? 0 : Math.min(1, withChild / expected);
            bits = bits(pair, coverage, (double) counts.judged());
        }

        boolean isNamed() {
            return name >= NAMED;
        }

        boolean isSurprising() {
            return bits >= Surprise.SURE;
        }
    }

    /**
     * The score of a link, with reasons; it may lie beyond 0 and 1.
     *
     * @param counts exact
     */
    public static double score(
            Pair pair, LinkResult counts, NameLikeness names, Standing standing, List<String> reasons) {
        Evidence evidence = new Evidence(pair, counts, names);
        double early = 1 - (double) pair.columns()[0] / pair.child().width();
        double surprise = Math.min(1, evidence.bits / Surprise.SURE);
        double score = 0.08 * early
                + 0.45 * evidence.name
                + 0.2 * evidence.fit
                + 0.25 * evidence.spread
                + 0.25 * surprise
                + (standing.isParentPrimary() ? 0.1 : -0.1)
                + (hasNames(pair.parent()) ? 0.04 : 0);
        if (evidence.isNamed()) {
            reasons.add("names match");
        }
        if (evidence.isSurprising()) {
            reasons.add("unlikely to match by chance");
        } else if (evidence.spread > 0.9) {
            reasons.add("nearly all parents are used that could be");
        }
        if (evidence.mostNamed >= 0.9 && evidence.leastNamed < STRANGE_PART && evidence.hasWhole) {
            score -= HALF_NAMED_COSTS;
            reasons.add("names match in part");
        }
        if (!standing.isParentPrimary() && !evidence.isNamed()) {
            score -= COPY_COSTS;
        }
        if (pair.isOfOneTable()) {
            score += ofRings(standing, evidence.isNamed(), reasons);
        }
        score -= ofOwnKey(evidence, counts, standing.ownKey(), reasons);
        return score - penalties(evidence, standing.isAcyclic(), reasons);
    }

    /** What points elsewhere is seldom the key of its own table, and then it is named for it. */
    private static double ofOwnKey(Evidence evidence, LinkResult counts, List<String> ownKey, List<String> reasons) {
        if (ownKey.isEmpty() || !counts.columns().containsAll(ownKey)) {
            return 0;
        }
        if (ownKey.size() < counts.columns().size()) {
            reasons.add("wider than the key of its own table");
            return WIDER_THAN_KEY_COSTS;
        }
        boolean isCoincidence = ownKey.size() > 1 && evidence.leastNamed < NAMED && evidence.bits < Surprise.SURE;
        return isCoincidence ? OWN_KEY_COSTS : 0;
    }

    private static double ofRings(Standing standing, boolean isNamed, List<String> reasons) {
        if (standing.isAcyclic()) {
            reasons.add("no row is its own ancestor");
            return ACYCLIC_GAIN * (isNamed ? 0.5 : 1);
        }
        if (standing.ringBits() < 0) {
            reasons.add("rows are their own ancestors");
            return isNamed ? 0 : -CYCLIC_COSTS;
        }
        return 0;
    }

    /** Things have names; what sums them up has numbers. */
    private static boolean hasNames(TableProfile table) {
        return table.columns.stream()
                .anyMatch(column -> column.guess().type().isText() && column.distinct() * 2 > column.values());
    }

    private static boolean isUnique(ColumnProfile column) {
        return column.values() > 1 && column.values() - column.distinct() <= Math.max(2, column.values() / 50);
    }

    /** Whether a column holds whole numbers without gaps, each about once, as one does that counts the rows of its own table. */
    static boolean countsItsRows(TableProfile table, int column) {
        ColumnProfile profile = table.columns.get(column);
        return profile.guess().type().isInteger()
                && isUnique(profile)
                && table.ranges[column].span() <= profile.distinct() * 1.05 + 2;
    }

    /** Whether two columns count their rows from the same number to the same one: then it is one thing in two tables, or an accident. */
    static boolean areCountedAlike(TableProfile child, int column, TableProfile parent, int key) {
        return child.columns.get(column).distinct() >= MANY_ALIKE && child.ranges[column].equals(parent.ranges[key]);
    }

    private static double penalties(Evidence evidence, boolean isAcyclic, List<String> reasons) {
        double penalty = (1 - evidence.coverage) * 2;
        Pair pair = evidence.pair;
        if (!pair.isSingle()) {
            return penalty;
        }
        TableProfile child = pair.child();
        int column = pair.columns()[0];
        ColumnProfile from = child.columns.get(column);
        ColumnProfile to = pair.parent().columns.get(pair.key()[0]);
        boolean isPlain = !evidence.isNamed() && !evidence.isSurprising() && !isAcyclic;
        if (isPlain && from.distinct() <= FEW_VALUES && to.distinct() > 2 * FEW_VALUES) {
            penalty += 0.35;
            reasons.add("only " + from.distinct() + " different values");
        }
        if (from.guess().type().family() == Family.MOMENT || child.isDay[column]) {
            penalty += evidence.isSurprising() ? 0.15 : 0.5;
        }
        if (isPlain && evidence.isWhole && (evidence.fit < 0.5 || evidence.spread < 0.5)) {
            penalty += 0.4;
            reasons.add("numbers of this range match by chance");
        }
        boolean isFromBelow = evidence.isWhole
                && pair.parent().ranges[pair.key()[0]] != null
                && child.ranges[column].least()
                        < pair.parent().ranges[pair.key()[0]].least();
        if (isPlain && isFromBelow && evidence.coverage < NEARLY_ALL) {
            // Counts begin with 0, keys with 1.
            penalty += FROM_BELOW_COSTS;
        }
        penalty += ofMeasures(evidence, reasons);
        boolean isOnlyTheSame = evidence.names.isOnlyTheSame(child, column, pair.parent(), pair.key()[0]);
        if (evidence.isWhole && countsItsRows(child, column) && (!evidence.isNamed() || isOnlyTheSame)) {
            penalty +=
                    areCountedAlike(child, column, pair.parent(), pair.key()[0]) ? COUNTED_ALIKE_COSTS : COUNTED_COSTS;
            reasons.add("both count their own rows");
        }
        if (isUnique(from) && !evidence.isNamed() && !(evidence.isWhole && countsItsRows(child, column))) {
            penalty += evidence.isWhole ? OWN_NUMBERS_COSTS : OWN_VALUES_COSTS;
        }
        return penalty;
    }

    /** Counts and money lie in many a range of ids, and may be named for what they count. */
    private static double ofMeasures(Evidence evidence, List<String> reasons) {
        if (!evidence.isWhole) {
            return 0;
        }
        ColumnProfile from = evidence.pair.child().columns.get(evidence.pair.columns()[0]);
        if (evidence.names.isMeasure(evidence.pair.child(), evidence.pair.columns()[0])) {
            reasons.add("named for a count or a measure");
            return evidence.isNamed() ? NAMED_MEASURE_COSTS : MEASURE_COSTS;
        }
        boolean isCount = !KeyRanking.isNamedLikeKey(from.name());
        if (isCount && evidence.fit < 0.3 && evidence.spread < 0.35 && evidence.isNamed()) {
            reasons.add("small numbers: perhaps a count");
            return 0.45;
        }
        return 0;
    }
}
