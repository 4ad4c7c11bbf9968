package taxiomet.values;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Column;
import taxiomet.charter.ColumnType;
import taxiomet.charter.Comparison;
import taxiomet.charter.Severity;

/** Which texts are values of which types, and why others are not. */
class ValueReaderTest {
    private static ValueReader reader(String type, String format, boolean decimalComma) {
        Column column = new Column(
                "x",
                ColumnType.parse(type).orElseThrow(),
                false,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                Comparison.EXACT,
                Optional.ofNullable(format),
                decimalComma,
                Optional.empty(),
                Column.Generated.NEVER,
                false,
                false,
                false,
                Severity.ERROR);
        return ValueReader.of(column);
    }

    private static String read(ValueReader reader, String text) {
        byte[] utf8 = text.getBytes(StandardCharsets.UTF_8);
        return switch (reader.read(utf8, 0, utf8.length)) {
            case TypedColumn.GOOD -> "good";
            case TypedColumn.ODD -> "odd";
            default -> reader.refusal().name();
        };
    }

    @ParameterizedTest
    @CsvSource(quoteCharacter = '"', delimiter = '|', ignoreLeadingAndTrailingWhitespace = false, textBlock = """
                    smallint|32767|good
                    smallint|32768|OUT_OF_RANGE
                    integer|-2147483648|good
                    integer|3000000000|OUT_OF_RANGE
                    integer|007|odd
                    integer|+7|odd
                    integer| 7|odd
                    integer|-0|odd
                    integer|1.0|HAS_A_FRACTION
                    integer|1e3|HAS_A_FRACTION
                    integer|1_000|NOT_A_WHOLE_NUMBER
                    integer|٣|NOT_A_WHOLE_NUMBER
                    integer|-|NOT_A_WHOLE_NUMBER
                    integer|""|EMPTY_TEXT
                    bigint|-9223372036854775808|good
                    bigint|9223372036854775808|OUT_OF_RANGE
                    bigint|99999999999999999999|OUT_OF_RANGE
                    numeric(6,2)|1234.56|good
                    numeric(6,2)|12.345|WOULD_BE_ROUNDED
                    numeric(6,2)|12.340|odd
                    numeric(6,2)|12345.6|TOO_MANY_DIGITS
                    numeric(6,2)|1e3|odd
                    numeric(6,2)|1e4|TOO_MANY_DIGITS
                    numeric(6,2)|1e-3|WOULD_BE_ROUNDED
                    numeric(6,2)|NaN|NOT_A_NUMBER
                    numeric(6,2)|1,5|NOT_A_NUMBER
                    numeric|0.1234567890123456789012345678901234567890|good
                    numeric|1e999999999999|OUT_OF_RANGE
                    numeric|0e999999999999|odd
                    real|3.5e38|OUT_OF_RANGE
                    double precision|1e400|OUT_OF_RANGE
                    double precision|-Infinity|good
                    double precision|1.5f|NOT_A_NUMBER
                    double precision|0x1p3|NOT_A_NUMBER
                    boolean|true|good
                    boolean|YES|odd
                    boolean|2|NOT_A_BOOLEAN
                    char(2)|ab   |good
                    char(2)|abc|TOO_LONG
                    varchar(2)|ab |TOO_LONG
                    varchar(2)|😀é|good
                    date|2023-02-05|good
                    date|20230205|odd
                    date|2024-02-29|good
                    date|2023-02-29|NO_SUCH_DAY
                    date|0000-01-01|NO_SUCH_DAY
                    date|2023-02-05 00:00|HAS_A_TIME
                    date|2023-2-5|NOT_A_DATE
                    time|09:30|good
                    time|24:00|NO_SUCH_TIME
                    time|09:30:60|NO_SUCH_TIME
                    time|09:30:15.1234567|TOO_PRECISE
                    timestamp|2023-02-05|odd
                    timestamp|2023-02-05T09:30|good
                    timestamp|2023-02-05 09:30:15.123456|good
                    timestamp(3)|2023-02-05 09:30:15.1234|TOO_PRECISE
                    timestamp|2023-02-05 09:30Z|HAS_A_ZONE
                    timestamp with time zone|2023-02-05 09:30Z|good
                    timestamp with time zone|2023-02-05 09:30+01:30|good
                    timestamp with time zone|2023-02-05 09:30|odd
                    timestamp with time zone|2023-02-05 09:30+25|NO_SUCH_TIME
                    uuid|0f0e0d0c-0b0a-4908-8706-050403020100|good
                    uuid|{0F0E0D0C0B0A49088706050403020100}|odd
                    uuid|0f0e0d0c-0b0a-4908-8706-05040302010|NOT_A_UUID
                    """)
    void a_text_is_a_value_of_its_type_or_breaks_a_rule(String type, String text, String expected) {
        assertThat(read(reader(type, null, false), text == null ? "" : text)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                    integer                  | 007        | 7
                    numeric                  | 1.50       | 1.5
                    numeric                  | 15e-1      | 1.5
                    numeric(20,0)            | 9223372036854775807 | 9.223372036854775807e18
                    double precision         | -0         | 0
                    date                     | 20230205   | 2023-02-05
                    timestamp                | 2023-02-05 | 2023-02-05T00:00:00.000
                    timestamp with time zone | 2023-02-05 09:30+01 | 2023-02-05 08:30Z
                    uuid                     | {0F0E0D0C0B0A49088706050403020100} | 0f0e0d0c-0b0a-4908-8706-050403020100
                    boolean                  | on         | t
                    """)
    void other_spellings_are_the_same_value(String type, String one, String other) {
        ValueReader first = reader(type, null, false);
        ValueReader second = reader(type, null, false);
        assertThat(first.accepts(one)).isTrue();
        assertThat(second.accepts(other)).isTrue();
        assertThat(first.high()).isEqualTo(second.high());
        assertThat(first.low()).isEqualTo(second.low());
    }

    @ParameterizedTest
    @CsvSource({
        "date, dd.MM.yyyy, 05.02.2023, good",
        "date, dd.MM.yyyy, 30.02.2023, NO_SUCH_DAY",
        "date, dd.MM.yyyy, 2023-02-05, NOT_IN_FORMAT",
        "date, d MMM yyyy, 5 feb 2023, good",
        "time, HHmm, 0930, good",
        "timestamp(0), dd.MM.yyyy HH:mm:ss.SSS, 05.02.2023 09:30:15.250, TOO_PRECISE"
    })
    void a_declared_format_is_the_only_one(String type, String format, String text, String expected) {
        assertThat(read(reader(type, format, false), text)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {"1234,50|good", "1234.50|NOT_A_NUMBER", "1.234,50|NOT_A_NUMBER"})
    void a_decimal_comma_takes_the_place_of_the_point(String text, String expected) {
        assertThat(read(reader("numeric(8,2)", null, true), text)).isEqualTo(expected);
    }

    @Test
    void a_boolean_is_one_of_its_words_and_nothing_near_them() {
        ValueReader reader = reader("boolean", null, false);
        for (String word : List.of("true", "T", "1", "yes", "Y", "On", "FALSE", "f", "0", "no", "N", "oFF", " t ")) {
            assertThat(reader.accepts(word)).as(word).isTrue();
        }
        for (String word : List.of(
                "\0t", "\0" + "1", "t\0", "tr", "ye", "o", "yess", "faLsch", "ý", "10", "00", " ", "t t", "ÿes")) {
            assertThat(reader.accepts(word)).as(word).isFalse();
        }
    }
}
