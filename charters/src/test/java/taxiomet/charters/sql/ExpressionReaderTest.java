package taxiomet.charters.sql;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.math.BigDecimal;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Expression;
import taxiomet.charter.Expression.ColumnValue;
import taxiomet.charter.Table;
import taxiomet.expression.Evaluator;

/** What conditions come to for one row, and which are refused since a part of them would be dropped. */
class ExpressionReaderTest {
    /** One row: a = 5, b = 2.50, t = 'Fern', q is null, y = true, d = 2024-05-06, c = 'ab' in a char(4). */
    private static final Object[] ROW = {
        new BigDecimal(5), new BigDecimal("2.50"), "Fern", null, true, 1_714_953_600_000_000L, "ab", new BigDecimal(7)
    };

    private static final Table TABLE = Tables.table(
            "t",
            "a integer",
            "b numeric(6,2)",
            "t text",
            "q integer",
            "y boolean",
            "d date",
            "c char(4)",
            "year integer");

    private static ExpressionReader reader() {
        return new ExpressionReader("t", Tables.named(TABLE), Set.of());
    }

    private static Object value(String condition) throws ExpressionException {
        Expression read = reader().readCondition(condition);
        return new Evaluator().evaluate(read, leaf -> ROW[((ColumnValue) leaf).column()]);
    }

    private static String problem(String condition) {
        ExpressionException e =
                catchThrowableOfType(ExpressionException.class, () -> reader().readCondition(condition));
        assertThat(e).as(condition).isNotNull();
        return e.words();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', nullValues = "unknown", textBlock = """
                    a = 5                                       | true
                    a <> 5                                      | false
                    a != 4 AND NOT a = 4                        | true
                    a + 2 * 3 = 11                              | true
                    (a + 2) * 3 = 21                            | true
                    a - 2 - 1 = 2                               | true
                    a / 2 = 2                                   | true
                    b / 2 = 1.25                                | true
                    -a = -5                                     | true
                    - -a = 5                                    | true
                    q = 1                                       | unknown
                    q IS NULL                                   | true
                    q ISNULL                                    | true
                    q NOTNULL                                   | false
                    a NOTNULL                                   | true
                    a IS NOT NULL AND q IS NULL                 | true
                    q = 1 IS NULL                               | true
                    y                                           | true
                    y IS TRUE                                   | true
                    y IS NOT TRUE                               | false
                    (q = 1) IS UNKNOWN                          | true
                    (q = 1) IS FALSE                            | false
                    q IS DISTINCT FROM a                        | true
                    q IS NOT DISTINCT FROM NULL                 | true
                    a IS DISTINCT FROM 5                        | false
                    a BETWEEN 5 AND 6                           | true
                    a NOT BETWEEN 5 AND 6                       | false
                    a IN (1, 5, q)                              | true
                    a IN (1, q)                                 | unknown
                    a NOT IN (1, 2)                             | true
                    a = ANY (ARRAY[1, 5])                       | true
                    t = ANY ((ARRAY['a'::character varying, 'Fern'::text])::text[]) | true
                    t <> ALL (ARRAY['a', 'b'])                  | true
                    t LIKE 'F%'                                 | true
                    t LIKE 'f%'                                 | false
                    t LIKE 'F!%' ESCAPE '!'                     | false
                    t NOT LIKE '%x%'                            | true
                    lower(t) = 'fern'                           | true
                    char_length(t) = 4                          | true
                    TRIM(BOTH FROM t) = 'Fern'                  | true
                    coalesce(q, a) = 5                          | true
                    d = DATE '2024-05-06'                       | true
                    d = '2024-05-06'                            | true
                    d < TIMESTAMP '2024-05-06 00:00:01'         | true
                    d = CAST('2024-05-06' AS date)              | true
                    d > '2024-01-01'::date                      | true
                    (t)::text = 'Fern'::character varying       | true
                    b >= (0)::numeric                           | true
                    c = 'ab  '                                  | true
                    year > 6 AND t.year < 8                     | true
                    "year" = 7                                  | true
                    a = 5 OR a = 1 AND a = 2                    | true
                    NOT a = 5 OR y                              | true
                    t = E'\\x46ern'                             | true
                    t = E'\\106\\145rn'                         | true
                    a = 5 -- a remark                           | true
                    a /* one */ = 5                             | true
                    TRUE                                        | true
                    NULL                                        | unknown
                    """)
    void a_condition_has_the_value_that_SQL_gives_it(String condition, Boolean expected) throws Exception {
        assertThat(value(condition)).as(condition).isEqualTo(expected);
    }

    /** Each of these was read once, and a part of it dropped. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "a BETWEEN SYMMETRIC 6 AND 5",
                "a BETWEEN ASYMMETRIC 5 AND 6",
                "a (+) = 5",
                "prior a = 5",
                "coalesce(a, 1 ORDER BY b) = 5",
                "length(t).x = 4",
                "a[1] = 2",
                "a = 5 LIMIT 1",
                "t = q'[Fern]'",
                "t = 'Fern' COLLATE \"C\"",
                "a = 5 PREFERRING b",
                "t ILIKE 'f%'",
                "t REGEXP 'F'",
                "t ~ 'F'",
                "a # 1 = 4",
                "a % 2 = 1",
                "a == 5",
                "a <=> 5",
                "a = ANY ('{1,5}')",
                "EXISTS (SELECT 1)",
                "a IN (SELECT a FROM t)",
                "CASE WHEN a = 5 THEN y END",
                "a = 5 b",
                "a = 0x5",
                "t = X'46'",
                "t = U&'Fern'",
                "d = INTERVAL '1 day'",
                "a = 1 = y",
                "a = 5 /*! AND b = 1 */",
                "count(*) > 1",
                "length(DISTINCT t) = 4",
                "a = DEFAULT",
                "trim(LEADING FROM t) = 'Fern'",
                "a IN ()",
                "a IN 5",
                "a = 5 AND",
                "(a = 5",
                "a = 5)",
                "a =",
                "'Fern' 'x' = t"
            })
    void what_is_not_understood_is_refused(String condition) {
        assertThat(problem(condition)).isNotEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
                    a = 5 LIMIT 1      | this part is not read: `LIMIT 1`
                    order = 1          | `order` is a word of SQL: a column of that name stands in double quotes
                    "order" = 1        | there is no column `order`
                    yeer = 1           | there is no column `yeer`
                    a                  | a number stands where something true or false is needed
                    a = 'x'            | a number cannot be compared with a text
                    t + 1 = 2          | a text cannot be reckoned with (`+` needs numbers)
                    -t = 1             | a text has no sign
                    d = '2024-02-30'   | '2024-02-30' is a day that no calendar has
                    median(a) = 1      | there is no function `median`
                    u.a = 5            | there is no link `u`
                    CAST(b AS integer) = 2   | `b` as integer is not read: only what keeps its value is
                    CAST(2.5 AS integer) = 2 | `2.5` as integer is not read: only what keeps its value is
                    CAST('abc' AS varchar(2)) = t | 'abc' is more characters than the type holds
                    t LIKE 'a' ESCAPE 'xy' | ESCAPE needs one character in quotes
                    """)
    void a_refusal_says_what_it_is_about(String condition, String expected) {
        assertThat(problem(condition)).isEqualTo(expected);
    }

