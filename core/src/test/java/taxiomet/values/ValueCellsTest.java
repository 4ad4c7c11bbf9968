package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.util.Random;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.testing.Columns;
import taxiomet.values.ValueCells.Kind;

/** Values that come as such are what their texts are; only that a value has no spelling, which could be odd. */
class ValueCellsTest {
    private static final int ROWS = 400;
    private static final long DAY = 86_400_000_000L;

    private static TypedColumn typed(String type) {
        return new TypedColumn(Column.of("c", ColumnType.parse(type).orElseThrow()));
    }

    private static void requireSame(ValueCells values, String type) {
        TypedColumn own = typed(type);
        own.read(values);
        CellColumn texts = new CellColumn(8);
        TypedColumn read = typed(type);
        for (int row = 0; row < values.size(); row++) {
            String text = values.text(row);
            if (text == null) {
                texts.addNull();
            } else {
                texts.add(text);
            }
        }
        read.read(texts);
        for (int row = 0; row < texts.size(); row++) {
            String what = type + " of " + texts.text(row);
            byte state = read.state(row);
            assertThat(own.state(row)).as(what).isIn(state, state == TypedColumn.ODD ? TypedColumn.GOOD : state);
            if (state == TypedColumn.BAD) {
                assertThat(own.refusal(row)).as(what).isEqualTo(read.refusal(row));
            } else if (own.isValue(row)) {
                assertThat(own.low(row)).as(what).isEqualTo(read.low(row));
                if (own.low(row) != TypedColumn.WIDE) {
                    assertThat(own.high(row)).as(what).isEqualTo(read.high(row));
                }
            }
        }
    }

    private interface Adding {
        void addTo(ValueCells cells, Random random);
    }

