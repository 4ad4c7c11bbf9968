package taxiomet.values;

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
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import taxiomet.charter.ColumnType;
import taxiomet.charter.ColumnType.Name;

/** date, time and timestamps in a format that the charter declares. */
final class FormattedReader extends MomentReader {
    private static final int NANOS_PER_MICRO = 1_000;
    /** In both halves of a day, on days and in months of one and of two digits. */
    private static final List<OffsetDateTime> PROOFS = List.of(
            OffsetDateTime.of(2023, 12, 25, 17, 45, 33, 123_456_000, ZoneOffset.UTC),
            OffsetDateTime.of(2024, 2, 3, 4, 5, 6, 0, ZoneOffset.UTC),
            OffsetDateTime.of(2024, 2, 29, 0, 30, 0, 0, ZoneOffset.UTC),
            OffsetDateTime.of(2021, 7, 4, 12, 0, 59, 900_000_000, ZoneOffset.UTC));

    private final DateTimeFormatter formatter;

    /** @throws IllegalArgumentException when the format is not one */
    FormattedReader(ColumnType type, String format) {
        super(type);
        this.formatter = formatter(format);
    }

    /** A strict formatter; y counts years as u does, since nobody writes an era. What stands in quotes is itself. */
    static DateTimeFormatter formatter(String format) {
        return new DateTimeFormatterBuilder()
                .parseCaseInsensitive()
                .appendPattern(lettersOf(format).contains("G") ? format : yearsCounted(format))
                .toFormatter(Locale.ENGLISH)
                .withResolverStyle(ResolverStyle.STRICT);
    }

    private static String lettersOf(String format) {
        return format.replaceAll("'[^']*'", "");
    }

    private static String yearsCounted(String format) {
        StringBuilder counted = new StringBuilder();
        boolean isQuoted = false;
        for (int i = 0; i < format.length(); i++) {
            char c = format.charAt(i);
            isQuoted ^= c == '\'';
            counted.append(c == 'y' && !isQuoted ? 'u' : c);
        }
        return counted.toString();
    }

    /** Writes moments in the format and reads them back: a format that loses or turns one is refused. */
    static Optional<String> problemWith(ColumnType type, String format) {
        DateTimeFormatter formatter;
        try {
            formatter = formatter(format);
        } catch (IllegalArgumentException e) {
            return Optional.of("cannot be read (" + e.getMessage() + ")");
        }
        String letters = lettersOf(format);
        boolean hasTimeLetters = letters.matches(".*[HhKkmsSAnNaB].*");
        if (letters.matches(".*[XxZOVvz].*") && type.name() != Name.TIMESTAMP_WITH_TIME_ZONE) {
            return Optional.of("has an offset, and the column is a " + type + " without a time zone");
        }
        if (type.name() == Name.DATE && hasTimeLetters) {
            return Optional.of("has a time of day, and the column is a date");
        }
        for (OffsetDateTime moment : PROOFS) {
            Optional<String> problem = problemWith(type, formatter, letters, hasTimeLetters, moment);
            if (problem.isPresent()) {
                return problem;
            }
        }
        return Optional.empty();
    }

    private static Optional<String> problemWith(
            ColumnType type,
            DateTimeFormatter formatter,
            String letters,
            boolean hasTimeLetters,
            OffsetDateTime moment) {
        LocalDate date;
        LocalTime time;
        String written;
        try {
            written = formatter.format(moment);
            TemporalAccessor parsed = formatter.parse(written);
            date = parsed.query(TemporalQueries.localDate());
            time = parsed.query(TemporalQueries.localTime());
        } catch (DateTimeException e) {
            return Optional.of("cannot be read (" + e.getMessage() + ")");
        }
        if (type.name() != Name.TIME && date == null) {
            return Optional.of("has no whole date");
        } else if (time == null && (hasTimeLetters || type.name() == Name.TIME)) {
            return Optional.of(
                    letters.matches(".*[hK].*") && !letters.matches(".*[aB].*")
                            ? "has hours up to twelve and does not say which half of the day (a)"
                            : "has no time of day");
        }
        boolean isSameDay = type.name() == Name.TIME || moment.toLocalDate().equals(date);
        long unit = letters.matches(".*[sSAnN].*") ? 1 : letters.matches(".*m.*") ? 60 : 3_600;
        boolean isSameTime = time == null
                || (!time.isAfter(moment.toLocalTime())
                        && ChronoUnit.SECONDS.between(time, moment.toLocalTime()) < unit);
        return isSameDay && isSameTime
                ? Optional.empty()
                : Optional.of("does not lead back to the moment that was written: " + written + " is read as "
                        + (date == null ? "" : date + " ") + (time == null ? "" : time));
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
        return time.getNano() % (unit * NANOS_PER_MICRO) == 0;
    }

    private static long micros(LocalDate date, LocalTime time) {
        LocalDateTime moment = LocalDateTime.of(date, time == null ? LocalTime.MIDNIGHT : time);
        return ChronoUnit.MICROS.between(LocalDateTime.ofEpochSecond(0, 0, ZoneOffset.UTC), moment);
    }
}
