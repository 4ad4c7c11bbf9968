package taxiomet.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Arithmetic;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
import taxiomet.charter.Expression.Compared;
import taxiomet.charter.Expression.FunctionName;
import taxiomet.charter.Expression.In;
import taxiomet.charter.Expression.IsNull;
import taxiomet.charter.Expression.Joined;
import taxiomet.charter.Expression.Like;
import taxiomet.charter.Expression.Literal;
import taxiomet.charter.Expression.Negation;
import taxiomet.charter.Expression.Not;
import taxiomet.charter.Expression.Operator;
import taxiomet.charter.Expression.Or;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.Table;
import taxiomet.keys.TypedBatch;
import taxiomet.rows.RowBatch;
import taxiomet.work.Secret;

/** Compiled conditions come to what the evaluator says of each row. */
class CompiledConditionTest {
    private static final String[] COLUMNS = {
        "a integer",
        "b bigint",
        "n numeric(12,4)",
        "w numeric(60,9)",
        "r real",
        "d double precision",
        "t text",
        "c char(4)",
        "y boolean",
        "m timestamp",
        "i time",
        "z timestamp with time zone",
        "u uuid"
    };
    private static final Table TABLE = table("t", COLUMNS).declared();
    private static final int ROWS = 80;

    private static final List<List<String>> CELLS = List.of(
            List.of("0", "1", "-1", "7", "2147483647", "-2147483648", "x"),
            List.of("0", "1", "-1", "9223372036854775807", "-9223372036854775808", "1000000007"),
            List.of("0", "1.5", "-1.5000", "99999999.9999", "0.0001", "7", "1.00"),
            List.of("0", "7", "123456789012345678901234567890.123", "-0.000000001", "99999999999999999999", "2.5"),
            List.of("0", "1.5", "-0", "3.4e38", "NaN", "0.1"),
            List.of("0", "1.5", "-0.0", "1e300", "Infinity", "-Infinity", "NaN", "0.1", "7"),
            List.of("", "a", "A", "ab%", "Straße", "\uD83D\uDC1Dbee", "\uFFFDz", " blank ", "éclair", "a_b"),
            List.of("", "a", "ab  ", "A", "é", "abcd"),
            List.of("true", "false", "x"),
            List.of("2023-02-05", "2023-02-05 10:00", "1970-01-01", "1900-01-01 00:00:00.000001"),
            List.of("09:30", "00:00", "23:59:59.999999"),
            List.of("2023-02-05 10:00Z", "2023-02-05 11:00+01", "1969-12-31 23:59Z"),
            List.of("0f0e0d0c-0b0a-4908-8706-050403020100", "f1111111-1111-4111-8111-111111111111"));

    private final Random random;

    CompiledConditionTest() {
        long seed = Long.getLong("taxiomet.seed", 4_711L);
        random = new Random(seed);
    }

    private <T> T any(List<T> list) {
        return list.get(random.nextInt(list.size()));
    }

    private TypedBatch batch() {
        RowBatch rows = new RowBatch(COLUMNS.length);
        for (int row = 0; row < ROWS; row++) {
            for (int column = 0; column < COLUMNS.length; column++) {
                if (random.nextInt(8) == 0) {
                    rows.column(column).addNull();
                } else {
                    rows.column(column).add(any(CELLS.get(column)));
                }
            }
            rows.endRow(row + 1, row + 1, 0);
        }
        int[] all = new int[COLUMNS.length];
        java.util.Arrays.setAll(all, i -> i);
        BitSet valued = new BitSet();
        valued.set(0, COLUMNS.length);
        TypedBatch batch = new TypedBatch(TABLE, all, valued, Secret.random());
        batch.read(rows);
        return batch;
    }

    private Expression column(Type type) {
        List<Expression> fitting = new ArrayList<>();
        for (int i = 0; i < COLUMNS.length; i++) {
            Type own = Type.of(TABLE.columns().get(i).type());
            if (own == type) {
                fitting.add(new ColumnValue(i, own));
            }
        }
        return any(fitting);
    }

    private Expression value(Type type, int depth) {
        if (random.nextInt(14) == 0) {
            return new Literal(null, Type.NULL);
        }
        if (type == Type.BOOLEAN) {
            return condition(depth - 1);
        }
        int kind = depth <= 0 ? random.nextInt(2) : random.nextInt(5);
        if (kind == 0) {
            return literal(type);
        } else if (kind == 1) {
            return column(type);
        } else if (kind == 2) {
            List<Expression> some = new ArrayList<>(List.of(value(type, depth - 1)));
            while (random.nextBoolean()) {
                some.add(value(type, depth - 1));
            }
            return new Call(FunctionName.COALESCE, some, type);
        } else if (type == Type.TEXT) {
            return switch (random.nextInt(4)) {
                case 0 -> new Call(FunctionName.LOWER, List.of(value(type, depth - 1)), type);
                case 1 -> new Call(FunctionName.UPPER, List.of(value(type, depth - 1)), type);
                case 2 -> new Call(FunctionName.TRIM, List.of(value(type, depth - 1)), type);
                default -> new Joined(List.of(value(type, depth - 1), value(type, depth - 1)));
            };
        } else if (type == Type.INTEGER && random.nextInt(4) == 0) {
            return new Call(FunctionName.LENGTH, List.of(value(Type.TEXT, depth - 1)), type);
        } else if (type.isNumber()) {
            if (random.nextInt(4) == 0) {
                return new Negation(value(type, depth - 1));
            }
            Type other = type == Type.INTEGER
                    ? Type.INTEGER
                    : type == Type.DECIMAL
                            ? any(List.of(Type.INTEGER, Type.DECIMAL))
                            : any(List.of(Type.INTEGER, Type.DECIMAL, Type.APPROXIMATE));
            Expression left = value(type, depth - 1);
            Expression right = value(other, depth - 1);
            boolean isTurned = random.nextBoolean();
            return new Arithmetic(
                    any(List.of(Operator.values())), isTurned ? right : left, isTurned ? left : right, type);
        }
        return column(type);
    }

