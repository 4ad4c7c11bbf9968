package taxiomet.expression;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static taxiomet.testing.Expressions.FALSE;
import static taxiomet.testing.Expressions.TRUE;
import static taxiomet.testing.Expressions.UNKNOWN;
import static taxiomet.testing.Expressions.column;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.is;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.reckoned;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.Expressions.whole;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.And;
import taxiomet.charter.Expression.Between;
import taxiomet.charter.Expression.Call;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Expression.Comparator;
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

/** What expressions come to: SQL's three-valued logic, exact numbers, texts by code point. */
class EvaluatorTest {
    private static final Map<String, Expression> TRUTH = Map.of("T", TRUE, "F", FALSE, "U", UNKNOWN);

    private static Object value(Expression expression) {
        return new Evaluator().evaluate(expression, leaf -> {
            throw new AssertionError("asks for " + leaf);
        });
    }

    private static String truth(Object value) {
        return value == null ? "U" : (Boolean) value ? "T" : "F";
    }

    private static Expression at(String text) {
        return text.equals("U") ? UNKNOWN : number(text);
    }

    /** ISO/IEC 9075-2, 8.20, tables of AND, OR and NOT. */
    @ParameterizedTest
    @CsvSource({
        "T,T,T,T,F", "T,F,F,T,F", "T,U,U,T,F",
        "F,T,F,T,T", "F,F,F,F,T", "F,U,F,U,T",
        "U,T,U,T,U", "U,F,F,U,U", "U,U,U,U,U"
    })
    void truth_has_three_values(String left, String right, String and, String or, String not) {
        assertThat(truth(value(new And(List.of(TRUTH.get(left), TRUTH.get(right))))))
                .isEqualTo(and);
        assertThat(truth(value(new Or(List.of(TRUTH.get(left), TRUTH.get(right))))))
                .isEqualTo(or);
        assertThat(truth(value(new Not(TRUTH.get(left))))).isEqualTo(not);
        assertThat(value(new IsNull(TRUTH.get(left)))).isEqualTo(left.equals("U"));
    }

    @ParameterizedTest
    @CsvSource({
        "1, 1, T,F,F,T,F,T",
        "1, 2, F,T,T,T,F,F",
        "2, 1, F,T,F,F,T,T",
        "1, 1.00, T,F,F,T,F,T",
        "0.1, 0.10000000000000000000000001, F,T,T,T,F,F",
        "-5, 5, F,T,T,T,F,F",
        "U, 1, U,U,U,U,U,U",
        "1, U, U,U,U,U,U,U"
    })
    void numbers_compare_by_value(
            String left, String right, String eq, String ne, String lt, String le, String gt, String ge) {
        List<String> all = new ArrayList<>();
        for (Comparator comparator : Comparator.values()) {
            all.add(truth(value(is(comparator, at(left), at(right)))));
        }
        assertThat(all).containsExactly(eq, ne, lt, le, gt, ge);
    }

    @Test
    void texts_compare_by_code_point_and_case_counts() {
        assertThat(value(is(Comparator.LESS, text("B"), text("a")))).isEqualTo(true);
        assertThat(value(is(Comparator.LESS, text("ab"), text("abc")))).isEqualTo(true);
        assertThat(value(equal(text("é"), text("e\u0301")))).isEqualTo(false);
        // U+1F41D stands behind U+FB01, though its first UTF-16 unit is less.
        assertThat(value(is(Comparator.GREATER, text("\uD83D\uDC1D"), text("\uFB01"))))
                .isEqualTo(true);
        assertThat(value(is(Comparator.LESS, text("\uFB01"), text("\uD83D\uDC1D"))))
                .isEqualTo(true);
        assertThat(value(is(Comparator.LESS, text("\uD83D\uDC1D"), text("\uD83D\uDC1E"))))
                .isEqualTo(true);
    }

    @Test
    void an_exact_number_meets_a_binary_one_as_a_binary_one() {
        Expression tenth = new Literal(0.1, Type.APPROXIMATE);
        assertThat(value(equal(number("0.1"), tenth))).isEqualTo(true);
        assertThat(value(equal(new Literal(-0.0, Type.APPROXIMATE), number("0"))))
                .isEqualTo(true);
        assertThat(value(is(Comparator.GREATER, new Literal(Double.NaN, Type.APPROXIMATE), number("1e300"))))
                .isEqualTo(true);
    }

