package taxiomet.reports;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class FileNamesTest {
    @Test
    void no_value_makes_a_name_that_some_system_refuses_or_takes_for_something_else() {
        for (String value : List.of(
                "CON",
                "aux",
                "nul.txt",
                "com1",
                "LPT9.csv",
                "COM¹",
                "-rf",
                "--help",
                "a.",
                "a...",
                ". .",
                "..",
                "",
                "/etc/passwd",
                "..\\..\\x",
                "a:b",
                "a\0b",
                "line\nline",
                "é".repeat(200),
                "\uD83D\uDC1D".repeat(99),
                "界".repeat(90))) {
            String name = FileNames.plain(value);
            assertThat(name)
                    .as(value)
                    .doesNotMatch("(?i)(con|prn|aux|nul|com[0-9¹]|lpt[0-9])([.].*)?")
                    .doesNotMatch("[.-].*|.*[. ]")
                    .matches("[\\p{L}\\p{N}_.-]+");
            assertThat(name.getBytes(StandardCharsets.UTF_8)).as(value).hasSizeLessThanOrEqualTo(60);
        }
        assertThat(FileNames.plain("Quay 7")).isEqualTo("Quay_7");
    }

    @Test
    void twins_in_case_form_or_cut_get_names_of_their_own() {
        FileNames names = new FileNames(Set.of("headings.csv"));
        assertThat(names.different("Headings", ".csv")).isEqualTo("Headings-2.csv");
        assertThat(names.different("Straße", ".csv")).isEqualTo("Straße.csv");
        assertThat(names.different("STRASSE", ".csv")).isEqualTo("STRASSE-2.csv");
        assertThat(names.different("e\u0301", ".csv")).isNotEqualTo(names.different("\u00e9", ".csv"));
        assertThat(names.different(FileNames.plain("x".repeat(100) + "1"), ""))
                .isNotEqualTo(names.different(FileNames.plain("x".repeat(100) + "2"), ""));
    }
}
