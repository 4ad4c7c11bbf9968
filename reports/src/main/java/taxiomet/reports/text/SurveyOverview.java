package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.survey.SurveyResult;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.choice.CandidateLink;
import taxiomet.survey.profile.ColumnProfile;

/** What a survey found, on one screen however many tables there are: the tables, and what to look at first. */
final class SurveyOverview {
    private static final int MOST_TABLES = 16;
    private static final int MOST_TO_LOOK_AT = 8;
    private static final int LONGEST_VALUE = 40;
    private static final int INDENT = 4;

    private final SurveyResult result;
    /** Of each table, the links that lead up from it, and those that lead down to others. */
    private final Map<String, Long> parents;

    private final Map<String, Long> children;
    private final boolean isWhole;
    private final Paper paper;

    /** Something to look at: of which table, and as a clause; the lower its rank, the more hangs on it. */
    private record Oddity(int rank, String table, String clause) {}

    /** @param isWhole whether all tables and all that is odd is shown, on more than one screen */
    SurveyOverview(SurveyResult result, boolean isWhole, Paper paper) {
        this.result = result;
        this.parents = countBy(result, LinkResult::child);
        this.children = countBy(result, LinkResult::parent);
        this.isWhole = isWhole;
        this.paper = paper;
    }

    void write() {
        List<Oddity> oddities = oddities();
        writeTables(oddities);
        writeOddities(oddities);
    }

    private void writeTables(List<Oddity> oddities) {
        List<SurveyedTable> shown = new ArrayList<>(result.tables());
        boolean areTooMany = !isWhole && shown.size() > MOST_TABLES;
        if (areTooMany) {
            // Those that most others hang together with tell most.
            shown.sort(Comparator.comparingLong((SurveyedTable table) -> -links(table)));
            shown = new ArrayList<>(shown.subList(0, MOST_TABLES));
            shown.sort(Comparator.comparingInt(result.tables()::indexOf));
        }
        paper.gap();
        Grid grid = new Grid();
        grid.addColumn("table", Grid.Kind.TEXT);
        grid.addColumn("rows", Grid.Kind.NUMBER);
        grid.addColumn("key", Grid.Kind.TEXT);
        grid.addColumn("parents", Grid.Kind.NUMBER);
        grid.addColumn("children", Grid.Kind.NUMBER);
        grid.addColumn("to look at", Grid.Kind.NUMBER);
        for (SurveyedTable table : shown) {
            long odd = oddities.stream()
                    .filter(oddity -> oddity.table().equals(table.name()))
                    .count();
            grid.addRow(List.of(
                    Grid.Cell.of(CellText.escaped(table.name())),
                    Grid.Cell.of(Counted.grouped(table.rows()) + (table.isSampled() ? "+" : "")),
                    Grid.Cell.of(CellText.escaped(key(table))),
                    Grid.Cell.of(number(parents(table))),
                    Grid.Cell.of(number(children(table))),
                    Grid.Cell.of(number(odd))));
        }
        paper.grid(grid, 0);
        if (areTooMany) {
            int others = result.tables().size() - MOST_TABLES;
            sentence("and " + Counted.of(others, "table") + " with fewer links; --full shows all", 0);
        }
    }

    private static String number(long count) {
        return count == 0 ? "" : Counted.grouped(count);
    }

    private String key(SurveyedTable table) {
        List<CandidateKey> keys = result.keysOf(table.name());
        return keys.isEmpty()
                ? "none"
                : String.join(", ", keys.get(0).columns()) + (keys.get(0).isExact() ? "" : " (almost)");
    }

    private long links(SurveyedTable table) {
        return parents(table) + children(table);
    }

    private long parents(SurveyedTable table) {
        return parents.getOrDefault(table.name(), 0L);
    }

    private long children(SurveyedTable table) {
        return children.getOrDefault(table.name(), 0L);
    }

    /** How many chosen links there are for each name of a table at one of their ends. */
    private static Map<String, Long> countBy(SurveyResult result, Function<LinkResult, String> end) {
        return result.links().stream()
                .filter(CandidateLink::isChosen)
                .collect(Collectors.groupingBy(link -> end.apply(link.counts()), Collectors.counting()));
    }

