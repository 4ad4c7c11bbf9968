package taxiomet.cli.databases;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** A charter beside the catalogue of a PostgreSQL database in which some declarations are there, and not held. */
final class AgainstTest {
    private static EmbeddedPostgres server;

    @TempDir
    private Path folder;

    private Path charter;

    @BeforeAll
    static void start() throws Exception {
        server = EmbeddedPostgres.start();
    }

    @AfterAll
    static void stop() throws Exception {
        server.close();
    }

    private static void run(String... statements) throws SQLException {
        try (Connection connection = server.getPostgresDatabase().getConnection();
                Statement statement = connection.createStatement()) {
            for (String each : statements) {
                statement.execute(each);
            }
        }
    }

    @BeforeEach
    void declare() throws Exception {
        run(
                "DROP SCHEMA public CASCADE",
                "CREATE SCHEMA public",
                "CREATE TABLE berth (no integer PRIMARY KEY, quay text)",
                "CREATE TABLE boat (id integer PRIMARY KEY, berth integer, length integer, name text)",
                "INSERT INTO boat VALUES (1, 7, -3, 'Ada'), (2, NULL, 5, 'Ada')");
        charter = Files.writeString(folder.resolve("charter.yaml"), """
                charter: 1
                tables:
                  berth: {rows: berth.csv, columns: {no: integer, quay: text}, primary_key: no}
                  boat:
                    rows: boat.csv
                    columns: {id: integer, berth: integer, length: integer, name: text}
                    primary_key: id
                    unique: {boat_name: name}
                    foreign_keys: {boat_berth: {columns: berth, references: berth}}
                    rules: {some_length: length > 0}
                """);
    }

    /** What is said of the database, each as where and what. */
    private List<String> vet() {
        Program vet = Program.run(
                "vet",
                charter.toString(),
                "--against",
                "jdbc:postgresql://localhost:" + server.getPort() + "/postgres",
                "--user",
                "postgres",
                "--json");
        List<String> said = new ArrayList<>();
        for (JsonNode judgement : vet.json().get("findings")) {
            if (judgement.get("finding").asText().contains("database")) {
                said.add(judgement.get("finding").asText() + ": "
                        + judgement.get("problem").asText());
            }
        }
        return said;
    }

    @Test
    void what_was_never_validated_is_there_and_not_held() throws Exception {
        run(
                "ALTER TABLE boat ADD CONSTRAINT boat_berth FOREIGN KEY (berth) REFERENCES berth NOT VALID",
                "ALTER TABLE boat ADD CONSTRAINT some_length CHECK (length > 0) NOT VALID",
                "CREATE UNIQUE INDEX boat_name ON boat (id, name)");
        assertThat(vet())
                .hasSize(4)
                .anyMatch(said -> said.startsWith("not held by the database: link `boat_berth`")
                        && said.contains("never validated"))
                .anyMatch(said -> said.startsWith("not held by the database: rule `some_length`"))
                .anyMatch(said -> said.startsWith("not in the database: unique key `boat_name`"))
                .anyMatch(said -> said.startsWith("only in the database: unique key `boat_name`"));
        run("INSERT INTO berth VALUES (7, 'north')", "ALTER TABLE boat VALIDATE CONSTRAINT boat_berth");
        assertThat(vet()).noneMatch(said -> said.contains("boat_berth"));
    }

    @Test
    void a_link_whose_triggers_are_disabled_is_not_held() throws Exception {
        run(
                "INSERT INTO berth VALUES (7, 'north')",
                "ALTER TABLE boat ADD CONSTRAINT to_berth FOREIGN KEY (berth) REFERENCES berth",
                "ALTER TABLE boat DISABLE TRIGGER ALL");
        assertThat(vet())
                .anyMatch(said -> said.contains("link `boat_berth`") && said.contains("triggers are disabled"));
    }

    @Test
    void an_index_that_could_not_be_built_holds_nothing() throws Exception {
        assertThat(org.assertj.core.api.Assertions.catchThrowable(
                        () -> run("CREATE UNIQUE INDEX CONCURRENTLY boat_name ON boat (name)")))
                .hasMessageContaining("could not create unique index");
        assertThat(vet())
                .anyMatch(said -> said.contains("unique key `boat_name`") && said.contains("could not be built"));
    }
}
