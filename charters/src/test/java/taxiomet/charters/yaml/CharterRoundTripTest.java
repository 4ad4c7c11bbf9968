package taxiomet.charters.yaml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.Alike;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.DefaultValue;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.NotRead;
import taxiomet.charter.Owner;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.charters.input.ReadCharter;

/** What a charter declares is what is read of it, and what is written of it says the same. */
class CharterRoundTripTest {
    private static final String EVERYTHING = """
            charter: 1
            title: Bees
            defaults: {server: postgresql}
            tables:
              keeper:
                rows: keeper.csv
                columns:
                  id: {type: integer, not_null: yes}
                  name: {type: text, compare: ignore case, length: 1..40}
                  born: {type: date, format: dd.MM.yyyy}
                  fee: {type: "numeric(9,2)", decimal: ","}
                primary_key: id
                unique:
                  keeper_name: {columns: [name], where: born is not null, severity: warning}
                alike:
                  same_keeper: {columns: [name, born, fee], agree: 2, never_differ: born, severity: note}
                  same_name: [name, born]
                label: [name]
              apiary:
                rows: "apiary-*.csv"
                owner: {text: "the land register"}
                columns:
                  id: {type: integer, generated: by default, gaps: note}
                  keeper: integer
                  kind: {type: text, values: [heath, wood], default: heath}
                  since: {type: timestamp, default: {sql: current_timestamp}}
                  code: {type: text, pattern: "[A-Z]{2}[0-9]+"}
                primary_key: {columns: [id], name: apiary_pk}
                foreign_keys:
                  apiary_keeper:
                    columns: keeper
                    references: {keeper: id}
                    on_delete: set null
                    on_update: cascade
                    deferrable: deferred
                    children: 0..40
                    where: kind = 'heath'
                rules:
                  young: since >= timestamp '1990-01-01 00:00:00'
                not_read:
                  odd:
                    what: rule
                    declared: "CHECK (odd(id))"
                    problem: "there is no function odd"
                    severity: warning
            accept:
              - {finding: orphan, at: apiary_keeper, rows: [17, {key: 18, holds: null}], reason: "in May", until: 2027-05-31}
              - {finding: value not allowed, at: apiary.kind, values: [moor], reason: "the new kind: moor"}
              - {finding: likely double, at: same_name, rows: [{key: 4, holds: [Ada, null]}], reason: "mother and daughter"}
            """;

