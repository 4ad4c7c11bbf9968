package taxiomet.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Why an orphan may be one.
 *
 * @param kind what was noticed; of several parents what was noticed about the first
 * @param parents the keys of the parents that may have been meant, the likeliest first; three at most
 * @param faultyParent a row that bears the key and is no parent
 */
public record Hint(Kind kind, List<List<String>> parents, Optional<FaultyParent> faultyParent) {
    public Hint {
        parents = parents.stream().map(List::copyOf).toList();
    }

    /** A hint without a faulty parent. */
    public Hint(Kind kind, List<List<String>> parents) {
        this(kind, parents, Optional.empty());
    }

    /**
     * A row of the parent table that bears a key and is no parent, since it has a fault of its own.
     *
     * @param part the file that it stands in
     * @param row its number there
     * @param isInParts whether the table has several files
     */
    public record FaultyParent(String table, String part, long row, boolean isInParts, Fault fault) {
        /** What is the matter with it. */
        public enum Fault {
            MALFORMED(FindingKind.MALFORMED_ROW, ", which is malformed, begins with this key"),
            ILL_TYPED(FindingKind.TYPE_MISMATCH, " has this key, which is not of its type"),
            NULL_IN_KEY(FindingKind.NULL_IN_KEY, " has the rest of this key, and null in it");

            private final FindingKind kind;
            private final String words;

            Fault(FindingKind kind, String words) {
                this.kind = kind;
                this.words = words;
            }

            /** The kind of finding that names the row. */
            public FindingKind kind() {
                return kind;
            }
        }

        private String words() {
            return "row " + row + " of " + (isInParts ? part : table) + fault.words;
        }
    }

    /** What can be noticed about a value without a parent; the surest first. */
    public enum Kind {
        /** A row bears the key, and is no parent: sure, and not likely. */
        FAULTY_PARENT(""),
        TRIMMED("but for blanks at an end"),
        OTHER_CASE("in another case"),
        LEADING_ZEROS("but for leading zeros"),
        UNICODE_FORM("in another Unicode form"),
        OTHER_TYPE("written otherwise"),
        SEPARATORS("but for marks between or around"),
        LOOK_ALIKE("but for characters that look alike"),
        SWAPPED("with two parts the other way round"),
        STANDS_FOR_NOTHING("probably stands for nothing"),
        ONE_EDIT("one keystroke away"),
        NOT_OF_ITS_TYPE("not of its column's type");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** A hint that names no parent. */
    public static Hint of(Kind kind) {
        return new Hint(kind, List.of());
    }

    /** A hint at a row that bears the key and is no parent. */
    public static Hint of(FaultyParent parent) {
        return new Hint(Kind.FAULTY_PARENT, List.of(), Optional.of(parent));
    }

    /** The hint as a clause. */
    public String words() {
        if (faultyParent.isPresent()) {
            return faultyParent.get().words();
        }
        return parents.isEmpty()
                ? kind.words()
                : "perhaps " + parents.stream().map(Hint::written).collect(Collectors.joining(" or ")) + ", "
                        + kind.words();
    }

    private static String written(List<String> key) {
        return key.size() == 1 ? key.get(0) : "(" + String.join(", ", key) + ")";
    }
}
