package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import taxiomet.finding.CheckResult.LinkResult;
import taxiomet.finding.ChildrenTally;
import taxiomet.survey.CandidateKey;
import taxiomet.survey.CandidateLink;
import taxiomet.survey.ColumnProfile;
import taxiomet.survey.SurveyResult;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.vet.LinkGraph.ManyToMany;

/** What a survey found, for a person: the tables, what their columns hold, what could identify a row, what could point where. */
public final class SurveyText implements ResultText {
    private static final int INDENT = 4;
    private static final int LONGEST_VALUE = 20;
    private static final int OTHER_KEYS = 5;
    private static final int OTHER_LINKS = 12;
    private static final double LEAST_SCORE = 0.3;

    private final SurveyResult result;
    private final int width;
    private final boolean hasColor;
    private final Consumer<String> out;

    public SurveyText(SurveyResult result, int width, boolean hasColor, Consumer<String> out) {
        this.result = result;
        this.width = width;
        this.hasColor = hasColor;
        this.out = out;
    }

    @Override
    public void write() {
        writeAnswer();
        result.tables().forEach(this::writeTable);
        writeLinks();
        writePairs();
    }

    @Override
    public void writeAnswer() {
        long rows = result.tables().stream().mapToLong(SurveyedTable::rows).sum();
        long links = result.links().stream().filter(CandidateLink::isChosen).count();
        Paragraph.lines(
                        Style.STRONG.apply(CellText.escaped(result.draft().name()), hasColor) + ": "
                                + Counted.of(result.tables().size(), "table") + ", " + Counted.of(rows, "row") + ", "
                                + Counted.of(links, "likely link"),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
    }

    private void sentence(String text, int indent) {
        Paragraph.lines(CellText.escaped(text), indent, width).forEach(out);
    }

    private void writeTable(SurveyedTable table) {
        out.accept("");
        Paragraph.lines(
                        Style.STRONG.apply(CellText.escaped(table.name()), hasColor) + "  "
                                + Counted.of(table.rows(), "row")
                                + (table.malformed() > 0
                                        ? ", " + Counted.grouped(table.malformed()) + " malformed"
                                        : "")
                                + Style.FAINT.apply(
                                        "  " + CellText.escaped(String.join(", ", table.files())), hasColor),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        table.remarks().forEach(remark -> sentence(remark, INDENT));
        if (table.repeatsRows()) {
            sentence("there are rows that are equal in all columns", INDENT);
        }
        writeColumns(table);
        writeKeys(table);
    }

    private void writeColumns(SurveyedTable table) {
        Grid grid = new Grid();
        grid.addColumn("column", Grid.Kind.KEPT);
        grid.addColumn("type", Grid.Kind.KEPT);
        grid.addColumn("null", Grid.Kind.NUMBER);
        grid.addColumn("distinct", Grid.Kind.NUMBER);
        grid.addColumn("from least to greatest, and what strikes the eye", Grid.Kind.TEXT);
        for (ColumnProfile column : table.columns()) {
            grid.addRow(List.of(
                    Grid.Cell.of(CellText.escaped(column.name())),
                    Grid.Cell.of(type(column)),
                    Grid.Cell.of(column.nulls() == 0 ? "" : Counted.grouped(column.nulls())),
                    Grid.Cell.of((column.distinctIsExact() ? "" : "~") + Counted.grouped(column.distinct())),
                    Grid.Cell.of(CellText.escaped(content(column)))));
        }
        grid.lines(INDENT, width, hasColor).forEach(out);
    }

    private static String type(ColumnProfile column) {
        return column.guess().type().sql()
                + column.guess().format().map(format -> " " + format).orElse("")
                + (column.guess().decimalComma() ? " with comma" : "");
    }

    private static String content(ColumnProfile column) {
        List<String> remarks = new ArrayList<>();
        column.least()
                .ifPresent(least -> remarks.add(CellText.cut(CellText.of(least), LONGEST_VALUE) + " to "
                        + CellText.cut(CellText.of(column.greatest().orElseThrow()), LONGEST_VALUE)));
        if (column.guess().misfits() > 0) {
            remarks.add(Counted.grouped(column.guess().misfits()) + " not of this type: "
                    + String.join(", ", column.guess().examples()));
        }
        if (column.emptyTexts() > 0) {
            remarks.add(Counted.grouped(column.emptyTexts()) + " empty");
        }
        remarks.addAll(column.remarks());
        boolean hasFew = column.distinct() <= 12
                && column.distinctIsExact()
                && !column.commonest().isEmpty();
        if (hasFew) {
            remarks.add("commonest "
                    + column.commonest().stream()
                            .map(value -> CellText.cut(value.value(), 16) + " (" + Counted.grouped(value.rows()) + ")")
                            .collect(Collectors.joining(", ")));
        }
        return String.join("; ", remarks);
    }

    private void writeKeys(SurveyedTable table) {
        List<CandidateKey> keys = result.keysOf(table.name());
        if (keys.isEmpty()) {
            sentence("no column or combination of columns identifies a row", INDENT);
            return;
        }
        CandidateKey first = keys.get(0);
        sentence(
                "rows are identified by (" + String.join(", ", first.columns()) + ")" + faults(first)
                        + (first.reasons().isEmpty() ? "" : ": " + String.join(", ", first.reasons())),
                INDENT);
        keys.stream()
                .skip(1)
                .filter(key -> key.columns().size() == 1
                        || (key.score() >= LEAST_SCORE && (key.isExact() || !first.isExact())))
                .limit(OTHER_KEYS)
                .forEach(key ->
                        sentence("(" + String.join(", ", key.columns()) + ") would do too" + faults(key), INDENT));
    }

    private static String faults(CandidateKey key) {
        List<String> faults = new ArrayList<>();
        if (key.excess() > 0) {
            String rows = key.duplicates().stream()
                    .limit(4)
                    .map(row -> Long.toString(row.row()))
                    .collect(Collectors.joining(", "));
            faults.add("with " + Counted.of(key.excess(), "repeated row") + " (rows " + rows
                    + (key.duplicates().size() > 4 ? " ..." : "") + ")");
        }
        if (key.nulls() > 0) {
            faults.add("null in " + Counted.of(key.nulls(), "row"));
        }
        if (key.illTyped()) {
            faults.add("some values are not of their type");
        }
        return faults.isEmpty() ? "" : ", " + String.join(", ", faults);
    }

    private void writeLinks() {
        List<CandidateLink> chosen =
                result.links().stream().filter(CandidateLink::isChosen).toList();
        out.accept("");
        Paragraph.lines(
                        Style.STRONG.apply(chosen.isEmpty() ? "No likely links" : "Likely links", hasColor),
                        0,
                        Paragraph.HANGING,
                        width)
                .forEach(out);
        chosen.forEach(this::writeLink);
        List<CandidateLink> others = result.links().stream()
                .filter(link ->
                        !link.isChosen() && (link.score() >= LEAST_SCORE || (link.isNamed() && !isTaken(link, chosen))))
                .limit(OTHER_LINKS)
                .toList();
        if (!others.isEmpty()) {
            out.accept("");
            Paragraph.lines(Style.STRONG.apply("Less likely", hasColor), 0, Paragraph.HANGING, width)
                    .forEach(out);
            for (CandidateLink link : others) {
                sentence(ends(link.counts()) + ": " + covered(link) + reasons(link), INDENT);
            }
        }
    }

    /** Whether a link that is chosen starts from the same columns, or from more. */
    private static boolean isTaken(CandidateLink link, List<CandidateLink> chosen) {
        return chosen.stream()
                .anyMatch(other -> other.counts().child().equals(link.counts().child())
                        && other.counts().columns().containsAll(link.counts().columns()));
    }

    private static String ends(LinkResult link) {
        return link.child() + " (" + String.join(", ", link.columns()) + ") to " + link.parent() + " ("
                + String.join(", ", link.parentColumns()) + ")";
    }

    private static String covered(CandidateLink link) {
        return link.counts().orphans() == 0
                ? "all " + Counted.grouped(link.counts().judged()) + " covered"
                : String.format(Locale.ROOT, "%.1f%% covered, ", 100 * link.coverage())
                        + Counted.of(link.counts().orphans(), "orphan");
    }

    private static String reasons(CandidateLink link) {
        return link.reasons().isEmpty() ? "" : "; " + String.join(", ", link.reasons());
    }

    private void writeLink(CandidateLink link) {
        ChildrenTally tally = link.counts().children().orElseThrow();
        long nulls = link.counts().nulls() + link.counts().halfNulls();
        Paragraph.lines(Style.NOTE.apply(CellText.escaped(ends(link.counts())), hasColor), INDENT, width)
                .forEach(out);
        sentence(
                covered(link) + "; " + (nulls == 0 ? "never null" : Counted.grouped(nulls) + " null") + "; "
                        + (link.isOneToOne()
                                ? "one to one"
                                : tally.least() + " to " + tally.most() + " children, median " + tally.median())
                        + (tally.childless() > 0 ? ", " + Counted.of(tally.childless(), "parent") + " without" : "")
                        + reasons(link),
                2 * INDENT);
        if (!link.missing().isEmpty()) {
            sentence(
                    "missing: "
                            + link.missing().stream()
                                    .limit(3)
                                    .map(value -> key(value.values())
                                            + (value.rows() > 1 ? " (" + Counted.of(value.rows(), "row") + ")" : ""))
                                    .collect(Collectors.joining(", ")),
                    2 * INDENT);
        }
    }

    private static String key(List<String> cells) {
        String joined = cells.stream().map(CellText::of).collect(Collectors.joining(", "));
        return cells.size() == 1 ? joined : "(" + joined + ")";
    }

    private void writePairs() {
        if (result.pairs().isEmpty()) {
            return;
        }
        out.accept("");
        Paragraph.lines(Style.STRONG.apply("Many to many", hasColor), 0, Paragraph.HANGING, width)
                .forEach(out);
        for (ManyToMany pair : result.pairs()) {
            sentence(pair.one() + " and " + pair.other() + ", through " + pair.through(), INDENT);
        }
    }
}
