package taxiomet.values;

import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/** Reads dates, times and timestamps. However the texts of a column are written, those that come as values have no form. */
abstract class MomentReader extends ValueReader {
    /** The first moment of the year 1, and the first behind the year 9999. */
    private static final long FIRST = -719_162L * DateTimeReader.MICROS_PER_DAY;

    private static final long BEHIND_LAST = 2_932_897L * DateTimeReader.MICROS_PER_DAY;
    private static final int MOST_DIGITS = 6;

    final Name type;
    /** How many digits of a second the type holds. */
    final int secondDigits;
    /** The least part of a second that the type holds, in microseconds. */
    final long unit;

    MomentReader(ColumnType type) {
        this.type = type.name();
        this.secondDigits = type.scale();
        long micros = 1;
        for (int digits = secondDigits; digits < MOST_DIGITS; digits++) {
            micros *= 10;
        }
        this.unit = micros;
    }

    @Override
    final boolean takes(ValueCells.Kind kind) {
        return switch (kind) {
            case DATE, TIMESTAMP -> type != Name.TIME;
            case TIME -> type == Name.TIME;
            case INSTANT -> type == Name.TIMESTAMP_WITH_TIME_ZONE;
            default -> false;
        };
    }

    @Override
    final byte readValue(ValueCells.Kind kind, long micros, long unused) {
        high = micros;
        low = 0;
        if (kind == ValueCells.Kind.TIME) {
            boolean isOfDay = micros >= 0 && micros < DateTimeReader.MICROS_PER_DAY;
            return isOfDay ? precise(micros) : refuse(Refusal.NO_SUCH_TIME);
        }
        if (micros < FIRST || micros >= BEHIND_LAST) {
            return refuse(Refusal.NO_SUCH_DAY);
        } else if (type == Name.DATE) {
            return kind == ValueCells.Kind.DATE ? TypedColumn.GOOD : refuse(Refusal.HAS_A_TIME);
        }
        return precise(micros);
    }

    private byte precise(long micros) {
        return Math.floorMod(micros, unit) == 0 ? TypedColumn.GOOD : refuse(Refusal.TOO_PRECISE);
    }
}
