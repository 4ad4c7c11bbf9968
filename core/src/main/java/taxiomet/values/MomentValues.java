package taxiomet.values;

import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/** Dates, times and timestamps that come as values, under the type of a column. However the column's texts are written, values have no form. */
final class MomentValues {
    /** The first moment of the year 1, and the first behind the year 9999. */
    private static final long FIRST = -719_162L * DateTimeReader.MICROS_PER_DAY;

    private static final long BEHIND_LAST = 2_932_897L * DateTimeReader.MICROS_PER_DAY;
    private static final int MOST_DIGITS = 6;

    private final Name type;
    /** The least part of a second that the type holds, in microseconds. */
    private final long unit;

    MomentValues(ColumnType type) {
        this.type = type.name();
        long micros = 1;
        for (int digits = type.scale(); digits < MOST_DIGITS; digits++) {
            micros *= 10;
        }
        this.unit = micros;
    }

    /** Whether values of a kind can be of the type; what cannot is read from its text. */
    boolean take(ValueCells.Kind kind) {
        return switch (kind) {
            case DATE -> type != Name.TIME;
            case TIME -> type == Name.TIME;
            case TIMESTAMP -> type != Name.TIME;
            case INSTANT -> type == Name.TIMESTAMP_WITH_TIME_ZONE;
            default -> false;
        };
    }

    /** Reads a value; as {@link ValueReader#readValue}. */
    byte read(ValueCells.Kind kind, long micros, ValueReader into) {
        into.high = micros;
        into.low = 0;
        if (kind == ValueCells.Kind.TIME) {
            boolean isOfDay = micros >= 0 && micros < DateTimeReader.MICROS_PER_DAY;
            return isOfDay ? precise(micros, into) : into.refuse(Refusal.NO_SUCH_TIME);
        }
        if (micros < FIRST || micros >= BEHIND_LAST) {
            return into.refuse(Refusal.NO_SUCH_DAY);
        } else if (type == Name.DATE) {
            return kind == ValueCells.Kind.DATE ? TypedColumn.GOOD : into.refuse(Refusal.HAS_A_TIME);
        }
        return precise(micros, into);
    }

    private byte precise(long micros, ValueReader into) {
        return Math.floorMod(micros, unit) == 0 ? TypedColumn.GOOD : into.refuse(Refusal.TOO_PRECISE);
    }
}
