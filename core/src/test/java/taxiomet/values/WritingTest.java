package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.rows.RefRanges;
import taxiomet.rows.RowRef;
import taxiomet.testing.Columns;

/** What is written is what was meant: a reader of the column reads the same value again. */
class WritingTest {
    private static Column column(String type) {
        return Column.of("x", ColumnType.parse(type).orElseThrow());
    }

    private static void comesBack(Column column, Object value, String cell) {
        assertThat(new ValueWriter(column).write(value)).isEqualTo(cell);
        assertThat(ValueReader.of(column).accepts(cell)).as(cell).isTrue();
    }

    @Test
    void values_of_every_type_are_written_as_they_are_read() {
        comesBack(column("integer"), 17L, "17");
        comesBack(column("numeric(9,2)"), new BigDecimal("1E+3"), "1000");
        comesBack(column("numeric(9,2)"), new BigDecimal("-0.50"), "-0.50");
        comesBack(Columns.decimalComma(column("numeric(9,2)")), new BigDecimal("1.5"), "1,5");
        comesBack(column("double precision"), 0.1, "0.1");
        comesBack(column("double precision"), Double.NEGATIVE_INFINITY, "-Infinity");
        comesBack(column("real"), (double) 0.1f, "0.1");
        comesBack(column("boolean"), true, "true");
        comesBack(column("text"), "a, \"b\"", "a, \"b\"");
        comesBack(column("date"), 0L, "1970-01-01");
        comesBack(column("timestamp"), 1_500_000L, "1970-01-01 00:00:01.5");
        comesBack(column("timestamp"), -1L, "1969-12-31 23:59:59.999999");
        comesBack(column("timestamp with time zone"), 0L, "1970-01-01 00:00:00Z");
        comesBack(column("time"), 34_215_250_000L, "09:30:15.25");
        comesBack(column("time"), 0L, "00:00:00");
    }

    @Test
    void a_declared_format_is_kept() {
        comesBack(Columns.written("dd.MM.yyyy").apply(column("date")), 0L, "01.01.1970");
        comesBack(Columns.written("HHmm").apply(column("time")), 34_200_000_000L, "0930");
        comesBack(Columns.written("dd.MM.yyyy HH:mm").apply(column("timestamp")), 60_000_000L, "01.01.1970 00:01");
    }

    @ParameterizedTest
    @ValueSource(strings = {"date", "timestamp", "time", "timestamp with time zone"})
    void any_moment_comes_back(String type) {
        Random random = new Random(5);
        Column column = column(type);
        ValueWriter writer = new ValueWriter(column);
        ValueReader reader = ValueReader.of(column);
        long day = 86_400_000_000L;
        for (int i = 0; i < 5_000; i++) {
            long micros = type.equals("time")
                    ? random.nextLong(day)
                    : random.nextLong(-700_000, 2_900_000) * day + (type.equals("date") ? 0 : random.nextLong(day));
            String cell = writer.write(micros);
            assertThat(reader.accepts(cell)).as(cell).isTrue();
            assertThat(reader.high()).as(cell).isEqualTo(micros);
        }
    }

    @Test
    void any_binary_number_comes_back() {
        Random random = new Random(6);
        Column column = column("double precision");
        for (int i = 0; i < 5_000; i++) {
            double value = Double.longBitsToDouble(random.nextLong());
            String cell = new ValueWriter(column).write(value);
            ValueReader reader = ValueReader.of(column);
            assertThat(reader.accepts(cell)).as(cell).isTrue();
            assertThat(reader.high()).as(cell).isEqualTo(Double.doubleToLongBits(value + 0.0));
        }
    }

    @ParameterizedTest
    @CsvSource({
        "date, dd.MM.yyyy, true",
        "date, yyyy, false",
        "date, dd.MM, false",
        "date, bad!, false",
        "date, '', false",
        "date, dd.MM.yyyy HH:mm, false",
        "time, HH:mm, true",
        "time, hh:mm, false",
        "timestamp, dd.MM.yyyy HH:mm, true",
        "timestamp, HH:mm, false"
    })
    void a_format_must_say_all_that_a_value_has(String type, String format, boolean isUsable) {
        assertThat(ValueReader.problemWithFormat(ColumnType.parse(type).orElseThrow(), format)
                        .isEmpty())
                .isEqualTo(isUsable);
    }

    @ParameterizedTest
    @CsvSource({
        "n/a, true", "N/A, true", "' - ', true", "---, true", "999, true", "99, false", "xxx, true", "x, true",
        "0, true", "000, true", "1900-01-01, true", "???, true", "unknown, true", "known, false", "1, false",
                "'', false",
        "9990, false"
    })
    void some_texts_stand_for_nothing(String text, boolean isNothing) {
        assertThat(Placeholders.standsForNothing(text)).isEqualTo(isNothing);
    }

    @Test
    void a_row_is_named_by_its_part_and_number() {
        long ref = RowRef.of(70_000, 900_000_000_000L);
        assertThat(RowRef.part(ref)).isEqualTo(70_000);
        assertThat(RowRef.row(ref)).isEqualTo(900_000_000_000L);
        assertThat(RowRef.of(1, 1)).isGreaterThan(RowRef.of(0, 1_000_000_000_000L));
    }

    @Test
    void runs_of_rows_meet_what_they_touch() {
        RefRanges some = RefRanges.none();
        assertThat(some.meets(0, RowRef.MAX)).isFalse();
        for (int i = 0; i < 5; i++) {
            some.add(i * 100L, i * 100L + 9);
        }
        assertThat(some.meets(9, 50)).isTrue();
        assertThat(some.meets(10, 99)).isFalse();
        assertThat(some.meets(409, 409)).isTrue();
        assertThat(some.meets(410, RowRef.MAX)).isFalse();
        assertThat(RefRanges.ALL.meets(5, 5)).isTrue();
        assertThatThrownBy(() -> RefRanges.ALL.add(1, 2)).isInstanceOf(IllegalStateException.class);
    }
}
