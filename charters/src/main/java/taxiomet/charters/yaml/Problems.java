package taxiomet.charters.yaml;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import taxiomet.charter.CharterException;
import taxiomet.charter.NearestWord;
import taxiomet.charter.Problem;
import taxiomet.charter.Problem.Kind;

/** Collects what is wrong with a charter. */
public final class Problems {
    private static final int MOST_CHOICES = 24;

    private final String file;
    private final List<Problem> all = new ArrayList<>();

    private final boolean isLenient;

    public Problems(String file) {
        this(file, false);
    }

    private Problems(String file, boolean isLenient) {
        this.file = file;
        this.isLenient = isLenient;
    }

    /** For files that were not written for this program: rules that cannot be evaluated are kept as not read. */
    static Problems lenient(String file) {
        return new Problems(file, true);
    }

    boolean isLenient() {
        return isLenient;
    }

    /** The place of something, as messages name it. */
    String place(Node at) {
        return new Problem(file, at.line(), at.column(), Kind.MEANING, "", "").place();
    }

    public void form(Node at, String problem, String remedy) {
        add(at, Kind.FORM, problem, remedy);
    }

    void meaning(Node at, String problem, String remedy) {
        add(at, Kind.MEANING, problem, remedy);
    }

    void notYet(Node at, String problem) {
        add(at, Kind.NOT_YET, problem, "leave it out for now");
    }

    /** A word that is none of those known. */
    void unknown(Node at, Kind kind, String what, String word, Collection<String> known) {
        String near = NearestWord.of(word, known)
                .map(nearest -> "did you mean `" + nearest + "`?")
                .orElseGet(() -> known.isEmpty() ? "there is none" : choices(known));
        add(at, kind, what + " `" + shortened(word) + "`", near);
    }

    /** What can stand at a place, as a remedy. */
    static String choices(Collection<String> known) {
        String list = known.stream().limit(MOST_CHOICES).map(w -> "`" + w + "`").collect(Collectors.joining(", "));
        return "known here: " + list + (known.size() > MOST_CHOICES ? " and others" : "");
    }

    static String shortened(String word) {
        return word.length() > 60 ? word.substring(0, 59) + "…" : word;
    }

    private void add(Node at, Kind kind, String problem, String remedy) {
        all.add(new Problem(file, at.line(), at.column(), kind, problem, remedy));
    }

    public boolean isEmpty() {
        return all.isEmpty();
    }

    /** The problems as one exception, in the order of their places. */
    public CharterException asException() {
        List<Problem> sorted = new ArrayList<>(all);
        sorted.sort(Comparator.comparingInt(Problem::line).thenComparingInt(Problem::column));
        return new CharterException(sorted);
    }
}
