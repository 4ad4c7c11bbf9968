package taxiomet.survey.profile;

/**
 * From where to where the whole numbers of a column lie, but for a few that lie far out: one slip makes a range say nothing.
 *
 * @param least without those
 * @param greatest without those
 */
public record WholeRange(long least, long greatest) {
    /** At each end so many rows at most are left out. */
    private static final double OUTLIERS = 0.05;
    /** What lies farther from its neighbour than the others do from each other is left out. */
    private static final double FAR = 0.5;

    private static final int FEWEST = 8;

    /**
     * @param sorted numbers of some rows, ascending
     * @param areAll whether those are all rows
     * @param least of all rows
     * @param greatest of all rows
     */
    static WholeRange of(long[] sorted, boolean areAll, long least, long greatest) {
        if (sorted.length < FEWEST) {
            return new WholeRange(least, greatest);
        }
        int most = Math.max(1, (int) (sorted.length * OUTLIERS));
        int last = sorted.length - 1;
        int from = 0;
        int to = last;
        for (int i = 1; i <= most; i++) {
            from = isFar(sorted[i], sorted[i - 1], sorted[last - most]) ? i : from;
            to = isFar(sorted[last - i], sorted[last - i + 1], sorted[most]) ? last - i : to;
        }
        long low = from > 0 || areAll ? sorted[from] : least;
        long high = to < last || areAll ? sorted[to] : greatest;
        if (!areAll) {
            // What lies far out may not be among the rows at hand.
            low = from == 0 && isFar(sorted[0], least, sorted[last - most]) ? sorted[0] : low;
            high = to == last && isFar(sorted[last], greatest, sorted[most]) ? sorted[last] : high;
        }
        return new WholeRange(low, high);
    }

    /** Whether the step from one number outwards to another is long against the way to the other end. */
    private static boolean isFar(long inner, long outer, long otherEnd) {
        double step = Math.abs((double) outer - inner);
        return step > FAR * Math.abs((double) inner - otherEnd) + 1;
    }

    /** How many numbers there are from one end to the other. */
    public double span() {
        return (double) greatest - least + 1;
    }
}
