package taxiomet.cli.trust;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import taxiomet.cli.Program;

/** Random charters with personal columns, rules, totals, labels and proposals: no output of any command holds a personal value. */
class PersonalValuesTest {
    private static final int CASES = Integer.getInteger("taxiomet.cases", 200);
    private static final long SEED = Long.getLong("taxiomet.seed", 20_261_202L);

    private static final int ALWAYS = 4;

    @TempDir
    private Path folder;

    /** Values that nothing may tell, each of which stands nowhere else. */
    private final Set<String> secrets = new TreeSet<>();

    private final Map<String, Integer> told = new TreeMap<>();

    /** One case: tables person and visit, whose columns are personal by chance. */
    private final class Case {
        private final Random random;
        private final Path at;
        private final Map<String, Boolean> personal = new HashMap<>();
        private final StringBuilder persons = new StringBuilder("id,given,born,paid,note,boss\n");
        private final StringBuilder visits = new StringBuilder("visit,person,seen,dose,remark\n");

        Case(long seed, Path at) throws IOException {
            random = new Random(seed);
            this.at = at;
            for (String column : List.of("given", "born", "paid", "seen", "dose", "remark")) {
                personal.put(column, random.nextInt(3) > 0);
            }
            personal.put("id", random.nextInt(4) == 0);
            rows();
            Files.writeString(at.resolve("person.csv"), persons);
            Files.writeString(at.resolve("visit.csv"), visits);
            Files.writeString(at.resolve("charter.yaml"), charter());
        }

        private String value(String column, String value) {
            if (personal.getOrDefault(column, false)) {
                secrets.add(value.toLowerCase(Locale.ROOT));
            }
            return value;
        }

        private String word() {
            StringBuilder word = new StringBuilder("Q");
            for (int i = 0; i < 7; i++) {
                word.append((char) ('a' + random.nextInt(26)));
            }
            return word.toString();
        }

        private String day() {
            return String.format(
                    Locale.ROOT,
                    "1%d-%02d-%02d",
                    600 + random.nextInt(300),
                    1 + random.nextInt(12),
                    1 + random.nextInt(28));
        }

        private String number() {
            return "77" + (100_000 + random.nextInt(900_000)) + "." + (10 + random.nextInt(80));
        }

        private void rows() {
            List<String> ids = new ArrayList<>();
            for (int i = 0; i < 6; i++) {
                ids.add(value("id", "K" + word()));
            }
            for (String id : ids) {
                boolean isBad = random.nextInt(5) == 0;
                persons.append(id)
                        .append(',')
                        .append(value("given", word()))
                        .append(',')
                        .append(isBad ? value("born", "day of " + word()) : value("born", day()))
                        .append(',')
                        .append(value("paid", number()))
                        .append(",plain,")
                        .append(random.nextBoolean() ? ids.get(random.nextInt(6)) : "")
                        .append('\n');
            }
            if (random.nextBoolean()) {
                persons.append(ids.get(0))
                        .append(',')
                        .append(value("given", word()))
                        .append(",,,again,\n");
            }
            for (int i = 0; i < 9; i++) {
                String person = random.nextInt(4) == 0 ? value("id", "k" + word()) : ids.get(random.nextInt(6));
                if (random.nextInt(6) == 0) {
                    person = value("id", ids.get(random.nextInt(6)).toLowerCase(Locale.ROOT));
                }
                visits.append(i)
                        .append(',')
                        .append(person)
                        .append(',')
                        .append(value("seen", day()))
                        .append(',')
                        .append(random.nextInt(6) == 0 ? value("dose", "much " + word()) : value("dose", number()))
                        .append(',')
                        .append(value("remark", word() + " " + word()))
                        .append('\n');
            }
        }

        private String column(String name, String type) {
            return "      " + name + ": {type: \"" + type + "\""
                    + (personal.getOrDefault(name, false) ? ", personal: yes" : "") + "}\n";
        }

