package taxiomet.rehearse.reach;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.math.RoundingMode;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.UUID;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Family;
import taxiomet.charter.ColumnType.Name;
import taxiomet.charter.Comparison;
import taxiomet.keys.KeyForm;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;
import taxiomet.values.ValueReader;
import taxiomet.values.ValueWriter;

/**
 * The cells of one column as objects: null; a Long of a whole number or of microseconds; a BigDecimal of a numeric, with the digits
 * that its type keeps; a Double, a Boolean, a String of a text or uuid; {@link Unread} where a cell is not of the type.
 */
public final class CellCodec {
    private static final long MICROS_PER_DAY = 86_400_000_000L;
    private static final int MOST_DIGITS = 20_000;
    private static final int LONG_DIGITS = 19;

    private final Column column;
    private final ColumnType type;
    private final ValueReader reader;
    private final ValueReader sqlReader;
    private final ValueWriter writer;
    private final ValueWriter sqlWriter;

    /** For the cells of one column. */
    public CellCodec(Column column) {
        this.column = column;
        this.type = column.type();
        this.reader = ValueReader.of(column);
        Column asInSql = Column.of(column.name(), column.type());
        this.sqlReader = ValueReader.of(asInSql);
        this.writer = new ValueWriter(column);
        this.sqlWriter = new ValueWriter(asInSql);
    }

    Column column() {
        return column;
    }

    /** A cell of a batch. */
    Object read(TypedColumn cells, int row) {
        byte state = cells.state(row);
        if (state == TypedColumn.NULL) {
            return null;
        } else if (state == TypedColumn.BAD) {
            return new Unread(cells.cells().text(row));
        }
        return type.isText() ? cells.text(row) : value(cells.high(row), cells.low(row), cells.cells(), row);
    }

    private Object value(long high, long low, CellColumn cells, int row) {
        if (type.name() == Name.NUMERIC) {
            return numeric(high, low, cells.bytes(), cells.start(row), cells.length(row));
        }
        return plain(high, low);
    }

    private Object plain(long high, long low) {
        return switch (type.family()) {
            case APPROXIMATE_NUMBER -> Double.longBitsToDouble(high);
            case BOOLEAN -> high == 1;
            case UUID -> new UUID(high, low).toString();
            default -> high;
        };
    }

    /** With as many digits after the point as the type has; as many as were written where it has no scale (P5). */
    private BigDecimal numeric(long high, long low, byte[] bytes, int start, int length) {
        if (type.precision() != ColumnType.UNBOUNDED && low != TypedColumn.WIDE) {
            return new BigDecimal(BigInteger.valueOf(high), (int) low).setScale(type.scale(), RoundingMode.UNNECESSARY);
        }
        String text = new String(bytes, start, length, StandardCharsets.US_ASCII)
                .strip()
                .replace(',', '.');
        BigDecimal written = new BigDecimal(text);
        if (type.precision() != ColumnType.UNBOUNDED) {
            return written.setScale(type.scale(), RoundingMode.UNNECESSARY);
        }
        return written.scale() < 0 && written.scale() > -MOST_DIGITS ? written.setScale(0) : written;
    }

    /** A text as the column's cells are written, or as SQL writes such values; {@link Unread} when it is neither. */
    public Object parse(String text) {
        Object own = parse(text, reader);
        return own instanceof Unread ? parse(text, sqlReader) : own;
    }

