package taxiomet.reports.xlsx;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.dhatim.fastexcel.ProtectionOption;
import org.dhatim.fastexcel.SheetProtectionOption;
import org.dhatim.fastexcel.VisibilityState;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import taxiomet.finding.settled.Docket;
import taxiomet.finding.settled.Docket.Choice;
import taxiomet.finding.settled.Docket.Item;
import taxiomet.reports.OutputException;
import taxiomet.reports.words.Counted;
import taxiomet.reports.words.DocketWords;

/**
 * A docket as a workbook: a cover in plain words, a sheet with a line for each faulty row and a list of what can be decided about it, and a
 * hidden sheet with these lists. Nothing but the columns for decisions can be edited, until somebody lifts the protection, which has no
 * password.
 */
public final class DocketWorkbook {
    /** The sheet that is filled in. */
    public static final String SHEET = "decisions";

    private static final String FORM = "1.0";
    private static final double LINE_HEIGHT = 15;
    private static final int MOST_LINES = 12;
    private static final int COVER_WIDTH = 110;
    private static final int MOST_ITEMS = 200_000;
    private static final String HEAD_FILL = "E4E8DF";
    private static final String FAULT_FILL = "F9E0CF";
    private static final String OPEN_FILL = "FFFBEA";
    private static final String LINE = "D8D3C6";
    private static final Map<String, Integer> WIDTHS = Map.ofEntries(
            Map.entry("finding", 26),
            Map.entry("table", 12),
            Map.entry("row", 26),
            Map.entry("at fault", 14),
            Map.entry("holds", 20),
            Map.entry("what is wrong", 34),
            Map.entry("proposed", 30),
            Map.entry(DocketWords.DECISION, 34),
            Map.entry(DocketWords.NEW_VALUE, 16),
            Map.entry(DocketWords.UNTIL, 12),
            Map.entry(DocketWords.REASON, 26),
            Map.entry(DocketWords.DECIDED_BY, 14),
            Map.entry("the whole row", 60),
            Map.entry(DocketWords.REFERENCE, 20));

    private final Docket docket;
    private final Workbook workbook;

    private DocketWorkbook(Docket docket, Workbook workbook) {
        this.docket = docket;
        this.workbook = workbook;
    }

    /**
     * Writes a docket.
     *
     * @param owner who decides; empty for all
     * @throws OutputException when the file cannot be written
     */
    public static void write(Docket docket, String owner, Path file) {
        if (docket.items().size() > MOST_ITEMS) {
            throw new OutputException(
                    file.toString(),
                    Counted.grouped(docket.items().size()) + " rows are more than a workbook of decisions can hold",
                    "name tables with --only, or write .csv");
        }
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file));
                Workbook workbook = new Workbook(out, "taxiomet", FORM)) {
            DocketWorkbook made = new DocketWorkbook(docket, workbook);
            made.writeCover(owner);
            made.writeDecisions();
        } catch (UncheckedIOException e) {
            throw OutputException.of(file.toString(), e.getCause());
        } catch (IOException e) {
            throw OutputException.of(file.toString(), e);
        }
    }

    private void writeCover(String owner) {
        Worksheet sheet = workbook.newWorksheet("cover");
        List<String> lines = DocketWords.cover(docket, owner);
        sheet.width(0, COVER_WIDTH);
        for (int i = 0; i < lines.size(); i++) {
            sheet.inlineString(i, 0, CellValue.safe(lines.get(i)));
            if (i == 0) {
                sheet.style(i, 0).bold().fontSize(14).set();
            } else {
                sheet.style(i, 0).wrapText(true).set();
                sheet.rowHeight(i, LINE_HEIGHT * lines(lines.get(i), COVER_WIDTH));
            }
        }
        sheet.hideGridLines();
        protect(sheet);
    }

    private static void protect(Worksheet sheet) {
        sheet.protect(
                "",
                SheetProtectionOption.SHEET,
                SheetProtectionOption.OBJECTS,
                SheetProtectionOption.DELETE_COLUMNS,
                SheetProtectionOption.INSERT_COLUMNS,
                SheetProtectionOption.INSERT_ROWS);
    }

    private void writeDecisions() {
        Worksheet sheet = workbook.newWorksheet(SHEET);
        Worksheet lists = workbook.newWorksheet("choices");
        List<String> columns = docket.items().isEmpty() ? List.of("nothing to decide") : DocketWords.COLUMNS;
        for (int i = 0; i < columns.size(); i++) {
            sheet.inlineString(0, i, columns.get(i));
            boolean isOpen = DocketWords.TO_FILL.contains(columns.get(i));
            sheet.style(0, i)
                    .bold()
                    .fillColor(isOpen ? OPEN_FILL : HEAD_FILL)
                    .borderStyle("thin")
                    .borderColor(LINE)
                    .wrapText(true)
                    .set();
            sheet.width(i, WIDTHS.getOrDefault(columns.get(i), 20));
        }
        sheet.freezePane(3, 1);
        for (int i = 0; i < docket.items().size(); i++) {
            write(docket.items().get(i), i + 1, columns, sheet, lists);
        }
        if (!docket.items().isEmpty()) {
            sheet.setAutoFilter(0, 0, docket.items().size(), columns.size() - 1);
        }
        sheet.repeatRows(0);
        sheet.pageOrientation("landscape");
        sheet.fitToWidth((short) 1);
        sheet.fitToHeight((short) 0);
        lists.setVisibilityState(VisibilityState.HIDDEN);
        protect(sheet);
        protect(lists);
    }

    /** How many lines a text takes in a cell, about. */
    private static int lines(String text, int width) {
        return 1 + text.length() / Math.max(1, width - 2);
    }

    private static void write(Item item, int row, List<String> columns, Worksheet sheet, Worksheet lists) {
        Map<String, String> shown = DocketWords.shown(item);
        int most = 1;
        for (int i = 0; i < columns.size(); i++) {
            String column = columns.get(i);
            String text = column.equals(DocketWords.REFERENCE) ? item.reference() : shown.getOrDefault(column, "");
            if (!text.isEmpty()) {
                sheet.inlineString(row, i, CellValue.safe(text));
                boolean isWrapped = !column.equals("the whole row");
                most = isWrapped ? Math.max(most, lines(text, WIDTHS.getOrDefault(column, 20))) : most;
            }
            boolean isOpen = DocketWords.TO_FILL.contains(column);
            var style = sheet.style(row, i)
                    .borderStyle("thin")
                    .borderColor(LINE)
                    .verticalAlignment("top")
                    .wrapText(!column.equals("the whole row"));
            if (isOpen) {
                style.fillColor(OPEN_FILL)
                        .protectionOption(ProtectionOption.LOCKED, false)
                        .format("@");
            } else if (column.equals("holds")) {
                style.fillColor(FAULT_FILL);
            }
            style.set();
        }
        // Not every program finds out how high a line has to be.
        sheet.rowHeight(row, LINE_HEIGHT * Math.min(most, MOST_LINES));
        int place = 0;
        for (Choice choice : item.choices()) {
            lists.inlineString(row, place++, CellValue.safe(DocketWords.words(choice)));
        }
        int decision = columns.indexOf(DocketWords.DECISION);
        sheet.range(row, decision, row, decision)
                .validateWithList(lists.range(row, 0, row, place - 1))
                .allowBlank(true)
                .showErrorMessage(true)
                .errorTitle("none of the choices")
                .error("Choose one from the list, or leave the cell empty.");
    }

    /** What a cell of a workbook shows for a text. */
    public static String asShown(String text) {
        return CellValue.safe(text);
    }
}
