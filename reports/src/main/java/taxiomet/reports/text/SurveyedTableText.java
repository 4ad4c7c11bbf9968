package taxiomet.reports.text;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import taxiomet.reports.words.CellText;
import taxiomet.reports.words.Counted;
import taxiomet.survey.SurveyResult.SurveyedTable;
import taxiomet.survey.choice.AlikeChoice;
import taxiomet.survey.choice.CandidateKey;
import taxiomet.survey.profile.ColumnProfile;

/** One table of a survey in full: what its columns hold, and what could identify a row. */
final class SurveyedTableText {
    private static final int INDENT = 4;
    private static final int LONGEST_VALUE = 20;
    private static final int OTHER_KEYS = 5;
    private static final double LEAST_SCORE = 0.3;

    private final List<CandidateKey> keys;
    private final Optional<AlikeChoice.Proposed> alike;
    private final SurveyedTable table;
    private final Paper paper;

    /**
     * @param keys of the table, the primary one first
     * @param alike when two of its rows are probably one thing, where that is proposed
     */
    SurveyedTableText(SurveyedTable table, List<CandidateKey> keys, Optional<AlikeChoice.Proposed> alike, Paper paper) {
        this.table = table;
        this.keys = keys;
        this.alike = alike;
        this.paper = paper;
    }

    void write() {
        paper.gap();
        paper.paragraph(
                Style.STRONG.apply(CellText.escaped(table.name()), paper.hasColor()) + "  "
                        + (table.isSampled() ? "the first " : "")
                        + Counted.of(table.rows(), "row")
                        + (table.malformed() > 0 ? ", " + Counted.grouped(table.malformed()) + " malformed" : "")
                        + Style.FAINT.apply(
                                "  " + CellText.escaped(String.join(", ", table.files())), paper.hasColor()),
                0,
                Paragraph.HANGING);
        table.remarks().forEach(this::sentence);
        if (table.repeatsRows()) {
            sentence("there are rows that are equal in all columns");
        }
        writeColumns();
        writeKeys();
        alike.ifPresent(this::writeAlike);
    }

    private void sentence(String text) {
        paper.paragraph(CellText.escaped(text), INDENT);
    }

    private void writeColumns() {
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
        paper.grid(grid, INDENT);
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

    private void writeKeys() {
        if (keys.isEmpty()) {
            sentence("no column or combination of columns identifies a row");
            return;
        }
        CandidateKey first = keys.get(0);
        sentence("rows are identified by (" + String.join(", ", first.columns()) + ")" + with(first)
                + (first.reasons().isEmpty() ? "" : ": " + String.join(", ", first.reasons())));
        keys.stream()
                .skip(1)
                .filter(key -> key.columns().size() == 1
                        || (key.score() >= LEAST_SCORE && (key.isExact() || !first.isExact())))
                .limit(OTHER_KEYS)
                .forEach(key -> sentence("(" + String.join(", ", key.columns()) + ") would do too" + with(key)));
    }

    private void writeAlike(AlikeChoice.Proposed proposed) {
        sentence("rows are probably one thing when " + proposed.rule().clause() + ": "
                + (proposed.alike() == 0 ? "none" : "at least " + Counted.grouped(proposed.alike())) + " of "
                + Counted.of(proposed.rows(), "row") + " looked at");
    }

    private static String with(CandidateKey key) {
        return key.isExact() ? "" : ", but for " + faults(key);
    }

    /** What keeps a key from being one, as words that go on after "but for". */
    static String faults(CandidateKey key) {
        List<String> faults = new ArrayList<>();
        if (key.excess() > 0) {
            String rows = key.duplicates().stream()
                    .limit(4)
                    .map(row -> Long.toString(row.row()))
                    .collect(Collectors.joining(", "));
            faults.add(Counted.of(key.excess(), "repeated row")
                    + (rows.isEmpty()
                            ? ""
                            : " (rows " + rows + (key.duplicates().size() > 4 ? " ..." : "") + ")"));
        }
        if (key.nulls() > 0) {
            faults.add("null in " + Counted.of(key.nulls(), "row"));
        }
        if (key.illTyped()) {
            faults.add("values that are not of their type");
        }
        return String.join(", ", faults);
    }
}
