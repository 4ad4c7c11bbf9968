package taxiomet.expression;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.expression.StoredValues.Kind;
import taxiomet.keys.TypedBatch;
import taxiomet.values.CellColumn;
import taxiomet.values.TypedColumn;

/** Values that wait for those of relatives come back as they were. */
class StoredValuesTest {
    private static TypedColumn read(String type, List<String> texts) {
        CellColumn cells = new CellColumn(1);
        texts.forEach(text -> {
            if (text == null) {
                cells.addNull();
            } else {
                cells.add(text);
            }
        });
        TypedColumn column =
                new TypedColumn(Column.of("c", ColumnType.parse(type).orElseThrow()));
        column.read(cells);
        return column;
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "integer | 7, -12, 0, 2147483647",
                "bigint | -9223372036854775808, 9223372036854775807",
                "numeric | 1.50, -0.001, 1e30, 12345678901234567890.25, 0",
                "double precision | 1.5, -0, NaN, 1e300",
                "boolean | true, false",
                "date | 2024-02-29, 0001-01-01, 9999-12-31",
                "time | 09:30:15.25",
                "timestamp with time zone | 2024-02-29 12:00:00+02",
                "text | x, Grüße aus dem Tal, 12345678, 123456789",
                "char(9) | ab   , ä",
                "uuid | 7d444840-9dc0-11d1-b245-5ffdce74fad2"
            })
    void a_cell_of_each_type_comes_back(String type, String listed) {
        List<String> texts = Arrays.stream(listed.split(", ")).toList();
        TypedColumn column = read(type, texts);
        StoredValues record = new StoredValues();
        record.add(99);
        for (int row = 0; row < texts.size(); row++) {
            assertThat(column.isValue(row)).as(texts.get(row)).isTrue();
            record.addCell(column, row);
            record.addNull();
        }
        StoredValues again = new StoredValues();
        again.read(record.longs(), record.size(), 1);
        TypedColumn filled = TypedBatch.toFill(List.of(column.column())).column(0);
        filled.clear();
        while (again.hasNext()) {
            again.nextInto(filled);
        }
        for (int row = 0; row < texts.size(); row++) {
            assertThat(filled.isValue(2 * row)).isTrue();
            assertThat(filled.low(2 * row)).isEqualTo(column.low(row));
            if (column.low(row) != TypedColumn.WIDE) {
                assertThat(filled.high(2 * row)).isEqualTo(column.high(row));
            }
            if (column.column().type().isText()) {
                assertThat(filled.text(2 * row)).isEqualTo(column.text(row));
            }
            assertThat(filled.state(2 * row + 1)).isEqualTo(TypedColumn.NULL);
        }
        assertThat(filled.has(TypedColumn.NULL)).isTrue();
    }

    @Test
    void wide_numbers_keep_their_value() {
        TypedColumn column = read("numeric", List.of("123456789012345678901234567890.5"));
        StoredValues record = new StoredValues();
        record.addCell(column, 0);
        record.goTo(0);
        assertThat(record.kind()).isEqualTo(Kind.WIDE);
        assertThat(record.wide()).isEqualByComparingTo("123456789012345678901234567890.5");
        assertThat(record.value()).isEqualTo(record.wide());
        record.skip();
        assertThat(record.hasNext()).isFalse();
    }

    @Test
    void equal_values_have_equal_longs_however_they_are_written() {
        TypedColumn column = read("numeric(6,2)", List.of("1.50", "1.5", "+01.5"));
        StoredValues one = new StoredValues();
        one.addCell(column, 0);
        for (int row = 1; row < 3; row++) {
            StoredValues other = new StoredValues();
            other.addCell(column, row);
            assertThat(Arrays.copyOf(other.longs(), other.size())).isEqualTo(Arrays.copyOf(one.longs(), one.size()));
        }
    }

    @Test
    void a_cell_of_the_wrong_type_is_seen_wherever_it_stands() {
        TypedColumn column = read("integer", List.of("1", "x", "3"));
        StoredValues record = new StoredValues();
        record.addCell(column, 0);
        record.goTo(0);
        assertThat(record.hasIllTyped()).isFalse();
        record.addCell(column, 1);
        record.addCell(column, 2);
        assertThat(record.hasIllTyped()).isTrue();
        assertThat(record.place()).isZero();
    }
}
