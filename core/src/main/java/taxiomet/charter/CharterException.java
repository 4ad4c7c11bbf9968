package taxiomet.charter;

import java.util.List;
import java.util.stream.Collectors;

/** A charter that cannot be used, with all that is wrong with it. */
public final class CharterException extends Exception {
    private static final long serialVersionUID = 1;

    private final transient List<Problem> problems;

    /** @param problems at least one, in the order of their places */
    public CharterException(List<Problem> problems) {
        super(problems.stream().map(Problem::toString).collect(Collectors.joining("\n")));
        this.problems = List.copyOf(problems);
    }

    /** What is wrong, at least one. */
    public List<Problem> problems() {
        return problems;
    }
}
