package taxiomet.settle.docket;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.charter.Accepted;
import taxiomet.charter.Accepted.AcceptedRow;
import taxiomet.charter.Alike;
import taxiomet.check.CheckRun;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Choice;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.finding.settled.DocketDecisions.Remark;
import taxiomet.proposal.Change;
import taxiomet.settle.docket.Deciding.Filled;
import taxiomet.settle.docket.Deciding.Outcome;
import taxiomet.testing.TestTable;
import taxiomet.testing.TestTables;
import taxiomet.work.Secret;

/** Which decisions a docket offers for rows of tables, and what comes of those that are taken. */
class DocketOfTablesTest {
    private static final Secret SECRET = Secret.random();

    @TempDir
    private Path folder;

    private static TestTable quays() {
        return table("quay", "no integer", "name text").key("no").label("name").rows("1|North", "2|South", "12|Long");
    }

    private static TestTable boats(String... rows) {
        return table("boat", "boat_no integer not null", "name varchar(20) not null", "quay integer", "built date")
                .key("boat_no")
                .unique("boat_name", "name")
                .link("boat_quay", "quay -> quay(no)")
                .label("name")
                .rows(rows);
    }

    private static TestTable crew(String... rows) {
        return table("crew", "crew_no integer not null", "given text", "family text", "born date")
                .key("crew_no")
                .label("given")
                .alike(Alike.of("same_person", List.of("given", "family", "born"), 2))
                .rows(rows);
    }

    private <T> T docket(Function<Docket, T> look, TestTable... tables) {
        TestTables all = TestTables.of(folder, tables);
        try (CheckRun run = CheckRun.start(
                all.charter(),
                new CheckOptions(Set.of(), 9, 9),
                each -> all.table(each.name()).source(),
                all.context())) {
            return look.apply(new DocketMaker(all.charter(), run, SECRET).make(table -> true));
        }
    }

    private static List<String> choices(Item item) {
        return item.choices().stream().map(Choice::words).toList();
    }

    /** Takes decisions: {@code row=choice}, perhaps with {@code =new value} behind; the rows of one table, by their numbers. */
    private Outcome decide(TestTable[] tables, String... decisions) {
        TestTables all = TestTables.of(folder, tables);
        return docket(
                docket -> {
                    Deciding deciding = new Deciding(all.charter(), docket);
                    for (Item item : docket.items()) {
                        String[] taken = Set.of(decisions).stream()
                                .map(each -> each.split("="))
                                .filter(each ->
                                        Long.parseLong(each[0]) == item.place().row())
                                .findFirst()
                                .orElse(new String[] {"", null});
                        deciding.takeAll(
                                List.of(new Filled(
                                        "line " + item.place().row(),
                                        item.reference(),
                                        Map.of(),
                                        taken[1],
                                        taken.length > 2 ? taken[2] : null,
                                        null,
                                        null,
                                        null)),
                                each -> Map.of(),
                                false);
                    }
                    return deciding.outcome();
                },
                tables);
    }

    @Test
    void anOrphanIsPointedAtTheParentThatWasMeantOrEmptiedOrGoes() {
        List<Item> items = docket(Docket::items, quays(), boats("1|Tern|122|2001-01-01"));
        assertThat(items).hasSize(1);
        assertThat(items.get(0).name()).isEqualTo("1: Tern");
        assertThat(choices(items.get(0)))
                .contains(
                        "create the missing quay 122", "empty quay", "change quay to the new value", "delete this row")
                .endsWith("bear it until the day given", "it is mended where it comes from");
    }

    @Test
    void rowsThatShareAKeyAreMergedByTheKeyThatTellsThemApart() {
        TestTable[] tables = {quays(), boats("1|Tern|1|NULL", "2|Tern|1|NULL", "3|Gull|2|NULL")};
        List<Item> items = docket(Docket::items, tables);
        assertThat(items).hasSize(2);
        assertThat(choices(items.get(0)).get(0)).isEqualTo("merge it into 2 (Tern)");
        Outcome merged = decide(tables, "2=merge it into 1 (Tern)");
        assertThat(merged.changes()).singleElement().isInstanceOfSatisfying(Change.Merge.class, merge -> {
            assertThat(merge.goes()).containsExactly("2");
            assertThat(merge.stays()).containsExactly("1");
        });
        assertThat(merged.told().open()).hasSize(1);
    }

    @Test
    void everyCopyDeletedIsAContradiction() {
        Outcome outcome = decide(
                new TestTable[] {quays(), boats("1|Tern|1|NULL", "2|Tern|1|NULL")},
                "1=delete this copy",
                "2=delete this copy");
        assertThat(outcome.changes()).isEmpty();
        assertThat(outcome.told().remarks())
                .extracting(Remark::words)
                .singleElement()
                .asString()
                .contains("none would be left");
    }

