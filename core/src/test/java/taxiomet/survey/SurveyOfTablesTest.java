package taxiomet.survey;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Key;
import taxiomet.charter.Table;
import taxiomet.charter.place.DelimitedFiles;
import taxiomet.spill.MemoryBudget;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;
import taxiomet.survey.profile.FoundTable;
import taxiomet.survey.profile.TypeGuess;
import taxiomet.testing.MemorySource;
import taxiomet.work.RunContext;

/** What a survey of rows proposes: types, keys and links, and what it says about each. */
class SurveyOfTablesTest {
    @TempDir
    private Path folder;

    private final Map<String, List<String>> columns = new LinkedHashMap<>();
    private final Map<String, List<String>> rows = new LinkedHashMap<>();

    private void table(String name, String header, List<String> all) {
        columns.put(name, List.of(header.split("\\|")));
        rows.put(name, all);
    }

    private SurveyResult survey() {
        return survey(0);
    }

    private SurveyResult survey(long sample) {
        List<FoundTable> found = columns.entrySet().stream()
                .map(e -> new FoundTable(
                        e.getKey(),
                        new DelimitedFiles(
                                Path.of("."), e.getKey(), ',', '"', "UTF-8", true, Optional.empty(), List.of()),
                        e.getValue(),
                        List.of()))
                .toList();
        return Survey.of(
                "test",
                found,
                new SurveyOptions(4, sample, 5),
                table -> new MemorySource(columns.get(table.name()), rows.get(table.name()), 100),
                new RunContext(folder, new MemoryBudget(64 << 20), 2, 1));
    }

    private static List<String> keys(SurveyResult result) {
        return result.draft().tables().stream()
                .map(t -> t.name() + " " + t.primaryKey().map(Key::columns).orElse(List.of()))
                .toList();
    }

    private static List<String> links(SurveyResult result) {
        return result.draft().links().stream().map(SurveyOfTablesTest::words).toList();
    }

    private static String words(ForeignKey link) {
        return link.child() + " " + link.columns() + " -> " + link.parent() + " " + link.parentColumns();
    }