    @Test
    void two_bars_join_texts() throws Exception {
        assertThat(value("t || '!' || t = 'Fern!Fern'")).isEqualTo(true);
        assertThat(value("t || NULL = 'Fern'")).isNull();
        assertThat(problem("t || a = 'x'")).isEqualTo("a number stands where a text is needed");
    }

    @Test
    void a_constant_that_divides_by_zero_is_refused_where_it_is_cast() {
        assertThat(problem("a = (1 / 0)::integer")).isEqualTo("this divides by zero");
    }

    @Test
    void comparisons_beside_each_other_ask_for_parentheses() {
        assertThat(problem("a = b IN (1, 2)")).contains("servers differ").contains("parentheses");
    }

    /** All words that PostgreSQL keeps are refused without quotes, and taken in them; all others are names. */
    @Test
    void only_reserved_words_need_quotes() throws Exception {
        for (String word : "select from order user left natural analyse verbose".split(" ")) {
            Map<String, Table> tables = Tables.named(Tables.table("t", word + " integer"));
            ExpressionReader reader = new ExpressionReader("t", tables, Set.of());
            assertThat(catchThrowableOfType(ExpressionException.class, () -> reader.readCondition(word + " = 1")))
                    .as(word)
                    .isNotNull();
            assertThat(reader.readCondition('"' + word + "\" = 1")).as(word).isNotNull();
        }
        for (String word :
                ("sample statement file force import current prior returns unknown csv exists between year month day"
                                + " hour minute second number map real precision values interval date time timestamp length lower"
                                + " trim position row char cast_ escape set value key")
                        .split(" ")) {
            Map<String, Table> tables = Tables.named(Tables.table("t", word + " integer"));
            ExpressionReader reader = new ExpressionReader("t", tables, Set.of());
            for (String condition : new String[] {
                word + " >= 1990",
                "1990 <= " + word,
                word + " between 1 and 2",
                "(" + word + ") in (1, " + word + ")",
                word + " is null or not " + word + " = 1",
                "t." + word + " + 1 > " + word + " * 2",
                "coalesce(" + word + ", 0) = -" + word
            }) {
                assertThat(reader.readCondition(condition).columnsRead())
                        .as(condition)
                        .containsExactly(0);
            }
        }
    }

    @Test
    void long_chains_are_read_and_deep_nests_are_refused() throws Exception {
        String many = IntStream.range(0, 200).mapToObj(i -> "a = " + i).collect(Collectors.joining(" OR "));
        assertThat(value(many)).isEqualTo(true);
        assertThat(value("q IS NULL AND ".repeat(100) + "y")).isEqualTo(true);
        assertThat(problem("(".repeat(50) + "y" + ")".repeat(50))).contains("nested deeper");
        assertThat(problem("NOT ".repeat(50) + "y")).contains("nested deeper");
        assertThat(problem("a = " + "- ".repeat(50) + "1")).contains("nested deeper");
        assertThat(problem("y".repeat(4_001))).contains("longer than can be read");
    }

    @Test
    void a_total_is_a_number_over_the_rows_themselves() throws Exception {
        assertThat(reader().readNumber("b * 12.50").type()).isEqualTo(Expression.Type.DECIMAL);
        assertThat(catchThrowableOfType(ExpressionException.class, () -> reader().readNumber("t")))
                .hasMessage("this gives a text, not a number");
    }
}
