package taxiomet.rehearse;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.Expressions.column;
import static taxiomet.testing.Expressions.equal;
import static taxiomet.testing.Expressions.number;
import static taxiomet.testing.Expressions.text;
import static taxiomet.testing.Rehearsed.update;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Expression.Type;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.Server;
import taxiomet.proposal.Change;
import taxiomet.proposal.Proposal.Deferral;
import taxiomet.testing.Rehearsed;
import taxiomet.testing.TestTables;

/** A key change whose new value the child's column cannot hold (R9). */
class NarrowChildTest {
    @TempDir
    private Path folder;

    private TestTables tables() {
        return TestTables.of(
                folder,
                table("p", "id varchar(10)").key("id").rows("abc"),
                table("c", "id integer", "p varchar(3)")
                        .key("id")
                        .link("l", "p -> p (id)", ActionName.CASCADE, ActionName.CASCADE)
                        .rows("1|abc"));
    }

    private Rehearsed run(Server behaviour, Deferral deferral) {
        return Rehearsed.as(behaviour, deferral, tables(), update("p", "id", text("abcdefg")));
    }

    @Test
    void the_standard_and_postgresql_name_the_type() {
        for (Server behaviour : new Server[] {Server.STANDARD, Server.POSTGRESQL}) {
            for (Deferral deferral : Deferral.values()) {
                assertThat(run(behaviour, deferral).answers().get(0))
                        .as(behaviour + " " + deferral)
                        .startsWith("blocked: type mismatch at c.p 1");
            }
            assertThat(run(behaviour, Deferral.DECLARED).rows("c")).containsExactly("1|abc");
        }
    }

    @Test
    void mariadb_names_the_link() {
        assertThat(run(Server.MARIADB, Deferral.DECLARED).answers())
                .containsExactly("blocked: rows still point at it at c.l 1");
    }

    @Test
    void sqlite_knows_no_lengths_and_takes_it() {
        Rehearsed came = run(Server.SQLITE, Deferral.DECLARED);
        assertThat(came.answers()).containsExactly("accepted");
        assertThat(came.rows("c")).containsExactly("1|abcdefg");
        assertThat(came.findingChanges()).contains("+type mismatch at c.p 1");
    }

    @Test
    void a_number_too_large_for_the_child_is_the_same() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "id bigint").key("id").rows("5"),
                table("c", "id integer", "p smallint")
                        .key("id")
                        .link("l", "p -> p (id)", ActionName.CASCADE, ActionName.CASCADE)
                        .rows("1|5"));
        Change change = update("p", "id", number("70000"));
        assertThat(Rehearsed.as(Server.STANDARD, tables, change).answers().get(0))
                .startsWith("blocked: type mismatch at c.p 1");
        assertThat(Rehearsed.as(Server.SQLITE, tables, change).rows("c")).containsExactly("1|70000");
    }

    /** PostgreSQL turns the new key into the child's type before it looks for children (P7). */
    @Test
    void on_postgresql_a_key_must_fit_though_no_child_has_it() {
        TestTables tables = TestTables.of(
                folder,
                table("p", "k varchar(10)").key("k").rows("abc", "xyz"),
                table("c", "id integer", "p varchar(3)")
                        .key("id")
                        .link("l", "p -> p (k)", ActionName.NO_ACTION, ActionName.CASCADE)
                        .rows("1|xyz"));
        Change change = update("p", "k", text("abcdefg"), equal(column(0, Type.TEXT), text("abc")));
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, change).answers())
                .containsExactly("blocked: type mismatch at c.p");
        for (Server other : new Server[] {Server.STANDARD, Server.SQLITE, Server.MARIADB}) {
            assertThat(Rehearsed.as(other, tables, change).answers())
                    .as(other.toString())
                    .containsExactly("accepted");
        }
        Change fitting = update("p", "k", text("abd"), equal(column(0, Type.TEXT), text("abc")));
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, fitting).answers()).containsExactly("accepted");
    }

    /** PostgreSQL reads constants before it looks for rows; the others meet them with the rows (R3). */
    @Test
    void a_constant_that_is_not_of_its_type_refuses_on_postgresql_though_no_row_is_met() {
        TestTables tables = TestTables.of(
                folder, table("t", "id integer", "b bigint").key("id").rows("1|2"));
        Change change = update(
                "t",
                "b",
                text("x"),
                taxiomet.testing.Expressions.equal(taxiomet.testing.Expressions.whole(0), number("99")));
        assertThat(Rehearsed.as(Server.POSTGRESQL, tables, change).answers())
                .containsExactly("blocked: type mismatch at t.b");
        for (Server other : new Server[] {Server.STANDARD, Server.SQLITE, Server.MARIADB}) {
            assertThat(Rehearsed.as(other, tables, change).answers())
                    .as(other.toString())
                    .containsExactly("accepted");
        }
    }
}
