package taxiomet.charters.proposals;

import java.util.List;
import java.util.Optional;

/** Finds the column that a proposal means. */
final class ColumnNames {
    private ColumnNames() {}

    /** The column of a name: to the letter, or, where that is allowed, in any case where only one answers. */
    static Optional<String> find(String name, List<String> known, boolean inAnyCase) {
        if (known.contains(name)) {
            return Optional.of(name);
        }
        List<String> alike =
                known.stream().filter(k -> k.equalsIgnoreCase(name)).toList();
        return inAnyCase && alike.size() == 1 ? Optional.of(alike.get(0)) : Optional.empty();
    }
}
