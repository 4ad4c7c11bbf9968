package taxiomet.check.alike;

import taxiomet.charter.Alike;

/**
 * How two rows are alike under a rule: the {@link Manner} of each column, four bits each, the first column in the lowest; one long that
 * can be kept with a pair.
 */
final class Resemblance {
    private static final int BITS = 4;
    private static final int MASK = (1 << BITS) - 1;
    /** One column that agrees counts for more than the manners of all. */
    private static final int FOR_AGREEING = 100;

    private final Alike rule;
    private final boolean[] neverDiffers;

    Resemblance(Alike rule) {
        this.rule = rule;
        this.neverDiffers = rule.neverDiffers();
    }

    /** The manners in which two rows agree and differ; each has a value, or null, for each column. */
    long of(LooseValue[] one, LooseValue[] other) {
        long manners = 0;
        for (int i = 0; i < one.length; i++) {
            Manner manner = one[i] == null || other[i] == null ? Manner.MISSING : one[i].compare(other[i]);
            manners |= (long) manner.code() << BITS * i;
        }
        return manners;
    }

    /** Whether the rule takes them for one thing. */
    boolean isAlike(long manners) {
        int agreeing = 0;
        for (int i = 0; i < neverDiffers.length; i++) {
            Manner manner = manner(manners, i);
            if (manner == Manner.DIFFERENT && neverDiffers[i]) {
                return false;
            }
            agreeing += manner.agrees() ? 1 : 0;
        }
        return agreeing >= rule.agree();
    }

    static Manner manner(long manners, int column) {
        return Manner.of(manners >>> BITS * column & MASK);
    }

    /** How much speaks for one thing: the more columns agree, and the closer they do, the more. */
    int weight(long manners) {
        int weight = 0;
        for (int i = 0; i < neverDiffers.length; i++) {
            Manner manner = manner(manners, i);
            weight += (manner.agrees() ? FOR_AGREEING : 0) - manner.code();
        }
        return weight;
    }
}
