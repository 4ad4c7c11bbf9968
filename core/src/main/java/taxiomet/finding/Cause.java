package taxiomet.finding;

import java.util.List;
import java.util.Objects;
import java.util.Optional;

/**
 * One thing to be mended, and all rows at fault that this would cure.
 *
 * @param what is to be done
 * @param finding the kind of finding that tells most about it
 * @param table the table whose rows are to be mended or entered
 * @param at the column, key, link or rule; the table itself for a row as a whole
 * @param columns of the key or of the link; for a finding its own
 * @param values in these columns, of the row to be entered or mended; empty where several are meant
 * @param meant what should stand there instead, as far as that can be told; otherwise empty
 * @param hint what was noticed about values without a parent
 * @param parent the table that the link points at; empty where there is no link
 * @param count how many different values are meant, or how many rows share a key
 * @param place the row that is at fault, or one of them
 * @param differsIn the columns in which rows that share a key are not the same
 * @param cures the rows that it cures, by finding; the most first
 */
public record Cause(
        What what,
        FindingKind finding,
        String table,
        String at,
        List<String> columns,
        List<String> values,
        List<String> meant,
        Optional<Hint.Kind> hint,
        String parent,
        long count,
        Optional<Place> place,
        List<String> differsIn,
        List<Cure> cures) {
    public Cause {
        columns = List.copyOf(columns);
        values = values.stream().anyMatch(Objects::isNull) ? List.of() : List.copyOf(values);
        meant = List.copyOf(meant);
        differsIn = List.copyOf(differsIn);
        cures = List.copyOf(cures);
    }

    /** What would cure rows. */
    public enum What {
        /** A row that others point at is missing. */
        ENTER_PARENT("enter"),
        /** Values of a link are written otherwise than the keys that they mean. */
        RESPELL("respell"),
        /** A value of a link stands for nothing. */
        EMPTY("empty"),
        /** One row has a fault of its own, on which others may hang. */
        MEND_ROW("mend row"),
        /** Rows share a key. */
        KEEP_ONE("keep one"),
        /** All rows of a finding are mended each by itself. */
        MEND_EACH("mend each");

        private final String word;

        What(String word) {
            this.word = word;
        }

        /** The word that results use. */
        public String word() {
            return word;
        }
    }

    /** A row by its number in its file, which is one of several where its table is in parts. */
    public record Place(String part, long row, boolean isInParts) {}

    /** Rows of a finding that would be at fault no more. */
    public record Cure(FindingKind kind, String table, String at, long rows) {}

    /** How many rows it cures, of all findings. */
    public long rows() {
        return cures.stream().mapToLong(Cure::rows).sum();
    }
}
