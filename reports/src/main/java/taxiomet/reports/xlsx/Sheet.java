package taxiomet.reports.xlsx;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.dhatim.fastexcel.RichText;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * A sheet with some lines above and a table below, whose rows are written as they come; what has no room goes on in a sheet of the same
 * kind.
 */
final class Sheet implements AutoCloseable {
    private static final int ROWS_AT_ONCE = 500;
    private static final String HEAD_FILL = "E4E8DF";
    private static final String FAULT_FILL = "F9E0CF";
    private static final String DAY = "yyyy-mm-dd";
    private static final String MOMENT = "yyyy-mm-dd hh:mm:ss";

    private final Workbook workbook;
    private final SheetNames names;
    private final String name;
    private final List<String> above;
    private final List<Head> heads;
    private final int mostRows;
    private Worksheet sheet;
    private int row;
    private int headRow;

    /**
     * A column of the table.
     *
     * @param width in characters
     * @param isMarked whether the fault stands in it; its head says so, too
     */
    record Head(String text, int width, boolean isMarked) {}

    /**
     * @param above lines before the table, the first of them the title
     * @param mostRows how many rows a sheet can have
     */
    Sheet(Workbook workbook, SheetNames names, String name, List<String> above, List<Head> heads, int mostRows) {
        this.workbook = workbook;
        this.names = names;
        this.name = name;
        this.above = List.copyOf(above);
        this.heads = List.copyOf(heads);
        this.mostRows = mostRows;
        begin(above);
    }

    private void begin(List<String> lines) {
        sheet = workbook.newWorksheet(names.next(name));
        row = 0;
        for (String line : lines) {
            sheet.inlineString(row, 0, CellValue.safe(line));
            if (row == 0) {
                sheet.style(row, 0).bold().fontSize(13).set();
            }
            row++;
        }
        row++;
        headRow = row;
        for (int i = 0; i < heads.size(); i++) {
            Head head = heads.get(i);
            sheet.inlineString(row, i, CellValue.safe(head.text()));
            sheet.style(row, i)
                    .bold()
                    .fillColor(head.isMarked() ? FAULT_FILL : HEAD_FILL)
                    .wrapText(true)
                    .set();
            sheet.width(i, head.width());
        }
        row++;
        sheet.freezePane(0, row);
        sheet.repeatRows(headRow);
    }

    /** Writes one row: texts, numbers, dates and moments; null for an empty cell. */
    void add(List<?> cells) {
        if (row == mostRows) {
            end();
            begin(List.of(above.get(0) + ", continued"));
        }
        for (int i = 0; i < cells.size(); i++) {
            write(i, cells.get(i));
            if (i < heads.size() && heads.get(i).isMarked()) {
                mark(i, cells.get(i));
            }
        }
        row++;
        if (row % ROWS_AT_ONCE == 0) {
            flush();
        }
    }

    private void write(int column, Object cell) {
        if (cell instanceof BigDecimal number) {
            sheet.value(row, column, number);
        } else if (cell instanceof Long number) {
            sheet.value(row, column, number);
        } else if (cell instanceof LocalDate day) {
            sheet.value(row, column, day);
            sheet.style(row, column).format(DAY).set();
        } else if (cell instanceof LocalDateTime moment) {
            sheet.value(row, column, moment);
            sheet.style(row, column).format(MOMENT).set();
        } else if (cell instanceof String text && !text.isEmpty()) {
            writeText(column, CellValue.safe(text));
        }
    }

    /** Blanks at an end are kept only where it is asked for. */
    private void writeText(int column, String text) {
        if (text.strip().equals(text) && text.indexOf('\n') < 0) {
            sheet.inlineString(row, column, text);
        } else {
            sheet.inlineString(row, column, RichText.builder().run(text).end().build());
        }
    }

    private void mark(int column, Object cell) {
        var style = sheet.style(row, column).fillColor(FAULT_FILL);
        if (cell instanceof LocalDate) {
            style.format(DAY);
        } else if (cell instanceof LocalDateTime) {
            style.format(MOMENT);
        }
        style.set();
    }

    private void flush() {
        try {
            sheet.flush();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void end() {
        if (row > headRow + 1) {
            sheet.setAutoFilter(headRow, 0, row - 1, heads.size() - 1);
        }
        try {
            sheet.finish();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() {
        end();
    }
}
