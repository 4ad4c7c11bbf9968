package taxiomet.cli.rehearsal;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;
import taxiomet.cli.rehearsal.RandomProposal.TableCase;

/**
 * Random proposals are carried out in real databases by {@code rehearse --prove}: each does what was rehearsed, and afterwards has the rows and the
 * definitions that it had.
 */
final class ProofConformanceTest {
    private static final int CASES = 3 * RandomCases.USUAL;

    @TempDir
    Path folder;

    @Test
    void postgresql_proves_what_is_rehearsed_and_keeps_nothing() throws Exception {
        try (PostgresServer server = new PostgresServer()) {
            prove(
                    server,
                    "{url: \"" + server.address() + "\", prove: yes}",
                    "SELECT conname || ' ' || pg_get_constraintdef(oid) FROM pg_constraint WHERE connamespace = 'c'::regnamespace"
                            + " ORDER BY 1");
        }
    }

    @Test
    void sqlite_proves_what_is_rehearsed_and_keeps_nothing() throws Exception {
        Path file = folder.resolve("real.db");
        try (SqliteServer server = new SqliteServer("jdbc:sqlite:" + file)) {
            prove(
                    server,
                    "{url: \"jdbc:sqlite:" + file + "\", prove: yes}",
                    "SELECT sql FROM sqlite_master ORDER BY 1");
        }
    }

