package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Charter;
import taxiomet.charter.Server;
import taxiomet.charters.Charters;
import taxiomet.charters.proposals.ProposalReader;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal;
import taxiomet.rehearse.Rehearsal;
import taxiomet.rehearse.RehearsalOptions;
import taxiomet.rows.SourceException;
import taxiomet.sources.RowSources;
import taxiomet.spill.MemoryBudget;
import taxiomet.work.CheckProgress;
import taxiomet.work.RunContext;

/** What rehearse says and writes, on small tables. */
final class RehearseTest {
    private static final String CHARTER = """
            charter: 1
            tables:
              keeper:
                rows: keepers.csv
                columns:
                  id: integer
                  name: varchar(20)
                  mail: varchar(20)
                  paid: {type: "numeric(6,2)", default: 0}
                primary_key: id
                unique: {keeper_mail: mail}
                label: name
              hive:
                rows: hives.csv
                columns:
                  id: {type: integer, generated: by default}
                  keeper: {type: integer, default: 1}
                  due: "numeric(6,2)"
                primary_key: id
                foreign_keys:
                  hive_keeper: {columns: keeper, references: keeper, on_delete: cascade, on_update: cascade}
                totals: due
              share:
                rows: shares.csv
                columns: {hive: integer, keeper: integer, parts: integer, since: date, note: text}
                primary_key: [hive, keeper]
                foreign_keys:
                  share_hive: {columns: hive, references: hive, on_delete: restrict, on_update: cascade}
                  share_keeper: {columns: keeper, references: keeper}
            """;

    @TempDir
    Path folder;

    @BeforeEach
    void write_tables() throws IOException {
        write("charter.yaml", CHARTER);
        write("keepers.csv", "id,name,mail,paid\n1,Ada,a@x,1.00\n2,Bram,,2.50\n3,Una,u@x,\n");
        write("hives.csv", "id,keeper,due\n10,1,5.00\n11,2,7.25\n12,2,1.00\n13,,3.00\n");
        write("shares.csv", "hive,keeper,parts,since,note\n10,2,3,2024-05-01,\n10,3,4,2023-01-01,old\n11,3,1,,\n");
    }