    private void writeOddities(List<Oddity> oddities) {
        if (oddities.isEmpty()) {
            return;
        }
        paper.gap();
        heading("Look at first");
        List<Oddity> shown =
                isWhole || oddities.size() <= MOST_TO_LOOK_AT ? oddities : oddities.subList(0, MOST_TO_LOOK_AT);
        Grid grid = Grid.withoutHeads(2);
        shown.forEach(oddity -> grid.addRow(List.of(
                Grid.Cell.of(CellText.escaped(oddity.table())), Grid.Cell.of(CellText.escaped(oddity.clause())))));
        paper.grid(grid, INDENT);
        if (shown.size() < oddities.size()) {
            sentence("and " + Counted.grouped(oddities.size() - shown.size()) + " more; --full shows all", INDENT);
        }
    }

    private void heading(String text) {
        paper.paragraph(Style.STRONG.apply(text, paper.hasColor()), 0, Paragraph.HANGING);
    }

    private void sentence(String text, int indent) {
        paper.paragraph(text, indent);
    }

    private List<Oddity> oddities() {
        List<Oddity> all = new ArrayList<>();
        for (SurveyedTable table : result.tables()) {
            addKey(table, all);
            if (table.malformed() > 0) {
                all.add(new Oddity(2, table.name(), Counted.of(table.malformed(), "malformed row")));
            }
            if (table.repeatsRows()) {
                all.add(new Oddity(2, table.name(), "there are rows that are equal in all columns"));
            }
            table.remarks().forEach(remark -> all.add(new Oddity(3, table.name(), remark)));
            table.columns().forEach(column -> addColumn(table, column, all));
        }
        result.links().stream()
                .filter(link -> link.isChosen() && link.counts().orphans() > 0)
                .forEach(link -> all.add(new Oddity(
                        1,
                        link.counts().child(),
                        String.join(", ", link.counts().columns()) + ": "
                                + Counted.of(link.counts().orphans(), "row") + " of "
                                + Counted.grouped(link.counts().judged()) + " without a parent in "
                                + link.counts().parent() + missing(link))));
        all.sort(Comparator.comparingInt(Oddity::rank));
        return all;
    }

    private static String missing(CandidateLink link) {
        return link.missing().isEmpty()
                ? ""
                : ", such as "
                        + link.missing().stream()
                                .limit(2)
                                .map(value -> value.values().stream()
                                        .map(cell -> CellText.cut(CellText.of(cell), LONGEST_VALUE))
                                        .collect(Collectors.joining("/")))
                                .collect(Collectors.joining(", "));
    }

    private void addKey(SurveyedTable table, List<Oddity> all) {
        List<CandidateKey> keys = result.keysOf(table.name());
        if (keys.isEmpty()) {
            if (table.rows() > 1) {
                all.add(new Oddity(0, table.name(), "nothing identifies a row"));
            }
            return;
        }
        CandidateKey first = keys.get(0);
        if (!first.isExact()) {
            all.add(new Oddity(
                    0,
                    table.name(),
                    "(" + String.join(", ", first.columns()) + ") is a key but for "
                            + SurveyedTableText.faults(first)));
        }
    }

    private static void addColumn(SurveyedTable table, ColumnProfile column, List<Oddity> all) {
        if (column.guess().misfits() > 0) {
            all.add(new Oddity(
                    2,
                    table.name(),
                    column.name() + ": " + Counted.of(column.guess().misfits(), "value") + " not "
                            + column.guess().type().sql().toLowerCase(Locale.ROOT) + ": "
                            + column.guess().examples().stream()
                                    .map(CellText::of)
                                    .collect(Collectors.joining(", "))));
        }
        column.remarks().stream()
                .filter(remark -> remark.startsWith("dates in mixed") || remark.startsWith("may stand for nothing"))
                .forEach(remark -> all.add(new Oddity(3, table.name(), column.name() + ": " + remark)));
    }
}