    private Object parse(String text, ValueReader by) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        if (!by.accepts(utf8, 0, utf8.length)) {
            return new Unread(text);
        }
        if (type.isText()) {
            return type.name() == Name.CHAR ? withoutBlanks(text) : text;
        }
        return type.name() == Name.NUMERIC
                ? numeric(by.high(), by.low(), utf8, 0, utf8.length)
                : plain(by.high(), by.low());
    }

    private static String withoutBlanks(String text) {
        int end = text.length();
        while (end > 0 && text.charAt(end - 1) == ' ') {
            end--;
        }
        return text.substring(0, end);
    }

    /**
     * What an expression gave, turned into the column's type (R3).
     *
     * @param value as {@link taxiomet.charter.Expression.Literal} has them
     */
    public Object assign(Object value) {
        if (value == null || value instanceof Unread) {
            return value;
        }
        return parse(asText(value), sqlReader);
    }

    /**
     * The same where a column's length, digits and range are no limits (L2): a value of the type's family is taken whole.
     */
    public Object assignFreely(Object value) {
        Object assigned = assign(value);
        if (!(assigned instanceof Unread)) {
            return assigned;
        }
        if (type.isText() && value instanceof String text) {
            return type.name() == Name.CHAR ? withoutBlanks(text) : text;
        } else if (type.family() == Family.EXACT_NUMBER && value instanceof BigDecimal number) {
            boolean isLong = number.stripTrailingZeros().scale() <= 0
                    && number.toBigInteger().bitLength() < Long.SIZE;
            return !type.isInteger() ? number : isLong ? (Object) number.longValue() : assigned;
        }
        return assigned;
    }

    private String asText(Object value) {
        if (value instanceof BigDecimal number) {
            boolean isWhole = number.signum() == 0
                    || number.scale() <= 0
                    || number.stripTrailingZeros().scale() <= 0;
            return type.isInteger() && isWhole ? number.toBigInteger().toString() : number.toPlainString();
        } else if (value instanceof Long micros) {
            return moment(micros);
        }
        return value.toString();
    }

    private String moment(long micros) {
        if (type.family() == Family.TIME) {
            return sqlWriter.write(micros);
        }
        boolean isDay = Math.floorMod(micros, MICROS_PER_DAY) == 0;
        Name name = isDay ? Name.DATE : Name.TIMESTAMP;
        return new ValueWriter(Column.of("moment", ColumnType.of(name))).write(micros);
    }

    /** The cell that holds a value; null for null. */
    public String write(Object value) {
        return value == null ? null : value instanceof Unread unread ? unread.text() : writer.write(value);
    }

    /** The value as SQL writes it, without quotes. */
    public String writeSql(Object value) {
        return value == null ? null : value instanceof Unread unread ? unread.text() : sqlWriter.write(value);
    }

    /** The value as expressions have it: exact numbers as BigDecimal; null for one that is not of its type. */
    public Object operand(Object value) {
        if (value instanceof Unread) {
            return null;
        }
        return type.isInteger() && value != null ? BigDecimal.valueOf((Long) value) : value;
    }

    /** The value as part of a key in a form; null for null, and for what equals nothing. */
    public static Object keyPart(Object value, KeyForm form) {
        if (value == null || value instanceof Unread) {
            return null;
        }
        return switch (form.family()) {
            case EXACT_NUMBER -> exact(value instanceof String text ? numberIn(text) : value);
            case APPROXIMATE_NUMBER -> ((Number) value).doubleValue() + 0.0;
            case TEXT -> form.comparison() == Comparison.EXACT ? value.toString() : form.folded(value.toString());
            default -> value;
        };
    }

    /** A text beside a number is compared as one where it is one, as SQLite has it; otherwise it equals none. */
    private static Object numberIn(String text) {
        try {
            return new BigDecimal(text.strip());
        } catch (NumberFormatException e) {
            return text;
        }
    }

    private static Object exact(Object value) {
        if (value instanceof BigDecimal number) {
            BigDecimal plain = number.stripTrailingZeros();
            boolean mayBeLong = plain.scale() <= 0 && plain.precision() - plain.scale() <= LONG_DIGITS;
            return mayBeLong && plain.toBigInteger().bitLength() < Long.SIZE ? (Object) plain.longValue() : plain;
        }
        return value;
    }

    /** Whether two values of one column are the same as values of its type; how a numeric is written does not count. */
    public static boolean isSame(Object one, Object other) {
        if (one instanceof java.math.BigDecimal a && other instanceof java.math.BigDecimal b) {
            return a.compareTo(b) == 0;
        }
        return Objects.equals(one, other);
    }
}
