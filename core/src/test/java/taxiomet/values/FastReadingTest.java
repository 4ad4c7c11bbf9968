package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;

/** A column read at once gives what its cells give one by one, with values and without, for what is usual and what is not. */
class FastReadingTest {
    private static final long SEED = 20_261_125L;
    private static final int CELLS = 40_000;

    private static Column column(String type) {
        return Column.of("c", ColumnType.parse(type).orElseThrow());
    }

    private static String cell(Random random) {
        Function<Integer, String> digits = count -> {
            StringBuilder text = new StringBuilder();
            for (int i = 0; i < count; i++) {
                text.append((char) ('0' + random.nextInt(10)));
            }
            return text.toString();
        };
        String plain = switch (random.nextInt(12)) {
            case 0, 1 -> digits.apply(1 + random.nextInt(20));
            case 2 -> digits.apply(1 + random.nextInt(9)) + "." + digits.apply(random.nextInt(5));
            case 3 -> "-" + digits.apply(1 + random.nextInt(6)) + "." + digits.apply(2);
            case 4, 5 ->
                LocalDate.of(1 + random.nextInt(9_998), 1, 1)
                        .plusDays(random.nextInt(366))
                        .toString();
            case 6 -> "19" + digits.apply(2) + "-" + digits.apply(2) + "-" + digits.apply(2);
            case 7 -> digits.apply(2) + ":" + digits.apply(2) + ":" + digits.apply(2);
            case 8 ->
                "2024-02-" + digits.apply(2) + (random.nextBoolean() ? "T" : " ") + "1" + digits.apply(1) + ":3"
                        + digits.apply(1) + ":0" + digits.apply(1);
            case 9 -> new String[] {"t", "f", "true", "false", "yes", "1", "0", "TRUE", ""}[random.nextInt(9)];
            case 10 -> "2b1e5d7c-" + digits.apply(4) + "-4abc-8def-" + digits.apply(12);
            default -> "text é " + digits.apply(random.nextInt(12)) + " ".repeat(random.nextInt(3));
        };
        // Now and then one byte is another.
        if (!plain.isEmpty() && random.nextInt(6) == 0) {
            int at = random.nextInt(plain.length());
            plain = plain.substring(0, at) + "0-+.,:/ ;eE9T".charAt(random.nextInt(13)) + plain.substring(at + 1);
        }
        return plain;
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "smallint",
                "integer",
                "bigint",
                "numeric",
                "numeric(4)",
                "numeric(6,2)",
                "numeric(15,2)",
                "numeric(3,3)",
                "numeric(30,7)",
                "real",
                "double precision",
                "boolean",
                "char(9)",
                "varchar(9)",
                "text",
                "date",
                "time",
                "timestamp",
                "timestamp(0)",
                "timestamp with time zone",
                "uuid"
            })
    void all_cells_at_once_are_read_like_each_on_its_own(String type) {
        Random random = new Random(SEED);
        CellColumn cells = new CellColumn(16);
        for (int i = 0; i < CELLS; i++) {
            if (random.nextInt(50) == 0) {
                cells.addNull();
            } else {
                cells.add(cell(random));
            }
        }
        TypedColumn valued = new TypedColumn(column(type));
        TypedColumn bare = new TypedColumn(column(type), false);
        ValueReader alone = ValueReader.of(column(type));
        // Twice: what a batch left behind must not be seen in the next.
        for (int pass = 0; pass < 2; pass++) {
            valued.read(cells);
            bare.read(cells);
        }
        for (int row = 0; row < CELLS; row++) {
            Optional<String> text = Optional.ofNullable(cells.text(row));
            byte state = TypedColumn.NULL;
            if (text.isPresent()) {
                byte[] utf8 = text.get().getBytes(StandardCharsets.UTF_8);
                state = alone.read(utf8, 0, utf8.length);
            }
            assertThat(valued.state(row)).as("state of %s, seed %d", text, SEED).isEqualTo(state);
            assertThat(bare.state(row)).as("bare state of %s", text).isEqualTo(state);
            if (valued.isValue(row)) {
                assertThat(valued.high(row)).as("first half of %s", text).isEqualTo(alone.high);
                assertThat(valued.low(row)).as("second half of %s", text).isEqualTo(alone.low);
            } else if (state == TypedColumn.BAD) {
                assertThat(bare.refusal(row)).as("refusal of %s", text).isEqualTo(alone.refusal);
            }
        }
    }
}
