package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/** Numbers that come as such are what their texts are. */
class NumberCellsTest {
    private static final int ROWS = 400;

    private static TypedColumn typed(String type) {
        return new TypedColumn(Column.of("c", ColumnType.parse(type).orElseThrow()));
    }

    private static void requireSame(NumberCells numbers, String type) {
        TypedColumn own = typed(type);
        own.read(numbers);
        CellColumn texts = new CellColumn(8);
        TypedColumn read = typed(type);
        for (int row = 0; row < numbers.size(); row++) {
            String text = numbers.text(row);
            if (text == null) {
                texts.addNull();
            } else {
                texts.add(text);
            }
        }
        read.read(texts);
        for (int row = 0; row < texts.size(); row++) {
            String what = type + " of " + texts.text(row);
            assertThat(own.state(row)).as(what).isEqualTo(read.state(row));
            if (own.state(row) == TypedColumn.BAD) {
                assertThat(own.refusal(row)).as(what).isEqualTo(read.refusal(row));
            } else if (own.isValue(row)) {
                assertThat(own.high(row)).as(what).isEqualTo(read.high(row));
                assertThat(own.low(row)).as(what).isEqualTo(read.low(row));
            }
        }
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
    void whole_numbers_and_doubles_are_read_as_their_texts_are(String type) {
        Random random = new Random(7);
        NumberCells longs = new NumberCells(4);
        NumberCells doubles = new NumberCells(4);
        for (int row = 0; row < ROWS; row++) {
            if (random.nextInt(9) == 0) {
                longs.addNull();
                doubles.addNull();
            } else {
                int bits = random.nextInt(64);
                longs.add(random.nextLong() >> bits);
                doubles.add((double) (random.nextLong() >> bits) / Math.pow(10, random.nextInt(4)));
            }
        }
        longs.add(Long.MIN_VALUE);
        longs.add(Long.MAX_VALUE);
        doubles.add(-0.0);
        doubles.add(Double.MAX_VALUE);
        assertThat(longs.areNumbers()).isTrue();
        requireSame(longs, type);
        requireSame(doubles, type);
    }

    @Test
    void a_text_among_numbers_makes_texts_of_all() {
        NumberCells cells = new NumberCells(1);
        cells.add(7);
        cells.addNull();
        cells.add(2.5);
        cells.add("x");
        cells.addNull();
        assertThat(cells.areNumbers()).isFalse();
        assertThat(cells.size()).isEqualTo(5);
        assertThat(cells.text(0)).isEqualTo("7");
        assertThat(cells.text(1)).isNull();
        assertThat(cells.text(2)).isEqualTo("2.5");
        assertThat(cells.text(3)).isEqualTo("x");
        cells.clear();
        cells.add(1.5);
        cells.add(2L);
        assertThat(cells.text(1)).isEqualTo("2");
        cells.clear();
        cells.addNull();
        cells.add(3);
        assertThat(cells.areNumbers()).isTrue();
        assertThat(cells.isNullNumber(0)).isTrue();
    }
}