    private Expression literal(Type type) {
        return new Literal(
                switch (type) {
                    case INTEGER -> new BigDecimal(any(List.of("0", "1", "7", "9223372036854775808")));
                    case DECIMAL -> new BigDecimal(any(List.of("0.0", "1.5", "1.50", "2E+3", "1e-12")));
                    case APPROXIMATE -> any(List.of(0.0, 1.5, 0.1, 1e300));
                    case TEXT -> any(List.of("", "a", "A", "straße", "\uD83D\uDC1D", "ab"));
                    case BOOLEAN -> random.nextBoolean();
                    case UUID -> "0f0e0d0c-0b0a-4908-8706-050403020100";
                    default -> any(List.of(0L, 1_675_555_200_000_000L, 34_200_000_000L));
                },
                type);
    }

    private Type comparable(Type type) {
        return type.isNumber() ? any(List.of(Type.INTEGER, Type.DECIMAL, Type.APPROXIMATE)) : type;
    }

    private Expression condition(int depth) {
        Type type = any(List.of(
                Type.INTEGER,
                Type.DECIMAL,
                Type.DECIMAL,
                Type.APPROXIMATE,
                Type.TEXT,
                Type.TEXT,
                Type.BOOLEAN,
                Type.MOMENT,
                Type.TIME,
                Type.INSTANT));
        if (type == Type.BOOLEAN && depth <= 0) {
            return column(Type.BOOLEAN);
        }
        int down = Math.max(0, depth - 1);
        return switch (depth <= 0 ? 3 + random.nextInt(5) : random.nextInt(9)) {
            case 0 -> new And(List.of(condition(down), condition(down), condition(down)));
            case 1 -> new Or(List.of(condition(down), condition(down)));
            case 2 -> new Not(condition(down));
            case 3 -> new IsNull(value(type, down));
            case 4 -> new In(value(type, down), List.of(value(comparable(type), down), value(comparable(type), down)));
            case 5 -> new Between(value(type, down), value(comparable(type), down), value(comparable(type), down));
            case 6 ->
                new Like(
                        value(Type.TEXT, down),
                        new Literal(
                                any(List.of("a%", "%b%", "_", "__%", "%é%", "!%%", "", "%", "_\uD83D\uDC1D%")),
                                Type.TEXT),
                        random.nextBoolean() ? Optional.empty() : Optional.of(new Literal("!", Type.TEXT)));
            case 8 -> new Call(FunctionName.COALESCE, List.of(condition(down), condition(down)), Type.BOOLEAN);
            default ->
                new Compared(any(List.of(Comparator.values())), value(type, down), value(comparable(type), down));
        };
    }

    private static String outcome(java.util.function.Supplier<Object> evaluated) {
        try {
            return String.valueOf(evaluated.get());
        } catch (DivisionByZero e) {
            return e.getMessage();
        }
    }

    @Test
    void random_conditions_come_to_what_the_evaluator_says() {
        int compiled = 0;
        int divided = 0;
        for (int trial = 0; trial < 4_000; trial++) {
            TypedBatch batch = batch();
            Expression expression = condition(random.nextInt(5));
            CompiledCondition condition = new CompiledCondition(expression);
            compiled += condition.isCompiled() ? 1 : 0;
            condition.start(batch);
            BatchEvaluator evaluator = new BatchEvaluator();
            evaluator.start(batch);
            for (int row = 0; row < batch.size(); row++) {
                int at = row;
                String expected = outcome(() -> {
                    Object value = evaluator.evaluate(expression, at);
                    return value == null ? "UNKNOWN" : (Boolean) value ? "TRUE" : "FALSE";
                });
                divided += expected.equals("division by zero") ? 1 : 0;
                assertThat(outcome(() -> condition.at(at)))
                        .as("trial %d, row %d: %s", trial, row, expression)
                        .isEqualTo(expected);
            }
        }
        assertThat(compiled).isGreaterThan(2_500);
        assertThat(divided).isGreaterThan(500);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a%c | abc | true", "a%c | abd | false", "_ | é | true", "__ | é | false", "%é | ééé | true",
                "_%_ | é | false", "% | '' | true", "_ | \uD83D\uDC1D | true", "a!%b | a%b | true",
                        "a!%b | axb | false",
                "%aab | aaaab | true", "\uD83D\uDC1D% | \uD83D\uDC1Dx | true", "%\uD83D\uDC1E | \uD83D\uDC1D | false"
            })
    void patterns_match_bytes_as_they_match_texts(String pattern, String text, boolean matches) {
        LikePattern like = LikePattern.of(pattern, "!");
        byte[] utf8 = ("x" + text + "yz").getBytes(java.nio.charset.StandardCharsets.UTF_8);
        assertThat(like.matches(text)).isEqualTo(matches);
        assertThat(like.matches(utf8, 1, utf8.length - 3)).isEqualTo(matches);
    }
}