        private String charter() {
            List<String> rules = List.of(
                    "      late: min(visit.v_person.seen) > born\n",
                    "      most: max(visit.v_person.remark) < given\n",
                    "      sums: sum(visit.v_person.dose) < paid\n",
                    "      mean: avg(visit.v_person.dose) < 1\n",
                    "      some: count(visit.v_person) > 2\n",
                    "      each: count(visit.v_person.remark) > 2\n",
                    "      own: given < 'A' and paid < 0\n",
                    "      part: paid / (paid - paid) > 1\n");
            StringBuilder person = new StringBuilder();
            for (String rule : rules) {
                person.append(random.nextBoolean() ? rule : "");
            }
            return "charter: 1\ntables:\n  person:\n    rows: person.csv\n    columns:\n"
                    + column("id", "text")
                    + column("given", "varchar(" + (random.nextBoolean() ? 40 : 5) + ")")
                    + column("born", "date")
                    + column("paid", "numeric(12,2)")
                    + column("note", "text")
                    + column("boss", "text")
                    + "    primary_key: id\n    foreign_keys:\n      p_boss: {columns: boss, references: person, on_delete: set null}\n"
                    + (person.isEmpty() ? "" : "    rules:\n" + person)
                    + "    label: " + List.of("given", "note", "[given, born]").get(random.nextInt(3)) + "\n"
                    + "    totals: [paid, paid * 2]\n"
                    + (random.nextBoolean() ? "    owner: given\n" : "    owner: id\n")
                    + (random.nextBoolean() ? "    alike: {twins: {columns: [given, born], agree: 1}}\n" : "")
                    + "  visit:\n    rows: visit.csv\n    columns:\n"
                    + column("visit", "integer")
                    + column("person", "text")
                    + column("seen", "date")
                    + column("dose", "numeric(12,2)")
                    + column("remark", "text")
                    + "    primary_key: visit\n"
                    + (random.nextBoolean() ? "    unique: {once: [remark]}\n" : "")
                    + "    foreign_keys:\n      v_person: {columns: person, references: person, on_delete: "
                    + List.of("cascade", "restrict", "no action").get(random.nextInt(3)) + "}\n"
                    + "    rules:\n      above: seen < v_person.born\n"
                    + "    totals: [dose]\n";
        }

        private List<String> proposals() {
            List<String> all = new ArrayList<>(List.of(
                    "UPDATE person SET note = given",
                    "UPDATE person SET note = upper(given) || note",
                    "UPDATE person SET note = lower(given), given = note",
                    "UPDATE person SET boss = id",
                    "UPDATE visit SET remark = remark || '!' WHERE visit < 4",
                    "UPDATE visit SET dose = dose * 2",
                    "UPDATE person SET paid = paid + 1",
                    "UPDATE person SET born = 'no day'",
                    "DELETE FROM person",
                    "DELETE FROM visit WHERE dose > 1",
                    "UPDATE person SET id = given"));
            Collections.shuffle(all, random);
            return all.subList(0, 3);
        }