    private static List<String> numbered(int count, java.util.function.IntFunction<String> row) {
        return new ArrayList<>(IntStream.rangeClosed(1, count).mapToObj(row).toList());
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    1, 2, 30000;                    smallint
                    1, 2, 40000;                    integer
                    1, 2, 3000000000;               bigint
                    1.5, 2.25, 10;                  numeric(4,2)
                    1e3, 2.5e-4, 7;                 double precision
                    true, false, true;              boolean
                    2024-02-01, 2024-03-01, 2023-12-31; date
                    2024-02-01 10:00, 2024-03-01 11:30:15, 2023-12-31 00:00; timestamp
                    2024-02-01 10:00Z, 2024-03-01 11:30+02, 2023-12-31 00:00Z; timestamp with time zone
                    10:00, 11:30:15, 09:59;         time
                    0f0e0d0c-0b0a-4908-8706-050403020100, 1f0e0d0c-0b0a-4908-8706-050403020100, 2f0e0d0c-0b0a-4908-8706-050403020100; uuid
                    heather, clover, lime;          varchar(7)
                    01.02.2024, 28.02.2024, 15.03.2024; date
                    0017, 0018, 1234;               varchar(4)
                    """)
    void a_column_gets_the_narrowest_type_that_its_values_have(String values, String type) {
        List<String> three = List.of(values.split(", "));
        table("t", "id|v", numbered(60, i -> i + "|" + three.get(i % 3)));
        assertThat(survey().tables().get(0).columns().get(1).guess().type().sql())
                .isEqualTo(type);
    }

    @Test
    void dates_are_read_as_they_are_written() {
        table("t", "id|p|d|m|c", numbered(60, i -> {
            int day = 1 + i % 28;
            return i + "|" + day + ".2.2024|" + day + "/2/2024|2/" + day + "/2024|" + i + ",50";
        }));
        Table draft = survey().draft().table("t");
        assertThat(draft.column("p").format()).contains("d.M.yyyy");
        assertThat(draft.column("d").format()).contains("d/M/yyyy");
        assertThat(draft.column("m").format()).contains("M/d/yyyy");
        assertThat(draft.column("c").decimalComma()).isTrue();
    }

    @Test
    void a_few_misfits_do_not_widen_a_type_and_are_told() {
        List<String> all = numbered(300, i -> i + "|" + (i == 17 ? "l7" : String.valueOf(i * 3)));
        table("t", "id|n", all);
        SurveyResult result = survey();
        assertThat(result.draft().table("t").column("n").type().isInteger()).isTrue();
        TypeGuess guess = result.tables().get(0).columns().get(1).guess();
        assertThat(guess.misfits()).isEqualTo(1);
        assertThat(guess.examples()).containsExactly("l7");
        assertThat(guess.holdsAll().isText()).isTrue();
        assertThat(result.comments().get(List.of("tables", "t", "columns", "n")).get(0))
                .contains("but for 1 value (l7)");
    }

    @Test
    void a_profile_counts_what_a_column_holds() {
        List<String> all = numbered(50, i -> i + "|" + (i % 10 == 0 ? "NULL" : i % 5 == 0 ? "" : "row " + i % 7));
        table("t", "id|v", all);
        ColumnProfile profile = survey().tables().get(0).columns().get(1);
        assertThat(profile.values()).isEqualTo(45);
        assertThat(profile.nulls()).isEqualTo(5);
        assertThat(profile.emptyTexts()).isEqualTo(5);
        assertThat(profile.distinct()).isEqualTo(8);
        assertThat(profile.distinctIsExact()).isTrue();
        assertThat(profile.least()).contains("");
        assertThat(profile.greatest()).contains("row 6");
        assertThat(profile.shortest()).isZero();
        assertThat(profile.longest()).isEqualTo(5);
        assertThat(profile.commonest().get(0).rows()).isEqualTo(6);
    }

    @Test
    void what_strikes_the_eye_is_remarked() {
        table(
                "t",
                "id|pad|case|nothing|code",
                numbered(
                        60,
                        i -> i + "|" + (i % 20 == 0 ? "calm " : "calm") + "|" + (i % 30 == 0 ? "CALM" : "calm") + "|"
                                + (i % 10 == 0 ? "n/a" : "lime") + "|00" + (100 + i)));
        List<ColumnProfile> profiles = survey().tables().get(0).columns();
        assertThat(profiles.get(1).remarks()).contains("3 with blanks at an end");
        assertThat(profiles.get(2).remarks()).contains("2 in another case");
        assertThat(profiles.get(3).remarks()).contains("may stand for nothing: n/a");
        assertThat(profiles.get(4).remarks()).contains("numbers with leading zeros: codes, taken for texts");
    }

    @Test
    void a_number_that_counts_the_rows_is_the_key() {
        Random random = new Random(1);
        table("hive", "hive_id|label|weight", numbered(200, i -> i + "|L" + i * 31 + "|" + random.nextInt(50)));
        SurveyResult result = survey();
        assertThat(keys(result)).containsExactly("hive [hive_id]");
        CandidateKey key = result.keysOf("hive").get(0);
        assertThat(key.isPrimary()).isTrue();
        assertThat(key.isExact()).isTrue();
        assertThat(key.reasons())
                .containsExactly("the first column", "named like a key", "whole numbers without gaps", "ascending");
        assertThat(result.keysOf("hive").get(1).columns()).containsExactly("label");
    }

    @Test
    void a_key_of_two_columns_is_found_where_neither_is_one() {
        List<String> all = new ArrayList<>();
        for (int hive = 1; hive <= 30; hive++) {
            for (int frame = 1; frame <= 10; frame++) {
                all.add(hive + "|" + frame + "|" + hive * frame % 7);
            }
        }
        table("frame", "hive|frame|combs", all);
        assertThat(keys(survey())).containsExactly("frame [hive, frame]");
    }

    @Test
    void a_row_too_many_does_not_hide_a_key() {
        List<String> all = numbered(400, i -> i + "|" + i % 13);
        all.set(399, "17|5");
        table("hive", "hive_id|boxes", all);
        SurveyResult result = survey();
        assertThat(keys(result)).containsExactly("hive [hive_id]");
        CandidateKey key = result.keysOf("hive").get(0);
        assertThat(key.excess()).isEqualTo(1);
        assertThat(key.isExact()).isFalse();
        assertThat(key.duplicates()).hasSize(2);
        assertThat(result.comments()
                        .get(List.of("tables", "hive", "primary_key"))
                        .get(0))
                .contains("but for 1 row too many");
    }

    @Test
    void rows_that_are_equal_in_everything_have_no_key() {
        List<String> all = numbered(100, i -> i % 3 + "|" + i % 2);
        table("t", "a|b", all);
        SurveyResult result = survey();
        assertThat(result.draft().table("t").primaryKey()).isEmpty();
        assertThat(result.tables().get(0).repeatsRows()).isTrue();
        assertThat(result.comments().get(List.of("tables", "t", "primary_key")))
                .containsExactly("no column or combination of columns identifies a row");
    }

    private void bees() {
        Random random = new Random(2);
        table(
                "keeper",
                "keeper_id|name|mentor_id",
                numbered(40, i -> i + "|K" + i * 17 + "|" + (i < 5 ? "NULL" : 1 + random.nextInt(i - 1))));
        table(
                "apiary",
                "apiary_id|keeper_id|place",
                numbered(120, i -> i + "|" + (1 + random.nextInt(40)) + "|P" + i % 50));
        table(
                "hive",
                "hive_id|apiary_id|boxes",
                numbered(900, i -> i + "|" + (1 + random.nextInt(120)) + "|" + (1 + random.nextInt(4))));
    }

    @Test
    void links_follow_names_and_values() {
        bees();
        SurveyResult result = survey();
        assertThat(links(result))
                .contains("apiary [keeper_id] -> keeper [keeper_id]", "hive [apiary_id] -> apiary [apiary_id]")
                .noneMatch(link -> link.contains("boxes"));
        CandidateLink link = result.links().stream()
                .filter(l -> l.counts().child().equals("hive") && l.isChosen())
                .findFirst()
                .orElseThrow();
        assertThat(link.isNamed()).isTrue();
        assertThat(link.coverage()).isEqualTo(1.0);
        assertThat(link.reasons()).contains("names match");
        assertThat(link.isOneToOne()).isFalse();
    }

    @Test
    void both_ends_of_a_link_get_one_type() {
        bees();
        SurveyResult result = survey();
        for (ForeignKey link : result.draft().links()) {
            assertThat(result.draft()
                            .table(link.child())
                            .column(link.columns().get(0))
                            .type())
                    .as(words(link))
                    .isEqualTo(result.draft()
                            .table(link.parent())
                            .column(link.parentColumns().get(0))
                            .type());
        }
    }

    @Test
    void orphans_do_not_hide_a_link_that_is_named() {
        bees();
        List<String> hives = rows.get("hive");
        hives.set(10, "11|4000|1");
        hives.set(20, "21|NULL|1");
        SurveyResult result = survey();
        assertThat(links(result)).contains("hive [apiary_id] -> apiary [apiary_id]");
        CandidateLink link = result.links().stream()
                .filter(l -> l.counts().child().equals("hive") && l.isChosen())
                .findFirst()
                .orElseThrow();
        assertThat(link.counts().orphans()).isEqualTo(1);
        assertThat(link.missing().get(0).values()).containsExactly("4000");
        assertThat(result.comments()
                        .get(List.of("tables", "hive", "foreign_keys", "hive_apiary"))
                        .get(0))
                .contains("99.9% covered: 1 orphan;")
                .contains("optional");
    }

    @Test
    void texts_link_by_their_values() {
        table("race", "code|name", List.of("ZA|Zarn", "ZB|Zebb", "ZC|Zorc", "ZD|Zudd", "ZE|Zend", "ZF|Zoff"));
        table("queen", "queen_id|race", numbered(200, i -> i + "|Z" + "ABCDEF".charAt(i * 7 % 6)));
        assertThat(links(survey())).containsExactly("queen [race] -> race [code]");
    }

    @Test
    void a_linking_table_joins_many_to_many() {
        bees();
        table("drug", "drug_id|label", numbered(30, i -> i + "|D" + i * 13));
        List<String> doses = new ArrayList<>();
        for (int hive = 1; hive <= 900; hive += 3) {
            doses.add(hive + "|" + (1 + hive * 7 % 30) + "|5");
            doses.add(hive + "|" + (1 + (hive * 7 + 11) % 30) + "|6");
        }
        table("dose", "hive_id|drug_id|ml", doses);
        SurveyResult result = survey();
        assertThat(keys(result)).contains("dose [hive_id, drug_id]");
        assertThat(result.pairs()).anyMatch(pair -> pair.through().equals("dose"));
    }

    @Test
    void malformed_rows_and_empty_tables_are_surveyed_too() {
        table("none", "a|b", List.of());
        List<String> all = numbered(50, i -> i + "|x");
        all.add(MemorySource.MALFORMED);
        table("some", "id|v", all);
        SurveyResult result = survey();
        assertThat(result.tables().get(0).rows()).isZero();
        assertThat(result.tables().get(1).rows()).isEqualTo(51);
        assertThat(result.tables().get(1).malformed()).isEqualTo(1);
        assertThat(keys(result)).containsExactly("none []", "some [id]");
        assertThat(result.comments().get(List.of("tables", "some"))).containsExactly("51 rows, 1 of them malformed");
    }

    /** All minimal sets of at most four columns that tell every two rows apart and hold no null, by trying each. */
    private static Set<Set<String>> minimalKeys(List<String> names, List<String> rows) {
        List<String[]> cells = rows.stream().map(row -> row.split("\\|", -1)).toList();
        Set<Set<String>> keys = new HashSet<>();
        List<Integer> sets = IntStream.range(1, 1 << names.size())
                .boxed()
                .filter(set -> Integer.bitCount(set) <= 4)
                .sorted(Comparator.comparingInt(Integer::bitCount))
                .toList();
        List<Integer> found = new ArrayList<>();
        for (int set : sets) {
            Set<List<String>> seen = new HashSet<>();
            boolean isKey = found.stream().noneMatch(part -> (part & set) == part)
                    && cells.stream().allMatch(row -> {
                        List<String> key = IntStream.range(0, row.length)
                                .filter(i -> (set & 1 << i) != 0)
                                .mapToObj(i -> row[i])
                                .toList();
                        return !key.contains("NULL") && seen.add(key);
                    });
            if (isKey) {
                found.add(set);
                keys.add(IntStream.range(0, names.size())
                        .filter(i -> (set & 1 << i) != 0)
                        .mapToObj(names::get)
                        .collect(Collectors.toSet()));
            }
        }
        return keys;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
    void every_minimal_key_of_at_most_four_columns_is_offered(int seed) {
        Random random = new Random(seed);
        int width = 3 + random.nextInt(8);
        List<String> names = IntStream.range(0, width).mapToObj(i -> "c" + i).toList();
        int[] spread = IntStream.range(0, width)
                .map(i -> 2 + random.nextInt(i == 0 ? 90 : 14))
                .toArray();
        Set<String> all = new LinkedHashSet<>();
        int count = 20 + random.nextInt(seed % 3 == 0 ? 900 : 120);
        for (int i = 0; i < count; i++) {
            all.add(IntStream.range(0, width)
                    .mapToObj(c -> random.nextInt(3_000) == 0 ? "NULL" : "v" + random.nextInt(spread[c]) + "x" + c)
                    .collect(Collectors.joining("|")));
        }
        table("t", String.join("|", names), List.copyOf(all));
        Set<Set<String>> offered = survey().keysOf("t").stream()
                .filter(key -> key.isExact() && key.columns().size() <= 4)
                .map(key -> Set.copyOf(key.columns()))
                .collect(Collectors.toSet());
        assertThat(offered).isEqualTo(minimalKeys(names, List.copyOf(all)));
    }

    @Test
    void an_almost_key_does_not_hide_the_exact_one_that_contains_it() {
        Random random = new Random(3);
        List<String> places = new ArrayList<>();
        for (int i = 0; i < 600; i++) {
            // Names are nearly unique in their district, and unique with the region.
            int name = i < 597 ? i : i - 597;
            places.add("n" + name + "|r" + (i < 597 ? i % 7 : 20) + "|d" + name % 30 + "|" + random.nextInt(50));
        }
        table("place", "name|region|district|houses", places);
        List<CandidateKey> keys = survey().keysOf("place");
        assertThat(keys)
                .anyMatch(key -> key.isExact() && Set.copyOf(key.columns()).equals(Set.of("name", "region")));
        assertThat(keys).anyMatch(key -> !key.isExact() && key.columns().equals(List.of("name")) && key.excess() == 3);
    }

    @Test
    void one_repeated_row_does_not_take_a_parent_its_key_nor_the_link_to_it() {
        List<String> crews = new ArrayList<>();
        for (int i = 1; i <= 18; i++) {
            crews.add(i + "|crew " + i);
        }
        crews.add("7|crew seven");
        table("crew", "crew_id|name", crews);
        table(
                "shift",
                "shift_id|crew_id",
                IntStream.range(1, 200)
                        .mapToObj(i -> i + "|" + (1 + i * 7 % 18))
                        .toList());
        SurveyResult result = survey();
        assertThat(keys(result)).contains("crew [crew_id]");
        assertThat(links(result)).containsExactly("shift [crew_id] -> crew [crew_id]");
    }

    @ParameterizedTest
    @ValueSource(ints = {60, 9_000})
    void a_link_that_its_name_speaks_for_is_listed_however_dirty(int rows) {
        Random random = new Random(11);
        table(
                "depot",
                "depot_id|yard|town",
                IntStream.rangeClosed(1, 40)
                        .mapToObj(i -> (100 + i) + "|" + "ABCD".charAt(i % 4) + "|town " + i)
                        .toList());
        table(
                "lorry",
                "lorry_no|depot_id|plate",
                IntStream.rangeClosed(1, rows)
                        .mapToObj(i -> i + "|"
                                + (random.nextBoolean() ? 101 + random.nextInt(40) : 9_000 + random.nextInt(500)) + "|P"
                                + i * 7919 % 100_003)
                        .toList());
        CandidateLink link = survey().links().stream()
                .filter(each -> each.counts().columns().equals(List.of("depot_id")))
                .findFirst()
                .orElseThrow();
        assertThat(link.counts().parent()).isEqualTo("depot");
        assertThat(link.isChosen()).isFalse();
        assertThat(link.counts().orphans()).isBetween(rows * 4L / 10, rows * 6L / 10);
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
                    heather, clover, lime;          varchar(10)
                    0017, 0018, 1234;               varchar(4)
                    1.5, 2.25, 10;                  numeric(6,2)
                    1, 2, 3000;                     smallint
                    1, 2, 30000;                    integer
                    1, 2, 400000000;                bigint
                    yes, no, yes;                   varchar(4)
                    true, false, true;              boolean
                    2024-02-01, 2024-03-01, 2023-12-31; date
                    """)
    void the_draft_leaves_room_in_steps_that_a_person_would_choose(String values, String type) {
        List<String> three = List.of(values.split(", "));
        table("t", "id|v", numbered(60, i -> i + "|" + three.get(i % 3)));
        assertThat(survey().draft().table("t").column("v").type().sql()).isEqualTo(type);
    }

