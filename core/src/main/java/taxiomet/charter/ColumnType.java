package taxiomet.charter;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A SQL data type (ISO/IEC 9075-2, 4.2 to 4.8).
 *
 * @param name which type
 * @param length greatest number of characters of char and varchar; {@link #UNBOUNDED} without one
 * @param precision greatest number of digits of numeric; {@link #UNBOUNDED} without one
 * @param scale digits after the point of numeric; digits of a second of time and timestamp
 */
public record ColumnType(Name name, int length, int precision, int scale) {
    /** Stands for a length or precision that is not limited. */
    public static final int UNBOUNDED = -1;

    private static final int MAX_LENGTH = 10_485_760;
    private static final int MAX_PRECISION = 1_000;
    private static final int SECOND_DIGITS = 6;
    private static final Pattern SPELLING = Pattern.compile(
            "\\s*([a-z][a-z0-9 ]*?)\\s*(?:\\(\\s*(\\d{1,9})\\s*(?:,\\s*(\\d{1,9})\\s*)?\\))?\\s*((?:with|without) time zone)?\\s*");

    /** The types, narrower before wider within one family. */
    public enum Name {
        SMALLINT("smallint", Family.EXACT_NUMBER),
        INTEGER("integer", Family.EXACT_NUMBER),
        BIGINT("bigint", Family.EXACT_NUMBER),
        NUMERIC("numeric", Family.EXACT_NUMBER),
        REAL("real", Family.APPROXIMATE_NUMBER),
        DOUBLE("double precision", Family.APPROXIMATE_NUMBER),
        BOOLEAN("boolean", Family.BOOLEAN),
        CHAR("char", Family.TEXT),
        VARCHAR("varchar", Family.TEXT),
        TEXT("text", Family.TEXT),
        DATE("date", Family.MOMENT),
        TIMESTAMP("timestamp", Family.MOMENT),
        TIMESTAMP_WITH_TIME_ZONE("timestamp with time zone", Family.INSTANT),
        TIME("time", Family.TIME),
        UUID("uuid", Family.UUID);

        private final String sql;
        private final Family family;

        Name(String sql, Family family) {
            this.sql = sql;
            this.family = family;
        }

        /** The name as SQL writes it. */
        public String sql() {
            return sql;
        }
    }

    /** Types whose values can be equal to one another. */
    public enum Family {
        EXACT_NUMBER("number"),
        APPROXIMATE_NUMBER("approximate number"),
        BOOLEAN("boolean"),
        TEXT("text"),
        MOMENT("date or timestamp"),
        INSTANT("timestamp with time zone"),
        TIME("time"),
        UUID("uuid");

        private final String words;

        Family(String words) {
            this.words = words;
        }

        /** The family as a message names it. */
        public String words() {
            return words;
        }

        public boolean isNumber() {
            return this == EXACT_NUMBER || this == APPROXIMATE_NUMBER;
        }

        /** Whether a value of this family can equal one of the other: the same family, or both numbers. */
        public boolean isComparableWith(Family other) {
            return this == other || (isNumber() && other.isNumber());
        }
    }

    private static final Map<String, Name> SYNONYMS = Map.ofEntries(
            Map.entry("smallint", Name.SMALLINT),
            Map.entry("int2", Name.SMALLINT),
            Map.entry("integer", Name.INTEGER),
            Map.entry("int", Name.INTEGER),
            Map.entry("int4", Name.INTEGER),
            Map.entry("bigint", Name.BIGINT),
            Map.entry("int8", Name.BIGINT),
            Map.entry("numeric", Name.NUMERIC),
            Map.entry("decimal", Name.NUMERIC),
            Map.entry("dec", Name.NUMERIC),
            Map.entry("real", Name.REAL),
            Map.entry("float4", Name.REAL),
            Map.entry("double precision", Name.DOUBLE),
            Map.entry("double", Name.DOUBLE),
            Map.entry("float", Name.DOUBLE),
            Map.entry("float8", Name.DOUBLE),
            Map.entry("boolean", Name.BOOLEAN),
            Map.entry("bool", Name.BOOLEAN),
            Map.entry("char", Name.CHAR),
            Map.entry("character", Name.CHAR),
            Map.entry("nchar", Name.CHAR),
            Map.entry("bpchar", Name.CHAR),
            Map.entry("varchar", Name.VARCHAR),
            Map.entry("character varying", Name.VARCHAR),
            Map.entry("char varying", Name.VARCHAR),
            Map.entry("nvarchar", Name.VARCHAR),
            Map.entry("text", Name.TEXT),
            Map.entry("clob", Name.TEXT),
            Map.entry("string", Name.TEXT),
            Map.entry("date", Name.DATE),
            Map.entry("time", Name.TIME),
            Map.entry("timestamp", Name.TIMESTAMP),
            Map.entry("datetime", Name.TIMESTAMP),
            Map.entry("timestamptz", Name.TIMESTAMP_WITH_TIME_ZONE),
            Map.entry("uuid", Name.UUID));

    /** A type without length, precision or scale of its own: the widest of its name. */
    public static ColumnType of(Name name) {
        return switch (name) {
            case CHAR -> new ColumnType(name, 1, UNBOUNDED, 0);
            case TIME, TIMESTAMP, TIMESTAMP_WITH_TIME_ZONE -> new ColumnType(name, UNBOUNDED, UNBOUNDED, SECOND_DIGITS);
            default -> new ColumnType(name, UNBOUNDED, UNBOUNDED, 0);
        };
    }

    /** All spellings that {@link #parse} knows, sorted, without their sizes. */
    public static List<String> spellings() {
        List<String> all = new ArrayList<>(SYNONYMS.keySet());
        all.add("timestamp with time zone");
        all.add("timestamp without time zone");
        all.add("time without time zone");
        all.sort(null);
        return all;
    }

    /** A type as SQL spells it, in any case, or empty when the text is not one (unknown name, impossible sizes). */
    public static Optional<ColumnType> parse(String sql) {
        Matcher parts = SPELLING.matcher(sql.toLowerCase(Locale.ROOT).replaceAll("\\s+", " "));
        if (!parts.matches()) {
            return Optional.empty();
        }
        Name name = SYNONYMS.get(parts.group(1));
        String zone = parts.group(4);
        if (zone != null) {
            boolean isZoned = zone.startsWith("with ");
            if (name == Name.TIMESTAMP && isZoned) {
                name = Name.TIMESTAMP_WITH_TIME_ZONE;
            } else if (isZoned || (name != Name.TIMESTAMP && name != Name.TIME)) {
                return Optional.empty();
            }
        }
        if (name == null) {
            return Optional.empty();
        }
        int first = parts.group(2) == null ? UNBOUNDED : Integer.parseInt(parts.group(2));
        int second = parts.group(3) == null ? UNBOUNDED : Integer.parseInt(parts.group(3));
        return sized(name, first, second, "float".equals(parts.group(1)));
    }

    private static Optional<ColumnType> sized(Name name, int first, int second, boolean isFloat) {
        if (first == UNBOUNDED) {
            return Optional.of(of(name));
        }
        if (second != UNBOUNDED && name != Name.NUMERIC) {
            return Optional.empty();
        }
        return switch (name) {
            case CHAR, VARCHAR ->
                first >= 1 && first <= MAX_LENGTH
                        ? Optional.of(new ColumnType(name, first, UNBOUNDED, 0))
                        : Optional.empty();
            case NUMERIC -> {
                int scale = Math.max(second, 0);
                yield first >= 1 && first <= MAX_PRECISION && scale <= first
                        ? Optional.of(new ColumnType(name, UNBOUNDED, first, scale))
                        : Optional.empty();
            }
            case TIME, TIMESTAMP, TIMESTAMP_WITH_TIME_ZONE ->
                first <= SECOND_DIGITS
                        ? Optional.of(new ColumnType(name, UNBOUNDED, UNBOUNDED, first))
                        : Optional.empty();
            case DOUBLE ->
                isFloat && first >= 1 && first <= 53
                        ? Optional.of(of(first <= 24 ? Name.REAL : Name.DOUBLE))
                        : Optional.empty();
            default -> Optional.empty();
        };
    }

    /**
     * Whether each value of this type is one of the other too, and is spelled there as it is here: an integer is a bigint, and a varchar(10)
     * a varchar(20); a date is no timestamp, though it can be taken for one.
     */
    public boolean isWithin(ColumnType other) {
        if (isInteger() && other.isInteger()) {
            return wholeDigits() <= other.wholeDigits();
        } else if (family() == Family.EXACT_NUMBER && other.name == Name.NUMERIC) {
            return other.precision == UNBOUNDED
                    || (scale <= other.scale && wholeDigits() <= other.precision - other.scale);
        } else if (isText() && other.isText()) {
            return other.length == UNBOUNDED || (length != UNBOUNDED && length <= other.length);
        }
        return name == other.name && scale <= other.scale;
    }

    /** How many digits a number can have before its point. */
    private int wholeDigits() {
        return switch (name) {
            case SMALLINT -> 5;
            case INTEGER -> 10;
            case BIGINT -> 19;
            default -> precision == UNBOUNDED ? Integer.MAX_VALUE : precision - scale;
        };
    }

    /** The family of types with which its values can be compared. */
    public Family family() {
        return name.family;
    }

    /** Whether it is char, varchar or text. */
    public boolean isText() {
        return family() == Family.TEXT;
    }

    /** Whether it is smallint, integer or bigint. */
    public boolean isInteger() {
        return name == Name.SMALLINT || name == Name.INTEGER || name == Name.BIGINT;
    }

    /** The type as SQL spells it, with its sizes. */
    public String sql() {
        return switch (name) {
            case CHAR -> "char(" + length + ")";
            case VARCHAR -> length == UNBOUNDED ? "varchar" : "varchar(" + length + ")";
            case NUMERIC -> precision == UNBOUNDED ? "numeric" : "numeric(" + precision + "," + scale + ")";
            case TIME -> scale == SECOND_DIGITS ? "time" : "time(" + scale + ")";
            case TIMESTAMP -> scale == SECOND_DIGITS ? "timestamp" : "timestamp(" + scale + ")";
            case TIMESTAMP_WITH_TIME_ZONE ->
                scale == SECOND_DIGITS ? name.sql() : "timestamp(" + scale + ") with time zone";
            default -> name.sql();
        };
    }

    @Override
    public String toString() {
        return sql();
    }
}
