package taxiomet.sources.csv;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import java.util.List;

/** Collects the names in the first record that is not an empty line. */
final class HeaderHandler extends CsvCallbackHandler<Boolean> {
    private final List<String> names;
    private boolean isEmpty;
    private int fields;

    HeaderHandler(List<String> names) {
        this.names = names;
    }

    @Override
    protected void beginRecord(long startingLine) {
        fields = 0;
        isEmpty = false;
    }

    @Override
    protected void addField(char[] buffer, int offset, int length, boolean isQuoted) {
        fields++;
        names.add(new String(buffer, offset, length));
    }

    @Override
    protected Boolean buildRecord() {
        return true;
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
        return fields;
    }
}