    @Test
    void a_column_named_for_a_role_points_at_people_even_by_few_values() {
        table("person", "id|surname|first_name", numbered(140, i -> i + "|Sur" + i + "|Given" + i % 20));
        table(
                "lamp",
                "id|name|warden|height",
                numbered(60, i -> i + "|Lamp " + i + "|" + (1 + i * 7 % 19) + "|" + (9 + i * 5 % 50)));
        SurveyResult result = survey();
        assertThat(links(result)).containsExactly("lamp [warden] -> person [id]");
    }

    @Test
    void who_stands_above_is_told_by_rings_that_are_not_there() {
        table(
                "clerk",
                "id|surname|answers_to",
                numbered(140, i -> i + "|Sur" + i + "|" + (i == 1 ? "NULL" : 1 + (i - 1) / 3)));
        assertThat(links(survey())).containsExactly("clerk [answers_to] -> clerk [id]");
        table(
                "clerk",
                "id|surname|answers_to",
                numbered(140, i -> i + "|Sur" + i + "|" + (i == 1 ? "NULL" : 1 + i * 37 % 140)));
        assertThat(links(survey())).isEmpty();
    }

    @Test
    void sparse_keys_that_are_hit_exactly_need_no_name() {
        table("room", "a|door", numbered(11, i -> 1000 + i * 347 % 4001 + "|D" + i));
        table(
                "shelf",
                "b|c|d",
                numbered(80, i -> "S" + i * 31 % 997 + "|" + (1000 + (1 + i % 4) * 347 % 4001) + "|" + i % 7));
        assertThat(links(survey())).containsExactly("shelf [c] -> room [a]");
    }

