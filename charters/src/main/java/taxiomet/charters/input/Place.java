package taxiomet.charters.input;

import taxiomet.charter.Problem;

/**
 * Where something stands in the file that declares it.
 *
 * @param file as the user named it
 * @param line from 1; 0 where there are no lines
 * @param column from 1, in characters
 */
public record Place(String file, int line, int column) {
    /** Something wrong with the meaning of what stands here. */
    public Problem problem(String problem, String remedy) {
        return new Problem(file, line, column, Problem.Kind.MEANING, problem, remedy);
    }

    /** The place as editors and compilers write it. */
    @Override
    public String toString() {
        return line == 0 ? file : file + ":" + line + ":" + column;
    }
}
