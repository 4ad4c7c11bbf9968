package taxiomet.settle.docket;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import taxiomet.charter.Charter;
import taxiomet.charter.ForeignKey;
import taxiomet.charter.Owner;
import taxiomet.charter.Severity;
import taxiomet.charter.Table;
import taxiomet.check.CheckRun;
import taxiomet.finding.Evidence;
import taxiomet.finding.Finding;
import taxiomet.finding.FindingKind;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.finding.settled.Docket.Place;
import taxiomet.personal.Pseudonyms;
import taxiomet.personal.VeiledCheck;
import taxiomet.rows.TableSource;
import taxiomet.settle.compare.RowMarks;
import taxiomet.work.KeyedHash;
import taxiomet.work.Secret;

/** Makes a docket of a check: every row of every finding that is an error or a warning and is not borne. */
public final class DocketMaker {
    private static final String PURPOSE = "taxiomet docket";
    private static final String LETTERS = "0123456789abcdefghjkmnpqrstvwxyz";
    private static final int BITS = 5;
    private static final int LETTERS_OF_ROW = 10;
    private static final int LETTERS_OF_CONTENT = 5;

    private final Charter charter;
    private final Pseudonyms pseudonyms;
    private final CheckRun run;
    private final Secret secret;
    private final KeyedHash hash;
    private final Map<String, RowMarks> marks = new HashMap<>();
    private final Map<String, Integer> timesSeen = new HashMap<>();
    private final Map<List<Object>, String> labels = new HashMap<>();

    /**
     * @param told the charter by which rows are told: which columns are personal
     * @param run a check of the same charter, still open, whose result hides nothing
     * @param secret under which rows are known again
     */
    public DocketMaker(Charter told, CheckRun run, Secret secret) {
        this.charter = told;
        this.run = run;
        this.secret = secret;
        this.pseudonyms = new Pseudonyms(told, secret);
        this.hash = new KeyedHash(secret, PURPOSE);
    }

    /**
     * Makes it.
     *
     * @param tables of which tables
     */
    public Docket make(Predicate<String> tables) {
        List<Finding> findings = run.result().findings().stream()
                .filter(finding -> finding.severity() != Severity.NOTE
                        && !finding.kind().hasNoRows()
                        && tables.test(finding.table()))
                .toList();
        readLabels(findings);
        List<Item> items = new ArrayList<>();
        findings.forEach(finding -> addItems(finding, items));
        return new Docket(charter.name(), items);
    }

    private void addItems(Finding finding, List<Item> items) {
        List<Evidence> rows = new ArrayList<>();
        finding.evidence().forEach(rows::add);
        Map<Long, List<Evidence>> groups = rows.stream().collect(Collectors.groupingBy(Evidence::group));
        for (Evidence row : rows) {
            if (!row.isAccepted()) {
                List<Evidence> group = finding.kind().isGrouped() ? groups.get(row.group()) : List.of();
                items.add(item(finding, row, group));
            }
        }
    }

    private Item item(Finding finding, Evidence row, List<Evidence> group) {
        Table table = charter.table(finding.table());
        RowMarks.Mark mark = marks(finding.table()).of(run.ref(finding.table(), row));
        String ofRow = ofRow(finding, mark);
        Choices choices = new Choices(charter, this::label, this::tell).of(finding, row, group);
        return new Item(
                reference(ofRow, mark.rest(), ""),
                reference(
                        ofRow,
                        mark.rest(),
                        "for " + owner(table, row, value -> value).orElse("nobody")),
                finding.kind(),
                finding.table(),
                finding.at(),
                finding.columns(),
                new Place(row.part(), row.row(), cells(table, table.namingKey(), row)),
                name(table, row),
                told(table, finding.columns(), row),
                problem(finding, row, group),
                owner(table, row, told(table)),
                toldCells(table, row),
                choices.hasProposal(),
                choices.all());
    }

    private String tell(String table, String column, String value) {
        String told = pseudonyms.of(table, column, value);
        return told == null ? "null" : told;
    }

