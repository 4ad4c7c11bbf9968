package taxiomet.check.alike;

/** In what way the values of one column of two rows agree, the closest first, or why they do not. */
enum Manner {
    EQUAL("equal", 1, true),
    SPELLED("spelled otherwise", 2, true),
    REORDERED("words in another order", 3, true),
    TURNED("day and month changed round", 4, true),
    SLIP("a slip apart", 5, true),
    /** At least one has no value: nothing speaks for it and nothing against. */
    MISSING("not in both", 6, false),
    DIFFERENT("different", 7, false);

    private final String words;
    private final int code;
    private final boolean agrees;

    Manner(String words, int code, boolean agrees) {
        this.words = words;
        this.code = code;
        this.agrees = agrees;
    }

    /** The manner of a {@link #code}. */
    static Manner of(long code) {
        return values()[(int) code - 1];
    }

    /** How it is told. */
    String words() {
        return words;
    }

    /** A number of less than sixteen for it; the less, the more it speaks for one thing. */
    int code() {
        return code;
    }

    /** Whether the values count as agreeing. */
    boolean agrees() {
        return agrees;
    }
}