    private static ReadCharter read(String yaml) throws CharterException {
        return CharterReader.read(Path.of("charter.yaml"), yaml.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void all_that_is_declared_is_read() throws CharterException {
        Charter charter = read(EVERYTHING).charter();
        Table keeper = charter.table("keeper");
        Table apiary = charter.table("apiary");
        assertThat(keeper.column("born").format()).contains("dd.MM.yyyy");
        assertThat(keeper.column("fee").decimalComma()).isTrue();
        Key name = keeper.uniqueKeys().get(0);
        assertThat(name.where().orElseThrow().text()).isEqualTo("born is not null");
        assertThat(name.severity()).isEqualTo(Severity.WARNING);
        assertThat(keeper.alike())
                .containsExactly(
                        new Alike("same_keeper", List.of("name", "born", "fee"), 2, List.of("born"), Severity.NOTE),
                        Alike.of("same_name", List.of("name", "born"), 2));
        assertThat(apiary.owner()).contains(new Owner.Named("the land register"));
        assertThat(apiary.column("id").notesGaps()).isTrue();
        assertThat(apiary.column("kind").defaultValue()).contains(new DefaultValue.Constant("heath"));
        assertThat(apiary.column("since").defaultValue().orElseThrow().text())
                .isEqualToIgnoringCase("current_timestamp");
        assertThat(apiary.primaryKey().orElseThrow().declaredName()).contains("apiary_pk");
        ForeignKey link = apiary.links().get(0);
        assertThat(link.onDelete().name()).isEqualTo(ForeignKey.ActionName.SET_NULL);
        assertThat(link.deferrable()).isEqualTo(ForeignKey.Deferrable.DEFERRED);
        assertThat(link.children().orElseThrow().most()).isEqualTo(40);
        assertThat(link.where().orElseThrow().text()).isEqualTo("kind = 'heath'");
        NotRead lost = charter.notRead().get(0);
        assertThat(lost.what()).isEqualTo(NotRead.What.RULE);
        assertThat(lost.table()).contains("apiary");
        assertThat(lost.severity()).isEqualTo(Severity.WARNING);
    }

    @Test
    void what_is_written_is_read_as_the_same() throws CharterException {
        Charter first = read(EVERYTHING).charter();
        String written = CharterWriter.write(first, Path.of("").toAbsolutePath(), Map.of());
        Charter second = read(written).charter();
        assertThat(second.tables().toString()).isEqualTo(first.tables().toString());
        assertThat(second.links().toString()).isEqualTo(first.links().toString());
        assertThat(first.accepted()).hasSize(3);
        assertThat(second.accepted()).isEqualTo(first.accepted());
        assertThat(second.notRead().stream().map(NotRead::declared).toList())
                .isEqualTo(first.notRead().stream().map(NotRead::declared).toList());
        assertThat(second.behavesAs()).isEqualTo(first.behavesAs());
        assertThat(second.name()).isEqualTo(first.name());
    }

    @Test
    void comments_stand_above_what_they_are_about() throws CharterException {
        String written = CharterWriter.write(
                read(EVERYTHING).charter(),
                Path.of("").toAbsolutePath(),
                Map.of(List.of("tables", "apiary", "columns", "kind"), List.of("two kinds\u0007 only")));
        assertThat(written).containsPattern("# two kinds  only\\n +kind:");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"where: nonsense(", "where: 'no_column = 1'", "where: \"name = 1\"", "where: 7", "where: [a]"})
    void a_condition_that_cannot_be_read_is_an_error(String where) {
        assertThatThrownBy(() -> read("""
                        charter: 1
                        tables:
                          keeper:
                            rows: keeper.csv
                            columns: {id: integer, name: text}
                            unique:
                              u: {columns: [name], %s}
                        """.formatted(where)))
                .isInstanceOf(CharterException.class)
                .satisfies(
                        e -> assertThat(((CharterException) e).problems().get(0).toString())
                                .startsWith("charter.yaml:7:"));
    }

    @Test
    void an_owner_is_a_column_or_a_text() {
        assertThatThrownBy(() -> read("""
                        charter: 1
                        tables:
                          keeper:
                            rows: keeper.csv
                            owner: nme
                            columns: {id: integer, name: text}
                        """))
                .isInstanceOf(CharterException.class)
                .satisfies(
                        e -> assertThat(((CharterException) e).problems().get(0).toString())
                                .startsWith("charter.yaml:5:")
                                .contains("name"));
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    [A-Z]+;                       true
                    [0-9]{1,10};                  true
                    (a|b){3};                     true
                    (a{1000}){90};                true
                    (a{1000}){1000};              false
                    ((a{1000}){1000}){1000};      false
                    (((a{50}){50}){50}){50};      false
                    a{1000}a{1000};               true
                    \\{1000}\\{1000};             true
                    [{1000}]{10};                 true
                    """)
    void patterns_have_a_size(String pattern, boolean isUsable) {
        assertThat(PatternSize.of(pattern) <= PatternSize.MOST).isEqualTo(isUsable);
    }

    @Test
    void patterns_that_nest_too_deep_are_too_large() {
        assertThat(PatternSize.of("(".repeat(50_000))).isGreaterThan(PatternSize.MOST);
        assertThat(PatternSize.of("(".repeat(100) + "a" + ")".repeat(100))).isLessThan(PatternSize.MOST);
    }
}
