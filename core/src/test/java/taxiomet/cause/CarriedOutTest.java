package taxiomet.cause;

import static org.assertj.core.api.Assertions.assertThat;
import static taxiomet.testing.TestTable.table;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import taxiomet.check.pass.CheckOptions;
import taxiomet.finding.Cause;
import taxiomet.finding.CheckResult;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.testing.MemorySource;
import taxiomet.testing.TestTables;

/** Whoever mends one cause after the other, each from the truth, has a sound set in the end: nothing was left out, and nothing undone. */
class CarriedOutTest {
    @TempDir
    private Path folder;

    /** A row as it stands, null once it has been taken out, and as it should; null where it should not be. */
    private static final class Row {
        private String now;
        private final String truth;

        Row(String now, String truth) {
            this.now = now;
            this.truth = truth;
        }
    }

    private final Map<String, List<Row>> rows = new LinkedHashMap<>();
    private final Map<String, List<String>> truth = new LinkedHashMap<>();

    private void makeTruth(Random random) {
        truth.put(
                "ferry",
                IntStream.rangeClosed(1, 12)
                        .mapToObj(f -> "F" + (100 + f) + "|Ferry " + f)
                        .toList());
        truth.put(
                "crossing",
                IntStream.rangeClosed(1, 80)
                        .mapToObj(c -> (400 + c * 7) + "|F" + (101 + random.nextInt(12)) + "|2026-05-"
                                + (10 + random.nextInt(20)))
                        .toList());
        truth.put(
                "ticket",
                IntStream.rangeClosed(1, 300)
                        .mapToObj(
                                t -> t + "|" + (400 + (1 + random.nextInt(80)) * 7) + "|" + random.nextInt(90) + ".50")
                        .toList());
        truth.forEach((name, all) -> {
            List<Row> own = new ArrayList<>();
            all.forEach(row -> own.add(new Row(row, row)));
            rows.put(name, own);
        });
    }

    private Row any(Random random, String table) {
        return rows.get(table).get(random.nextInt(rows.get(table).size()));
    }

    private static String with(String row, int column, String value) {
        String[] cells = row.split("\\|", -1);
        cells[column] = value;
        return String.join("|", cells);
    }

    private static String cell(String row, int column) {
        return row.split("\\|", -1)[column];
    }

    /** One slip of some kind, as people make them. */
    private void spoil(Random random) {
        switch (random.nextInt(11)) {
            case 0 -> rows.get("ferry").remove(random.nextInt(rows.get("ferry").size()));
            case 1 ->
                rows.get("crossing").remove(random.nextInt(rows.get("crossing").size()));
            case 2 -> {
                Row row = any(random, "crossing");
                row.now = row.now.equals(MemorySource.MALFORMED)
                        ? row.now
                        : with(row.now, 1, cell(row.now, 1).toLowerCase(Locale.ROOT));
            }
            case 3 -> {
                Row row = any(random, "ferry");
                rows.get("ferry").add(new Row(row.now + " again", null));
            }
            case 4 -> {
                Row row = any(random, "ticket");
                rows.get("ticket").add(new Row(row.now, null));
            }
            case 5 -> any(random, "crossing").now = MemorySource.MALFORMED;
            case 6 -> {
                Row row = any(random, "ticket");
                row.now = row.now.equals(MemorySource.MALFORMED) ? row.now : with(row.now, 1, "0");
            }
            case 7 -> {
                Row row = any(random, "ticket");
                row.now = row.now.equals(MemorySource.MALFORMED) ? row.now : with(row.now, 2, "12,50");
            }
            case 8 -> {
                Row row = any(random, "crossing");
                row.now = row.now.equals(MemorySource.MALFORMED) ? row.now : with(row.now, 2, "soon");
            }
            case 9 -> {
                Row row = any(random, "ticket");
                row.now = row.now.equals(MemorySource.MALFORMED) ? row.now : with(row.now, 1, "44x");
            }
            default -> {
                Row row = any(random, "ferry");
                row.now = row.now.equals(MemorySource.MALFORMED) ? row.now : with(row.now, 1, "NULL");
            }
        }
    }

