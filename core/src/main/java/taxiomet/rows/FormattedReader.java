package taxiomet.rows;

import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.time.format.DateTimeParseException;
import java.time.format.ResolverStyle;
import java.time.temporal.ChronoField;
import java.time.temporal.ChronoUnit;
import java.time.temporal.TemporalAccessor;
import java.time.temporal.TemporalQueries;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/** date, time and timestamps in a format that the charter declares. */
final class FormattedReader extends ValueReader {
    private static final int NANOS_PER_MICRO = 1_000;

    private final Name type;
    private final int secondDigits;
    private final DateTimeFormatter formatter;

    /** @throws IllegalArgumentException when the format is not one */
    FormattedReader(ColumnType type, String format) {
        this.type = type.name();
        this.secondDigits = type.scale();
        this.formatter = formatter(format);
    }

    /** A strict formatter; y counts years as u does, since nobody writes an era. */
    static DateTimeFormatter formatter(String format) {
        return new DateTimeFormatterBuilder()
                .parseCaseInsensitive()
                .appendPattern(format.contains("G") ? format : format.replace('y', 'u'))
                .toFormatter(Locale.ENGLISH)
                .withResolverStyle(ResolverStyle.STRICT);
    }

    /** Writes a moment in the format and reads it back. */
    static Optional<String> problemWith(ColumnType type, String format) {
        OffsetDateTime moment = OffsetDateTime.of(2023, 12, 25, 17, 45, 0, 0, ZoneOffset.UTC);
        DateTimeFormatter formatter;
        TemporalAccessor parsed;
        try {
            formatter = formatter(format);
            parsed = formatter.parse(formatter.format(moment));
        } catch (IllegalArgumentException | DateTimeException e) {
            return Optional.of("cannot be read (" + e.getMessage() + ")");
        }
        boolean hasDate = parsed.query(TemporalQueries.localDate()) != null;
        boolean hasTime = parsed.query(TemporalQueries.localTime()) != null;
        boolean hasTimeLetters = format.replaceAll("'[^']*'", "").matches(".*[HhKkmsSAnNa].*");
        return switch (type.name()) {
            case TIME -> hasTime ? Optional.empty() : Optional.of("has no time of day");
            case DATE ->
                !hasDate
                        ? Optional.of("has no whole date")
                        : hasTimeLetters
                                ? Optional.of("has a time of day, and the column is a date")
                                : Optional.empty();
            default -> hasDate ? Optional.empty() : Optional.of("has no whole date");
        };
    }

    @Override
    byte read(byte[] bytes, int start, int length) {
        if (length == 0) {
            return refuse(Refusal.EMPTY_TEXT);
        }
        int from = skipSpaces(bytes, start, start + length);
        int end = dropSpaces(bytes, from, start + length);
        TemporalAccessor parsed;
        try {
            parsed = formatter.parse(new String(bytes, from, end - from, StandardCharsets.UTF_8));
        } catch (DateTimeParseException e) {
            return refuse(e.getCause() == null ? Refusal.NOT_IN_FORMAT : Refusal.NO_SUCH_DAY);
        }
        LocalDate date = parsed.query(TemporalQueries.localDate());
        LocalTime time = parsed.query(TemporalQueries.localTime());
        if ((type == Name.TIME ? time == null : date == null)
                || (date != null && (date.getYear() < 1 || date.getYear() > 9999))) {
            return refuse(Refusal.NO_SUCH_DAY);
        }
        if (time != null && !fits(time)) {
            return refuse(Refusal.TOO_PRECISE);
        }
        high = type == Name.TIME ? micros(LocalDate.EPOCH, time) : micros(date, time);
        if (type == Name.TIMESTAMP_WITH_TIME_ZONE && parsed.isSupported(ChronoField.OFFSET_SECONDS)) {
            high -= parsed.get(ChronoField.OFFSET_SECONDS) * DateTimeReader.MICROS_PER_SECOND;
        }
        low = 0;
        return goodUnless(end - from != length);
    }

    private boolean fits(LocalTime time) {
        long unit = NANOS_PER_MICRO;
        for (int digits = secondDigits; digits < 6; digits++) {
            unit *= 10;
        }
        return time.getNano() % unit == 0;
    }

    private static long micros(LocalDate date, LocalTime time) {
        LocalDateTime moment = LocalDateTime.of(date, time == null ? LocalTime.MIDNIGHT : time);
        return ChronoUnit.MICROS.between(LocalDateTime.ofEpochSecond(0, 0, ZoneOffset.UTC), moment);
    }
}
