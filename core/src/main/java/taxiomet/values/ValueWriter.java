package taxiomet.values;

import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/** Writes values as the cells of a column: a {@link ValueReader} of the column reads the same values from them. */
public final class ValueWriter {
    private static final long MICROS_PER_SECOND = 1_000_000L;
    private static final long NANOS_PER_MICRO = 1_000L;

    private final ColumnType type;
    private final boolean hasDecimalComma;
    private final DateTimeFormatter format;

    /** @param column whose way of writing is followed */
    public ValueWriter(Column column) {
        type = column.type();
        hasDecimalComma = column.decimalComma();
        format = column.format().map(FormattedReader::formatter).orElse(null);
    }

    /**
     * The cell of a value.
     *
     * @param value a Long or BigDecimal of an exact number, a Double, a Boolean, a String of a text or uuid, or a Long of
     *     microseconds (of the day for a time, since 1970-01-01 otherwise)
     */
    public String write(Object value) {
        return switch (type.family()) {
            case EXACT_NUMBER ->
                pointed(value instanceof BigDecimal number ? number.toPlainString() : value.toString());
            case APPROXIMATE_NUMBER -> pointed(approximate((Double) value));
            case TIME -> time((Long) value);
            case MOMENT, INSTANT -> moment((Long) value);
            case BOOLEAN, TEXT, UUID -> value.toString();
        };
    }

    private String pointed(String number) {
        return hasDecimalComma ? number.replace('.', ',') : number;
    }

    private String approximate(double value) {
        return type.name() == Name.REAL ? Float.toString((float) value) : Double.toString(value);
    }

    private String time(long micros) {
        LocalTime time = LocalTime.ofNanoOfDay(micros * NANOS_PER_MICRO);
        return format == null ? isoTime(time) : format.format(time);
    }

    private String moment(long micros) {
        LocalDateTime moment = Instant.EPOCH
                .plus(micros, ChronoUnit.MICROS)
                .atOffset(ZoneOffset.UTC)
                .toLocalDateTime();
        if (format != null) {
            return type.name() == Name.TIMESTAMP_WITH_TIME_ZONE
                    ? format.format(moment.atOffset(ZoneOffset.UTC))
                    : format.format(moment);
        }
        LocalDate day = moment.toLocalDate();
        return switch (type.name()) {
            case DATE -> day.toString();
            case TIMESTAMP -> day + " " + isoTime(moment.toLocalTime());
            default -> day + " " + isoTime(moment.toLocalTime()) + "Z";
        };
    }

    /** Hours, minutes and seconds always, and what there is of a fraction. */
    private static String isoTime(LocalTime time) {
        String whole = DateTimeFormatter.ofPattern("HH:mm:ss").format(time);
        long micros = time.getNano() / NANOS_PER_MICRO;
        if (micros == 0) {
            return whole;
        }
        return whole + "."
                + Long.toString(MICROS_PER_SECOND + micros).substring(1).replaceAll("0+$", "");
    }
}