    private TestTables tables() {
        return TestTables.of(
                folder,
                table("ferry", "code varchar(6)", "name varchar(30) not null")
                        .key("code")
                        .rows(current("ferry")),
                table("crossing", "crossing_no integer", "ferry_code varchar(6) not null", "sails_on date")
                        .key("crossing_no")
                        .link("crossing_ferry", "ferry_code -> ferry(code)")
                        .rows(current("crossing")),
                table("ticket", "ticket_no integer", "crossing_no integer", "price numeric(6,2)")
                        .key("ticket_no")
                        .link("ticket_crossing", "crossing_no -> crossing(crossing_no)")
                        .rows(current("ticket")));
    }

    private String[] current(String table) {
        return rows.get(table).stream()
                .map(row -> row.now)
                .filter(Objects::nonNull)
                .toArray(String[]::new);
    }

    private void carryOut(Cause cause, CheckResult result, Map<String, List<Row>> asChecked) {
        List<Row> own = asChecked.get(cause.table());
        switch (cause.what()) {
            case ENTER_PARENT -> {
                String key = cause.values().get(0);
                // A malformed row of which nobody could tell the key may have been the one, and is mended by now.
                boolean isThere = rows.get(cause.table()).stream()
                        .anyMatch(row -> row.now != null && cell(row.now, 0).equals(key));
                truth.get(cause.table()).stream()
                        .filter(row -> !isThere && cell(row, 0).equals(key))
                        .forEach(row -> rows.get(cause.table()).add(new Row(row, row)));
            }
            case MEND_ROW -> mend(own.get((int) cause.place().orElseThrow().row() - 1));
            case KEEP_ONE ->
                own.stream()
                        .filter(row -> row.now != null
                                && !row.now.equals(MemorySource.MALFORMED)
                                && cell(row.now, 0).equals(cause.values().get(0)))
                        .toList()
                        .forEach(CarriedOutTest::mend);
            default ->
                result.findings().stream()
                        .filter(finding -> cause.cures().stream()
                                .anyMatch(cure -> cure.kind() == finding.kind()
                                        && cure.table().equals(finding.table())
                                        && cure.at().equals(finding.at())))
                        .forEach(finding -> finding.examples().stream()
                                .filter(row -> isMeant(cause, finding, row, result))
                                .forEach(row -> mend(own.get((int) row.row() - 1))));
        }
    }

    private static void mend(Row row) {
        row.now = row.truth;
    }

    private static boolean isMeant(Cause cause, Finding finding, Evidence row, CheckResult result) {
        if (cause.what() == Cause.What.MEND_EACH) {
            return finding.kind() == cause.finding();
        }
        List<String> columns = result.table(finding.table()).columns();
        String value = row.values().get(columns.indexOf(cause.columns().get(0)));
        return cause.values().isEmpty()
                ? row.hint().isPresent()
                        && row.hint().get().kind() == cause.hint().orElseThrow()
                : cause.values().get(0).equals(value);
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20, 21, 22, 23, 24})
    void the_list_from_top_to_bottom_leaves_a_sound_set(int seed) {
        Random random = new Random(seed);
        makeTruth(random);
        for (int i = 0; i < 3 + seed % 6; i++) {
            spoil(random);
        }
        CheckResult result = tables().check(new CheckOptions(Set.of(), 1_000, 1_000));
        assertThat(result.isSound()).isFalse();
        assertThat(result.causes()).isNotEmpty();
        Map<String, List<Row>> asChecked = new LinkedHashMap<>();
        rows.forEach((table, all) -> asChecked.put(table, List.copyOf(all)));
        for (Cause cause : result.causes()) {
            carryOut(cause, result, asChecked);
        }
        assertThat(tables().findings()).isEmpty();
    }
}
