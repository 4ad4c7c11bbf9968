package taxiomet.charters.ddl;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charters.ReadCharter;
import taxiomet.charters.yaml.CharterReader;
import taxiomet.charters.yaml.CharterWriter;

/** Scripts of five dialects, each beside the charter that it should become. */
class SchemaReaderTest {
    private static String resource(String name) throws IOException {
        try (InputStream in = SchemaReaderTest.class.getResourceAsStream(name)) {
            return in == null ? "" : new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static ReadCharter read(String file, String script) throws CharterException {
        Path path = Path.of(file).toAbsolutePath();
        return SchemaReader.read(path, script, path.getParent());
    }

    @ParameterizedTest
    @ValueSource(strings = {"postgresql", "mariadb", "sqlserver", "oracle", "sqlite"})
    void a_schema_becomes_its_charter(String dialect) throws Exception {
        ReadCharter read = read(dialect + ".sql", resource(dialect + ".sql"));
        String written = CharterWriter.write(
                read.charter(),
                Path.of("").toAbsolutePath(),
                Map.of(
                        List.of(),
                        read.remarks().stream().map(SchemaReaderTest::remark).toList()));
        assertThat(written).isEqualTo(resource(dialect + ".yaml"));
        ReadCharter again =
                CharterReader.read(Path.of("again.yaml").toAbsolutePath(), written.getBytes(StandardCharsets.UTF_8));
        assertThat(again.charter().tables()).isEqualTo(read.charter().tables());
    }

    private static String remark(Problem remark) {
        return (remark.line() == 0 ? "" : remark.line() + ":" + remark.column() + " ") + remark.problem();
    }

    @Test
    void what_cannot_be_read_is_answered_with_its_place() {
        assertProblem(
                "CREATE TABLE a (\n  x integr(3,\n",
                "2:11: this statement cannot be read: this parenthesis is never closed");
        assertProblem("CREATE TABLE a (x int);\nCREATE TABLE b (y int REFERENCES c);", "2:34: there is no table `c`");
        assertProblem("CREATE TABLE a (x int, FOREIGN KEY (z) REFERENCES a (x));", "1:37: table `a` has no column `z`");
        assertProblem("CREATE TABLE a (x int, PRIMARY KEY (y));", "1:37: table `a` has no column `y`");
        assertProblem(
                "CREATE TABLE a (x int REFERENCES a ON DELETE VANISH);",
                "1:46: this statement cannot be read: `VANISH` stands where NO ACTION");
        assertProblem(
                "CREATE TABLE a (x int);\nCREATE TABLE A (x int);",
                "2:14: this statement cannot be read: table `A` has been created before");
        assertProblem(
                "ALTER TABLE a ADD x int;",
                "1:13: this statement cannot be read: no table `a` has been created before");
        assertProblem("SELECT 1;", "no statement declares a table");
        assertProblem("CREATE TABLE a (x text DEFAULT 'y);", "1:32: a quote is left open");
        assertProblem(
                "CREATE TABLE a (x int, y text, FOREIGN KEY (y) REFERENCES a (x));",
                "1:45: link `a_y`: `y` is text and `a.x` is integer, which can never be equal");
    }

    private static void assertProblem(String script, String expected) {
        CharterException e = catchThrowableOfType(CharterException.class, () -> read("schema.sql", script));
        assertThat(e).as(script).isNotNull();
        assertThat(e.problems().stream().map(Problem::toString).collect(Collectors.joining("\n")))
                .contains(expected);
    }
}
