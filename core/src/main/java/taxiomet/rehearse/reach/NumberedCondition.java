package taxiomet.rehearse.reach;

import java.util.Map;
import java.util.Optional;

/**
 * Names rows by where they stand, as evidence does: so one copy of a row can be told from the other.
 *
 * @param lines for each {@link taxiomet.rows.RowRef} the number of its line
 */
public record NumberedCondition(ReachedTable table, Map<Long, Integer> lines) implements LineCondition {
    @Override
    public int[] columns() {
        return new int[0];
    }

    @Override
    public Optional<NamedKeys> namedKeys() {
        return Optional.empty();
    }

    @Override
    public int lineOf(long ref, Object[] values) {
        return lines.getOrDefault(ref, -1);
    }
}
