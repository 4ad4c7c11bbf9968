package taxiomet.charters.proposals;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import java.util.ArrayList;
import java.util.List;

/** Takes the lines of a CSV file, and tells an empty field (null) from an empty text in quotes. */
final class LineHandler extends CsvCallbackHandler<LineHandler.Line> {
    private List<String> cells = new ArrayList<>();
    private long number;
    private boolean isEmpty;

    /**
     * A line of the file.
     *
     * @param number from 1
     * @param cells null where a field is empty and without quotes
     */
    record Line(long number, List<String> cells) {}

    @Override
    protected void beginRecord(long startingLine) {
        number = startingLine;
        isEmpty = false;
        cells = new ArrayList<>();
    }

    @Override
    protected void addField(char[] buffer, int offset, int length, boolean isQuoted) {
        cells.add(length == 0 && !isQuoted ? null : new String(buffer, offset, length));
    }

    @Override
    protected Line buildRecord() {
        return new Line(number, cells);
    }

    @Override
    protected void setEmpty() {
        isEmpty = true;
    }

    @Override
    protected void setComment(char[] buffer, int offset, int length) {
        throw new IllegalStateException("comments are switched off");
    }

    @Override
    protected RecordType getRecordType() {
        return isEmpty ? RecordType.EMPTY : RecordType.DATA;
    }

    @Override
    protected int getFieldCount() {
        return cells.size();
    }
}
