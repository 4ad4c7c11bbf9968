package taxiomet.charter;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Spellings of types, ranges and words that are nearly right. */
class ColumnTypeTest {
    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    INT;                         integer
                    int4;                        integer
                    int2;                        smallint
                    int8;                        bigint
                    decimal(9, 2);               numeric(9,2)
                    dec(9);                      numeric(9,0)
                    numeric;                     numeric
                    float;                       double precision
                    float(24);                   real
                    float(25);                   double precision
                    float4;                      real
                    double;                      double precision
                    DOUBLE   PRECISION;          double precision
                    bool;                        boolean
                    char;                        char(1)
                    character(3);                char(3)
                    bpchar(3);                   char(3)
                    character varying(20);       varchar(20)
                    nvarchar(20);                varchar(20)
                    varchar;                     varchar
                    clob;                        text
                    datetime;                    timestamp
                    timestamp(3);                timestamp(3)
                    timestamp without time zone; timestamp
                    timestamptz;                 timestamp with time zone
                    timestamptz(0);              timestamp(0) with time zone
                    timestamp(0) with time zone; timestamp(0) with time zone
                    time(2) without time zone;   time(2)
                    """)
    void a_type_has_many_spellings(String spelling, String sql) {
        assertThat(ColumnType.parse(spelling).orElseThrow().sql()).isEqualTo(sql);
        assertThat(ColumnType.parse(sql).orElseThrow())
                .isEqualTo(ColumnType.parse(spelling).orElseThrow());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "integr",
                "integer(3)",
                "numeric(0)",
                "numeric(2,3)",
                "numeric(1001)",
                "numeric(1,2,3)",
                "char(0)",
                "varchar(10485761)",
                "varchar(3,2)",
                "text(3)",
                "timestamp(7)",
                "time with time zone",
                "date with time zone",
                "float(54)",
                "float(0)",
                "double(3)",
                "varchar(-1)",
                "numeric(9999999999)"
            })
    void what_is_no_type_is_none(String spelling) {
        assertThat(ColumnType.parse(spelling)).isEmpty();
    }

    @Test
    void every_spelling_listed_is_one() {
        assertThat(ColumnType.spellings())
                .allMatch(s -> ColumnType.parse(s).isPresent())
                .isSorted();
    }

    @ParameterizedTest
    @CsvSource({
        "integer, numeric, true", "integer, real, true", "integer, text, false", "char(2), text, true",
        "date, timestamp, true", "timestamp, timestamptz, false", "time, timestamp, false", "uuid, text, false",
        "boolean, integer, false", "boolean, boolean, true"
    })
    void values_of_one_family_can_be_equal(String one, String other, boolean areComparable) {
        ColumnType.Family first = ColumnType.parse(one).orElseThrow().family();
        ColumnType.Family second = ColumnType.parse(other).orElseThrow().family();
        assertThat(first.isComparableWith(second)).isEqualTo(areComparable);
        assertThat(second.isComparableWith(first)).isEqualTo(areComparable);
    }

    @ParameterizedTest
    @CsvSource({
        "1..40, 1, 40",
        "1.., 1, 9223372036854775807",
        "..40, 0, 40",
        "2, 2, 2",
        "' 1 .. 3 ', 1, 3",
        "0..0, 0, 0"
    })
    void a_range_has_two_ends(String text, long least, long most) {
        IntRange range = IntRange.parse(text).orElseThrow();
        assertThat(range).isEqualTo(new IntRange(least, most));
        assertThat(range.contains(least)).isTrue();
        assertThat(range.contains(most)).isTrue();
        assertThat(range.contains(least - 1)).isFalse();
        assertThat(IntRange.parse(range.toString())).contains(range);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "..", "3..1", "a", "1...2", "-1..3", "1,2", "1234567890123456789012"})
    void what_is_no_range_is_none(String text) {
        assertThat(IntRange.parse(text)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "apairy, apiary",
        "APIARY, apiary",
        "apiry, apiary",
        "hives, hive",
        "keeper-id, keeper_id",
        "keep, keeper_id",
        "hive_number, hive",
        "xyz, ''",
        "a, ''",
        "ap, ''"
    })
    void the_nearest_word_is_named_where_one_is_near(String word, String meant) {
        assertThat(NearestWord.of(word, List.of("apiary", "hive", "keeper_id")).orElse(""))
                .isEqualTo(meant);
    }

    @Test
    void very_long_words_have_no_neighbours() {
        assertThat(NearestWord.of("a".repeat(500), List.of("apiary"))).isEmpty();
        assertThat(NearestWord.of("apiary", List.of("a".repeat(500)))).isEmpty();
        assertThat(NearestWord.differences("a".repeat(81), "a")).isEqualTo(Integer.MAX_VALUE);
        assertThat(NearestWord.differences("hive", "hvie")).isEqualTo(1);
        assertThat(NearestWord.differences("hive", "HIVE")).isZero();
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    smallint;      integer;        true
                    bigint;        integer;        false
                    integer;       numeric(12,2);  true
                    integer;       numeric(11,2);  false
                    numeric(9,2);  numeric(10,2);  true
                    numeric(9,2);  numeric(10,1);  false
                    numeric(9,2);  numeric(9,3);   false
                    numeric;       numeric(9,3);   false
                    numeric(9,2);  integer;        false
                    varchar(5);    text;           true
                    varchar(5);    char(5);        true
                    varchar(6);    varchar(5);     false
                    text;          varchar(5);     false
                    text;          varchar;        true
                    date;          date;           true
                    date;          timestamp;      false
                    timestamp(0);  timestamp;      true
                    timestamp;     timestamp(0);   false
                    integer;       varchar(20);    false
                    real;          double;         false
                    """)
    void a_type_lies_within_another_or_not(String type, String other, boolean isWithin) {
        assertThat(ColumnType.parse(type)
                        .orElseThrow()
                        .isWithin(ColumnType.parse(other).orElseThrow()))
                .isEqualTo(isWithin);
    }
}
