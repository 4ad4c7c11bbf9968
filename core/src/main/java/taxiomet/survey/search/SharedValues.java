package taxiomet.survey.search;

import java.util.OptionalDouble;
import taxiomet.survey.profile.RowSample;
import taxiomet.survey.profile.TableProfile;

/**
 * What of a column lies in a key of another table, as far as the samples tell.
 *
 * @param ofValues the share of the different values; empty where the samples hold none that could be compared
 * @param ofRows of some rows, how many have a value that is a key
 */
record SharedValues(OptionalDouble ofValues, RowSample.Coverage ofRows) {
    /** So many values tell a share to within a few in a hundred. */
    static final int SOME = 600;

    private static final int FEW_ROWS = 8;

    /** @param most how many different values are compared */
    static SharedValues of(TableProfile child, int column, TableProfile parent, int key, int most) {
        return new SharedValues(
                child.values.get(column).coverageBy(parent.values.get(key), most),
                child.evenRows().coverageBy(column, parent.values.get(key)));
    }

    /** Whether there is nothing to go by. */
    boolean isUnknown() {
        return ofValues.isEmpty() && ofRows.rows() < FEW_ROWS;
    }

    /** The greater of both shares; few rows do not count. */
    double share() {
        return Math.max(ofValues.orElse(0), ofRows.rows() < FEW_ROWS ? 0 : ofRows.share());
    }
}
