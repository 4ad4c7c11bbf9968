package taxiomet.vet;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.ForeignKey.ActionName;
import taxiomet.testing.TestTable;
import taxiomet.vet.LinkGraph.ManyToMany;

/** How tables hang together, and what a link says in a sentence. */
class LinkGraphTest {
    private static final TestTable KEEPER =
            table("keeper", "id integer", "mentor integer").key("id").link("mentor", "mentor -> keeper (id)");
    private static final TestTable APIARY = table("apiary", "id integer", "keeper integer")
            .key("id")
            .link("apiary_keeper", "keeper -> keeper (id)", ActionName.CASCADE, ActionName.NO_ACTION);
    private static final TestTable HIVE = table("hive", "id integer", "apiary integer not null")
            .key("id")
            .link("hive_apiary", "apiary -> apiary (id)", ActionName.CASCADE, ActionName.CASCADE);
    private static final TestTable DRUG = table("drug", "code text").key("code");
    private static final TestTable DOSE = table("dose", "hive integer", "drug text")
            .key("hive", "drug")
            .link("dose_hive", "hive -> hive (id)", ActionName.CASCADE, ActionName.NO_ACTION)
            .link("dose_drug", "drug -> drug (code)", ActionName.SET_NULL, ActionName.NO_ACTION);

    private static final Charter BEES = ReviewTest.charter(DOSE, HIVE, APIARY, KEEPER, DRUG);
    private static final LinkGraph GRAPH = new LinkGraph(BEES);

    @Test
    void tables_are_loaded_behind_those_that_they_need() {
        assertThat(GRAPH.loadOrder())
                .containsExactly(List.of("keeper", "drug"), List.of("apiary"), List.of("hive"), List.of("dose"));
    }

    @Test
    void tables_in_a_circle_are_loaded_together() {
        TestTable a = table("a", "id integer", "b integer").key("id").link("ab", "b -> b (id)");
        TestTable b = table("b", "id integer", "a integer", "k integer")
                .key("id")
                .link("ba", "a -> a (id)")
                .link("bk", "k -> keeper (id)");
        TestTable c = table("c", "id integer", "a integer").key("id").link("ca", "a -> a (id)");
        LinkGraph graph = new LinkGraph(ReviewTest.charter(c, a, b, KEEPER));
        assertThat(graph.loadOrder()).containsExactly(List.of("keeper"), List.of("a", "b"), List.of("c"));
        assertThat(graph.realCircles(link -> true)).hasSize(1);
        assertThat(graph.realCircles(link -> !link.name().equals("ab"))).isEmpty();
    }

    @Test
    void who_depends_on_whom_is_counted_in_links() {
        assertThat(GRAPH.dependants("keeper")).isEqualTo(Map.of("apiary", 1, "hive", 2, "dose", 3));
        assertThat(GRAPH.supports("dose")).isEqualTo(Map.of("hive", 1, "drug", 1, "apiary", 2, "keeper", 3));
        assertThat(GRAPH.cascade("apiary")).isEqualTo(Map.of("hive", 1, "dose", 2));
        assertThat(GRAPH.cascade("drug")).isEmpty();
    }

    @Test
    void a_link_that_nobody_enforces_hands_nothing_on() {
        TestTable loose = table("hive", "id integer", "apiary integer")
                .key("id")
                .link("hive_apiary", "apiary -> apiary (id)", ActionName.CASCADE, ActionName.NO_ACTION)
                .with(ForeignKey::notEnforced);
        LinkGraph graph = new LinkGraph(ReviewTest.charter(loose, APIARY, KEEPER));
        assertThat(graph.cascade("apiary")).isEmpty();
        assertThat(graph.dependants("apiary")).isEqualTo(Map.of("hive", 1));
    }

    @Test
    void a_key_made_of_two_links_joins_many_to_many() {
        assertThat(GRAPH.manyToMany()).containsExactly(new ManyToMany("hive", "drug", "dose"));
        assertThat(LinkGraph.isLinkingTable(DOSE.declared())).isTrue();
        assertThat(LinkGraph.isLinkingTable(HIVE.declared())).isFalse();
    }

    @Test
    void very_long_chains_take_no_recursion() {
        TestTable[] tables = new TestTable[20_000];
        for (int i = 0; i < tables.length; i++) {
            tables[i] = table("t" + i, "id integer", "up integer").key("id");
            tables[i].link("l", "up -> t" + (i + 1) % tables.length + " (id)");
        }
        assertThat(new LinkGraph(ReviewTest.charter(tables)).loadOrder()).hasSize(1);
    }

    @Test
    void what_depends_on_a_table_comes_nearest_first() {
        VetResult result = VetResult.of(BEES, List.of(), Optional.empty(), Optional.of("apiary"));
        VetResult.Around around = result.around().orElseThrow();
        assertThat(around.dependants().stream()
                        .map(n -> n.table() + " " + n.steps())
                        .toList())
                .containsExactly("hive 1", "dose 2");
        assertThat(around.supports().stream()
                        .map(n -> n.table() + " " + n.steps())
                        .toList())
                .containsExactly("keeper 1");
        assertThat(around.deletable()).hasSize(2);
        assertThat(result.pairs()).hasSize(1);
        assertThat(result.tables()).isEqualTo(5);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
                    integer not null | NO_ACTION | NO_ACTION | 1..3 | exactly one row of p (by x); each row of p has from 1 to 3 rows of c; deleting one of p that has some is refused
                    integer | CASCADE | CASCADE | 0.. | one row of p or none (by x); each row of p has any number of rows of c; deleting one of p deletes them; they follow when it changes its key
                    integer | SET_NULL | SET_NULL | ..1 | one row of p or none (by x); each row of p has at most 1 row of c; deleting one of p leaves them without one; they lose it when it changes its key
                    integer | SET_DEFAULT | SET_DEFAULT | 2 | one row of p or none (by x); each row of p has exactly 2 rows of c; deleting one of p gives them the default; they get the default when it changes its key
                    integer | RESTRICT | RESTRICT | 1.. | one row of p or none (by x); each row of p has at least 1 row of c; deleting one of p that has some is refused
                    """)
    void a_link_is_a_sentence(String type, ActionName onDelete, ActionName onUpdate, String range, String sentence) {
        TestTable child = table("c", "id integer", "x " + type)
                .key("id")
                .link("l", "x -> p (k)", onDelete, onUpdate)
                .with(link -> TestTable.children(link, range));
        Charter charter = ReviewTest.charter(table("p", "k integer").key("k"), child);
        assertThat(LinkSentence.of(charter, charter.links().get(0))).isEqualTo("each row of c points at " + sentence);
    }

    @Test
    void a_sentence_knows_its_own_table_keys_and_vowels() {
        assertThat(LinkSentence.of(BEES, BEES.table("keeper").links().get(0)))
                .startsWith(
                        "each row of keeper points at one row of its own table or none (by mentor); each row of keeper has any number of rows of keeper");
        assertThat(LinkSentence.of(BEES, BEES.table("hive").links().get(0)))
                .contains("; each row of apiary has any number of rows of hive; deleting one of apiary deletes them");
        TestTable loose =
                table("c", "id integer").key("id").link("l", "id -> p (k)").with(ForeignKey::notEnforced);
        Charter charter = ReviewTest.charter(table("p", "k integer").key("k"), loose);
        assertThat(LinkSentence.of(charter, charter.links().get(0)))
                .contains("each row of p has at most 1 row of c")
                .endsWith("; none of it is enforced");
    }
}