    @Test
    void a_link_by_name_is_listed_however_much_of_it_is_dirty() {
        table("box", "box_id|mark", numbered(60, i -> i * 13 + "|M" + i));
        Random random = new Random(5);
        table(
                "file",
                "file_no|box_id",
                numbered(400, i -> "F" + i + "|" + (i % 2 == 0 ? 13 * (1 + i % 60) : "?" + random.nextInt(100_000))));
        SurveyResult result = survey();
        assertThat(links(result)).isEmpty();
        assertThat(result.links())
                .anyMatch(link -> link.counts().columns().equals(List.of("box_id"))
                        && link.counts().orphans() == 200
                        && link.counts().judged() == 400);
        assertThat(result.perhaps()).map(SurveyOfTablesTest::words).contains("file [box_id] -> box [box_id]");
    }

    @Test
    void columns_that_point_in_a_role_point_together() {
        table(
                "place",
                "region|depot|shelf",
                numbered(120, i -> "R" + i % 4 + "|" + (1 + i / 4 % 5) + "|" + (1 + i / 20)));
        table("move", "move_id|from_region|from_depot|from_shelf|to_region|to_depot|to_shelf", numbered(500, i -> {
            int from = 1 + i * 17 % 120;
            int to = 1 + i * 53 % 120;
            return i + "|R" + from % 4 + "|" + (1 + from / 4 % 5) + "|" + (1 + from / 20) + "|R" + to % 4 + "|"
                    + (1 + to / 4 % 5) + "|" + (1 + to / 20);
        }));
        assertThat(links(survey()))
                .containsExactlyInAnyOrder(
                        "move [from_region, from_depot, from_shelf] -> place [region, depot, shelf]",
                        "move [to_region, to_depot, to_shelf] -> place [region, depot, shelf]");
    }