    private Path write(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private Program rehearse(String... arguments) {
        List<String> all = new ArrayList<>(
                List.of("rehearse", folder.resolve("charter.yaml").toString()));
        all.addAll(List.of(arguments));
        return Program.run(all.toArray(new String[0]));
    }

    private String after(String file) throws IOException {
        return Files.readString(folder.resolve("after").resolve(file));
    }

    @Test
    void a_blocked_change_names_each_rule_with_its_rows_and_leaves_nothing() throws IOException {
        Program run = rehearse("-e", "DELETE FROM keeper WHERE id = 2", "--json");
        assertThat(run.status()).isEqualTo(1);
        JsonNode change = run.json().get("changes").get(0);
        assertThat(change.get("answer").asText()).isEqualTo("blocked");
        assertThat(change.get("refusals").findValuesAsText("at")).containsExactly("share_hive", "share_keeper");
        assertThat(change.get("effects").findValuesAsText("steps")).containsExactly("0", "1");
        assertThat(run.json().get("tables")).isEmpty();
    }

    @Test
    void totals_are_summed_over_the_rows_that_go() {
        JsonNode result = rehearse(
                        "-e", "DELETE FROM share; DELETE FROM keeper WHERE id = 2", "--json", "--examples", "9")
                .json();
        JsonNode total = result.get("changes").get(1).get("totals").get(0);
        assertThat(total.get("sum").decimalValue()).isEqualByComparingTo("8.25");
        assertThat(total.get("rows").asInt()).isEqualTo(2);
        assertThat(result.get("answer").asText()).startsWith("accepted");
    }

    @Test
    void a_later_change_that_would_let_one_pass_is_named() {
        Program run = rehearse("-e", "DELETE FROM keeper WHERE id = 2", "-e", "DELETE FROM share", "--json");
        assertThat(run.json().get("changes").get(0).get("passes_after_change").asInt())
                .isEqualTo(2);
    }

    @Test
    void why_is_answered_link_by_link() {
        Program run = rehearse("-e", "DELETE FROM share; DELETE FROM keeper WHERE id = 2", "--why", "hive", "12");
        assertThat(run.out())
                .contains("hive 12 is deleted by change 2")
                .contains("0  keeper 2 (Bram) is deleted, named by the change itself")
                .contains("1  hive 12 is deleted, by link hive_keeper");
    }

    @Test
    void a_rule_can_be_tried_and_compared() {
        Program tried =
                rehearse("-e", "DELETE FROM keeper WHERE id = 3", "--try", "share_keeper.on_delete=cascade", "--json");
        assertThat(tried.status()).isZero();
        assertThat(tried.json().get("tables").findValuesAsText("deleted")).containsExactly("1", "2");
        Program compared =
                rehearse("-e", "DELETE FROM keeper WHERE id = 3", "--compare-actions", "share_keeper", "--json");
        List<String> accepted = new ArrayList<>();
        compared.json().get("actions").forEach(action -> {
            if (action.get("result").get("answer").asText().startsWith("accepted")) {
                accepted.add(action.get("action").asText());
            }
        });
        assertThat(accepted).containsExactly("cascade");
    }

    @Test
    void a_link_that_is_not_enforced_adds_orphans() {
        JsonNode result = rehearse(
                        "-e", "DELETE FROM keeper WHERE id = 3", "--try", "share_keeper.enforced=no", "--json")
                .json();
        assertThat(result.get("answer").asText()).startsWith("accepted");
        assertThat(result.get("findings_added").get(0).get("finding").asText()).isEqualTo("orphan");
        assertThat(result.get("findings_added").get(0).get("rows").asInt()).isEqualTo(2);
    }

    @Test
    void rows_of_files_are_deleted_updated_and_inserted_in_the_order_given() throws IOException {
        Path moved = write("moved.csv", "id,new:keeper\n11,3\n12,1\n");
        Path gone = write("gone.csv", "keeper,parts\n2,3\n");
        Path fresh = write("fresh.csv", "keeper;due\n3;9,50\n");
        write("fresh.csv", "keeper;due\n3;9.50\n");
        Program run = rehearse(
                "--update", "hive=" + moved,
                "--delete", "share=" + gone,
                "--insert", "hive=" + fresh,
                "--into", folder.resolve("after").toString());
        assertThat(run.status()).as(run.out() + run.err()).isZero();
        assertThat(after("hives.csv"))
                .isEqualTo("id,keeper,due\n10,1,5.00\n11,3,7.25\n12,1,1.00\n13,,3.00\n14,3,9.50\n");
        assertThat(after("shares.csv")).isEqualTo("hive,keeper,parts,since,note\n10,3,4,2023-01-01,old\n11,3,1,,\n");
        Program undone = Program.run(
                "rehearse",
                "--undo",
                folder.resolve("after/undo.json").toString(),
                "--into",
                folder.resolve("back").toString());
        assertThat(undone.status()).isZero();
        assertThat(folder.resolve("back/hives.csv")).hasSameBinaryContentAs(folder.resolve("hives.csv"));
        assertThat(folder.resolve("back/shares.csv")).hasSameBinaryContentAs(folder.resolve("shares.csv"));
    }

    @Test
    void untouched_rows_stay_byte_for_byte() throws IOException {
        String odd = "id,keeper,due\r\n\"10\", 1,5.0\r\n\r\n11,\"2\",\"7.25\"\r\nbroken\"row,1\r\n12,2,1";
        write("hives.csv", odd);
        Program run = rehearse(
                "-e",
                "UPDATE hive SET due = 3 WHERE id = 11",
                "--into",
                folder.resolve("after").toString());
        assertThat(run.status()).as(run.err()).isZero();
        assertThat(after("hives.csv"))
                .isEqualTo("id,keeper,due\r\n\"10\", 1,5.0\r\n\r\n11,\"2\",3.00\r\nbroken\"row,1\r\n12,2,1");
    }

    @Test
    void merging_points_children_at_the_one_that_stays_and_combines_those_that_would_share_a_key() throws IOException {
        Path merge = write("merge.yaml", """
                proposal: 1
                proposed:
                  - do: merge
                    table: keeper
                    goes: 3
                    stays: 2
                    fill: yes
                    combine: {share: {parts: sum, since: least, note: first}}
                """);
        Program run =
                rehearse(merge.toString(), "--into", folder.resolve("after").toString());
        assertThat(run.status()).as(run.out() + run.err()).isZero();
        assertThat(after("keepers.csv")).isEqualTo("id,name,mail,paid\n1,Ada,a@x,1.00\n2,Bram,u@x,2.50\n");
        assertThat(after("shares.csv")).isEqualTo("hive,keeper,parts,since,note\n10,2,7,2023-01-01,old\n11,2,1,,\n");
    }

    @Test
    void columns_that_combine_does_not_name_stay_as_they_are_even_where_it_names_none() throws IOException {
        Path merge = write(
                "merge.yaml",
                "proposal: 1\nproposed:\n  - {do: merge, table: keeper, goes: 3, stays: 2, combine: {share: {}}}\n");
        Program run =
                rehearse(merge.toString(), "--into", folder.resolve("after").toString());
        assertThat(run.status()).as(run.out() + run.err()).isZero();
        assertThat(after("shares.csv")).isEqualTo("hive,keeper,parts,since,note\n10,2,3,2024-05-01,\n11,2,1,,\n");
    }

    @Test
    void merging_without_a_way_to_combine_lists_the_rows_that_would_share_a_key() throws IOException {
        Path merge = write("merge.yaml", "proposal: 1\nproposed:\n  - {do: merge, table: keeper, goes: 3, stays: 2}\n");
        JsonNode refusal = rehearse(merge.toString(), "--json")
                .json()
                .get("changes")
                .get(0)
                .get("refusals")
                .get(0);
        assertThat(refusal.get("refusal").asText()).isEqualTo("two rows would share a key");
        assertThat(refusal.get("examples").get(0).get("key").toString())
                .isEqualTo("{\"hive\":\"10\",\"keeper\":\"3\"}");
    }

    @Test
    void renumbering_takes_the_children_along() throws IOException {
        Path renumber =
                write("renumber.yaml", "proposal: 1\nproposed:\n  - {do: renumber, table: keeper, from: 2, to: 20}\n");
        Program run =
                rehearse(renumber.toString(), "--into", folder.resolve("after").toString());
        assertThat(run.status()).as(run.out() + run.err()).isZero();
        assertThat(after("keepers.csv")).contains("20,Bram,,2.50").doesNotContain("\n2,");
        assertThat(after("hives.csv")).contains("11,20,7.25").contains("12,20,1.00");
        assertThat(after("shares.csv")).contains("10,20,3,2024-05-01");
    }

    @Test
    void all_or_nothing_leaves_nothing() {
        Program run = rehearse(
                "-e", "UPDATE hive SET due = 0; DELETE FROM keeper WHERE id = 3", "--all-or-nothing", "--json");
        assertThat(run.json().get("undone").asBoolean()).isTrue();
        assertThat(run.json().get("tables")).isEmpty();
    }

    @Test
    void another_behaviour_that_ends_differently_is_named() {
        JsonNode elsewhere = rehearse("-e", "DELETE FROM share; UPDATE keeper SET id = id + 1", "--json")
                .json()
                .get("elsewhere");
        assertThat(elsewhere.findValuesAsText("where")).contains("PostgreSQL");
        assertThat(elsewhere.get(0).get("words").asText()).contains("refuses change 2: key taken (primary_key)");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                    DELETE FROM hife                              | -e:1: there is no table `hife`; did you mean `hive`?
                    DELETE FROM hive WHERE keper = 1              | -e:1: there is no column `keper`; did you mean `keeper`?
                    UPDATE hive SET dew = 1                       | -e:1: there is no column `dew`; known: id, keeper, due
                    DELETE FROM hive WHERE id = 'ten'             | -e:1: 'ten' is no number
                    DELETE FROM hive WHERE due / 0 > 1            | the condition divides by zero in a row of hive
                    DELETE FROM hive WHERE EXISTS (SELECT 1)      | -e:1: this part is not read: `EXISTS (SELECT 1)`
                    DELETE FROM hive WHERE                        | -e:1: this is no SQL condition: it ends too early
                    DROP TABLE hive                               | -e:1: `DROP` is no change that can be rehearsed
                    INSERT INTO hive (id, due) VALUES (1)         | row 1 of VALUES has 1 values for 2 columns
                    """)
    void a_bad_statement_is_answered_with_its_place(String sql, String message) {
        Program run = rehearse("-e", sql, "--into", folder.resolve("after").toString());
        assertThat(run.status()).isEqualTo(2);
        assertThat(run.err()).contains(message).contains("Nothing was rehearsed, and nothing was written.");
        assertThat(folder.resolve("after")).doesNotExist();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                    --delete | id\\n10\\n99          | list.csv:3: no row of hive has id `99`
                    --delete | id\\n10\\n010         | list.csv:3: this line names the same row of hive as
                    --delete | idd\\n10              | list.csv:1: table hive has no column `idd`; did you mean `id`?
                    --delete | id\\n10,11            | list.csv:2: this line has 2 fields, and the first 1
                    --update | keeper,new:due\\n2,1  | list.csv:2: 2 rows of hive have keeper `2`, and one is meant
                    --update | id,due\\n10,1         | no column gives a new value
                    --insert | id                    | the file names columns and lists no row
                    """)
    void a_bad_list_is_answered_with_its_line(String option, String text, String message) throws IOException {
        Path list = write("list.csv", text.replace("\\n", "\n") + "\n");
        Program run = rehearse(
                option, "hive=" + list, "--into", folder.resolve("after").toString());
        assertThat(run.status()).as(run.out()).isEqualTo(2);
        assertThat(run.err()).contains(message);
        assertThat(folder.resolve("after")).doesNotExist();
    }

    @Test
    void a_value_of_the_wrong_type_refuses_the_change() {
        JsonNode change = rehearse("-e", "UPDATE hive SET due = 'much' WHERE id = 10", "--json")
                .json()
                .get("changes")
                .get(0);
        assertThat(change.get("refusals").findValuesAsText("refusal")).containsExactly("type mismatch");
    }

    @Test
    void nothing_is_reckoned_from_a_value_that_is_not_of_its_type() throws IOException {
        write("hives.csv", "id,keeper,due\n10,1,much\n11,2,1.00\n");
        JsonNode doubled = rehearse("-e", "UPDATE hive SET due = due * 2", "--json")
                .json()
                .get("changes")
                .get(0);
        assertThat(doubled.get("refusals").get(0).get("rows").asInt()).isEqualTo(1);
        Program same = rehearse(
                "-e",
                "UPDATE hive SET due = due, keeper = 3",
                "--into",
                folder.resolve("after").toString());
        assertThat(same.status()).as(same.out()).isZero();
        assertThat(after("hives.csv")).isEqualTo("id,keeper,due\n10,3,much\n11,3,1.00\n");
    }

    @Test
    void a_chain_of_rows_is_followed_to_its_end() throws IOException {
        int length = 20_000;
        StringBuilder chain = new StringBuilder("id,mother\n1,\n");
        for (int i = 2; i <= length; i++) {
            chain.append(i).append(',').append(i - 1).append('\n');
        }
        write("queens.csv", chain.toString());
        write("charter.yaml", """
                charter: 1
                tables:
                  queen:
                    rows: queens.csv
                    columns: {id: integer, mother: integer}
                    primary_key: id
                    foreign_keys: {queen_mother: {columns: mother, references: queen, on_delete: cascade}}
                """);
        JsonNode result =
                rehearse("-e", "DELETE FROM queen WHERE id = 1", "--json").json();
        assertThat(result.get("tables").get(0).get("rows_after").asInt()).isZero();
        assertThat(result.get("elsewhere").findValuesAsText("where")).containsExactly("SQLite", "MariaDB");
    }

    @ParameterizedTest
    @CsvSource({"standard, 13.00", "postgresql, 13.00", "sqlite, 13.00", "mariadb, 23.00"})
    void an_assignment_sees_the_row_as_it_was_but_in_mariadb(String behaviour, String due) throws Exception {
        Path after = folder.resolve("after");
        rehearse(
                "-e",
                "UPDATE hive SET id = id + 10, due = id WHERE id = 13",
                "--server",
                behaviour,
                "--into",
                after.toString());
        assertThat(Files.readString(after.resolve("hives.csv"))).contains("23,," + due + "\n");
    }

    /** More rows than a server takes alternatives in one condition. */
    @Test
    void scripts_of_thousands_of_rows_run_and_are_taken_back() throws Exception {
        StringBuilder hives = new StringBuilder("id,keeper,due\n");
        StringBuilder shares = new StringBuilder("hive,keeper,parts,since,note\n");
        for (int i = 10; i < 3_010; i++) {
            hives.append(i).append(",2,1.50\n");
            shares.append(i).append(",1,").append(i % 7).append(",,\n");
        }
        write("hives.csv", hives.toString());
        write("shares.csv", shares.toString());
        Path script = folder.resolve("change.sql");
        Program program = rehearse(
                "-e",
                "DELETE FROM share WHERE parts < 6; UPDATE share SET parts = parts + hive; DELETE FROM hive WHERE id <= 12",
                "--server",
                "sqlite",
                "--write-sql",
                script.toString());
        assertThat(program.err()).isEqualTo("written: " + script + " and " + folder.resolve("change.back.sql") + "\n");
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite::memory:");
                Statement sql = connection.createStatement()) {
            sql.executeUpdate("CREATE TABLE keeper (id integer PRIMARY KEY, name, mail UNIQUE, paid)");
            sql.executeUpdate("INSERT INTO keeper VALUES (1, 'Ada', 'a@x', 1), (2, 'Bram', NULL, 2.5)");
            sql.executeUpdate(
                    "CREATE TABLE hive (id integer PRIMARY KEY, keeper integer REFERENCES keeper, due numeric)");
            sql.executeUpdate(
                    "CREATE TABLE share (hive integer REFERENCES hive, keeper integer REFERENCES keeper, parts integer,"
                            + " since, note, PRIMARY KEY (hive, keeper))");
            sql.executeUpdate("WITH RECURSIVE n(i) AS (VALUES (10) UNION ALL SELECT i + 1 FROM n WHERE i < 3009)"
                    + " INSERT INTO hive SELECT i, 2, 1.5 FROM n");
            sql.executeUpdate("INSERT INTO share SELECT id, 1, id % 7, NULL, NULL FROM hive");
            run(sql, script);
            assertThat(count(sql, "hive")).isEqualTo(2_997);
            assertThat(count(sql, "share"))
                    .isEqualTo(count(sql, "share WHERE parts = hive + 6"))
                    .isPositive();
            run(sql, folder.resolve("change.back.sql"));
            assertThat(count(sql, "hive")).isEqualTo(3_000);
            assertThat(count(sql, "share WHERE parts = hive % 7")).isEqualTo(3_000);
        }
    }

