package taxiomet.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A year of weekly checks of the demo, into which faults are planted and out of which they are weeded: what is told is what was done. */
class YearOfResultsTest {
    private static final int WEEKS = Integer.getInteger("taxiomet.weeks", 52);
    private static final long SEED = Long.getLong("taxiomet.seed", 1_804L);
    private static final LocalDate FIRST = LocalDate.of(2026, 1, 5);
    private static final String WET = "type mismatch at harvest.water_percent";
    private static final String LOST = "orphan at harvest.harvest_hive";
    private static final String EMAIL = "pattern not met at keeper.email";

    @TempDir
    private Path folder;

    private final Random random = new Random(SEED);
    /** Rows by their keys, as cells. */
    private final Map<String, List<String>> harvests = new TreeMap<>();

    private final Map<String, List<String>> keepers = new TreeMap<>();
    private String harvestHead;
    private String keeperHead;
    /** For each planted fault, by place and key, the cell that stood there. */
    private final Map<String, Map<String, String>> planted = new HashMap<>();

    private final Set<String> baseline = new TreeSet<>();
    private int nextKey = 5_000;

    @BeforeEach
    void copy_the_demo() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("..", "demo"))) {
            for (Path file : files.filter(Files::isRegularFile).toList()) {
                Files.copy(file, folder.resolve(file.getFileName()));
            }
        }
        harvestHead = read("harvests.csv", harvests);
        keeperHead = read("keepers.csv", keepers);
        JsonNode check =
                Program.run("check", charter(), "--json", "--examples", "1000").json();
        check.get("findings")
                .forEach(finding -> finding.get("examples").forEach(row -> {
                    if (row.has("key")) {
                        row.get("key").forEach(cell -> baseline.add(cell.asText()));
                    }
                }));
        List.of(WET, LOST, EMAIL).forEach(place -> planted.put(place, new TreeMap<>()));
    }

    private String charter() {
        return folder.resolve("charter.yaml").toString();
    }

    private String read(String file, Map<String, List<String>> into) throws IOException {
        List<String> lines = Files.readAllLines(folder.resolve(file));
        lines.subList(1, lines.size()).forEach(line -> {
            List<String> cells = new ArrayList<>(List.of(line.split(",", -1)));
            into.put(cells.get(0), cells);
        });
        return lines.get(0);
    }

    /** Rows stand in another order each week. */
    private void write() throws IOException {
        write("harvests.csv", harvestHead, harvests);
        write("keepers.csv", keeperHead, keepers);
    }

    private void write(String file, String head, Map<String, List<String>> rows) throws IOException {
        List<String> lines = new ArrayList<>();
        rows.values().forEach(cells -> lines.add(String.join(",", cells)));
        Collections.shuffle(lines, random);
        lines.add(0, head);
        Files.write(folder.resolve(file), lines);
    }

    private static int column(String place) {
        return place.equals(WET) ? 4 : place.equals(LOST) ? 1 : 3;
    }

    private Map<String, List<String>> rows(String place) {
        return place.equals(EMAIL) ? keepers : harvests;
    }

    private void plant(String place) {
        List<String> free = rows(place).keySet().stream()
                .filter(key -> !baseline.contains(key)
                        && planted.values().stream().noneMatch(faults -> faults.containsKey(key)))
                .toList();
        String key = free.get(random.nextInt(free.size()));
        List<String> cells = rows(place).get(key);
        planted.get(place).put(key, cells.get(column(place)));
        cells.set(column(place), place.equals(WET) ? "wet" : place.equals(LOST) ? "99" + key : "nobody" + key);
    }

    private void weed(String place) {
        List<String> faults = List.copyOf(planted.get(place).keySet());
        if (!faults.isEmpty()) {
            String key = faults.get(random.nextInt(faults.size()));
            rows(place).get(key).set(column(place), planted.get(place).remove(key));
        }
    }

    /** A faulty harvest gets another key; gives both, or nothing. */
    private List<String> renumber() {
        List<String> faults = List.copyOf(planted.get(WET).keySet());
        if (faults.isEmpty()) {
            return List.of();
        }
        String key = faults.get(random.nextInt(faults.size()));
        String now = String.valueOf(nextKey++);
        List<String> cells = harvests.remove(key);
        cells.set(0, now);
        harvests.put(now, cells);
        planted.get(WET).put(now, planted.get(WET).remove(key));
        return List.of(key, now);
    }

    private static Set<String> texts(JsonNode list) {
        Set<String> texts = new TreeSet<>();
        list.forEach(each -> texts.add(each.asText()));
        return texts;
    }

    @Test
    void what_is_told_of_each_week_is_what_was_done_in_it() throws IOException {
        Path history = folder.resolve("history");
        String key = folder.resolve("secret").toString();
        Map<String, Set<String>> before = new HashMap<>();
        planted.keySet().forEach(place -> before.put(place, Set.of()));
        List<Map<String, List<Set<String>>>> done = new ArrayList<>();
        for (int week = 0; week < WEEKS; week++) {
            List<String> renumbered = week > 2 && random.nextInt(6) == 0 ? renumber() : List.of();
            for (int i = random.nextInt(4); week > 0 && i > 0; i--) {
                plant(List.of(WET, LOST, EMAIL).get(random.nextInt(3)));
            }
            for (int i = random.nextInt(4); week > 0 && i > 0; i--) {
                weed(List.of(WET, LOST, EMAIL).get(random.nextInt(3)));
            }
            write();
            Program check = Program.run(
                    "check",
                    charter(),
                    "--quiet",
                    "--keep-history",
                    history.toString(),
                    "--key-file",
                    key,
                    "--today",
                    FIRST.plusWeeks(week).toString());
            assertThat(check.status()).as(check.err()).isEqualTo(1);
            Map<String, List<Set<String>>> step = new TreeMap<>();
            for (String place : planted.keySet()) {
                Set<String> now = new TreeSet<>(planted.get(place).keySet());
                Set<String> come = new TreeSet<>(now);
                come.removeAll(before.get(place));
                Set<String> gone = new TreeSet<>(before.get(place));
                gone.removeAll(now);
                if (place.equals(WET) && !renumbered.isEmpty()) {
                    // Weeded in the same week, it is gone under its former key.
                    if (now.contains(renumbered.get(1))) {
                        come.remove(renumbered.get(1));
                        gone.remove(renumbered.get(0));
                    }
                }
                if (!come.isEmpty() || !gone.isEmpty()) {
                    step.put(place, List.of(come, gone));
                }
                before.put(place, now);
            }
            done.add(step);
        }
        JsonNode steps =
                Program.run("compare", history.toString(), "--json").json().get("steps");
        assertThat(steps).hasSize(WEEKS - 1);
        int[] told = new int[2];
        for (int i = 0; i < steps.size(); i++) {
            JsonNode step = steps.get(i);
            assertThat(step.get("rows_compared").asBoolean()).isTrue();
            Map<String, List<Set<String>>> found = new TreeMap<>();
            step.get("changes").forEach(change -> {
                Set<String> come = texts(change.get("new"));
                Set<String> gone = texts(change.get("gone"));
                told[0] += come.size();
                told[1] += change.get("renumbered").size();
                if (!come.isEmpty() || !gone.isEmpty()) {
                    found.put(
                            change.get("finding").asText() + " at "
                                    + change.get("table").asText() + "."
                                    + change.get("at").asText(),
                            List.of(come, gone));
                }
            });
            assertThat(found).as("seed %d, week %d", SEED, i + 1).isEqualTo(done.get(i + 1));
            assertThat(step.get("later").get("made").asText())
                    .startsWith(FIRST.plusWeeks(i + 1L).toString());
        }
        assertThat(told[0]).isGreaterThan(WEEKS / 2);
        assertThat(told[1]).isGreaterThan(1);
    }

    private Program checkOn(LocalDate day, String... more) {
        List<String> arguments = new ArrayList<>(List.of("check", charter(), "--today", day.toString()));
        arguments.addAll(List.of(more));
        return Program.run(Map.of("COLUMNS", "200"), arguments.toArray(new String[0]));
    }

    private static JsonNode finding(JsonNode check, String kind, String at) {
        for (JsonNode finding : check.get("findings")) {
            if (finding.get("finding").asText().equals(kind)
                    && finding.get("at").asText().equals(at)) {
                return finding;
            }
        }
        return null;
    }

    @Test
    void an_accepted_finding_is_a_note_until_its_day_and_an_error_from_the_next_on() throws IOException {
        Files.writeString(
                folder.resolve("charter.yaml"),
                Files.readString(folder.resolve("charter.yaml"))
                        + "\naccept:\n  - {finding: orphan, at: apiary_keeper, rows: [13, {key: 31, holds: \"K-008 \"}], reason: typing"
                        + " pool is warned, until: 2026-06-30}\n");
        Path history = folder.resolve("history");
        String key = folder.resolve("secret").toString();
        JsonNode borne = checkOn(
                        LocalDate.of(2026, 6, 30), "--json", "--keep-history", history.toString(), "--key-file", key)
                .json();
        JsonNode orphans = finding(borne, "orphan", "apiary_keeper");
        assertThat(orphans.get("severity").asText()).isEqualTo("note");
        assertThat(orphans.get("accepted").get(0).get("rows").asInt()).isEqualTo(2);
        Program again =
                checkOn(LocalDate.of(2026, 7, 1), "--since", history.toString(), "--key-file", key, "--fail-on", "new");
        assertThat(again.status()).isEqualTo(1);
        assertThat(again.out())
                .contains("since 2026-06-30: 2 new faults", "accepted no more: 13, 31")
                .contains("orphan at apiary_keeper: was accepted until 2026-06-30, and is counted again");
        assertThat(checkOn(
                                LocalDate.of(2026, 6, 30),
                                "--since",
                                history.toString(),
                                "--key-file",
                                key,
                                "--fail-on",
                                "new")
                        .status())
                .isZero();
    }

    @Test
    void two_folders_of_evidence_are_compared_and_results_under_other_keys_are_said() {
        String one = folder.resolve("one").toString();
        String other = folder.resolve("other").toString();
        Program.run(
                "check",
                charter(),
                "--evidence",
                one,
                "--key-file",
                folder.resolve("k1").toString());
        Program.run(
                "check",
                charter(),
                "--evidence",
                other,
                "--key-file",
                folder.resolve("k2").toString());
        assertThat(Program.run("compare", one, other).out()).contains("nothing new", "under different keys");
        assertThat(Program.run("compare", one, one, "--fail-on", "new").status())
                .isZero();
        assertThat(Program.run("compare", one).err()).contains("there is one result, and nothing to compare it with");
    }

    @Test
    void two_charters_are_held_against_each_other() throws IOException {
        Path later = folder.resolve("later.yaml");
        Files.writeString(
                later,
                Files.readString(folder.resolve("charter.yaml"))
                        .replace("some_weight: weight_kg > 0", "some_weight: weight_kg > 0.5")
                        .replace("harvest_hive: {columns: hive_id, references: hive}", ""));
        Program compare = Program.run(Map.of("COLUMNS", "200"), "compare", charter(), later.toString());
        assertThat(compare.out())
                .contains("2 declarations differ: 0 gained, 1 lost, 1 changed")
                .contains("weight_kg > 0.5 (was: weight_kg > 0)")
                .contains("tables touched: harvest and hive");
    }
}