    @Test
    void what_follows_from_other_links_is_left_out() {
        table("line", "line|title", numbered(12, i -> "L" + i + "|Title " + i));
        table("trip", "line|no|ship", numbered(240, i -> "L" + (1 + i % 12) + "|" + (1 + i / 12) + "|S" + i % 5));
        table("seat", "seat_id|line|no", numbered(500, i -> {
            int trip = 1 + i * 7 % 240;
            return i + "|L" + (1 + trip % 12) + "|" + (1 + trip / 12);
        }));
        assertThat(links(survey()))
                .containsExactlyInAnyOrder("trip [line] -> line [line]", "seat [line, no] -> trip [line, no]");
    }

    @Test
    void a_column_without_values_is_meant_by_its_name_alone() {
        table("box", "box_id|mark", numbered(60, i -> i + "|M" + i));
        table("file", "file_no|box_id", numbered(50, i -> "F" + i + "|NULL"));
        SurveyResult result = survey();
        assertThat(links(result)).containsExactly("file [box_id] -> box [box_id]");
        assertThat(result.draft().table("file").column("box_id").type().isInteger())
                .isTrue();
    }

    @Test
    void a_count_is_no_link_whatever_it_counts() {
        table("visitor", "visitor_id|name", numbered(300, i -> i + "|Name " + i));
        table("stay", "stay_id|visitor_count|nights", numbered(200, i -> i + "|" + (1 + i % 4) + "|" + (1 + i % 9)));
        assertThat(links(survey())).isEmpty();
    }

