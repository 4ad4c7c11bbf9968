package taxiomet.check.alike;

/** How many slips of the pen lie between two texts: a letter too many, too few, another, or two of them turned round. */
final class Slips {
    private static final int LEAST_DIGITS = 6;

    private Slips() {}

    /**
     * How many slips there are.
     *
     * @param most of no more there is need to know
     * @return more than {@code most} when there are more
     */
    static int between(String one, String other, int most) {
        if (Math.abs(one.length() - other.length()) > most) {
            return most + 1;
        }
        int width = other.length() + 1;
        int[] before = new int[width];
        int[] last = new int[width];
        int[] here = new int[width];
        for (int j = 0; j < width; j++) {
            last[j] = j;
        }
        for (int i = 1; i <= one.length(); i++) {
            here[0] = i;
            int least = i;
            for (int j = 1; j < width; j++) {
                boolean isSame = one.charAt(i - 1) == other.charAt(j - 1);
                int cost = Math.min(Math.min(last[j], here[j - 1]) + 1, last[j - 1] + (isSame ? 0 : 1));
                if (i > 1
                        && j > 1
                        && one.charAt(i - 1) == other.charAt(j - 2)
                        && one.charAt(i - 2) == other.charAt(j - 1)) {
                    cost = Math.min(cost, before[j - 2] + 1);
                }
                here[j] = cost;
                least = Math.min(least, cost);
            }
            if (least > most) {
                return most + 1;
            }
            int[] free = before;
            before = last;
            last = here;
            here = free;
        }
        return last[width - 1];
    }

    /** Whether a slip may be among the digits: of short numbers every one has neighbours, and they mean something else. */
    static boolean areDigitsAlike(String one, String other) {
        String digits = digits(one);
        String others = digits(other);
        return digits.equals(others)
                || (Math.min(digits.length(), others.length()) >= LEAST_DIGITS && between(digits, others, 1) == 1);
    }

    private static String digits(String text) {
        StringBuilder digits = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            if (Character.isDigit(text.charAt(i))) {
                digits.append(text.charAt(i));
            }
        }
        return digits.toString();
    }
}
