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
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.CharterException;
import taxiomet.charter.Problem;
import taxiomet.charters.input.ReadCharter;
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
    }

    @Test
    void two_primary_keys_and_a_statement_that_is_cut_off_are_refused() {
        assertProblem(
                "CREATE TABLE a (x int PRIMARY KEY, y int, PRIMARY KEY (y));",
                "1:43: this statement cannot be read: table `a` has a primary key already");
        assertProblem("CREATE TABLE a (x int PRIMARY KEY, y int PRIMARY KEY);", "table `a` has a primary key already");
        assertProblem(
                "CREATE TABLE p (id int);\nCREATE UNIQUE INDEX i ON p (id", "2:28: this statement cannot be read");
        assertProblem("CREATE TABLE \"a/b\" (x int);", "1:14: no file can be named after the table `a/b`");
    }

    private static List<String> lost(String script) throws Exception {
        return read("s.sql", script).charter().notRead().stream()
                .map(lost -> lost.what().word() + " " + lost.name() + ": " + lost.declared())
                .toList();
    }

    /** Whatever is declared about rows and is not understood is kept by name. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
                    x int, CHECK (x ~ 'a')                          | rule t_check: CHECK (x ~ 'a')
                    x int, CONSTRAINT odd CHECK (odd(x))            | rule odd: CHECK (odd (x))
                    x text, UNIQUE KEY u (x(20))                    | key u: UNIQUE KEY u (x(20))
                    x int, UNIQUE (x WITHOUT OVERLAPS)              | key t_key: UNIQUE (x WITHOUT OVERLAPS)
                    x text, PRIMARY KEY (x COLLATE NOCASE)          | key t_key: PRIMARY KEY (x COLLATE NOCASE)
                    x int, EXCLUDE USING gist (x WITH =)            | rule t_rule: EXCLUDE USING gist (x WITH =)
                    x int, LIKE other INCLUDING ALL                 | table t_table: LIKE other INCLUDING ALL
                    x interval                                      | type x: x interval
                    x jsonb NOT NULL                                | type x: x jsonb
                    x int[]                                         | type x: x int[]
                    x int DEFAULT floor(2.5)                        | default x: floor(2.5)
                    x text DEFAULT now()                            | default x: now()
                    x int, y int GENERATED ALWAYS AS (x * 2) STORED | rule t_rule: GENERATED ALWAYS AS (x * 2)
                    x int MASKED WITH (f = 'default()')             | rule t_rule: MASKED WITH (f = 'default()')
                    """)
    void what_is_not_understood_is_not_lost(String elements, String expected) throws Exception {
        assertThat(lost("CREATE TABLE t (" + elements + ");")).containsExactly(expected);
    }

    @Test
    void what_other_statements_declare_is_not_lost_either() throws Exception {
        String table = "CREATE TABLE t (x int, y text); ";
        assertThat(lost(table + "CREATE UNIQUE INDEX i ON t (lower(y))"))
                .containsExactly("key i: CREATE UNIQUE INDEX i ON t (lower(y))");
        assertThat(lost(table + "CREATE UNIQUE INDEX i ON t (x) WHERE y ~ 'a'"))
                .containsExactly("key i: UNIQUE (x) WHERE y ~ 'a'");
        assertThat(lost(table + "ALTER TABLE t RENAME COLUMN x TO z"))
                .containsExactly("table t_table: RENAME COLUMN x TO z");
        assertThat(lost(table + "CREATE UNIQUE INDEX i ON t (y COLLATE NOCASE)"))
                .containsExactly("key i: CREATE UNIQUE INDEX i ON t (y COLLATE NOCASE)");
        assertThat(lost("CREATE TABLE t (x int) INHERITS (p);")).containsExactly("table t_table: INHERITS");
    }

    @Test
    void what_is_no_rule_for_rows_is_passed_over() throws Exception {
        assertThat(lost(
                        "CREATE TABLE t (x int NOT NULL ENABLE COMMENT 'a' STORAGE plain, y varchar(3) CHARACTER SET utf8mb4"
                                + " COLLATE utf8mb4_bin INVISIBLE, z int NULL ON CONFLICT IGNORE, PRIMARY KEY (x) USING INDEX TABLESPACE"
                                + " users ENABLE, KEY i (y), INDEX USING BTREE (z), UNIQUE (y, z) INCLUDE (x) WITH (fillfactor = 70))"
                                + " ENGINE=InnoDB;"))
                .isEmpty();
    }

    /** The table as the statements leave it. */
    @Test
    void later_statements_change_what_earlier_ones_declared() throws Exception {
        var charter = read("s.sql", """
                        CREATE TABLE p (id int CONSTRAINT p_pk PRIMARY KEY, n text);
                        CREATE TABLE t (x int NOT NULL DEFAULT 1, y int REFERENCES p, z int, CONSTRAINT u UNIQUE (z), CHECK (z > 0));
                        ALTER TABLE t DROP CONSTRAINT u, ALTER COLUMN x DROP NOT NULL, ALTER x DROP DEFAULT, ALTER x TYPE bigint;
                        ALTER TABLE t DROP COLUMN z;
                        ALTER TABLE p DROP CONSTRAINT p_pk;
                        ALTER TABLE p ADD CONSTRAINT p_key PRIMARY KEY (id);
                        DROP TABLE IF EXISTS nothing;
                        CREATE TABLE gone (x int);
                        DROP TABLE gone;
                        """).charter();
        assertThat(charter.tables()).extracting(table -> table.name()).containsExactly("p", "t");
        var t = charter.table("t");
        assertThat(t.uniqueKeys()).isEmpty();
        assertThat(t.rules()).isEmpty();
        assertThat(t.columns())
                .extracting(column -> column.name() + " " + column.type())
                .containsExactly("x bigint", "y integer");
        assertThat(t.column("x").isRequired()).isFalse();
        assertThat(t.column("x").defaultValue()).isEmpty();
        assertThat(charter.table("p").primaryKey().orElseThrow().declaredName()).contains("p_key");
        assertThat(charter.notRead()).isEmpty();
    }

    @Test
    void a_domain_is_its_type_with_its_conditions() throws Exception {
        var table = read(
                        "s.sql",
                        "CREATE DOMAIN positive AS integer NOT NULL CHECK (VALUE > 0); CREATE TABLE t (x positive);")
                .charter()
                .table("t");
        assertThat(table.column("x").type().sql()).isEqualTo("integer");
        assertThat(table.column("x").isRequired()).isTrue();
        assertThat(table.rules()).extracting(rule -> rule.text()).containsExactly("x > 0");
    }

    @Test
    void a_domain_gives_its_default_to_columns_without_one() throws Exception {
        var table = read("s.sql", """
                        CREATE TABLE p (id int PRIMARY KEY);
                        CREATE DOMAIN grade AS integer DEFAULT 3 + 4 NOT NULL CONSTRAINT low CHECK (VALUE > 0);
                        CREATE DOMAIN code AS varchar(5) COLLATE "C" DEFAULT ('a' || 'b');
                        CREATE TABLE t (
                            a grade, b grade DEFAULT 2, c grade DEFAULT NULL, d code NULL, e grade NULL, f integer DEFAULT 1,
                            g grade DEFAULT 5, h grade);
                        ALTER TABLE t ALTER COLUMN b SET DEFAULT 9, ALTER g DROP DEFAULT, ALTER f TYPE grade, ALTER h TYPE text;
                        ALTER DOMAIN code SET DEFAULT 'z' || 'y';
                        ALTER DOMAIN grade ADD CONSTRAINT high CHECK (VALUE < 100) NOT VALID;
                        ALTER DOMAIN grade DROP CONSTRAINT low;
                        """).charter().table("t");
        assertThat(table.columns())
                .extracting(column -> column.name() + " "
                        + column.defaultValue().map(value -> value.text()).orElse("-")
                        + (column.isRequired() ? " required" : ""))
                .containsExactly(
                        "a 7 required",
                        "b 9 required",
                        "c - required",
                        "d zy",
                        "e 7 required",
                        "f 1 required",
                        "g 7 required",
                        "h -");
        assertThat(table.rules())
                .extracting(rule -> rule.text())
                .containsExactly("a < 100", "b < 100", "c < 100", "e < 100", "f < 100", "g < 100");
    }

    @Test
    void what_is_not_understood_of_a_domain_is_said_at_each_of_its_columns() throws Exception {
        var charter = read("s.sql", """
                        CREATE DOMAIN grade AS integer DEFAULT nextval('s') + 1;
                        CREATE TABLE t (a grade, b grade DEFAULT 1);
                        ALTER DOMAIN grade RENAME CONSTRAINT a TO b;
                        ALTER DOMAIN elsewhere DROP NOT NULL;
                        """);
        assertThat(charter.charter().notRead())
                .extracting(each -> each.what() + " " + each.declared())
                .containsExactly(
                        "DEFAULT nextval('s') + 1", "RULE RENAME CONSTRAINT a TO b", "RULE RENAME CONSTRAINT a TO b");
        assertThat(charter.remarks()).singleElement().asString().contains("ALTER DOMAIN 1");
    }

    @Test
    void links_keep_the_order_in_which_they_were_declared() throws Exception {
        var read = read("s.sql", """
                CREATE TABLE top (id int PRIMARY KEY);
                CREATE TABLE m1 (id int PRIMARY KEY, top int);
                CREATE TABLE m2 (id int PRIMARY KEY, top int);
                CREATE TABLE bottom (id int, m1 int REFERENCES m1, m2 int REFERENCES m2 ON DELETE CASCADE);
                ALTER TABLE m2 ADD CONSTRAINT b FOREIGN KEY (top) REFERENCES top ON DELETE CASCADE;
                ALTER TABLE m1 ADD CONSTRAINT a FOREIGN KEY (top) REFERENCES top ON DELETE CASCADE;
                """);
        assertThat(read.charter().links())
                .extracting(link -> link.child() + "." + link.name())
                .containsExactly("bottom.bottom_m1", "bottom.bottom_m2", "m2.b", "m1.a");
        String written = CharterWriter.write(read.charter(), Path.of("").toAbsolutePath(), Map.of());
        assertThat(CharterReader.read(Path.of("a.yaml").toAbsolutePath(), written.getBytes(StandardCharsets.UTF_8))
                        .charter())
                .isEqualTo(new taxiomet.charter.Charter(
                        "s.sql",
                        read.charter().tables(),
                        read.charter().behavesAs(),
                        read.charter().links(),
                        List.of()));
    }

    /** What stands behind DEFAULT, and what it comes to. */
    @ParameterizedTest
    @CsvSource(delimiter = ';', quoteCharacter = '`', nullValues = "none", textBlock = """
                    date; DATE '2024-01-07'; Constant[text=2024-01-07]
                    timestamp; TIMESTAMP '2024-01-07 10:30:00'; Constant[text=2024-01-07 10:30:00]
                    timestamp; '2024-01-07'; Constant[text=2024-01-07]
                    date; CAST('2024-01-07' AS date); Constant[text=2024-01-07]
                    date; '2024-01-07'::date; Constant[text=2024-01-07]
                    time; TIME '10:30'; Constant[text=10:30:00]
                    timestamp with time zone; '2024-01-07 10:00:00+02'::timestamptz; Constant[text=2024-01-07 08:00:00Z]
                    text; 'a' || 'b'; Constant[text=ab]
                    text; ('a' || ('b')); Constant[text=ab]
                    text; E'a\\x41b'; Constant[text=aAb]
                    varchar(9); 'x'::character varying; Constant[text=x]
                    varchar(9); CAST(12 AS varchar(9)); Constant[text=12]
                    text; 'x'::coop.mood; Constant[text=x]
                    integer; 2+3; Constant[text=5]
                    integer; (2 + 3) * -2; Constant[text=-10]
                    integer; 7 / 2; Constant[text=3]
                    integer; -1; Constant[text=-1]
                    integer; '5'; Constant[text=5]
                    numeric(6,2); (0)::numeric; Constant[text=0]
                    numeric(6,2); -1.50; Constant[text=-1.50]
                    numeric; 1e3; Constant[text=1000]
                    boolean; true; Constant[text=true]
                    boolean; b'1'; Constant[text=1]
                    date; CURRENT_DATE; Clock[word=CURRENT_DATE]
                    timestamp; now(); Clock[word=CURRENT_TIMESTAMP]
                    timestamp; CURRENT_TIMESTAMP(3); Clock[word=CURRENT_TIMESTAMP]
                    time; localtime; Clock[word=CURRENT_TIME]
                    text; 'current_date'; Constant[text=current_date]
                    text; NULL; none
                    text; (NULL); none
                    uuid; gen_random_uuid(); ByServer[text=gen_random_uuid()]
                    text; current_user; ByServer[text=current_user]
                    """)
    void a_constant_default_is_evaluated(String type, String written, String expected) throws Exception {
        var read = read("s.sql", "CREATE TABLE t (x " + type + " DEFAULT " + written + " NOT NULL);")
                .charter();
        var column = read.table("t").column("x");
        assertThat(column.defaultValue().map(Object::toString).orElse(null)).isEqualTo(expected);
        assertThat(column.isRequired()).isTrue();
        assertThat(read.notRead()).isEmpty();
    }

    @Test
    void a_sequence_numbers_rows() throws Exception {
        for (String written : List.of("nextval('s'::regclass)", "NEXT VALUE FOR s", "s.NEXTVAL")) {
            var column = read("s.sql", "CREATE TABLE t (x int DEFAULT " + written + ");")
                    .charter()
                    .table("t")
                    .column("x");
            assertThat(column.generated()).as(written).isEqualTo(taxiomet.charter.Column.Generated.BY_DEFAULT);
            assertThat(column.defaultValue()).isEmpty();
        }
    }

    private static void assertProblem(String script, String expected) {
        CharterException e = catchThrowableOfType(CharterException.class, () -> read("schema.sql", script));
        assertThat(e).as(script).isNotNull();
        assertThat(e.problems().stream().map(Problem::toString).collect(Collectors.joining("\n")))
                .contains(expected);
    }
}