    @Test
    void codes_are_texts_at_both_ends() {
        table("insurer", "insurer_no|name", numbered(20, i -> "00" + (700 + i) + "|Name " + i));
        table(
                "patient",
                "patient_id|insurer_no",
                numbered(90, i -> i + "|" + (i % 9 == 0 ? "00" : "") + (701 + i % 20)));
        SurveyResult result = survey();
        assertThat(result.draft().table("insurer").column("insurer_no").type().isText())
                .isTrue();
        assertThat(result.links())
                .anyMatch(link ->
                        link.counts().child().equals("patient") && link.counts().orphans() > 0);
    }

    @Test
    void a_sample_reads_the_keys_of_parents_whole() {
        table(
                "apiary",
                "apiary_id|name|district",
                numbered(3_000, i -> (1 + i * 7 % 3_000) + "|Apiary " + i + "|D" + i % 9));
        table("hive", "hive_id|apiary_id", numbered(20_000, i -> i + "|" + (i == 50 ? 9_999 : 1 + i * 31 % 3_000)));
        SurveyResult result = survey(1_000);
        assertThat(result.tables()).allMatch(SurveyResult.SurveyedTable::isSampled);
        assertThat(result.tables()).allMatch(table -> table.rows() >= 1_000 && table.rows() < 1_200);
        assertThat(links(result)).containsExactly("hive [apiary_id] -> apiary [apiary_id]");
        CandidateLink link = result.links().stream()
                .filter(CandidateLink::isChosen)
                .findFirst()
                .orElseThrow();
        // 1,000 rows of the child, of which one has no parent among all 3,000.
        assertThat(link.counts().judged()).isBetween(1_000L, 1_200L);
        assertThat(link.counts().orphans()).isEqualTo(1);
        assertThat(link.counts().children().orElseThrow().parents()).isEqualTo(3_000);
        assertThat(survey().tables()).noneMatch(SurveyResult.SurveyedTable::isSampled);
    }

    @Test
    void whole_numbers_and_amounts_are_compared_by_nobody() {
        // A balance that happens to be a key, numbers of the same family, and too many of both for a sample to share
        // one.
        table("account", "balance|holder", numbered(40_000, i -> (i * 13 % 40_000) + "." + (10 + i % 90) + "|H" + i));
        table("visit", "v|n", numbered(60, i -> i + "|" + i % 3));
        assertThat(links(survey())).isEmpty();
    }
}