    private static Map<String, String> cells(Table table, List<String> columns, Evidence row) {
        Map<String, String> cells = new LinkedHashMap<>();
        if (!row.values().isEmpty()) {
            columns.forEach(column -> cells.put(column, row.values().get(table.indexOf(column))));
        }
        return cells;
    }

    private Map<String, String> toldCells(Table table, Evidence row) {
        List<String> all = table.columns().stream().map(column -> column.name()).toList();
        Map<String, String> told = new LinkedHashMap<>();
        cells(table, all, row).forEach((column, cell) -> told.put(column, pseudonyms.of(table.name(), column, cell)));
        return told;
    }

    private String told(Table table, List<String> columns, Evidence row) {
        if (row.values().isEmpty()) {
            return pseudonyms.isAny(table.name()) ? VeiledCheck.HIDDEN : row.raw();
        }
        return cells(table, columns, row).entrySet().stream()
                .map(cell -> (columns.size() == 1 ? "" : cell.getKey() + " ")
                        + tell(table.name(), cell.getKey(), cell.getValue()))
                .collect(Collectors.joining(", "));
    }

    private String name(Table table, Evidence row) {
        if (row.values().isEmpty()) {
            return "row " + row.row();
        }
        String key = told(table, table.namingKey(), row);
        String label = table.label().stream()
                .filter(column -> !table.namingKey().contains(column))
                .map(column -> tell(table.name(), column, row.values().get(table.indexOf(column))))
                .collect(Collectors.joining(" "));
        return Stream.of(key, label).filter(part -> !part.isEmpty()).collect(Collectors.joining(": "));
    }

    private String problem(Finding finding, Evidence row, List<Evidence> group) {
        String hint = row.hint()
                .map(each -> finding.kind() == FindingKind.ORPHAN
                        ? new VeiledCheck(charter, secret)
                                .of(
                                        each,
                                        charter.table(finding.table())
                                                .link(finding.at())
                                                .orElseThrow())
                                .words()
                        : each.words())
                .orElse("");
        String told = Stream.of(problem(finding, row), hint)
                .filter(part -> !part.isEmpty())
                .collect(Collectors.joining("; "));
        if (!told.isEmpty()) {
            return told;
        }
        return switch (finding.kind()) {
            case ORPHAN ->
                "no row of "
                        + charter.table(finding.table())
                                .link(finding.at())
                                .orElseThrow()
                                .parent() + " has it";
            case DUPLICATE -> group.size() + " rows have it";
            default -> finding.kind().words();
        };
    }

    private String problem(Finding finding, Evidence row) {
        if (!(finding.details() instanceof Finding.Broken broken)) {
            return row.problem();
        }
        Table table = charter.table(finding.table());
        boolean isPersonal = table.rules().stream()
                .filter(rule -> rule.name().equals(finding.at()))
                .anyMatch(rule -> charter.readsPersonal(table, rule.condition()));
        // Behind what is false stands what the children came to.
        return isPersonal
                ? "`" + broken.condition() + "` is false"
                : row.problem().replace(Finding.Broken.FALSE, "`" + broken.condition() + "` is false");
    }

    /** @param told how a value is told */
    private static Optional<String> owner(Table table, Evidence row, UnaryOperator<String> told) {
        return table.owner().flatMap(owner -> {
            if (owner instanceof Owner.Named named) {
                return Optional.of(named.name());
            }
            String column = ((Owner.InColumn) owner).column();
            return row.values().isEmpty()
                    ? Optional.empty()
                    : Optional.ofNullable(row.values().get(table.indexOf(column)))
                            .map(told);
        });
    }

    /** How the value that names an owner is told. */
    private UnaryOperator<String> told(Table table) {
        return value -> table.owner().orElseThrow() instanceof Owner.InColumn in
                ? pseudonyms.of(table.name(), in.column(), value)
                : value;
    }

