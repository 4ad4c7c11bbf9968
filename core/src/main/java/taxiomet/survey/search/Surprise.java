package taxiomet.survey.search;

import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.survey.profile.RowSample;
import taxiomet.survey.profile.TableProfile;
import taxiomet.survey.profile.WholeRange;

/**
 * How improbable it is that values of one column lie in a key of another table by accident, in bits. Whole numbers that fill their range say
 * nothing, since small numbers lie in every such range; keys spread over a wide range, and texts of many possible ones, say the more the more
 * different values there are.
 */
public final class Surprise {
    /** From here on an agreement is none by accident. */
    static final double SURE = 20;

    private static final double MOST = 60;
    private static final double BITS_OF_LETTER = 4.5;
    private static final double BITS_OF_WORD = 14;
    private static final double LEAST_OF_TEXT = 0.1;
    private static final double FIRST_YEAR = 1900;
    private static final double LAST_YEAR = 2100;

    private Surprise() {}

    /**
     * Bits for as many of the child's different values as lie in the key; one value alone says nothing.
     *
     * @param coverage the share of the child's different values that do, 0 to 1
     */
    static double bits(TableProfile child, int column, TableProfile parent, int key, double coverage) {
        ColumnType from = child.columns.get(column).guess().type();
        ColumnType to = parent.columns.get(key).guess().type();
        double values = child.columns.get(column).distinct();
        if (values * coverage < 2) {
            return 0;
        }
        double bits = 0;
        if (from.isInteger() && to.isInteger()) {
            bits = ofHits(values, coverage, ofNumber(parent, key)) + ofPlace(child, column, parent, key);
        } else if (from.family() == Family.TEXT) {
            bits = ofHits(values, coverage, ofText(parent, key));
        } else if (from.family() == Family.UUID) {
            bits = ofHits(values, coverage, BITS_OF_WORD);
        } else if (from.family() == Family.MOMENT && child.ranges[column] != null && parent.ranges[key] != null) {
            bits = ofHits(values, coverage, ofNumber(parent, key));
        }
        return Math.min(MOST, bits);
    }

    /**
     * Bits for a share of values that are keys, where a value is one by accident with a chance: none where it is the share that accident
     * gives.
     *
     * @param bitsOfOne the chance, in bits
     */
    private static double ofHits(double values, double coverage, double bitsOfOne) {
        double chance = Math.pow(2, -bitsOfOne);
        if (coverage <= chance) {
            return 0;
        }
        double misses = coverage >= 1 ? 0 : (1 - coverage) * log2Of((1 - coverage) / (1 - chance));
        return values * (coverage * log2(coverage / chance) + misses);
    }

    /** The same, whatever the column's own type: for as many values as the key has of them. */
    static double ofAgreement(TableProfile child, int column, TableProfile parent, int key, double coverage) {
        double values = child.columns.get(column).distinct();
        ColumnType to = parent.columns.get(key).guess().type();
        double each = to.isInteger() ? ofNumber(parent, key) : to.isText() ? ofText(parent, key) : BITS_OF_WORD;
        return values * coverage < 2 ? 0 : Math.min(MOST, ofHits(values, coverage, each));
    }

    /** Bits for one number that is a key: of how many numbers in the range of the keys one is a key. */
    static double ofNumber(TableProfile parent, int key) {
        if (parent.isDay[key]) {
            return 0;
        }
        double span = parent.ranges[key].span();
        double keys = parent.columns.get(key).distinct();
        return keys <= 0 || span <= keys * 1.1 ? 0 : log2(span / keys);
    }

    /** Bits for numbers that lie where the keys do, far from 0; years are no such numbers. */
    private static double ofPlace(TableProfile child, int column, TableProfile parent, int key) {
        double least = parent.ranges[key].least();
        double greatest = parent.ranges[key].greatest();
        WholeRange own = child.ranges[column];
        boolean areYears = least >= FIRST_YEAR && greatest <= LAST_YEAR;
        boolean isWithin = own.least() >= least && own.greatest() <= greatest;
        if (areYears || !isWithin || least <= 1 || parent.isDay[key]) {
            return 0;
        }
        return 2 * log2((greatest + 1) / (greatest - least + 1));
    }

    /**
     * Bits for whole numbers that crowd where the keys are, beside strangers that lie anywhere: 0 where they lie as densely elsewhere.
     *
     * @param ofRows how many rows of the child were looked at, and how many of them have a key
     */
    static double ofCrowd(TableProfile child, int column, TableProfile parent, int key, RowSample.Coverage ofRows) {
        double coverage = ofRows.share();
        double span = (double) child.greatestWhole[column] - child.leastWhole[column] + 1;
        double low = Math.max(child.leastWhole[column], parent.ranges[key].least());
        double high = Math.min(child.greatestWhole[column], parent.ranges[key].greatest());
        double expected = Math.max(0, Math.min(1, (high - low + 1) / span));
        if (expected <= 0 || coverage <= expected) {
            return 0;
        }
        return Math.min(MOST, ofHits(ofRows.rows(), coverage, -log2Of(expected)));
    }

    private static double log2Of(double x) {
        return Math.log(x) / Math.log(2);
    }

    private static double ofText(TableProfile parent, int key) {
        double possible = Math.min(BITS_OF_WORD, BITS_OF_LETTER * parent.averageLengths[key]);
        return Math.max(LEAST_OF_TEXT, possible - log2(parent.columns.get(key).distinct() + 1.0));
    }

    private static double log2(double x) {
        return log2Of(Math.max(1, x));
    }
}