    private static void run(Statement sql, Path script) throws SQLException, IOException {
        for (String statement : Files.readString(script).split(";\n")) {
            sql.execute(statement);
        }
    }

    private static int count(Statement sql, String of) throws SQLException {
        return sql.executeQuery("SELECT count(*) FROM " + of).getInt(1);
    }

    @Test
    void a_table_that_changes_while_it_is_rehearsed_ends_it() throws Exception {
        Charter charter =
                Charters.read(folder.resolve("charter.yaml"), Optional.empty()).charter();
        List<Change> changes = new ProposalReader(charter, Instant.EPOCH).sql("DELETE FROM keeper WHERE id = 2", "-e");
        Path hives = folder.resolve("hives.csv");
        // Somebody writes when the hives have been read, and before they are named.
        CheckProgress writer = new CheckProgress() {
            @Override
            public void reading(String table) {
                if (table.equals("share")) {
                    try {
                        Files.writeString(hives, "14,2,1.00\n", StandardOpenOption.APPEND);
                    } catch (IOException e) {
                        throw new UncheckedIOException(e);
                    }
                }
            }

            @Override
            public void advanced(LongSupplier bytesRead, long bytesInAll) {
                // not looked at
            }

            @Override
            public void concluding() {
                // not looked at
            }
        };
        assertThatThrownBy(() -> Rehearsal.start(
                        charter,
                        new Proposal(changes, false, Proposal.Deferral.DECLARED, Instant.EPOCH),
                        new RehearsalOptions(Server.STANDARD, 3, true, true, 1_000, false),
                        RowSources::open,
                        new RunContext(folder, MemoryBudget.atMost(1 << 24), 1, 1 << 21).toldTo(writer)))
                .isInstanceOf(SourceException.class)
                .hasMessageContaining("hives.csv")
                .hasMessageContaining("changed while it was being read");
    }
}