    private String ofRow(Finding finding, RowMarks.Mark mark) {
        String place = finding.kind() + " " + finding.table() + " " + finding.at();
        String ofRow = letters(hash.of(hash.of(place), mark.identity()), LETTERS_OF_ROW);
        int times = timesSeen.merge(ofRow, 1, Integer::sum);
        return ofRow + (times == 1 ? "" : "." + times);
    }

    /** @param whose for whom it is made; empty for all */
    private String reference(String ofRow, long content, String whose) {
        long seal = whose.isEmpty() ? 1 : hash.of(whose);
        return ofRow + "-" + letters(hash.of(content, seal), LETTERS_OF_CONTENT);
    }

    private static String letters(long bits, int count) {
        StringBuilder letters = new StringBuilder();
        for (int i = 0; i < count; i++) {
            letters.append(LETTERS.charAt((int) (bits >>> BITS * i) & LETTERS.length() - 1));
        }
        return letters.toString();
    }

    private RowMarks marks(String table) {
        return marks.computeIfAbsent(table, name -> {
            RowMarks made = new RowMarks(charter, charter.table(name), secret, hash, pseudonyms);
            made.read(
                    run.faults().stream()
                            .filter(log -> log.hasFaults() && log.table().equals(name))
                            .toList(),
                    run.sources().get(name));
            return made;
        });
    }

    private String label(String table, List<String> columns, List<String> key) {
        return labels.getOrDefault(List.of(table, columns, key), "");
    }

    /** How the rows are called that choices name: parents that may be meant, and rows that share a key. */
    private void readLabels(List<Finding> findings) {
        Map<String, Map<List<String>, Set<List<String>>>> wanted = new HashMap<>();
        for (Finding finding : findings) {
            Table table = charter.table(finding.table());
            if (finding.kind() == FindingKind.ORPHAN) {
                ForeignKey link = table.link(finding.at()).orElseThrow();
                finding.evidence()
                        .forEach(row -> row.hint()
                                .ifPresent(hint -> wanted.computeIfAbsent(link.parent(), name -> new HashMap<>())
                                        .computeIfAbsent(link.parentColumns(), columns -> new LinkedHashSet<>())
                                        .addAll(hint.parents())));
            } else if ((finding.kind() == FindingKind.DUPLICATE || finding.kind() == FindingKind.LIKELY_DOUBLE)
                    && !table.namingKey().isEmpty()) {
                finding.evidence().forEach(row -> {
                    List<String> key =
                            new ArrayList<>(cells(table, table.namingKey(), row).values());
                    if (key.stream().allMatch(Objects::nonNull)) {
                        wanted.computeIfAbsent(table.name(), name -> new HashMap<>())
                                .computeIfAbsent(table.namingKey(), columns -> new LinkedHashSet<>())
                                .add(key);
                    }
                });
            }
        }
        wanted.forEach((name, keys) -> keys.forEach((columns, values) -> readLabels(name, columns, values)));
    }

    private void readLabels(String name, List<String> columns, Set<List<String>> keys) {
        Table table = charter.table(name);
        List<String> label = table.label().stream()
                .filter(column -> !columns.contains(column))
                .toList();
        TableSource source = run.sources().get(name);
        if (label.isEmpty() || keys.isEmpty() || source == null) {
            return;
        }
        int[] places = IntStream.concat(Arrays.stream(table.indexesOf(columns)), Arrays.stream(table.indexesOf(label)))
                .distinct()
                .toArray();
        source.read(places, batch -> {
            for (int row = 0; row < batch.size(); row++) {
                List<String> key = new ArrayList<>();
                for (int i = 0; i < columns.size(); i++) {
                    key.add(String.valueOf(batch.column(i).text(row)));
                }
                if (keys.contains(key)) {
                    List<String> told = new ArrayList<>();
                    for (int i = 0; i < label.size(); i++) {
                        told.add(tell(
                                name,
                                label.get(i),
                                batch.column(columns.size() + i).text(row)));
                    }
                    labels.put(List.of(name, columns, key), String.join(" ", told));
                }
            }
        });
    }
}
