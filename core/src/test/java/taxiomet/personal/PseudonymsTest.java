package taxiomet.personal;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Charter;
import taxiomet.charter.Column;
import taxiomet.charter.Comparison;
import taxiomet.charter.Server;
import taxiomet.testing.TestTable;
import taxiomet.work.Secret;

/** Pseudonyms join what is equal as a key, and tell nothing else. */
class PseudonymsTest {
    private static final Secret SECRET = Secret.random();

    private static Charter charter(TestTable... tables) {
        return new Charter(
                "test", Arrays.stream(tables).map(TestTable::declared).toList(), Server.STANDARD);
    }

    private static Pseudonyms of(String type, Comparison comparison) {
        TestTable one = table("person", "id integer", "name " + type);
        return new Pseudonyms(
                charter(one.with("name", column -> compared(column, comparison).asPersonal(true))), SECRET);
    }

    private static Column compared(Column of, Comparison comparison) {
        return new Column(
                of.name(),
                of.type(),
                false,
                Optional.empty(),
                List.of(),
                Optional.empty(),
                comparison,
                Optional.empty(),
                false,
                Optional.empty(),
                Column.Generated.NEVER,
                false,
                false,
                false,
                of.severity());
    }

    private static List<String> columns(Pseudonyms pseudonyms) {
        return pseudonyms.charter().tables().stream()
                .flatMap(table -> table.columns().stream()
                        .filter(Column::isPersonal)
                        .map(column -> table.name() + "." + column.name()))
                .toList();
    }

    @ParameterizedTest
    @CsvSource({
        "varchar(20), EXACT, Una, Una, true",
        "varchar(20), EXACT, Una, una, false",
        "varchar(20), EXACT, Una, 'Una ', false",
        "varchar(20), IGNORE_CASE, Una, UNA, true",
        "varchar(20), TRIMMED, Una, ' Una ', true",
        "char(8), EXACT, Una, 'Una   ', true",
        "integer, EXACT, 7, 007, true",
        "integer, EXACT, 7, 8, false",
        "integer, EXACT, seven, 7, false",
        "'numeric(10,2)', EXACT, 1.5, 1.50, true",
        "date, EXACT, 2024-02-05, 20240205, true",
    })
    void equal_values_have_one_pseudonym(String type, Comparison comparison, String one, String other, boolean isOne) {
        Pseudonyms pseudonyms = of(type, comparison);
        String first = pseudonyms.of("person", "name", one);
        assertThat(first).matches("veiled-[0-9a-z]{10}");
        assertThat(first.equals(pseudonyms.of("person", "name", other))).isEqualTo(isOne);
    }

    @Test
    void other_columns_and_nulls_stay_as_they_are() {
        Pseudonyms pseudonyms = of("text", Comparison.EXACT);
        assertThat(pseudonyms.of("person", "id", "7")).isEqualTo("7");
        assertThat(pseudonyms.of("person", "name", null)).isNull();
        assertThat(columns(pseudonyms)).containsExactly("person.name");
    }

    @Test
    void many_values_have_as_many_pseudonyms_and_others_in_another_run() {
        Pseudonyms pseudonyms = of("text", Comparison.EXACT);
        Set<String> names = new HashSet<>();
        IntStream.range(0, 50_000).forEach(i -> names.add(pseudonyms.of("person", "name", "person " + i)));
        assertThat(names).hasSize(50_000);
        Pseudonyms another = new Pseudonyms(
                charter(table("person", "id integer", "name text").with("name", c -> c.asPersonal(true))),
                Secret.random());
        assertThat(names).doesNotContain(another.of("person", "name", "person 1"));
    }

    @Test
    void what_links_join_is_personal_too_and_has_the_same_pseudonyms() {
        Pseudonyms pseudonyms = new Pseudonyms(
                charter(
                        table("person", "login varchar(20)", "age integer")
                                .key("login")
                                .with("login", column -> column.asPersonal(true)),
                        table("loan", "id integer", "login varchar(30)").link("loan_person", "login -> person(login)"),
                        table("loan_note", "id integer", "who varchar(30)")
                                .link("note_loan", "who -> loan(login)")
                                .with("who", column -> compared(column, Comparison.IGNORE_CASE)),
                        table("other", "id integer", "login varchar(30)")),
                SECRET);
        assertThat(columns(pseudonyms)).containsExactly("person.login", "loan.login", "loan_note.who");
        assertThat(pseudonyms.of("loan", "login", "una")).isEqualTo(pseudonyms.of("person", "login", "una"));
        // Compared without case at one end, names are one at all.
        assertThat(pseudonyms.of("loan_note", "who", "Una")).isEqualTo(pseudonyms.of("person", "login", "una"));
        assertThat(pseudonyms.of("person", "login", "Una")).isEqualTo(pseudonyms.of("person", "login", "una"));
        assertThat(pseudonyms.isAny("other")).isFalse();
    }
}