        List<String[]> commands() {
            String charter = at.resolve("charter.yaml").toString();
            List<String[]> all = new ArrayList<>();
            List<String> reports = new ArrayList<>(List.of("check", charter, "--examples", "50", "--load-order"));
            for (String ending : List.of("json", "csv", "html", "md", "xlsx", "xml")) {
                reports.addAll(List.of("--report", at.resolve("check." + ending).toString()));
            }
            all.add(reports.toArray(new String[0]));
            all.add(new String[] {
                "check", charter, "--evidence", at.resolve("evidence").toString(), "--per-owner"
            });
            all.add(new String[] {
                "check", charter, "--keep-history", at.resolve("history").toString()
            });
            all.add(new String[] {
                "check", charter, "--since", at.resolve("history").toString(), "--json"
            });
            all.add(new String[] {"trace", charter, "person", "--row", "1"});
            all.add(new String[] {"trace", charter, "person", "--row", "2", "--json"});
            all.add(new String[] {"trace", charter, "visit", "--row", "3"});
            all.add(new String[] {
                "roster",
                charter,
                "person",
                "--through",
                "v_person",
                "--report",
                at.resolve("roster.xlsx").toString(),
                "--report",
                at.resolve("roster.csv").toString(),
                "--report",
                at.resolve("roster.html").toString()
            });
            all.add(new String[] {
                "roster",
                charter,
                "person",
                "--through",
                "v_person",
                "--per-heading",
                "csv",
                "--into",
                at.resolve("rosters").toString()
            });
            all.add(new String[] {
                "docket", charter, "--into", at.resolve("dockets").toString(), "--per-owner"
            });
            all.add(new String[] {
                "map", charter, "--count", "--report", at.resolve("map.html").toString()
            });
            int i = 0;
            for (String proposal : proposals()) {
                all.add(new String[] {
                    "rehearse",
                    charter,
                    "-e",
                    proposal,
                    "--examples",
                    "50",
                    "--report",
                    at.resolve(i + ".json").toString(),
                    "--report",
                    at.resolve(i + ".csv").toString(),
                    "--report",
                    at.resolve(i++ + ".html").toString()
                });
                all.add(new String[] {"rehearse", charter, "-e", proposal, "--server", "mariadb", "--all-or-nothing"});
            }
            all.add(new String[] {"rehearse", charter, "-e", "DELETE FROM person", "--compare-actions", "v_person"});
            all.add(new String[] {
                "rehearse", charter, at.resolve("dockets/docket.csv").toString()
            });
            return all;
        }
    }

    private static String contentOf(Path file) throws IOException {
        byte[] bytes = Files.readAllBytes(file);
        StringBuilder content = new StringBuilder(new String(bytes, StandardCharsets.UTF_8));
        if (file.toString().endsWith(".xlsx")) {
            try (ZipFile zip = new ZipFile(file.toFile())) {
                for (ZipEntry entry : Collections.list(zip.entries())) {
                    content.append(new String(zip.getInputStream(entry).readAllBytes(), StandardCharsets.UTF_8));
                }
            }
        } else if (file.toString().endsWith(".gz")) {
            try (InputStream in = new GZIPInputStream(Files.newInputStream(file))) {
                content.append(new String(in.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        return content.toString();
    }

    private void requireUntold(String text, String where) {
        String folded = text.toLowerCase(Locale.ROOT);
        for (String secret : secrets) {
            // In some tables a number is grouped, or has lost its last nought.
            if (folded.contains(secret) || folded.replace(",", "").contains(secret)) {
                told.merge(where + ": " + secret, 1, Integer::sum);
            }
        }
    }

    @Test
    void no_output_of_any_command_holds_a_personal_value() throws Exception {
        long findings = 0;
        for (int i = 0; i < CASES; i++) {
            secrets.clear();
            Path at = Files.createDirectory(folder.resolve("case" + i));
            Case drawn = new Case(SEED + i, at);
            Set<Path> inputs = Set.of(at.resolve("person.csv"), at.resolve("visit.csv"), at.resolve("charter.yaml"));
            List<String[]> commands = drawn.commands();
            for (int place = 0; place < commands.size(); place++) {
                String[] command = commands.get(place);
                // The first always, since others read what they write; of the rest each case has a third.
                if (place >= ALWAYS && (place + i) % 3 > 0) {
                    continue;
                }
                Program run = Program.run(Map.of("HOME", folder.toString()), command);
                String called = "case " + i + " " + String.join(" ", command).replace(at.toString(), "");
                assertThat(run.err()).as(called).doesNotContain("should not have happened");
                if (command[0].equals("check") && run.status() > 1) {
                    throw new AssertionError(called + run.err() + Files.readString(at.resolve("charter.yaml")));
                }
                findings += run.status() == 1 ? 1 : 0;
                requireUntold(run.out() + run.err(), called);
            }
            try (Stream<Path> files = Files.walk(at)) {
                for (Path file : files.filter(Files::isRegularFile).toList()) {
                    if (!inputs.contains(file)) {
                        requireUntold(file + contentOf(file), "case " + i + " " + at.relativize(file));
                    }
                }
            }
        }
        assertThat(told).as("seed " + SEED).isEmpty();
        assertThat(findings).isGreaterThan(CASES);
    }
}