    @Test
    void aNewValueIsWrittenAndItsAbsenceSaid() {
        TestTable[] tables = {quays(), boats("1|Tern|9|NULL", "2|Gull|9|NULL")};
        Outcome outcome = decide(tables, "1=change quay to the new value=2", "2=change quay to the new value");
        assertThat(outcome.changes()).singleElement().isInstanceOf(Change.UpdateListed.class);
        assertThat(outcome.told().remarks())
                .extracting(Remark::words)
                .singleElement()
                .asString()
                .contains("quay is missing");
    }

    @Test
    void likelyDoublesAreMergedIntoTheLikestFirst() {
        List<Item> items = docket(
                Docket::items, crew("1|Roberta|Marrow|NULL", "2|Roberto|Marrow|NULL", "3|Roberta|Marrow|2001-01-01"));
        assertThat(items).hasSize(3);
        assertThat(items.get(0).problem()).startsWith("as row 3: given and family equal");
        assertThat(choices(items.get(0)).subList(0, 3))
                .containsExactly("merge it into 3 (Roberta)", "merge it into 2 (Roberto)", "it is a thing of its own");
    }

    @Test
    void twoThingsAreBorneAsLongAsTheyAreAsTheyAre() {
        TestTable[] tables = {crew("1|Ada|Marrow|NULL", "2|ADA|Marrow|NULL")};
        Outcome outcome = decide(tables, "2=they are two things");
        assertThat(outcome.changes()).isEmpty();
        List<Accepted> accepted = outcome.accepted();
        assertThat(accepted).singleElement().satisfies(each -> {
            assertThat(each.finding()).isEqualTo("likely double");
            assertThat(each.reason()).isEqualTo("they are two things");
            assertThat(each.until()).isEmpty();
            List<String> first = new ArrayList<>(List.of("Ada", "Marrow"));
            first.add(null);
            List<String> second = new ArrayList<>(List.of("ADA", "Marrow"));
            second.add(null);
            assertThat(each.rows())
                    .containsExactly(
                            new AcceptedRow(List.of("2"), Optional.of(second)),
                            new AcceptedRow(List.of("1"), Optional.of(first)));
        });
    }

    @Test
    void whoIsSaidToBeTwoThingsCannotBeMerged() {
        TestTable[] tables = {crew("1|Ada|Marrow|NULL", "2|ADA|Marrow|NULL")};
        Outcome outcome = decide(tables, "2=they are two things", "1=merge it into 2 (ADA)");
        assertThat(outcome.changes()).isEmpty();
        assertThat(outcome.accepted()).isEmpty();
        assertThat(outcome.told().remarks())
                .extracting(Remark::words)
                .singleElement()
                .asString()
                .contains("a thing of its own");
    }

    @Test
    void mergedBothWaysIsAContradiction() {
        TestTable[] tables = {crew("1|Ada|Marrow|NULL", "2|ADA|Marrow|NULL")};
        Outcome outcome = decide(tables, "2=merge it into 1 (Ada)", "1=merge it into 2 (ADA)");
        assertThat(outcome.changes()).isEmpty();
        assertThat(outcome.told().remarks()).isNotEmpty();
    }

    /** Decides that rows go, each through the docket of somebody. */
    private static List<Filled> deletes(List<Item> items) {
        return items.stream()
                .map(item -> new Filled(
                        "row " + item.place().row(),
                        item.reference(),
                        Map.of(),
                        "delete this row",
                        null,
                        null,
                        null,
                        null))
                .toList();
    }

    @Test
    void aRowThatWasLaidBeforeAnotherOwnerCountsOnlyWhereThatIsSaid() {
        TestTable owned = boats("1|Tern|122|2001-01-01", "2|Skua|133|2001-01-01", "3|Gull|144|1999-01-01")
                .owner("built");
        TestTables all = TestTables.of(folder, quays(), owned);
        docket(
                docket -> {
                    List<Item> items = docket.items();
                    List<Item> sealed = items.stream().map(Item::forItsOwner).toList();
                    assertThat(sealed.get(2).reference())
                            .isNotEqualTo(items.get(2).reference());
                    for (boolean takesOthers : new boolean[] {false, true}) {
                        Deciding deciding = new Deciding(all.charter(), docket);
                        deciding.takeAll(deletes(sealed), each -> Map.of(), takesOthers);
                        Outcome outcome = deciding.outcome();
                        assertThat(outcome.told().decided()).isEqualTo(takesOthers ? 3 : 2);
                        assertThat(outcome.told().remarks()).hasSize(takesOthers ? 0 : 1);
                    }
                    // A docket for nobody in particular holds rows of all.
                    Deciding deciding = new Deciding(all.charter(), docket);
                    deciding.takeAll(deletes(items), each -> Map.of(), false);
                    assertThat(deciding.outcome().told().decided()).isEqualTo(3);
                    return null;
                },
                quays(),
                owned);
    }
}