    @Test
    void moments_and_truth_values_have_an_order() {
        Expression earlier = new Literal(1_000L, Type.MOMENT);
        Expression later = new Literal(2_000L, Type.MOMENT);
        assertThat(value(is(Comparator.LESS, earlier, later))).isEqualTo(true);
        assertThat(value(is(Comparator.GREATER_OR_EQUAL, earlier, later))).isEqualTo(false);
        assertThat(value(is(Comparator.LESS, FALSE, TRUE))).isEqualTo(true);
    }

    @ParameterizedTest
    @CsvSource({
        "7, PLUS, 2, 9",
        "7, MINUS, 9, -2",
        "7, TIMES, -3, -21",
        "7, DIVIDED_BY, 2, 3",
        "-7, DIVIDED_BY, 2, -3",
        "U, PLUS, 2, U",
        "7, TIMES, U, U",
        "U, DIVIDED_BY, 0, U",
        "99999999999999999999, TIMES, 99999999999999999999, 9999999999999999999800000000000000000001"
    })
    void whole_numbers_stay_whole(String left, Operator operator, String right, String expected) {
        Object result = value(reckoned(at(left), operator, at(right), Type.INTEGER));
        assertThat(result).isEqualTo(expected.equals("U") ? null : new BigDecimal(expected));
    }

    @Test
    void exact_quotients_have_sixty_digits_at_least() {
        BigDecimal third = (BigDecimal) value(reckoned(number("1.0"), Operator.DIVIDED_BY, number("3"), Type.DECIMAL));
        assertThat(third.precision()).isEqualTo(60);
        assertThat(third.toPlainString()).startsWith("0.33333333333333333333333333333333");
        BigDecimal exact = (BigDecimal) value(reckoned(number("1.0"), Operator.DIVIDED_BY, number("8"), Type.DECIMAL));
        assertThat(exact).isEqualByComparingTo("0.125");
    }

    @Test
    void binary_arithmetic_is_that_of_doubles() {
        Expression half = new Literal(0.5, Type.APPROXIMATE);
        assertThat(value(reckoned(half, Operator.PLUS, number("1"), Type.APPROXIMATE)))
                .isEqualTo(1.5);
        assertThat(value(reckoned(half, Operator.MINUS, number("1"), Type.APPROXIMATE)))
                .isEqualTo(-0.5);
        assertThat(value(reckoned(half, Operator.TIMES, number("3"), Type.APPROXIMATE)))
                .isEqualTo(1.5);
        assertThat(value(reckoned(number("1"), Operator.DIVIDED_BY, half, Type.APPROXIMATE)))
                .isEqualTo(2.0);
    }

    @Test
    void a_division_by_zero_is_no_value() {
        assertThatThrownBy(() -> value(reckoned(number("1"), Operator.DIVIDED_BY, number("0"), Type.INTEGER)))
                .isInstanceOf(DivisionByZero.class);
        assertThatThrownBy(() -> value(reckoned(number("1.5"), Operator.DIVIDED_BY, number("0.0"), Type.DECIMAL)))
                .isInstanceOf(DivisionByZero.class);
        Expression zero = new Literal(0.0, Type.APPROXIMATE);
        assertThatThrownBy(() -> value(reckoned(zero, Operator.DIVIDED_BY, zero, Type.APPROXIMATE)))
                .isInstanceOf(DivisionByZero.class);
    }

    @Test
    void what_is_decided_already_is_not_evaluated() {
        Expression fails = equal(reckoned(number("1"), Operator.DIVIDED_BY, number("0"), Type.INTEGER), number("1"));
        assertThat(value(new And(List.of(FALSE, fails)))).isEqualTo(false);
        assertThat(value(new Or(List.of(TRUE, fails)))).isEqualTo(true);
        assertThat(value(new Call(FunctionName.COALESCE, List.of(number("1"), fails), Type.INTEGER)))
                .isEqualTo(new BigDecimal(1));
    }

