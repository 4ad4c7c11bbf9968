package taxiomet.survey;

import java.util.List;
import taxiomet.charter.ColumnType.Family;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;

/** How likely a person would declare a link that holds, or nearly holds. */
final class LinkRanking {
    /** From here on a name says what a column points at. */
    static final double NAMED = 0.7;

    private static final long FEW_VALUES = 3;
    private static final double HALF_NAMED_COSTS = 0.25;

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
        double span = (double) parent.greatestWhole[key] - parent.leastWhole[key];
        if (span <= 0) {
            return 0;
        }
        double low = Math.max(child.leastWhole[column], parent.leastWhole[key]);
        double high = Math.min(child.greatestWhole[column], parent.greatestWhole[key]);
        return Math.max(0, Math.min(1, 0.7 * (high - low) / span + 0.3 * Math.min(1, spread)));
    }

    static boolean isNamed(LinkFinder.Pair pair, NameLikeness names) {
        double sum = 0;
        for (int i = 0; i < pair.columns().length; i++) {
            sum += names.likeness(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]);
        }
        return sum / pair.columns().length >= NAMED;
    }

    /** Whether whole numbers, which lie in ranges by accident, are all that there is: not even a name like that of a key. */
    static boolean isOfPlainNumbers(LinkFinder.Pair pair) {
        for (int column : pair.columns()) {
            ColumnProfile profile = pair.child().columns.get(column);
            if (!profile.guess().type().isInteger() || KeyRanking.isNamedLikeKey(profile.name())) {
                return false;
            }
        }
        return true;
    }

    /** How many of the parents would have a child if children chose at random. */
    private static double expectedSpread(double rows, double parents) {
        return parents == 0 ? 0 : 1 - Math.exp(-rows / parents);
    }

    /** The score of a link whose counts are known, with reasons. */
    static double score(
            LinkFinder.Pair pair,
            LinkResult counts,
            NameLikeness names,
            boolean isParentPrimary,
            List<String> reasons) {
        int width = pair.columns().length;
        double name = 0;
        double fit = 0;
        boolean isWhole = true;
        double leastNamed = 1;
        double mostNamed = 0;
        for (int i = 0; i < width; i++) {
            double here = names.likeness(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]);
            leastNamed = Math.min(leastNamed, here);
            mostNamed = Math.max(mostNamed, here);
            name += here / width;
            fit += rangeFit(pair.child(), pair.columns()[i], pair.parent(), pair.key()[i]) / width;
            isWhole &=
                    pair.child().columns.get(pair.columns()[i]).guess().type().isInteger();
        }
        double coverage = counts.judged() == 0 ? 0 : 1 - (double) counts.orphans() / counts.judged();
        ChildrenTally tally = counts.children().orElseThrow();
        double parents = (double) tally.parents();
        double withChild = parents == 0 ? 0 : (parents - (double) tally.childless()) / parents;
        double expected = expectedSpread((double) counts.judged(), parents);
        double spread = expected == 0 ? 0 : Math.min(1, withChild / expected);
        double early = 1 - (double) pair.columns()[0] / pair.child().width();
        double score = 0.08 * early
                + 0.45 * name
                + 0.2 * fit
                + 0.25 * spread
                + (isWhole ? 0 : 0.25)
                + (isParentPrimary ? 0.1 : -0.1);
        if (name >= 0.7) {
            reasons.add("names match");
        }
        if (spread > 0.9) {
            reasons.add("nearly all parents are used that could be");
        }
        if (!isWhole && width == 1) {
            reasons.add("unlikely to match by chance");
        }
        if (mostNamed >= 0.9 && leastNamed == 0 && isWhole) {
            score -= HALF_NAMED_COSTS;
            reasons.add("names match in part");
        }
        score -= penalties(pair, name, coverage, fit, spread, isWhole, reasons);
        return Math.max(0, Math.min(1, score));
    }

    private static boolean isUnique(ColumnProfile column) {
        return column.distinct() >= column.values() * 0.98 && column.values() > 1;
    }

    /** Whether a column holds whole numbers without gaps, each about once, as one does that counts the rows of its own table. */
    static boolean countsItsRows(TableProfile table, int column) {
        ColumnProfile profile = table.columns.get(column);
        return profile.guess().type().isInteger()
                && isUnique(profile)
                && table.greatestWhole[column] - table.leastWhole[column] + 1 <= profile.distinct() * 1.05 + 2;
    }

    private static double penalties(
            LinkFinder.Pair pair,
            double name,
            double coverage,
            double fit,
            double spread,
            boolean isWhole,
            List<String> reasons) {
        double penalty = (1 - coverage) * 2;
        TableProfile child = pair.child();
        ColumnProfile from = child.columns.get(pair.columns()[0]);
        ColumnProfile to = pair.parent().columns.get(pair.key()[0]);
        boolean isSingle = pair.columns().length == 1;
        if (isSingle && from.distinct() <= FEW_VALUES && to.distinct() > 2 * FEW_VALUES && name < 0.7) {
            penalty += 0.35;
            reasons.add("only " + from.distinct() + " different values");
        }
        if (isSingle && from.guess().type().family() == Family.MOMENT) {
            penalty += 0.5;
        }
        if (isSingle && isWhole && (fit < 0.5 || spread < 0.5) && name < 0.7) {
            penalty += 0.4;
            reasons.add("numbers of this range match by chance");
        }
        boolean isCount = !KeyRanking.isNamedLikeKey(from.name());
        if (isSingle && isWhole && isCount && fit < 0.3 && spread < 0.5 && name >= 0.7) {
            penalty += 0.45;
            reasons.add("small numbers: perhaps a count");
        }
        boolean childIsKey = isUnique(from);
        if (isSingle && isWhole && countsItsRows(child, pair.columns()[0]) && name < 0.95) {
            penalty += 0.55;
            reasons.add("both count their own rows");
        }
        if (isSingle && child == pair.parent() && name == 0 && isWhole && childIsKey) {
            penalty += 0.3;
        }
        return penalty;
    }
}
