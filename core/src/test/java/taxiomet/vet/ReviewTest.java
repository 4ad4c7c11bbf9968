package taxiomet.vet;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Alike;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.Action;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.charter.ForeignKey.Deferrable;
import taxiomet.charter.ForeignKey.Match;
import taxiomet.charter.Key;
import taxiomet.charter.NotRead;
import taxiomet.charter.Server;
import taxiomet.charter.Severity;
import taxiomet.testing.Columns;
import taxiomet.testing.Expressions;
import taxiomet.testing.TestTable;

/** What the review says about declarations, one by one. */
class ReviewTest {
    static Charter charter(TestTable... tables) {
        return new Charter(
                "test", Arrays.stream(tables).map(TestTable::declared).toList(), Server.STANDARD);
    }

    private static List<String> review(TestTable... tables) {
        return review(Optional.empty(), tables);
    }

    private static List<String> review(Optional<Server> server, TestTable... tables) {
        return Review.of(charter(tables), server).stream()
                .map(j -> j.severity() + " " + String.join("/", j.path()) + ": " + j.problem())
                .toList();
    }

    private static TestTable parent(String type) {
        return table("p", "k " + type, "note text").key("k");
    }

    private static TestTable child(String type) {
        return table("c", "id integer", "x " + type).key("id").link("l", "x -> p (k)");
    }

    @Test
    void a_clean_charter_has_nothing_said_about_it() {
        assertThat(review(parent("integer"), child("integer not null"))).isEmpty();
    }

