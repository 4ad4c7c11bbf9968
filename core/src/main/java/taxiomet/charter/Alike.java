package taxiomet.charter;

import java.util.List;

/**
 * When two rows of a table are probably one thing that was entered twice: so many of some columns agree, compared loosely.
 *
 * @param columns names of columns of the table, at least one, at most {@link #MOST_COLUMNS}
 * @param agree how many of them must agree, from 1 to all
 * @param neverDiffer those of them in which two values that do not agree tell the rows apart, whatever else agrees
 * @param severity {@link Severity#WARNING} or {@link Severity#NOTE}: likeness is no proof
 */
public record Alike(String name, List<String> columns, int agree, List<String> neverDiffer, Severity severity) {
    /** More columns make no rule better, and every two of them are a way in which rows are brought together. */
    public static final int MOST_COLUMNS = 8;

    public Alike {
        columns = List.copyOf(columns);
        neverDiffer = List.copyOf(neverDiffer);
    }

    /** For each of the columns, whether it is one that never differs. */
    public boolean[] neverDiffers() {
        boolean[] never = new boolean[columns.size()];
        for (int i = 0; i < never.length; i++) {
            never[i] = neverDiffer.contains(columns.get(i));
        }
        return never;
    }

    /** What is asked of two rows, as a clause. */
    public String clause() {
        String agreeing = agree == columns.size()
                ? named(columns) + (agree == 1 ? " agrees" : " agree")
                : agree + " of " + named(columns) + (agree == 1 ? " agrees" : " agree");
        return neverDiffer.isEmpty()
                ? agreeing
                : agreeing + ", and " + named(neverDiffer) + (neverDiffer.size() == 1 ? " does" : " do")
                        + " not differ";
    }

    /** Some columns as a sentence names them. */
    public static String named(List<String> columns) {
        int last = columns.size() - 1;
        return last == 0 ? columns.get(0) : String.join(", ", columns.subList(0, last)) + " and " + columns.get(last);
    }

    /** A rule that warns. */
    public static Alike of(String name, List<String> columns, int agree, String... neverDiffer) {
        return new Alike(name, columns, agree, List.of(neverDiffer), Severity.WARNING);
    }
}