    @ParameterizedTest
    @CsvSource({
        "2, '1,2,3', T",
        "4, '1,2,3', F",
        "4, '1,U,3', U",
        "3, '1,U,3', T",
        "U, '1,2', U",
        "2, '2.0', T",
        "U, 'U', U"
    })
    void in_is_unknown_where_a_null_could_be_it(String operand, String list, String expected) {
        List<Expression> elements =
                List.of(list.split(",")).stream().map(EvaluatorTest::at).toList();
        assertThat(truth(value(new In(at(operand), elements)))).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({
        "2, 1, 3, T",
        "1, 1, 3, T",
        "3, 1, 3, T",
        "0, 1, 3, F",
        "4, 1, 3, F",
        "2, 3, 1, F",
        "U, 1, 3, U",
        "2, U, 3, U",
        "4, U, 3, F",
        "0, 1, U, F",
        "2, 1, U, U"
    })
    void between_takes_both_ends_in(String operand, String low, String high, String expected) {
        assertThat(truth(value(new Between(at(operand), at(low), at(high))))).isEqualTo(expected);
    }

    @Test
    void functions_work_on_characters_and_pass_null_on() {
        assertThat(call(FunctionName.LENGTH, text("a\uD83D\uDC1Db"))).isEqualTo(new BigDecimal(3));
        assertThat(call(FunctionName.LENGTH, text(""))).isEqualTo(new BigDecimal(0));
        assertThat(call(FunctionName.UPPER, text("heather"))).isEqualTo("HEATHER");
        assertThat(call(FunctionName.LOWER, text("ÄB"))).isEqualTo("äb");
        assertThat(call(FunctionName.TRIM, text("  a b\t "))).isEqualTo("a b\t");
        assertThat(call(FunctionName.TRIM, text("   "))).isEqualTo("");
        for (FunctionName function : FunctionName.values()) {
            assertThat(call(function, UNKNOWN)).as(function.word()).isNull();
        }
        assertThat(value(new Call(FunctionName.COALESCE, List.of(UNKNOWN, text("b"), text("c")), Type.TEXT)))
                .isEqualTo("b");
    }

    private static Object call(FunctionName function, Expression argument) {
        return value(new Call(function, List.of(argument), Type.TEXT));
    }

    @Test
    void texts_join_unless_one_is_null() {
        assertThat(value(new Joined(List.of(text("a"), text(""), text("b"))))).isEqualTo("ab");
        assertThat(value(new Joined(List.of(text("a"), UNKNOWN)))).isNull();
    }

    @Test
    void a_minus_turns_numbers_round() {
        assertThat(value(new Negation(number("5")))).isEqualTo(new BigDecimal(-5));
        assertThat(value(new Negation(UNKNOWN))).isNull();
        assertThat(value(new Negation(new Literal(0.0, Type.APPROXIMATE)))).isEqualTo(0.0);
        assertThat(value(new Negation(new Literal(2.5, Type.APPROXIMATE)))).isEqualTo(-2.5);
    }

    @Test
    void leaves_are_asked_of_whoever_knows_them() {
        Expression sum = reckoned(whole(3), Operator.PLUS, column(1, Type.INTEGER), Type.INTEGER);
        Object value = new Evaluator().evaluate(sum, leaf -> BigDecimal.valueOf(((ColumnValue) leaf).column() * 10L));
        assertThat(value).isEqualTo(new BigDecimal(40));
        assertThat(sum.columnsRead()).containsExactly(1, 3);
    }

    @Test
    void a_null_makes_like_unknown() {
        assertThat(value(new Like(UNKNOWN, text("a"), Optional.empty()))).isNull();
        assertThat(value(new Like(text("a"), UNKNOWN, Optional.empty()))).isNull();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '"', textBlock = """
                    heather | heather   |    | true
                    heather | Heather   |    | false
                    heather | h%        |    | true
                    heather | %er       |    | true
                    heather | %eat%     |    | true
                    heather | h_ather   |    | true
                    heather | h_r       |    | false
                    heather | %         |    | true
                    ""      | %         |    | true
                    ""      | ""        |    | true
                    ""      | _         |    | false
                    heather | %%h%%     |    | true
                    aab     | %ab       |    | true
                    aaab    | a%a%ab    |    | true
                    ab      | a%b%c     |    | false
                    10%     | 10!%      | !  | true
                    100     | 10!%      | !  | false
                    a_b     | a!_b      | !  | true
                    axb     | a!_b      | !  | false
                    a!b     | a!!b      | !  | true
                    a!      | a!        | !  | true
                    a\\b    | a\\b      |    | true
                    🐝x     | _x        |    | true
                    🐝🐝    | _         |    | false
                    a.c     | a.c       |    | true
                    abc     | a.c       |    | false
                    """)
    void like_takes_percent_for_any_and_underscore_for_one(
            String text, String pattern, String escape, boolean expected) {
        assertThat(value(new Like(
                        text(text), text(pattern), Optional.ofNullable(escape).map(e -> text(e)))))
                .isEqualTo(expected);
    }

    @Test
    void no_pattern_of_like_takes_more_than_its_length_times_the_text() {
        String text = "a".repeat(20_000);
        assertThat(value(new Like(text(text), text("%a".repeat(200) + "b"), Optional.empty())))
                .isEqualTo(false);
        assertThat(value(new Like(text(text), text("%a".repeat(200) + "%"), Optional.empty())))
                .isEqualTo(true);
    }
}
