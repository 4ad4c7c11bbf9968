package taxiomet.charter;

/**
 * Something wrong with a charter.
 *
 * @param file the charter as the user named it
 * @param line from 1; 0 when the problem is not at one place
 * @param column from 1, in characters
 * @param kind whether the form is wrong (a schema can see it) or the meaning
 * @param problem what is wrong
 * @param remedy what to do about it; may be empty
 */
public record Problem(String file, int line, int column, Kind kind, String problem, String remedy) {
    /** What it takes to notice a problem. */
    public enum Kind {
        /** A wrong key, kind of value or spelling: the JSON Schema of the format refuses it too. */
        FORM,
        /** A name that does not resolve, or declarations that do not fit one another. */
        MEANING,
        /** Sound, but not built yet. */
        NOT_YET
    }

    /** The place as editors and compilers write it. */
    public String place() {
        return line == 0 ? file : file + ":" + line + ":" + column;
    }

    @Override
    public String toString() {
        return place() + ": " + problem + (remedy.isEmpty() ? "" : "; " + remedy);
    }
}