    @Test
    void mariadb_proves_what_is_rehearsed_and_keeps_nothing() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get()) {
            prove(
                    server,
                    "{url: \"" + server.address() + "\", prove: yes}",
                    "SELECT concat(table_name, constraint_name, constraint_type) FROM information_schema.table_constraints"
                            + " WHERE table_schema = database() ORDER BY 1");
        }
    }

    @Test
    void what_is_told_of_rows_sought_in_a_database_is_told_of_the_same_rows_in_files() throws Exception {
        try (PostgresServer server = new PostgresServer()) {
            RandomCases cases = new RandomCases("rows sought", folder);
            cases.compare(RandomCases.USUAL, RandomProposal::inAnyOrder, server::takes, drawn -> {
                RandomProposal proposal = drawn.proposal();
                server.load(proposal);
                JsonNode there = told(
                        charter(
                                proposal,
                                server.name(),
                                "{url: \"" + server.address() + "\"}",
                                Files.createDirectory(drawn.folder().resolve("there"))),
                        proposal);
                JsonNode here = told(
                        CharterOfCase.writeOrdered(
                                proposal, Files.createDirectory(drawn.folder().resolve("here"))),
                        proposal);
                cases.note(here.get("answer").asText());
                return there.equals(here)
                        ? Optional.empty()
                        : Optional.of(there.toPrettyString() + "\n" + here.toPrettyString());
            });
        }
    }

    private static JsonNode told(Path charter, RandomProposal proposal) {
        JsonNode told = Program.run(
                        "rehearse",
                        charter.toString(),
                        "-e",
                        String.join(";\n", proposal.changes),
                        "--server",
                        "postgresql",
                        "--json")
                .json();
        withoutPlaces(told);
        return told;
    }

    private static void withoutPlaces(JsonNode node) {
        if (node instanceof ObjectNode object) {
            object.remove(List.of("made", "now", "charter", "title", "file", "files", "line", "next"));
        }
        node.elements().forEachRemaining(ProofConformanceTest::withoutPlaces);
    }

    private void prove(RealServer server, String database, String definitions) throws Exception {
        RandomCases cases = new RandomCases("proof in " + server.name(), folder);
        cases.compare(CASES, RandomProposal::inAnyOrder, server::takes, drawn -> {
            RandomProposal proposal = drawn.proposal();
            server.load(proposal);
            var rows = server.rows(proposal);
            List<String> before = texts(server, definitions);
            Program proved = prove(proposal, server.name(), database, drawn.folder());
            if (proved.status() == 2 && proved.err().contains("cannot be said to the server")) {
                cases.note("not one statement there");
                return Optional.empty();
            }
            assertThat(proved.status()).as(proved.err()).isLessThan(2);
            JsonNode proof = proved.json().get("proof");
            proof.get("changes")
                    .forEach(change -> cases.note(change.get("database").asText()));
            if (!server.rows(proposal).equals(rows)
                    || !texts(server, definitions).equals(before)) {
                return Optional.of("not as it was");
            }
            return proof.get("agrees").asBoolean() ? Optional.empty() : Optional.of(proof.toPrettyString());
        });
        cases.requireSeen("accepted", "blocked");
    }

    private static Program prove(RandomProposal proposal, String server, String database, Path into)
            throws IOException {
        return Program.run(
                "rehearse",
                charter(proposal, server, database, into).toString(),
                "-e",
                String.join(";\n", proposal.changes),
                "--server",
                server,
                "--prove",
                "--quiet",
                "--json");
    }

    private static Path charter(RandomProposal proposal, String server, String database, Path into) throws IOException {
        Path charter = server.equals("postgresql")
                ? CharterOfCase.writeOrdered(proposal, into)
                : CharterOfCase.write(proposal, into);
        String yaml = Files.readString(charter).replace("charter: 1\n", "charter: 1\ndatabase: " + database + "\n");
        for (TableCase table : proposal.tables) {
            yaml = yaml.replace("rows: " + table.name + ".csv", "rows: {table: " + table.name + "}");
        }
        return Files.writeString(charter, yaml);
    }

    private static List<String> texts(RealServer server, String query) throws SQLException {
        List<String> texts = new ArrayList<>();
        try (Statement sql = server.connection.createStatement();
                ResultSet result = sql.executeQuery(query)) {
            while (result.next()) {
                texts.add(result.getString(1));
            }
        }
        return texts;
    }

    private Path keepers(String database) throws IOException {
        return Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                database: %s
                tables:
                  keeper:
                    rows: {table: keeper}
                    columns: {id: integer, name: {type: varchar(20), personal: true}}
                    primary_key: id
                  hive:
                    rows: {table: hive}
                    columns: {id: integer, keeper: integer, since: date}
                    primary_key: id
                    foreign_keys: {hive_keeper: {columns: keeper, references: keeper, on_delete: cascade}}
                """.formatted(database));
    }

    @Test
    void what_the_database_does_beside_the_rules_is_told() throws Exception {
        try (PostgresServer server = new PostgresServer()) {
            server.execute(
                    "CREATE SCHEMA c",
                    "SET search_path = c",
                    "CREATE TABLE keeper (id integer PRIMARY KEY, name varchar(20))",
                    "CREATE TABLE hive (id integer PRIMARY KEY, keeper integer REFERENCES keeper ON DELETE CASCADE, since date)",
                    "INSERT INTO keeper VALUES (1, 'Ada'), (2, 'Bo')",
                    "INSERT INTO hive VALUES (7, 1, '2024-05-01'), (8, 2, NULL)");
            String there = "{url: \"" + server.address() + "\", prove: yes}";
            Path charter = keepers(there);
            Program alike = Program.run(
                    "rehearse",
                    charter.toString(),
                    "-e",
                    "DELETE FROM keeper WHERE id = 1; INSERT INTO hive VALUES (9, 2, current_date)",
                    "--server",
                    "postgresql",
                    "--prove");
            assertThat(alike.out()).contains("accepted, and proved").contains("rows as foreseen, value by value");
            assertThat(alike.err())
                    .contains("it locks")
                    .contains("1 row of keeper")
                    .contains("2 rows of hive");
            assertThat(alike.status()).isZero();

            // A trigger and a rule that the charter says nothing of.
            server.execute(
                    "CREATE FUNCTION late() RETURNS trigger LANGUAGE plpgsql AS"
                            + " 'BEGIN UPDATE hive SET since = ''2020-01-01'' WHERE id = 8; RETURN OLD; END'",
                    "CREATE TRIGGER late AFTER DELETE ON keeper FOR EACH ROW EXECUTE FUNCTION late()",
                    "ALTER TABLE keeper ADD CONSTRAINT short CHECK (length(name) < 4)");
            Program otherwise = Program.run(
                    "rehearse",
                    charter.toString(),
                    "-e",
                    "DELETE FROM keeper WHERE id = 1; INSERT INTO keeper VALUES (3, 'Cornelia')",
                    "--server",
                    "postgresql",
                    "--prove");
            assertThat(otherwise.status()).isEqualTo(1);
            assertThat(otherwise.out())
                    .contains("but the database does otherwise")
                    .contains("change 2: rehearsed as accepted, and refused")
                    .contains("violates check constraint \"short\"")
                    .contains("hive: 1 row foreseen was not there, 1 row was there that is not foreseen")
                    .contains("not foreseen: id 8, keeper 2, since 2020-01-01")
                    .contains("late on keeper")
                    .doesNotContain("Cornelia");
            assertThat(texts(server, "SELECT since::text FROM hive ORDER BY id"))
                    .containsExactly("2024-05-01", null);

            server.execute(
                    "CREATE ROLE clerk LOGIN",
                    "GRANT USAGE ON SCHEMA c TO clerk",
                    "GRANT SELECT ON ALL TABLES IN SCHEMA c TO clerk");
            Program forbidden = Program.run(
                    "rehearse",
                    keepers("{url: \"" + server.address().replace("user=postgres", "user=clerk") + "\", prove: yes}")
                            .toString(),
                    "-e",
                    "DELETE FROM hive WHERE id = 7",
                    "--server",
                    "postgresql",
                    "--prove");
            assertThat(forbidden.err()).contains("the user may not do what the proposal asks for");
            assertThat(forbidden.status()).isEqualTo(3);

            refused(
                    charter(there.replace(", prove: yes", "")),
                    "write `prove: yes` under `database`",
                    "--server",
                    "postgresql");
            refused(keepers(there), "say --server postgresql, mariadb or sqlite");
            refused(keepers(there), "say --server postgresql", "--server", "sqlite");
        }
    }

    private Path charter(String database) throws IOException {
        return keepers(database);
    }

    private static void refused(Path charter, String why, String... more) {
        List<String> words = new ArrayList<>(
                List.of("rehearse", charter.toString(), "-e", "DELETE FROM hive WHERE id = 7", "--prove"));
        words.addAll(List.of(more));
        Program refused = Program.run(words.toArray(new String[0]));
        assertThat(refused.err()).contains(why);
        assertThat(refused.status()).isEqualTo(2);
    }

    @Test
    void a_proof_that_is_killed_leaves_nothing() throws Exception {
        try (PostgresServer server = new PostgresServer()) {
            server.execute(
                    "CREATE SCHEMA c",
                    "SET search_path = c",
                    "CREATE TABLE keeper (id integer PRIMARY KEY, name varchar(20))",
                    "CREATE TABLE hive (id integer PRIMARY KEY, keeper integer, since date)",
                    "INSERT INTO keeper VALUES (1, 'Ada')",
                    "CREATE FUNCTION wait() RETURNS trigger LANGUAGE plpgsql AS 'BEGIN PERFORM pg_sleep(60); RETURN NULL; END'",
                    "CREATE TRIGGER wait AFTER DELETE ON keeper FOR EACH ROW EXECUTE FUNCTION wait()");
            requireNothingLeft(
                    server, server.address(), "SELECT pid FROM pg_stat_activity WHERE wait_event = 'PgSleep'");
            // The server finds out when it wants to answer; here it need not be waited for.
            server.execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE wait_event = 'PgSleep'");
            server.execute("SET lock_timeout = '20s'", "DROP TABLE keeper");
        }
    }

    @Test
    void a_proof_on_mariadb_that_is_killed_leaves_nothing() throws Exception {
        Optional<MariadbServer> started = MariadbServer.started();
        if (started.isEmpty()) {
            return;
        }
        try (MariadbServer server = started.get()) {
            server.execute(
                    "CREATE TABLE keeper (id integer PRIMARY KEY, name varchar(20))",
                    "CREATE TABLE hive (id integer PRIMARY KEY, keeper integer, since date)",
                    "INSERT INTO keeper VALUES (1, 'Ada')",
                    "CREATE TRIGGER wait AFTER DELETE ON keeper FOR EACH ROW DO SLEEP(60)");
            String waiting = "SELECT id FROM information_schema.processlist WHERE state = 'User sleep'";
            requireNothingLeft(server, server.address(), waiting);
            for (String id : texts(server, waiting)) {
                server.execute("KILL " + id);
            }
            server.execute("SET lock_wait_timeout = 20", "DROP TABLE keeper", "DROP TABLE hive");
        }
    }

    @Test
    void a_proof_on_sqlite_that_is_killed_leaves_nothing() throws Exception {
        Path file = folder.resolve("killed.db");
        String address = "jdbc:sqlite:" + file;
        try (SqliteServer server = new SqliteServer(address)) {
            server.execute(
                    "CREATE TABLE keeper (id integer PRIMARY KEY, name varchar(20))",
                    "CREATE TABLE hive (id integer PRIMARY KEY, keeper integer, since date)",
                    "INSERT INTO keeper VALUES (1, 'Ada')",
                    "CREATE TRIGGER wait AFTER DELETE ON keeper BEGIN SELECT count(*) FROM (WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL"
                            + " SELECT i + 1 FROM n WHERE i < 1000000000000) SELECT i FROM n); END");
        }
        Process process = proving(address, "sqlite");
        Path said = folder.resolve("killed.txt");
        for (int i = 0; i < 300 && !Files.readString(said).contains("proving in") && process.isAlive(); i++) {
            Thread.sleep(100);
        }
        assertThat(Files.readString(said)).contains("proving in");
        // It is in the trigger soon, and never gets out of it.
        Thread.sleep(1_500);
        assertThat(process.isAlive()).isTrue();
        process.destroyForcibly();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        try (SqliteServer server = new SqliteServer(address)) {
            assertThat(texts(server, "SELECT name FROM keeper")).containsExactly("Ada");
            server.execute("DROP TABLE keeper");
        }
    }

    /** Kills a proof while a trigger of the server waits. */
    private void requireNothingLeft(RealServer server, String address, String waiting) throws Exception {
        Process process = proving(address, server.name());
        for (int i = 0; i < 300 && texts(server, waiting).isEmpty() && process.isAlive(); i++) {
            Thread.sleep(100);
        }
        assertThat(texts(server, waiting))
                .as(Files.readString(folder.resolve("killed.txt")))
                .isNotEmpty();
        process.destroyForcibly();
        assertThat(process.waitFor(30, TimeUnit.SECONDS)).isTrue();
        assertThat(texts(server, "SELECT name FROM keeper")).containsExactly("Ada");
    }

    /** A proof of a delete in a process of its own. */
    private Process proving(String address, String server) throws IOException {
        ProcessBuilder proving = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        "taxiomet.cli.Main",
                        "rehearse",
                        keepers("{url: \"" + address + "\", prove: yes}").toString(),
                        "-e",
                        "DELETE FROM keeper",
                        "--server",
                        server,
                        "--prove")
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("killed.txt").toFile());
        proving.environment().putAll(Program.allowed());
        return proving.start();
    }
}