    @Test
    void likeness_that_says_little_is_said() {
        TestTable keepers = table("k", "id integer", "name text", "town text", "active boolean", "p integer not null")
                .key("id")
                .link("l", "p -> p (k)")
                .alike(Alike.of("any", List.of("name", "town"), 1))
                .alike(Alike.of("all", List.of("name", "active"), 2))
                .alike(Alike.of("numbered", List.of("id", "name"), 2))
                .alike(Alike.of("sound", List.of("name", "town"), 2));
        assertThat(review(parent("integer"), keepers))
                .containsExactly(
                        "WARNING tables/k/alike/any: `any` takes two rows for one thing when a single one of 2 columns agrees",
                        "WARNING tables/k/alike/all: `all` compares `active`, which has so few values that many rows agree in it",
                        "WARNING tables/k/alike/numbered: `numbered` compares `id`, the primary key: rows that share it are duplicates");
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    integer;      smallint;      WARNING; the child cannot hold every key
                    smallint;     integer;       WARNING; the child can hold numbers that no key has
                    varchar(10);  varchar(8);    WARNING; the child cannot hold every key
                    varchar(10);  text;          WARNING; the child can hold values that no key has
                    numeric(9,2); numeric(9,3);  WARNING; their scales differ
                    numeric(9,2); numeric(8,2);  WARNING; the child cannot hold every key
                    integer;      double precision; WARNING; both are compared as approximate numbers
                    timestamp;    timestamp(3);  WARNING; their digits of a second differ
                    date;         timestamp;     WARNING; they are equal only where the wider one has nothing more to say
                    integer;      text;          ERROR;   which can never be equal
                    date;         integer;       ERROR;   which can never be equal
                    uuid;         text;          ERROR;   which can never be equal
                    """)
    void the_ends_of_a_link_have_one_type(String parent, String child, String severity, String words) {
        assertThat(review(parent(parent), child(child)))
                .anySatisfy(judgement -> assertThat(judgement)
                        .startsWith(severity + " tables/c/foreign_keys/l/columns: link `l`: `x` is ")
                        .endsWith(words));
    }

    @Test
    void a_link_points_at_a_key() {
        TestTable noKey = table("p", "k integer", "other integer").key("other");
        assertThat(review(noKey, child("integer not null")))
                .containsExactly(
                        "ERROR tables/c/foreign_keys/l/references: link `l` points at (k) of `p`, which is no key:"
                                + " a row could have several parents");
        TestTable ofSomeRows = table("p", "k integer", "other integer")
                .key("other")
                .unique(Key.of("u", List.of("k"), false)
                        .where(Optional.of(new taxiomet.charter.Condition("true", Expressions.TRUE))));
        assertThat(review(ofSomeRows, child("integer not null")))
                .anyMatch(judgement -> judgement.contains("which is no key"));
        assertThat(review(noKey.unique("u", "k"), child("integer not null"))).noneMatch(j -> j.contains("no key"));
    }

    @Test
    void a_link_drawn_the_wrong_way_round_is_seen() {
        TestTable hive = table("hive", "id integer", "colony integer").key("id");
        TestTable colony = table("colony", "id integer").key("id").link("l", "id -> hive (colony)");
        assertThat(review(hive, colony)).anyMatch(j -> j.startsWith("ERROR") && j.contains("wrong way round"));
        assertThat(review(hive.unique("u", "colony"), colony))
                .anyMatch(j -> j.startsWith("WARNING") && j.contains("wrong way round"));
    }

    @ParameterizedTest
    @CsvSource({
        "integer, SET_NULL, ''",
        "integer not null, SET_NULL, ERROR",
        "integer, SET_DEFAULT, WARNING",
        "integer not null, SET_DEFAULT, ERROR",
        "integer default 1, SET_DEFAULT, ''",
        "integer not null default 1, SET_DEFAULT, ''",
        "integer, CASCADE, WARNING",
        "integer not null, CASCADE, ''",
        "integer, RESTRICT, ''"
    })
    void an_action_writes_what_the_column_can_hold(String type, ActionName action, String severity) {
        TestTable child =
                table("c", "id integer", "x " + type).key("id").link("l", "x -> p (k)", action, ActionName.NO_ACTION);
        List<String> said = review(parent("integer"), child);
        if (severity.isEmpty()) {
            assertThat(said).isEmpty();
        } else {
            assertThat(said).singleElement().asString().startsWith(severity + " tables/c/foreign_keys/l/on_delete: ");
        }
    }

    @Test
    void columns_named_in_an_action_are_those_written() {
        TestTable parents = table("p", "a integer", "b integer").key("a", "b");
        TestTable child = table("c", "id integer", "x integer not null", "y integer")
                .key("id")
                .link("l", "x, y -> p (a, b)", Match.FULL, ActionName.SET_NULL, ActionName.NO_ACTION);
        assertThat(Review.of(charter(parents, child), Optional.empty()).get(0).remedy())
                .isEqualTo("name the columns: {set null: [y]}");
        child.with(link -> new ForeignKey(
                link.name(),
                link.child(),
                link.columns(),
                link.parent(),
                link.parentColumns(),
                link.match(),
                new Action(ActionName.SET_NULL, List.of("y")),
                Action.NONE,
                Deferrable.NO,
                true,
                Optional.empty(),
                Optional.empty(),
                false,
                Severity.ERROR));
        assertThat(review(parents, child)).isEmpty();
    }

    @Test
    void what_is_said_twice_is_said_once_too_often() {
        TestTable twins = child("integer not null")
                .link("again", "x -> p (k)")
                .unique("ids", "id")
                .unique("more", "id", "x");
        assertThat(review(parent("integer"), twins))
                .containsExactlyInAnyOrder(
                        "WARNING tables/c/unique/ids: unique key `ids` says the same as the primary key",
                        "WARNING tables/c/unique/more: unique key `more` contains the primary key: it can never be broken"
                                + " where that is kept",
                        "WARNING tables/c/foreign_keys/again: link `again` says the same as `l`");
    }

    @Test
    void a_link_over_a_key_is_one_to_one() {
        assertThat(review(parent("integer"), child("integer not null").unique("u", "x")))
                .containsExactly("NOTE tables/c/foreign_keys/l: link `l` is really one to one: its columns are a key of"
                        + " `c`, so no parent has two children");
    }

    @Test
    void half_nulls_under_match_simple_are_worth_knowing() {
        TestTable parents = table("p", "a integer", "b integer").key("a", "b");
        TestTable child =
                table("c", "id integer", "x integer", "y integer").key("id").link("l", "x, y -> p (a, b)");
        assertThat(review(parents, child))
                .containsExactly(
                        "NOTE tables/c/foreign_keys/l: link `l` has 2 columns, and 2 of them may be null: under"
                                + " match simple a half-null row is not judged");
    }

    @Test
    void a_table_has_a_key_and_company() {
        assertThat(review(table("t", "a integer")))
                .containsExactly(
                        "WARNING tables/t: table `t` has no primary key: rows that are equal in everything go unnoticed",
                        "NOTE tables/t: table `t` stands apart: no link leads to it or from it");
        assertThat(review(table("t", "a integer").unique("u", "a")).get(0))
                .isEqualTo("WARNING tables/t: table `t` has no primary key");
    }

    @Test
    void a_linking_table_with_a_number_of_its_own_may_hold_a_pair_twice() {
        TestTable one = table("one", "id integer").key("id");
        TestTable two = table("two", "id integer").key("id");
        TestTable linking = table("pair", "id integer", "one integer not null", "two integer not null")
                .key("id")
                .link("a", "one -> one (id)")
                .link("b", "two -> two (id)");
        assertThat(review(one, two, linking)).anyMatch(j -> j.contains("the same pair can stand twice"));
        assertThat(review(one, two, linking.unique("u", "one", "two")))
                .noneMatch(j -> j.contains("the same pair can stand twice"));
    }

    @ParameterizedTest
    @CsvSource({
        "integer default x, no integer",
        "smallint default 40000, no smallint",
        "date default 2024-02-30, no date",
        "boolean default maybe, no boolean"
    })
    void a_default_is_a_value_of_its_column(String column, String words) {
        assertThat(review(table("t", "id integer", "d " + column).key("id")))
                .anyMatch(j -> j.startsWith("ERROR tables/t/columns/d/default: ") && j.contains(words));
    }

    @Test
    void a_default_keeps_what_its_column_declares() {
        TestTable listed =
                table("t", "id integer", "d text default wild").key("id").with("d", Columns.oneOf("calm", "wary"));
        assertThat(review(listed)).anyMatch(j -> j.contains("not among the values allowed"));
        TestTable measured =
                table("t", "id integer", "d text default wild").key("id").with("d", Columns.length("..3"));
        assertThat(review(measured)).anyMatch(j -> j.contains("not of the length declared (0..3)"));
        TestTable numbers =
                table("t", "id integer", "d numeric default 1.0").key("id").with("d", Columns.oneOf("1"));
        assertThat(review(numbers)).noneMatch(j -> j.contains("allowed"));
    }

    private static TestTable self(String type, ActionName onDelete) {
        return table("s", "id integer", "up " + type)
                .key("id")
                .link("su", "up -> s (id)", onDelete, ActionName.NO_ACTION);
    }

    @Test
    void circles_that_nothing_can_enter_are_seen() {
        TestTable a = table("a", "id integer", "b integer not null").key("id").link("ab", "b -> b (id)");
        TestTable b = table("b", "id integer", "a integer not null").key("id").link("ba", "a -> a (id)");
        assertThat(review(a, b))
                .containsExactly("WARNING tables/a/foreign_keys/ab: the tables `a`, `b` need one another in a"
                        + " circle of links that may not be null: nothing can be loaded first");
        b.with(link -> TestTable.deferrable(link, Deferrable.DEFERRED));
        assertThat(review(a, b)).isEmpty();
        assertThat(review(self("integer not null", ActionName.NO_ACTION)))
                .containsExactly(
                        "WARNING tables/s/foreign_keys/su: every row of `s` needs another one over link `su`, which"
                                + " may not be null: the first row can only point at itself");
    }

    @Test
    void deletes_that_go_round_are_seen() {
        TestTable a = table("a", "id integer", "b integer not null")
                .key("id")
                .link("ab", "b -> b (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        TestTable b = table("b", "id integer", "a integer not null")
                .key("id")
                .link("ba", "a -> a (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        assertThat(review(a, b)).anyMatch(j -> j.contains("deletes go round in a circle of cascades through `a`, `b`"));
    }

    @Test
    void two_roads_with_different_orders_are_told_where_they_part() {
        TestTable top = table("top", "id integer").key("id");
        TestTable left = table("lft", "id integer", "t integer not null")
                .key("id")
                .link("tl", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        TestTable right = table("rgt", "id integer", "t integer not null")
                .key("id")
                .link("tr", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        TestTable bottom = table(
                        "bottom", "id integer", "l integer not null", "r integer not null", "n integer not null")
                .key("id")
                .link("lb", "l -> lft (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .link("rb", "r -> rgt (id)", ActionName.RESTRICT, ActionName.NO_ACTION);
        assertThat(review(top, left, right, bottom))
                .anyMatch(j ->
                        j.contains("deleting a `top` reaches `bottom` by two roads with different orders: cascade over"
                                + " `lb`, restrict over `rb`"))
                .anyMatch(j -> j.contains("deleting one `top` can reach 3 tables, 2 steps deep: lft, rgt, bottom"));
    }

    @Test
    void a_cascade_from_codes_or_over_totals_costs_dear() {
        TestTable codes = table("race", "code char(2)", "name text").key("code");
        TestTable hive = table("hive", "id integer", "race char(2) not null")
                .key("id")
                .link("hr", "race -> race (code)", ActionName.CASCADE, ActionName.NO_ACTION)
                .total("kg", Expressions.whole(0));
        assertThat(review(codes, hive))
                .anyMatch(j -> j.contains("a cascade starts at `race`, a table of codes"))
                .anyMatch(j -> j.contains("whose `kg` would be lost from the sums"));
    }

    @Test
    void a_link_that_nobody_enforces_is_noted() {
        assertThat(review(parent("integer"), child("integer not null").with(ForeignKey::notEnforced)))
                .containsExactly(
                        "NOTE tables/c/foreign_keys/l/enforced: link `l` is meant and not enforced: nothing keeps"
                                + " orphans out of the database");
    }

    @Test
    void what_was_not_read_is_judged_first() {
        Charter charter = charter(parent("integer"), child("integer not null"));
        Charter lossy = new Charter(
                charter.name(),
                charter.tables(),
                charter.behavesAs(),
                charter.links(),
                List.of(new NotRead(
                        NotRead.What.RULE,
                        Optional.of("c"),
                        "c_check",
                        "CHECK (odd(x))",
                        "there is no function odd",
                        "schema.sql:3:5",
                        Severity.ERROR)));
        Judgement judgement = Review.of(lossy, Optional.empty()).get(0);
        assertThat(judgement.severity()).isEqualTo(Severity.ERROR);
        assertThat(judgement.problem()).contains("CHECK (odd(x))").contains("there is no function odd");
    }

    @ParameterizedTest
    @CsvSource({
        "POSTGRESQL, SET_DEFAULT, true",
        "MARIADB, SET_DEFAULT, false",
        "SQLITE, SET_DEFAULT, true",
        "SQLSERVER, SET_DEFAULT, true",
        "ORACLE, SET_DEFAULT, false",
        "POSTGRESQL, RESTRICT, true",
        "MARIADB, RESTRICT, true",
        "SQLITE, RESTRICT, true",
        "SQLSERVER, RESTRICT, false",
        "ORACLE, RESTRICT, false",
        "SQLSERVER, CASCADE, true",
        "ORACLE, SET_NULL, true"
    })
    void servers_differ_in_the_actions_that_they_know(Server server, ActionName action, boolean isKnown) {
        TestTable child = table("c", "id integer", "x integer default 1")
                .key("id")
                .link("l", "x -> p (k)", action, ActionName.NO_ACTION);
        assertThat(review(Optional.of(server), parent("integer"), child).stream()
                        .noneMatch(j -> j.startsWith("ERROR")))
                .isEqualTo(isKnown);
    }

    @ParameterizedTest
    @CsvSource({
        "POSTGRESQL, FULL, true",
        "POSTGRESQL, PARTIAL, false",
        "MARIADB, FULL, false",
        "SQLITE, FULL, false",
        "SQLITE, SIMPLE, true",
        "ORACLE, PARTIAL, false"
    })
    void servers_differ_in_matches(Server server, Match match, boolean isKnown) {
        TestTable parents = table("p", "a integer", "b integer").key("a", "b");
        TestTable child = table("c", "id integer", "x integer", "y integer")
                .key("id")
                .link("l", "x, y -> p (a, b)", match, ActionName.NO_ACTION, ActionName.NO_ACTION);
        assertThat(review(Optional.of(server), parents, child).stream().noneMatch(j -> j.startsWith("ERROR")))
                .isEqualTo(isKnown);
    }

    @ParameterizedTest
    @CsvSource({"POSTGRESQL, true", "SQLITE, true", "ORACLE, true", "MARIADB, false", "SQLSERVER, false"})
    void some_servers_can_wait(Server server, boolean canWait) {
        TestTable child = child("integer not null").with(link -> TestTable.deferrable(link, Deferrable.DEFERRED));
        assertThat(review(Optional.of(server), parent("integer"), child).stream()
                        .noneMatch(j -> j.contains("has no deferrable links")))
                .isEqualTo(canWait);
    }

    @ParameterizedTest
    @CsvSource({
        "true, POSTGRESQL, true",
        "true, MARIADB, false",
        "true, SQLITE, false",
        "true, SQLSERVER, true",
        "false, SQLSERVER, false",
        "false, MARIADB, true"
    })
    void servers_differ_in_nulls_of_unique_keys(boolean areEqual, Server server, boolean isKnown) {
        Key key = new Key("u", List.of("note"), false, areEqual, Optional.empty(), Optional.empty(), Severity.ERROR);
        TestTable parents = table("p", "k integer", "note text").key("k").unique(key);
        assertThat(review(Optional.of(server), parents, child("integer not null")).stream()
                        .noneMatch(j -> j.startsWith("ERROR")))
                .isEqualTo(isKnown);
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    MARIADB;    integer;     smallint;    false
                    MARIADB;    integer;     bigint;      false
                    MARIADB;    integer;     integer;     true
                    MARIADB;    varchar(10); varchar(20); true
                    MARIADB;    date;        timestamp;   false
                    POSTGRESQL; integer;     smallint;    true
                    SQLITE;     integer;     smallint;    true
                    """)
    void one_server_joins_numbers_of_one_type_alone(Server server, String parent, String child, boolean isKnown) {
        assertThat(review(Optional.of(server), parent(parent), child(child)).stream()
                        .noneMatch(j -> j.startsWith("ERROR tables/c/foreign_keys/l/columns: MariaDB takes no link")))
                .isEqualTo(isKnown);
    }

    @Test
    void one_server_takes_no_two_cascade_roads() {
        TestTable top = table("top", "id integer").key("id");
        TestTable left = table("lft", "id integer", "t integer not null")
                .key("id")
                .link("tl", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        TestTable bottom = table("bottom", "id integer", "l integer not null", "t integer not null")
                .key("id")
                .link("lb", "l -> lft (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .link("tb", "t -> top (id)", ActionName.CASCADE, ActionName.NO_ACTION);
        assertThat(review(Optional.of(Server.SQLSERVER), top, left, bottom))
                .anyMatch(j -> j.contains("SQL Server takes no two cascade roads to one table"));
        assertThat(review(Optional.of(Server.POSTGRESQL), top, left, bottom)).noneMatch(j -> j.contains("roads"));
        assertThat(review(Optional.of(Server.SQLSERVER), self("integer", ActionName.CASCADE)))
                .anyMatch(j -> j.contains("on a link of a table to itself"));
    }
}