    private static void requireSame(String type, Adding adding) {
        Random random = new Random(7);
        ValueCells cells = new ValueCells(4);
        for (int row = 0; row < ROWS; row++) {
            if (random.nextInt(9) == 0) {
                cells.addNull();
            } else {
                adding.addTo(cells, random);
            }
        }
        assertThat(cells.areValues()).isTrue();
        requireSame(cells, type);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "smallint",
                "integer",
                "bigint",
                "numeric",
                "numeric(6,2)",
                "numeric(20,3)",
                "numeric(3)",
                "real",
                "double precision",
                "text",
                "varchar(4)",
                "boolean",
                "date"
            })
    void numbers_are_read_as_their_texts_are(String type) {
        requireSame(type, (cells, random) -> cells.add(random.nextLong() >> random.nextInt(64)));
        requireSame(
                type,
                (cells, random) -> cells.add(
                        (double) (random.nextLong() >> random.nextInt(64)) / Math.pow(10, random.nextInt(4))));
        requireSame(
                type,
                (cells, random) ->
                        cells.add(BigDecimal.valueOf(random.nextLong() >> random.nextInt(64), random.nextInt(5))));
        ValueCells ends = new ValueCells(1);
        ends.add(Long.MIN_VALUE);
        ends.add(Long.MAX_VALUE);
        requireSame(ends, type);
        ends.clear();
        ends.add(-0.0);
        ends.add(Double.MAX_VALUE);
        ends.add(Double.NaN);
        requireSame(ends, type);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "date",
                "time",
                "time(2)",
                "timestamp",
                "timestamp(0)",
                "timestamp with time zone",
                "text",
                "char(10)",
                "integer"
            })
    void days_and_times_are_read_as_their_texts_are(String type) {
        requireSame(type, (cells, random) -> cells.addDate(random.nextInt(3_652_059) - 719_162));
        requireSame(type, (cells, random) -> cells.add(Kind.TIME, micros(random), 0));
        for (Kind kind : new Kind[] {Kind.TIMESTAMP, Kind.INSTANT}) {
            requireSame(
                    type,
                    (cells, random) -> cells.add(
                            kind,
                            (random.nextInt(40_000) - 10_000) * DAY + (random.nextInt(3) == 0 ? 0 : micros(random)),
                            0));
        }
    }

    private static long micros(Random random) {
        long unit = (long) Math.pow(10, random.nextInt(8));
        return random.nextLong(DAY) / unit * unit;
    }

    @ParameterizedTest
    @ValueSource(strings = {"boolean", "uuid", "text", "char(5)", "integer"})
    void booleans_and_uuids_are_read_as_their_texts_are(String type) {
        requireSame(type, (cells, random) -> cells.add(random.nextBoolean()));
        requireSame(type, (cells, random) -> cells.add(new UUID(random.nextLong(), random.nextLong())));
    }

    @ParameterizedTest
    @CsvSource({"-719163, date", "2932897, date", "2932897, timestamp", "-719163, timestamp with time zone"})
    void a_day_before_the_year_1_or_behind_9999_is_none(long day, String type) {
        ValueCells cells = new ValueCells(1);
        cells.addDate(day);
        TypedColumn read = typed(type);
        read.read(cells);
        assertThat(read.state(0)).isEqualTo(TypedColumn.BAD);
        assertThat(read.refusal(0)).isEqualTo(Refusal.NO_SUCH_DAY);
    }

    @Test
    void how_a_column_writes_its_texts_does_not_matter_to_values() {
        ColumnType date = ColumnType.parse("date").orElseThrow();
        ValueCells days = new ValueCells(1);
        days.addDate(19_393);
        TypedColumn written = new TypedColumn(Columns.written("dd.MM.yyyy").apply(Column.of("c", date)));
        written.read(days);
        assertThat(written.state(0)).isEqualTo(TypedColumn.GOOD);
        assertThat(written.high(0)).isEqualTo(19_393 * DAY);
        ColumnType number = ColumnType.parse("numeric(6,2)").orElseThrow();
        ValueCells halves = new ValueCells(1);
        halves.add(1.5);
        TypedColumn comma = new TypedColumn(Columns.decimalComma(Column.of("c", number)));
        comma.read(halves);
        assertThat(comma.state(0)).isEqualTo(TypedColumn.GOOD);
        assertThat(comma.high(0)).isEqualTo(15);
        assertThat(comma.low(0)).isEqualTo(1);
    }

    @Test
    void a_decimal_of_more_digits_than_a_long_is_a_text_and_the_same_number() {
        ValueCells cells = new ValueCells(1);
        cells.add(new BigDecimal("1.5"));
        cells.add(new BigDecimal(BigInteger.TEN.pow(30), 2));
        assertThat(cells.areValues()).isFalse();
        assertThat(cells.text(0)).isEqualTo("1.5");
        requireSame(cells, "numeric(40,2)");
    }

    @Test
    void a_text_or_a_value_of_another_kind_makes_texts_of_all() {
        ValueCells cells = new ValueCells(1);
        cells.add(7);
        cells.addNull();
        cells.add(2.5);
        cells.add("x");
        cells.addNull();
        cells.add(true);
        cells.addDate(0);
        assertThat(cells.areValues()).isFalse();
        assertThat(cells.size()).isEqualTo(7);
        assertThat(cells.text(0)).isEqualTo("7");
        assertThat(cells.text(1)).isNull();
        assertThat(cells.text(2)).isEqualTo("2.5");
        assertThat(cells.text(3)).isEqualTo("x");
        assertThat(cells.text(5)).isEqualTo("true");
        assertThat(cells.text(6)).isEqualTo("1970-01-01");
        cells.clear();
        cells.add(1.5);
        cells.add(2L);
        assertThat(cells.text(1)).isEqualTo("2");
        cells.clear();
        cells.addNull();
        cells.add(3);
        assertThat(cells.areValues()).isTrue();
        assertThat(cells.kind()).isEqualTo(Kind.WHOLE);
        assertThat(cells.isNullValue(0)).isTrue();
    }
}
