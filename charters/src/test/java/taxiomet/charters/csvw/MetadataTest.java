package taxiomet.charters.csvw;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Charter;
import taxiomet.charter.CharterException;
import taxiomet.charter.Column;
import taxiomet.charter.Problem;
import taxiomet.charter.Rule;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.charters.Charters;
import taxiomet.charters.input.ReadCharter;

/** Metadata in the W3C's words, read as a charter and written from one. */
class MetadataTest {
    @TempDir
    private Path folder;

    private ReadCharter read(String json) throws IOException, CharterException {
        Path file = folder.resolve("lots-metadata.json");
        Files.writeString(file, json.replace('\'', '"'));
        return Charters.read(file, Optional.empty());
    }

    /** A table of one column x of a datatype. */
    private Table ofType(String datatype) throws IOException, CharterException {
        return read(table("{'name': 'x', 'datatype': " + datatype + "}", ""))
                .charter()
                .table("lots");
    }

    private static String table(String columns, String more) {
        return "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'lots.csv', 'tableSchema': {'columns': [" + columns
                + "]" + more + "}}";
    }

    private static List<String> remarks(ReadCharter read) {
        return read.remarks().stream().map(Problem::problem).toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "'byte' | smallint | \"x\" >= -128 AND \"x\" <= 127",
                "'unsignedShort' | integer | \"x\" >= 0 AND \"x\" <= 65535",
                "'unsignedLong' | numeric(20,0) | \"x\" >= 0 AND \"x\" <= 18446744073709551615",
                "'positiveInteger' | numeric(38,0) | \"x\" >= 1",
                "'long' | bigint |",
                "'decimal' | numeric |",
                "'number' | double precision |",
                "'datetime' | timestamp |",
                "'dateTimeStamp' | timestamp with time zone |",
                "'string' | text |",
                "'anyURI' | text |",
                "{'base': 'decimal', 'minimum': 0, 'maxExclusive': '1e3'} | numeric | \"x\" >= 0 AND \"x\" < 1e3",
                "{'base': 'date', 'minInclusive': '2020-02-29'} | date | \"x\" >= DATE '2020-02-29'",
            },
            quoteCharacter = '`')
    void datatypes_are_types_and_bounds_are_rules(String datatype, String type, String rule) throws Exception {
        Table table = ofType(datatype);
        assertThat(table.column("x").type().sql()).startsWith(type);
        assertThat(table.rules().stream().map(Rule::text)).isEqualTo(rule == null ? List.of() : List.of(rule));
    }

    @Test
    void texts_have_lengths_patterns_and_words_of_truth() throws Exception {
        Column text = ofType("{'base': 'string', 'minLength': 2, 'maxLength': 5, 'format': '[a-z]+'}")
                .column("x");
        assertThat(text.length().orElseThrow().toString()).isEqualTo("2..5");
        assertThat(text.pattern()).contains("[a-z]+");
        assertThat(ofType("{'base': 'boolean', 'format': 'ja|nein'}")
                        .column("x")
                        .values())
                .containsExactly("ja", "nein");
    }

    @Test
    void values_are_written_as_the_format_says() throws Exception {
        assertThat(ofType("{'base': 'date', 'format': 'dd.MM.yyyy'}")
                        .column("x")
                        .format())
                .contains("dd.MM.yyyy");
        assertThat(ofType("{'base': 'decimal', 'format': {'decimalChar': ','}}")
                        .column("x")
                        .decimalComma())
                .isTrue();
        assertThat(ofType("{'base': 'decimal', 'format': '#,##0.00'}")
                        .column("x")
                        .type()
                        .isText())
                .isTrue();
    }

    @Test
    void titles_are_what_the_file_calls_a_column_and_names_what_keys_call_it() throws Exception {
        Table table = read(table(
                        "{'name': 'no', 'titles': {'en': ['Lot No', 'Number']}, 'datatype': 'int'},"
                                + " {'titles': 'kind', 'required': true}, {'name': 'v', 'virtual': true}",
                        ", 'primaryKey': ['no']"))
                .charter()
                .table("lots");
        assertThat(table.columns()).extracting(Column::name).containsExactly("Lot No", "kind");
        assertThat(table.primaryKey().orElseThrow().columns()).containsExactly("Lot No");
        assertThat(table.isRequired("kind")).isTrue();
    }

    @Test
    void tables_of_a_group_inherit_and_point_at_one_another() throws Exception {
        ReadCharter read = read("""
                {'@context': ['http://www.w3.org/ns/csvw', {'@language': 'en'}], 'dc:title': 'Honey',
                 'null': ['', '-'], 'dialect': {'delimiter': ';', 'header': false},
                 'tables': [
                  {'url': 'data/lots.csv', 'tableSchema': {'columns': [{'name': 'id', 'datatype': 'int'}, {'name': 'code'}],
                    'primaryKey': 'id'}},
                  {'url': 'jars.csv', 'tableSchema': {'columns': [{'name': 'lot', 'datatype': 'int'}, {'name': 'code'}],
                    'foreignKeys': [
                      {'columnReference': 'lot', 'reference': {'resource': 'data/lots.csv', 'columnReference': 'id'}},
                      {'columnReference': 'code', 'reference': {'resource': 'data/lots.csv', 'columnReference': 'code'}}]}}]}
                """);
        Charter charter = read.charter();
        assertThat(charter.name()).isEqualTo("Honey");
        DelimitedFiles rows = (DelimitedFiles) charter.table("jars").rows();
        assertThat(rows.delimiter()).isEqualTo(';');
        assertThat(rows.nullWords()).containsExactly("-");
        assertThat(rows.header()).contains(List.of("lot", "code"));
        assertThat(charter.links().stream()
                        .map(link -> link.name() + link.columns() + link.parent() + link.parentColumns()))
                .containsExactly("jars_lots[lot]lots[id]", "jars_lots_2[code]lots[code]");
        // Each row that is pointed at has to be the only one.
        assertThat(charter.table("lots").uniqueKeys().get(0).columns()).containsExactly("code");
    }

    @Test
    void slips_and_what_is_not_judged_are_said_with_their_places() throws Exception {
        ReadCharter read = read(table(
                "{'name': 'x', 'datatype': 'json', 'requierd': true}, {'name': 'y', 'separator': ' '},"
                        + " {'name': 'z', 'default': '0'}, {'name': 'w', 'datatype': {'format': '(?=a)'}}",
                ", 'primarykey': 'x'"));
        assertThat(remarks(read))
                .anyMatch(remark -> remark.contains("`requierd`") && remark.contains("`required`"))
                .anyMatch(remark -> remark.contains("`primarykey`") && remark.contains("`primaryKey`"))
                .anyMatch(remark -> remark.contains("whether `x` is json is not judged"))
                .anyMatch(remark -> remark.contains("`y` holds lists"))
                .anyMatch(remark -> remark.contains("`z` are null here"))
                .anyMatch(remark -> remark.contains("`w` cannot be read"));
        assertThat(read.remarks())
                .allSatisfy(remark -> assertThat(remark.line()).isEqualTo(1));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "{'@context': 'http://www.w3.org/ns/csvw'} | no `url`",
                "{'@context': 'http://www.w3.org/ns/csvw', 'tables': []} | no table is described",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'http://x.y/a.csv'} | nothing is fetched",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv'} | no columns of `a.csv`",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': 'gone.json'} | cannot be read",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': {'columns': [{'name': 'x', 'datatype': 'intger'}]}} | no datatype `intger`",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'dialect': {'skipRows': 2}, 'tableSchema': {'columns': [{'name': 'x'}]}} | `skipRows` 2",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': {'columns': [{'name': 'x'}, {'name': 'x'}]}} | two columns `x`",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': {'columns': [{'name': 'x'}], 'foreignKeys': [{'columnReference': 'x', 'reference': {'resource': 'b.csv'}}]}} | points at a table that is not described",
                "{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': {'columns': [{'name': 'x'}], 'primaryKey': 'y'}} | `y`",
                "['http://www.w3.org/ns/csvw', 'http://www.w3.org/ns/csvw'] | metadata is an object",
            })
    void metadata_that_cannot_be_used_is_refused(String json, String why) {
        assertThatThrownBy(() -> read(json))
                .isInstanceOfSatisfying(
                        CharterException.class,
                        e -> assertThat(e.problems()).anyMatch(p -> p.problem().contains(why)));
    }

    @Test
    void a_schema_may_stand_in_a_file_of_its_own() throws Exception {
        Files.writeString(
                folder.resolve("lot-schema.json"), "{\"columns\": [{\"name\": \"id\"}], \"primaryKey\": \"id\"}");
        ReadCharter read =
                read("{'@context': 'http://www.w3.org/ns/csvw', 'url': 'a.csv', 'tableSchema': 'lot-schema.json'}");
        assertThat(read.charter().table("a").primaryKey()).isPresent();
    }

    @Test
    void what_metadata_has_words_for_comes_back_and_the_rest_is_told() throws Exception {
        Path file = folder.resolve("charter.yaml");
        Files.writeString(file, """
                charter: 1
                title: Honey
                tables:
                  lot:
                    rows: {file: lot.csv, delimiter: tab, null_words: [none]}
                    columns:
                      lot no: {type: integer}
                      _kind: {type: varchar(12), not_null: yes, pattern: "[A-Z]+"}
                      kg: {type: "numeric(8,2)", decimal: ","}
                      filled: {type: date, format: dd.MM.yyyy}
                      sold: date
                      who: {type: text, personal: yes}
                    primary_key: lot no
                    rules: {some: "kg > 0 AND 1000 >= kg", days: "sold BETWEEN DATE '2020-01-01' AND DATE '2030-12-31'", odd: "kg <> 7"}
                  jar:
                    rows: jar.csv
                    columns: {lot: integer, no: {type: smallint, values: [1, 2]}}
                    primary_key: [lot, no]
                    foreign_keys: {jar_lot: {columns: lot, references: lot, on_delete: cascade}}
                  shelf:
                    rows: shelf.xlsx
                    columns: {id: integer}
                """);
        Charter charter = Charters.read(file, Optional.empty()).charter();
        MetadataWriter.Metadata written = MetadataWriter.write(charter, folder);
        assertThat(written.leftOut())
                .containsExactlyInAnyOrder(
                        "that values are personal (lot.who)",
                        "rules (lot.odd)",
                        "lists of values that are no texts (jar.no)",
                        "what becomes of children (jar.jar_lot)",
                        "tables that are no single file of delimited text (shelf)");
        Charter back = read(written.text().replace('\'', '\u2019')).charter();
        assertThat(back.tables()).extracting(Table::name).containsExactly("lot", "jar");
        Table lot = back.table("lot");
        assertThat(lot.rows())
                .usingRecursiveComparison()
                .ignoringFields("nullWords")
                .isEqualTo(charter.table("lot").rows());
        assertThat(lot.columns())
                .extracting(Column::name)
                .containsExactly("lot no", "_kind", "kg", "filled", "sold", "who");
        assertThat(lot.column("_kind").length().orElseThrow().most()).isEqualTo(12);
        assertThat(lot.column("_kind").pattern()).contains("[A-Z]+");
        assertThat(lot.column("kg").decimalComma()).isTrue();
        assertThat(lot.column("filled").format()).contains("dd.MM.yyyy");
        assertThat(lot.primaryKey().orElseThrow().columns()).containsExactly("lot no");
        assertThat(lot.rules().stream().map(Rule::text))
                .containsExactly(
                        "\"kg\" > 0 AND \"kg\" <= 1000",
                        "\"sold\" >= DATE '2020-01-01' AND \"sold\" <= DATE '2030-12-31'");
        assertThat(back.links().get(0).parent()).isEqualTo("lot");
    }
}
