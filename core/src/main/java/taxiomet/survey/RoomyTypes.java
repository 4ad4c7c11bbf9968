package taxiomet.survey;

import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;
import taxiomet.survey.profile.ColumnProfile;

/** Types with room for what comes after the rows at hand, in the steps that a person would choose. */
final class RoomyTypes {
    private static final int[] LENGTHS = {
        1, 2, 3, 4, 5, 6, 8, 10, 15, 20, 30, 40, 50, 60, 80, 100, 120, 160, 200, 250, 300, 400, 500, 1000, 2000, 4000,
        8000
    };
    private static final int[] PRECISIONS = {4, 6, 8, 10, 12, 15, 18, 24, 30, 38};
    private static final double ROOM = 1.25;
    private static final int WHOLE_DIGITS = 2;
    /** Whole numbers may become so many times as great. */
    private static final long TIMES = 10;

    private static final int LONGEST_CODE = 12;

    private RoomyTypes() {}

    /** @param column whose values are all of the type */
    static ColumnType of(ColumnType type, ColumnProfile column) {
        return switch (type.name()) {
            case VARCHAR -> ofText(type, column);
            case NUMERIC -> ofNumber(type);
            default -> type;
        };
    }

    /** The type of whole numbers between two. */
    static ColumnType ofWhole(ColumnType type, long least, long greatest) {
        long most = Math.max(Math.abs(Math.max(least, -Long.MAX_VALUE)), Math.abs(greatest));
        if (type.name() == Name.SMALLINT && most > Short.MAX_VALUE / TIMES) {
            return ColumnType.of(Name.INTEGER);
        }
        return type.name() == Name.INTEGER && most > Integer.MAX_VALUE / TIMES ? ColumnType.of(Name.BIGINT) : type;
    }

    /** Codes have the length that they have; other texts may become longer. */
    private static ColumnType ofText(ColumnType type, ColumnProfile column) {
        boolean isCode = column.shortest() == column.longest() && column.longest() <= LONGEST_CODE;
        if (isCode || type.length() == ColumnType.UNBOUNDED) {
            return type;
        }
        double wanted = type.length() * ROOM;
        for (int length : LENGTHS) {
            if (length >= wanted) {
                return ColumnType.parse("varchar(" + length + ")").orElse(type);
            }
        }
        return ColumnType.of(Name.TEXT);
    }

    private static ColumnType ofNumber(ColumnType type) {
        int wanted = type.precision() + WHOLE_DIGITS;
        for (int precision : PRECISIONS) {
            if (precision >= wanted) {
                return ColumnType.parse("numeric(" + precision + "," + type.scale() + ")")
                        .orElse(type);
            }
        }
        return type;
    }
}
